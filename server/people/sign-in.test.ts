import { afterAll, beforeAll, describe, expect, test } from "vitest";
import * as contract from "#contract";
import { codeOf } from "../../demo/authenticator.ts";
import { part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { browserAt } from "../testing-browser.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const good = "otters like cold porridge";
const other = "seven green ladders sleep";

const browser = () => browserAt(() => house.base);

const lead = browser();
let setUpToken = "";
const setUp = { name: "Ms Harrow", school: "Marlpit Lock School", timeZone: "Europe/London" };

describe("a school that no one has set up", () => {
  test("answers to whoever sits at its machine, and to no one else", async () => {
    const told = await lead.ask(contract.whoAsks, {});
    expect(told).toMatchObject({ me: { way: "machine", role: "lead" }, ready: false, demo: false });
    // Passed on by a proxy, or asked under a name of the network: someone elsewhere.
    const elsewhere = await fetch(`${house.base}/api/school`, { headers: { "x-forwarded-for": "10.0.0.7" } });
    expect(elsewhere.status).toBe(403);
  });

  test("is set up once, with a link: a bad one, a common passphrase and a second use are a sentence each", async () => {
    setUpToken = (await house.school.invitations.invite(null, house.now)).token;
    const params = { token: setUpToken };
    expect(await lead.ask(contract.getInvitation, { params })).toMatchObject({
      who: null,
      school: { zoneChosen: false },
    });
    expect((await lead.send(contract.getInvitation, { params: { token: "x".repeat(32) } })).status).toBe(404);
    const refused = async (body: object) =>
      (await lead.send(contract.acceptInvitation, { params, body })).content.fields;
    expect(await refused({ passphrase: "short", setUp })).toMatchObject([{ field: "passphrase" }]);
    expect(await refused({ passphrase: "a".repeat(10_000), setUp })).toMatchObject([{ field: "passphrase" }]);
    for (const passphrase of [
      "passwordpassword",
      "qwertyuiop123",
      "abcdefghijklm",
      "Marlpit Lock School",
      "Ms Harrow 2026!",
    ])
      expect(await refused({ passphrase, setUp }), passphrase).toMatchObject([
        { field: "passphrase", says: /first that/ },
      ]);
    expect(await refused({ passphrase: good, setUp: { ...setUp, timeZone: "Mars/Base" } })).toMatchObject([
      { field: "setUp.timeZone" },
    ]);
    expect(await refused({ passphrase: good, setUp: null })).toMatchObject([{ field: "setUp" }]);
    const done = await lead.send(contract.acceptInvitation, { params, body: { passphrase: good, setUp } });
    expect(done.status).toBe(200);
    expect(done.set.join()).toMatch(/HttpOnly/i);
    expect(done.set.join()).toMatch(/SameSite=Lax/i);
    expect(await lead.ask(contract.whoAsks, {})).toMatchObject({
      me: { way: "signed-in", role: "lead", name: "Ms Harrow" },
      ready: true,
      school: { name: "Marlpit Lock School" },
    });
    const again = await browser().send(contract.acceptInvitation, { params, body: { passphrase: other, setUp } });
    expect([again.status, again.content.detail]).toEqual([404, expect.stringContaining("used already")]);
    expect((await browser().send(contract.getSchool)).status).toBe(401);
    expect((await lead.ask(contract.getSchool, {})).timeZone).toBe("Europe/London");
  });

  test("two who use one link in the same moment: one comes in", async () => {
    const id = crypto.randomUUID();
    const body = { id, name: "Mx Twice", role: "teacher" as const, classIds: [], groupIds: [], typedNames: [] };
    await lead.ask(contract.addPerson, { body });
    const { token } = await lead.ask(contract.invitePerson, { params: { id } });
    const using = { params: { token }, body: { passphrase: good, setUp: null } };
    const both = await Promise.all([1, 2].map(() => browser().send(contract.acceptInvitation, using)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 404]);
    await lead.ask(contract.removePerson, { params: { id } });
  });
});

describe("people", () => {
  const teacher = browser();
  const id = crypto.randomUUID();
  const person = { name: "Mr Birk", role: "teacher" as const, classIds: [], groupIds: [], typedNames: [] };

  test("are added, invited, and come in by their link; it ends when it is used, ended, too old or made anew", async () => {
    await lead.ask(contract.addPerson, { body: { id, ...person } });
    await lead.ask(contract.addPerson, { body: { id, ...person } });
    const twin = { body: { id: crypto.randomUUID(), ...person, name: "mr birk" } };
    expect((await lead.send(contract.addPerson, twin)).content.fields).toMatchObject([{ field: "name" }]);
    const first = await lead.ask(contract.invitePerson, { params: { id } });
    const second = await lead.ask(contract.invitePerson, { params: { id } });
    const statusOf = async (token: string) =>
      (await teacher.send(contract.getInvitation, { params: { token } })).status;
    expect([await statusOf(first.token), await statusOf(second.token)]).toEqual([404, 200]);
    const before = house.now;
    house.now = new Date(before.getTime() + 7 * 86_400_000);
    expect(await statusOf(second.token)).toBe(404);
    house.now = new Date(before.getTime() + 7 * 86_400_000 - 60_000);
    expect(await statusOf(second.token)).toBe(200);
    house.now = before;
    await teacher.ask(contract.acceptInvitation, {
      params: { token: second.token },
      body: { passphrase: good, setUp: null },
    });
    expect(await teacher.ask(contract.whoAsks, {})).toMatchObject({ me: { id, role: "teacher", name: "Mr Birk" } });
    expect((await teacher.send(contract.listPeople)).status).toBe(403);
    const { people } = await lead.ask(contract.listPeople, {});
    expect(people.map(({ name, signsIn }) => [name, signsIn])).toEqual([
      ["Mr Birk", "yes"],
      ["Ms Harrow", "yes"],
    ]);
  });

  test("sign in by name and passphrase; a wrong name and a wrong passphrase are told alike, and too many stop for a while", async () => {
    const device = browser();
    const signIn = (name: string, passphrase: string) =>
      device.send(contract.signIn, { body: { name, passphrase, keep: true } });
    const wrong = [await signIn("Mr Birk", "not this one at all"), await signIn("Mr Nobody", good)];
    expect(wrong.map(({ status }) => status)).toEqual([401, 401]);
    expect(wrong[0]?.content).toEqual(wrong[1]?.content);
    expect((await signIn("mr BIRK", good)).status).toBe(200);
    expect((await device.ask(contract.whoAsks, {})).me?.name).toBe("Mr Birk");
    await device.ask(contract.signOut, {});
    expect((await device.ask(contract.whoAsks, {})).me).toBeNull();
    expect((await device.send(contract.getSchool)).status).toBe(401);
    const tried = [];
    for (let at = 0; at < 22; at++) tried.push((await signIn("Mr Birk", "still not this one")).status);
    expect(new Set(tried)).toEqual(new Set([401, 429]));
    const stopped = await signIn("Mr Birk", good);
    expect([stopped.status, stopped.content.detail]).toEqual([429, expect.stringMatching(/Wait \d+ minutes/)]);
    // Who is in stays in, and another name can sign in meanwhile.
    expect((await teacher.send(contract.getSchool)).status).toBe(200);
    expect(
      (await device.send(contract.signIn, { body: { name: "Ms Harrow", passphrase: good, keep: false } })).status,
    ).toBe(200);
  });

  test("change their passphrase, see their devices and sign out elsewhere", async () => {
    const [one, two] = [browser(), browser()];
    for (const device of [one, two])
      await device.ask(contract.signIn, { body: { name: "Ms Harrow", passphrase: good, keep: true } });
    const devices = await one.ask(contract.listMyDevices, {});
    expect(devices.length).toBeGreaterThan(2);
    expect(devices.filter(({ here }) => here)).toHaveLength(1);
    await one.ask(contract.endMyOtherDevices, {});
    expect([(await one.send(contract.getSchool)).status, (await two.send(contract.getSchool)).status]).toEqual([
      200, 401,
    ]);
    const wrong = await one.send(contract.changePassphrase, { body: { before: "not this one", passphrase: other } });
    expect([wrong.status, wrong.content.fields?.[0]?.field]).toEqual([422, "passphrase"]);
    await one.ask(contract.changePassphrase, { body: { before: good, passphrase: other } });
    expect((await one.send(contract.getSchool)).status).toBe(200);
    const signIn = (passphrase: string) =>
      two.send(contract.signIn, { body: { name: "Ms Harrow", passphrase, keep: true } });
    expect([(await signIn(good)).status, (await signIn(other)).status]).toEqual([401, 200]);
    lead.jar.clear();
    await lead.ask(contract.signIn, { body: { name: "Ms Harrow", passphrase: other, keep: true } });
  });

  test("have a second factor where they want one; a new link from the lead takes it off", async () => {
    const begun = await teacher.ask(contract.beginSecondFactor, { body: { passphrase: good } });
    expect(begun.address).toMatch(/^otpauth:\/\/totp\/Keen%20Sapling/);
    expect((await teacher.send(contract.confirmSecondFactor, { body: { code: "000000" } })).status).toBe(422);
    await teacher.ask(contract.confirmSecondFactor, { body: { code: codeOf(begun.secret) } });
    expect((await teacher.ask(contract.whoAsks, {})).me?.secondFactor).toBe(true);
    house.now = new Date(house.now.getTime() + 1);
    const { token } = await lead.ask(contract.invitePerson, { params: { id } });
    await browser().ask(contract.acceptInvitation, { params: { token }, body: { passphrase: other, setUp: null } });
    // The link ended what was signed in before.
    expect((await teacher.send(contract.getSchool)).status).toBe(401);
  });

  test("with a second factor come in by the code after the passphrase", async () => {
    const wanted = { id: crypto.randomUUID(), ...person, name: "Miss Aldous" };
    await lead.ask(contract.addPerson, { body: wanted });
    const { token } = await lead.ask(contract.invitePerson, { params: { id: wanted.id } });
    const device = browser();
    await device.ask(contract.acceptInvitation, { params: { token }, body: { passphrase: good, setUp: null } });
    const { secret } = await device.ask(contract.beginSecondFactor, { body: { passphrase: good } });
    await device.ask(contract.confirmSecondFactor, { body: { code: codeOf(secret) } });
    const fresh = browser();
    const { second } = await fresh.ask(contract.signIn, {
      body: { name: wanted.name, passphrase: good, keep: true },
    });
    expect(second).toBe(true);
    expect((await fresh.ask(contract.whoAsks, {})).me).toBeNull();
    expect((await fresh.send(contract.getSchool)).status).toBe(401);
    expect((await fresh.send(contract.signInSecond, { body: { code: "000000" } })).status).toBe(401);
    const code = codeOf(secret);
    await fresh.ask(contract.signInSecond, { body: { code } });
    expect((await fresh.ask(contract.whoAsks, {})).me?.name).toBe(wanted.name);
    // Whoever looked over a shoulder has the passphrase and the code: it opens nothing a second time.
    const onlooker = browser();
    await onlooker.ask(contract.signIn, { body: { name: wanted.name, passphrase: good, keep: true } });
    const again = await onlooker.send(contract.signInSecond, { body: { code } });
    expect([again.status, again.content.detail]).toEqual([401, expect.stringMatching(/used already/)]);
    expect((await onlooker.ask(contract.whoAsks, {})).me).toBeNull();
    expect((await onlooker.send(contract.getSchool)).status).toBe(401);
    expect((await fresh.ask(contract.whoAsks, {})).me?.name).toBe(wanted.name);
    await fresh.ask(contract.endSecondFactor, { body: { passphrase: good } });
    expect((await fresh.ask(contract.whoAsks, {})).me?.secondFactor).toBe(false);
  });

  test("that are leads do nothing before a second factor is set up, where the school wants one of them", async () => {
    const passphrase = other;
    const version = async () => (await lead.ask(contract.getSchool, {})).version;
    const need = (leadsNeedSecond: boolean, onto: number) =>
      lead.send(contract.setLeadsSecond, { body: { version: onto, leadsNeedSecond } });
    // Whoever turns it on has one.
    const refused = await need(true, await version());
    expect([refused.status, refused.content.detail]).toEqual([
      422,
      expect.stringMatching(/your own second factor first/),
    ]);
    const { secret } = await lead.ask(contract.beginSecondFactor, { body: { passphrase } });
    await lead.ask(contract.confirmSecondFactor, { body: { code: codeOf(secret) } });
    const onto = await version();
    expect((await need(true, onto)).status).toBe(200);
    expect((await need(false, onto)).status).toBe(409);
    expect((await lead.ask(contract.listPeople, {})).leadsNeedSecond).toBe(true);
    const end = await lead.send(contract.endSecondFactor, { body: { passphrase } });
    expect([end.status, end.content.detail]).toEqual([
      422,
      expect.stringMatching(/wants a second factor of its leads/),
    ]);

    const wanted = { id: crypto.randomUUID(), ...person, role: "lead" as const, name: "Miss Tarrant" };
    await lead.ask(contract.addPerson, { body: wanted });
    const { token } = await lead.ask(contract.invitePerson, { params: { id: wanted.id } });
    const second = browser();
    await second.ask(contract.acceptInvitation, { params: { token }, body: { passphrase: good, setUp: null } });
    expect((await second.ask(contract.whoAsks, {})).me).toMatchObject({ lacksSecond: true, secondFactor: false });
    for (const one of [contract.listPeople, contract.getGaps, contract.readTrail])
      expect((await second.send(one)).status, one.path).toBe(403);
    // Children, groups and sessions are not shown either.
    expect(await second.ask(contract.listGroups, {})).toEqual([]);
    const own = await second.ask(contract.beginSecondFactor, { body: { passphrase: good } });
    await second.ask(contract.confirmSecondFactor, { body: { code: codeOf(own.secret) } });
    expect((await second.ask(contract.whoAsks, {})).me).toMatchObject({ lacksSecond: false, role: "lead" });
    expect((await second.send(contract.listPeople)).status).toBe(200);

    expect((await need(false, await version())).status).toBe(200);
    await lead.ask(contract.endSecondFactor, { body: { passphrase } });
    await lead.ask(contract.removePerson, { params: { id: wanted.id } });
  });

  test("come in by a code on a shared device, and on no other; wrong ones stop, and a passphrase works all the while", async () => {
    const tablet = browser();
    const signIn = () => tablet.ask(contract.signIn, { body: { name: "Ms Harrow", passphrase: other, keep: false } });
    await signIn();
    expect((await tablet.send(contract.setMyCode, { body: { code: "4711" } })).status).toBe(422);
    const deviceId = crypto.randomUUID();
    const letIn = { body: { id: deviceId, name: "Reading room tablet" } };
    const told = await tablet.send(contract.letDeviceIn, letIn);
    expect(told.set.join()).toMatch(/keen\.device=[\w-]{32}; Path=\/; Max-Age=\d+; HttpOnly; SameSite=Lax$/);
    expect((await tablet.send(contract.letDeviceIn, letIn)).set).toEqual([]);
    expect((await tablet.send(contract.setMyCode, { body: { code: "1111" } })).status).toBe(422);
    await tablet.ask(contract.setMyCode, { body: { code: "4711" } });
    const me = (await tablet.ask(contract.whoAsks, {})).me?.id ?? "";
    await tablet.ask(contract.signOut, {});
    // Locked: it says who may come in, and nothing of a child.
    const door = await tablet.ask(contract.whoAsks, {});
    expect(door).toMatchObject({
      me: null,
      device: { name: "Reading room tablet", people: [{ id: me, name: "Ms Harrow" }] },
    });
    expect((await tablet.send(contract.listChildren)).status).toBe(401);
    const by = (code: string, from = tablet) => from.send(contract.signInByCode, { body: { memberId: me, code } });
    // The same code, known elsewhere.
    expect((await by("4711", browser())).status).toBe(401);
    expect((await by("4712")).status).toBe(401);
    const came = await by("4711");
    expect(came.status).toBe(200);
    expect(came.set.join()).not.toMatch(/session_token=[^;]+; Max-Age/);
    expect((await tablet.ask(contract.whoAsks, {})).me?.id).toBe(me);
    await tablet.ask(contract.signOut, {});
    const tried = [];
    for (let at = 0; at < 7; at++) tried.push((await by("9876")).status);
    expect(tried.at(-1)).toBe(429);
    expect((await by("4711")).status).toBe(429);
    await signIn();
    const { devices } = await tablet.ask(contract.listDevices, {});
    expect(devices).toMatchObject([{ id: deviceId, people: 1, here: true }]);
    await tablet.ask(contract.endDevice, { params: { id: deviceId } });
    expect((await tablet.ask(contract.whoAsks, {})).device).toBeNull();
  });

  test("what is live ends for who is taken out while they listen", async () => {
    const { orders } = await lead.ask(contract.getSchool, {});
    const [classId, childId, memberId] = [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()];
    const reed = { id: classId, name: "Sedge", yearGroup: "", orderId: orders[0]?.id ?? "" };
    await lead.ask(contract.addClass, { body: reed });
    const taught = { id: crypto.randomUUID(), stepId: "s14", taughtOn: "2026-11-02", at: "2026-11-20T08:00:00.000Z" };
    await lead.ask(contract.markTaught, { params: { id: classId }, body: taught });
    await lead.ask(contract.addChild, { body: { id: childId, classId, name: "Teal R.", note: "" } });
    const { sittingId } = await beginSitting(lead, childId);
    await lead.ask(contract.addPerson, { body: { ...person, id: memberId, name: "Mx Reeve", classIds: [classId] } });
    const { token } = await lead.ask(contract.invitePerson, { params: { id: memberId } });
    const listens = browser();
    await listens.ask(contract.acceptInvitation, { params: { token }, body: { passphrase: good, setUp: null } });
    const cookie = [...listens.jar].map(([name, value]) => `${name}=${value}`).join("; ");
    const stream = await fetch(house.base + contract.livePaths.desk(sittingId), { headers: { cookie } });
    expect(stream.status).toBe(200);
    let over = false;
    const read = (async () => {
      for await (const _ of stream.body ?? []);
      over = true;
    })();
    await new Promise((done) => setTimeout(done, 200));
    expect(over).toBe(false);
    await lead.ask(contract.removePerson, { params: { id: memberId } });
    await read;
    expect(over).toBe(true);
  });

  test("the last lead stays; of two leads who take each other out one is left; a role counts at once", async () => {
    const { me } = await lead.ask(contract.whoAsks, {});
    const own = (await lead.ask(contract.listPeople, {})).people.find((one) => one.id === me?.id);
    if (!own) throw new Error("no lead");
    const { version, classIds, groupIds, typedNames, name } = own;
    const less = { params: { id: own.id }, body: { version, name, role: "teacher", classIds, groupIds, typedNames } };
    expect((await lead.send(contract.editPerson, less)).status).toBe(422);
    expect((await lead.send(contract.removePerson, { params: { id: own.id } })).content.detail).toMatch(/last lead/);
    // What was refused was not done, and does not stand in the trail.
    const wanted = { query: { did: "person-removed", about: own.id } } as const;
    expect((await lead.ask(contract.readTrail, wanted)).rows).toEqual([]);
    const second = { id: crypto.randomUUID(), ...person, name: "Dr Tamm", role: "lead" as const };
    await lead.ask(contract.addPerson, { body: second });
    const { token } = await lead.ask(contract.invitePerson, { params: { id: second.id } });
    const tamm = browser();
    await tamm.ask(contract.acceptInvitation, { params: { token }, body: { passphrase: good, setUp: null } });
    const told = await Promise.all([
      lead.send(contract.removePerson, { params: { id: second.id } }),
      tamm.send(contract.removePerson, { params: { id: own.id } }),
    ]);
    expect(told.map(({ status }) => status).filter((status) => status === 200)).toHaveLength(1);
    const left = await house.school.people.list();
    expect(left.filter(({ role }) => role === "lead")).toHaveLength(1);
    const [stays, gone] = told[0]?.status === 200 ? [lead, tamm] : [tamm, lead];
    expect([(await stays.send(contract.getSchool)).status, (await gone.send(contract.getSchool)).status]).toEqual([
      200, 401,
    ]);
    if (stays !== lead) for (const [key, value] of stays.jar) lead.jar.set(key, value);
  });

  test("the trail says who came in, tried, saw and changed, without a child's name, and can be searched", async () => {
    const { orders } = await lead.ask(contract.getSchool, {});
    const classId = crypto.randomUUID();
    const childId = crypto.randomUUID();
    await lead.ask(contract.addClass, {
      body: { id: classId, name: "Reed", yearGroup: "", orderId: orders[0]?.id ?? "" },
    });
    await lead.ask(contract.addChild, { body: { id: childId, classId, name: "Wren T.", note: "" } });
    for (let at = 0; at < 3; at++) await lead.ask(contract.getChild, { params: { id: childId } });
    const { rows } = await lead.ask(contract.readTrail, { query: {} });
    const kinds = new Set(rows.map(({ did }) => did));
    for (const did of ["set-up", "sign-in", "sign-in-failed", "sign-out", "invited", "person", "child-seen"] as const)
      expect(kinds, did).toContain(did);
    const seen = (await lead.ask(contract.readTrail, { query: { about: childId, did: "child-seen" } })).rows;
    expect(seen).toMatchObject([{ name: "Wren T.", count: 1 }]);
    expect((await lead.ask(contract.readTrail, { query: { to: "2026-11-19" } })).rows).toEqual([]);
    const kept = (await house.store.owner.execute("select * from trail")) as unknown as { rows: unknown[] };
    expect(JSON.stringify(kept.rows)).not.toContain("Wren");
    expect(house.logged.join()).not.toContain("Wren");
    // A trail that cannot be written fails what it would have spoken of.
    await house.store.owner.execute("alter table trail add constraint never check (did <> 'child-erased') not valid");
    const erasing = { params: { id: childId }, body: { name: "Wren T." } };
    expect((await lead.send(contract.eraseChild, erasing)).status).toBeGreaterThanOrEqual(400);
    expect((await lead.send(contract.getChild, { params: { id: childId } })).status).toBe(200);
    await house.store.owner.execute("alter table trail drop constraint never");
  });
});

/** Begins a check of one card part with a child. */
async function beginSitting({ ask }: ReturnType<typeof browser>, childId: string): Promise<{ sittingId: string }> {
  const sittingId = crypto.randomUUID();
  await ask(contract.startSitting, {
    body: {
      id: sittingId,
      name: "Check",
      sections: [part("card", { scope: "all" })],
      children: [{ childId, seed: 1, checkIds: [crypto.randomUUID()] }],
      startedAt: "2026-11-20T08:45:00.000Z",
    },
  });
  return { sittingId };
}
