import { afterAll, beforeAll, describe, expect, test } from "vitest";
import * as contract from "#contract";
import { passkeyDevice } from "../../demo/passkey-device.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { browserAt } from "../testing-browser.ts";

const good = "otters like cold porridge";
const setUp = { name: "Ms Harrow", school: "Marlpit Lock School", timeZone: "Europe/London" };

let house: TestHouse;
/** A passkey is for a name: a number has none. */
const base = () => house.base.replace("127.0.0.1", "localhost");
const browser = () => browserAt(base);
const lead = browser();
let device: ReturnType<typeof passkeyDevice>;

beforeAll(async () => {
  house = await openTestHouse();
  device = passkeyDevice(base());
  const params = { token: (await house.school.invitations.invite(null, house.now)).token };
  await lead.ask(contract.acceptInvitation, { params, body: { passphrase: good, setUp } });
});
afterAll(() => house.close());

const begin = () => lead.ask(contract.beginPasskey, { body: { passphrase: good } });
const keep = (made: contract.MadePasskey, id: string = crypto.randomUUID()) =>
  lead.send(contract.addPasskey, { body: { id, name: "My tablet", made } });
const comeInWith = async (shown: contract.ShownPasskey, by = browser()) => ({
  by,
  ...(await by.send(contract.signInByPasskey, { body: { shown, keep: true } })),
});
const asked = () => browser().ask(contract.askForPasskey, {});
const names = async () => (await lead.ask(contract.listPasskeys, {})).map(({ name }) => name);
const forget = async () => {
  for (const { id } of await lead.ask(contract.listPasskeys, {}))
    await lead.ask(contract.removePasskey, { params: { id } });
};

describe("a passkey", () => {
  test("is made by who knows the passphrase, and opens the school without name, passphrase or code", async () => {
    const wrong = await lead.send(contract.beginPasskey, { body: { passphrase: "not this one" } });
    expect([wrong.status, wrong.content.fields]).toMatchObject([422, [{ field: "passphrase" }]]);
    const options = await begin();
    expect(options).toMatchObject({
      rp: { id: "localhost", name: "Marlpit Lock School" },
      user: { name: "Ms Harrow" },
      authenticatorSelection: { residentKey: "required", userVerification: "required" },
    });
    const [made, id] = [device.make(options), crypto.randomUUID()];
    expect((await keep(made, id)).status).toBe(200);
    // The answer was lost, and it is sent once more.
    expect((await keep(made, id)).status).toBe(200);
    expect(await lead.ask(contract.listPasskeys, {})).toMatchObject([{ id, name: "My tablet", usedAt: null }]);
    const told = await comeInWith(device.show(await asked()));
    expect(told.status).toBe(200);
    expect(told.set.join()).toMatch(/HttpOnly.*SameSite=Lax/is);
    expect(await told.by.ask(contract.whoAsks, {})).toMatchObject({ me: { name: "Ms Harrow", way: "signed-in" } });
    expect(await lead.ask(contract.listPasskeys, {})).toMatchObject([{ usedAt: house.now.toISOString() }]);
    const trail = await lead.ask(contract.readTrail, { query: {} });
    expect(trail.rows.map(({ did }) => did).filter((did) => did === "passkey")).toEqual(["passkey"]);
    // The one that is there already is not made a second time on the same device.
    expect((await begin()).excludeCredentials).toMatchObject([{ id: made.id }]);
    await forget();
  });

  test("is not kept when it was made elsewhere, without a look at the person, for someone else, twice or too late", async () => {
    const options = await begin();
    const refused = async (made: contract.MadePasskey) => {
      const { status, content } = await keep(made);
      expect([status, content.detail]).toEqual([422, expect.stringContaining("Begin again")]);
    };
    await refused(device.make(options, { origin: "https://keen.example" }));
    await refused(device.make(options, { sure: false }));
    await refused(device.make({ ...options, rp: { id: "keen.example", name: "" } }));
    await refused(device.make({ ...options, challenge: "A".repeat(75) }));
    // What is asked at the door is not what a passkey is made with, and what another person was asked is not one's own.
    await refused(device.make({ ...options, challenge: (await asked()).challenge }));
    const made = device.make(options);
    await refused({ ...made, response: { ...made.response, attestationObject: "AAAA" } });
    house.now = new Date(house.now.getTime() + 301_000);
    await refused(made);
    const now = await begin();
    expect((await keep(device.make(now))).status).toBe(200);
    await refused(device.make(now));
    expect(await names()).toEqual(["My tablet"]);
    await forget();
  });

  test("opens nothing when it is shown twice, too late, elsewhere, unsure, set back, of no one, or was taken away", async () => {
    expect((await keep(device.make(await begin()))).status).toBe(200);
    const refused = async (shown: contract.ShownPasskey) => {
      const { status, content, by } = await comeInWith(shown);
      expect([status, content.detail]).toEqual([401, expect.stringContaining("opens nothing here")]);
      expect((await by.ask(contract.whoAsks, {})).me).toBeNull();
    };
    const first = device.show(await asked());
    const both = await Promise.all([comeInWith(first), comeInWith(first)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 401]);
    await refused(first);
    await refused(device.show(await asked(), { origin: "https://keen.example" }));
    await refused(device.show(await asked(), { sure: false }));
    await refused(device.show(await asked(), { counter: 1 }));
    device.show(await asked(), { counter: 9 });
    const late = device.show(await asked());
    house.now = new Date(house.now.getTime() + 301_000);
    await refused(late);
    const good = device.show(await asked());
    await refused({ ...good, response: { ...good.response, userHandle: "AAAA" } });
    await refused({ ...good, response: { ...good.response, signature: first.response.signature } });
    await refused({ ...good, id: "AAAA", rawId: "AAAA" });
    const stranger = passkeyDevice(base());
    stranger.make(await begin());
    await refused(stranger.show(await asked()));
    // What was refused is not used up.
    expect((await comeInWith(good)).status).toBe(200);
    await forget();
    await refused(device.show(await asked()));
    expect(await names()).toEqual([]);
  });

  test("is what a lead may come in with where the school wants two factors, and a passphrase alone is not", async () => {
    expect((await keep(device.make(await begin()))).status).toBe(200);
    const { by } = await comeInWith(device.show(await asked()));
    await by.ask(contract.setLeadsSecond, {
      body: { version: (await by.ask(contract.getSchool, {})).version, leadsNeedSecond: true },
    });
    expect((await by.ask(contract.whoAsks, {})).me).toMatchObject({ role: "lead", lacksSecond: false });
    const alone = browser();
    await alone.ask(contract.signIn, { body: { name: "Ms Harrow", passphrase: good, keep: true } });
    expect((await alone.ask(contract.whoAsks, {})).me).toMatchObject({ lacksSecond: true });
    await by.ask(contract.setLeadsSecond, {
      body: { version: (await by.ask(contract.getSchool, {})).version, leadsNeedSecond: false },
    });
    await forget();
  });

  test("goes with a new link from the lead, and with the person", async () => {
    const id = crypto.randomUUID();
    const person = { name: "Mr Birk", role: "teacher" as const, classIds: [], groupIds: [], typedNames: [] };
    await lead.ask(contract.addPerson, { body: { id, ...person } });
    const birk = browser();
    const own = passkeyDevice(base());
    const invited = async () => {
      const { token } = await lead.ask(contract.invitePerson, { params: { id } });
      await birk.ask(contract.acceptInvitation, { params: { token }, body: { passphrase: good, setUp: null } });
    };
    const made = async () => {
      const options = await birk.ask(contract.beginPasskey, { body: { passphrase: good } });
      await birk.ask(contract.addPasskey, {
        body: { id: crypto.randomUUID(), name: "Phone", made: own.make(options) },
      });
    };
    await invited();
    await made();
    // Nothing of another's is theirs to see or to take away.
    expect(await lead.ask(contract.listPasskeys, {})).toEqual([]);
    const [{ id: passkeyId } = { id: "" }] = await birk.ask(contract.listPasskeys, {});
    await lead.ask(contract.removePasskey, { params: { id: passkeyId } });
    expect(await birk.ask(contract.listPasskeys, {})).toHaveLength(1);
    await invited();
    expect((await comeInWith(own.show(await asked()))).status).toBe(401);
    await made();
    expect((await comeInWith(own.show(await asked()))).status).toBe(200);
    await lead.ask(contract.removePerson, { params: { id } });
    expect((await comeInWith(own.show(await asked()))).status).toBe(401);
  });

  test("is not for an address that is a number, nor for a device that several people use; ten are the most", async () => {
    const byNumber = browserAt(() => house.base);
    await byNumber.ask(contract.signIn, { body: { name: "Ms Harrow", passphrase: good, keep: true } });
    const told = await byNumber.send(contract.beginPasskey, { body: { passphrase: good } });
    expect([told.status, told.content.detail]).toEqual([422, expect.stringContaining("by its name")]);
    for (let at = 0; at < contract.MOST_PASSKEYS; at++)
      expect((await keep(device.make(await begin()))).status).toBe(200);
    const more = await lead.send(contract.beginPasskey, { body: { passphrase: good } });
    expect([more.status, more.content.detail]).toEqual([422, expect.stringContaining("Take one away")]);
    await lead.ask(contract.letDeviceIn, { body: { id: crypto.randomUUID(), name: "Tablet of Kiln" } });
    const shared = await lead.send(contract.beginPasskey, { body: { passphrase: good } });
    expect([shared.status, shared.content.detail]).toEqual([422, expect.stringContaining("Several people")]);
  });

  test("a passphrase that is asked for beside it is not guessed for long", async () => {
    const told: number[] = [];
    for (let at = 0; at < 12; at++)
      told.push(
        (
          await lead.send(contract.changePassphrase, {
            body: { before: `wrong ${at}`, passphrase: "seven green ladders sleep" },
          })
        ).status,
      );
    expect([told[0], told.at(-1)]).toEqual([422, 429]);
    // Nor by asking elsewhere, here from a device of her own again: it is one passphrase, and counted once.
    lead.jar.delete("keen.device");
    for (const one of [contract.beginSecondFactor, contract.beginPasskey])
      expect((await lead.send(one, { body: { passphrase: good } })).status, one.path).toBe(429);
  });
});
