import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, inject, test } from "vitest";
import {
  acceptInvitation,
  addChild,
  addClass,
  addPerson,
  type DeskEvent,
  editPerson,
  endMyOtherDevices,
  getSchool,
  listGroups,
  listPeople,
  livePaths,
  markTaught,
  removePerson,
  saveAnswers,
  signIn,
} from "#contract";
import { careCommand } from "../care/command.ts";
import { answerTo, beginOne } from "../checks/marking.ts";
import { schoolCommand } from "../people/command.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { browserAt } from "../testing-browser.ts";
import { openStore } from "./open.ts";
import { allMigrations, emptyDatabase } from "./testing.ts";
import { onServer, startTestServer, type TestServer } from "./testing-server.ts";

// What only a real server has: several processes on one database, and a line to it that can be lost.

const at = "2026-11-20T08:31:00.000Z";

/** A school with a child who has been taught something. */
async function withChild(house: TestHouse): Promise<string> {
  const [classId, childId] = [crypto.randomUUID(), crypto.randomUUID()];
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const taught = { id: crypto.randomUUID(), stepId: "s3", taughtOn: "2026-11-02", at };
  await house.ask(markTaught, { params: { id: classId }, body: taught });
  await house.ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
  return childId;
}

/** Events of a stream as they come, and the wait for the next that is as wanted. */
async function listenTo(url: string) {
  const ended = new AbortController();
  const response = await fetch(url, { signal: ended.signal });
  const events: DeskEvent[] = [];
  const read = (async () => {
    let text = "";
    for await (const part of response.body ?? []) {
      text += new TextDecoder().decode(part);
      const whole = text.split("\n\n");
      text = whole.pop() ?? "";
      for (const one of whole) if (one.startsWith("data: ")) events.push(JSON.parse(one.slice(6)));
    }
  })().catch(() => undefined);
  return { events, read, close: () => ended.abort() };
}

describe("several processes on one database", () => {
  test("two that start at once on an empty database both start, and a third finds all as it is", async () => {
    const { empty } = inject("database");
    const bare = `bare_${process.pid}`;
    await onServer(empty, `create database ${bare}`);
    const url = Object.assign(new URL(empty), { pathname: `/${bare}` }).href;
    const stores = await Promise.all([openStore({ folder: "", url }), openStore({ folder: "", url })]);
    const third = await openStore({ folder: "", url });
    const told = (await third.owner.execute("select count(*)::int as count from schools")) as unknown as {
      rows: { count: number }[];
    };
    expect(told.rows[0]?.count).toBe(1);
    for (const store of [...stores, third]) await store.close();
  });

  test("what runs by the clock is done by one of them at a time, and by another when that one is through", async () => {
    const { empty } = inject("database");
    const bare = `clock_${process.pid}`;
    await onServer(empty, `create database ${bare}`);
    const url = Object.assign(new URL(empty), { pathname: `/${bare}` }).href;
    const [one, other] = [await openStore({ folder: "", url }), await openStore({ folder: "", url })];
    let finish = () => {};
    let begun = () => {};
    const isBegun = new Promise<void>((done) => {
      begun = done;
    });
    const long = one.alone("tidy", () => {
      begun();
      return new Promise<void>((done) => {
        finish = done;
      });
    });
    await isBegun;
    let times = 0;
    const count = async () => void times++;
    expect(await other.alone("tidy", count)).toBe(false);
    expect(await other.alone("another work", count)).toBe(true);
    finish();
    expect(await long).toBe(true);
    expect(await other.alone("tidy", count)).toBe(true);
    // What failed holds no one up.
    await expect(one.alone("tidy", () => Promise.reject(new Error("away")))).rejects.toThrow("away");
    expect(await other.alone("tidy", count)).toBe(true);
    expect(times).toBe(3);
    for (const store of [one, other]) await store.close();
  });

  test("a mark made through one is seen live through the other, once", async () => {
    const url = await emptyDatabase(inject("database").empty);
    const one = await openTestHouse(await openStore({ folder: "", url }));
    const other = await openTestHouse(await openStore({ folder: "", url }));
    const childId = await withChild(one);
    const check = await beginOne(one, childId, undefined, "2026-11-20T08:30:00.000Z");
    const { rows } = (await one.store.owner.execute(
      `select sitting_id as id from checks where id = '${check.id}'`,
    )) as unknown as { rows: { id: string }[] };
    const path = livePaths.desk(rows[0]?.id ?? "");
    const [here, there] = [await listenTo(one.base + path), await listenTo(other.base + path)];
    const item = check.items[0] ?? "";
    const mark = answerTo(check, item, { outcome: "right" }, { markedAt: at });
    await one.ask(saveAnswers, { body: { answers: [mark] } });
    await expect.poll(() => there.events.length).toBe(1);
    expect(there.events).toMatchObject([{ kind: "answers", answers: [{ id: mark.id, item, outcome: "right" }] }]);
    // And back; a mark that was refused, or came twice, is told to no one.
    const second = answerTo(check, check.items[1] ?? "", { outcome: "none" }, { markedAt: at });
    await other.ask(saveAnswers, { body: { answers: [second, mark, { ...mark, id: second.id }] } });
    await expect.poll(() => here.events.length).toBe(2);
    expect(here.events[1]).toMatchObject({ kind: "answers", answers: [{ id: second.id }] });
    await expect.poll(() => there.events.length).toBe(2);
    for (const stream of [here, there]) stream.close();
    await one.close();
    await other.close();
  });
});

describe("who is let in by one of several processes", () => {
  test("is shut out of the others at once: taken out, signed out elsewhere, another role", async () => {
    const url = await emptyDatabase(inject("database").empty);
    const one = await openTestHouse(await openStore({ folder: "", url }));
    const other = await openTestHouse(await openStore({ folder: "", url }));
    let at = one.base;
    const [lead, birk] = [browserAt(() => one.base), browserAt(() => at)];
    const passphrase = "otters like cold porridge";
    const token = async (memberId: string | null) => (await one.school.invitations.invite(memberId, one.now)).token;
    const setUp = { name: "Ms Harrow", school: "Marlpit Lock School", timeZone: "Europe/London" };
    await lead.ask(acceptInvitation, { params: { token: await token(null) }, body: { passphrase, setUp } });
    const id = crypto.randomUUID();
    const person = { name: "Mr Birk", role: "teacher" as const, classIds: [], groupIds: [], typedNames: [] };
    await lead.ask(addPerson, { body: { id, ...person } });
    await birk.ask(acceptInvitation, { params: { token: await token(id) }, body: { passphrase, setUp: null } });
    at = other.base;
    /** What the other process says of him now; sooner than it would look by itself, which is after five seconds. */
    const soon = { timeout: 4000, interval: 20 };
    const status = async () => (await birk.send(listGroups)).status;
    const seesNumbers = async () => (await birk.send(listPeople)).status;
    expect([await status(), await seesNumbers()]).toEqual([200, 403]);
    await lead.ask(editPerson, { params: { id }, body: { ...person, role: "lead", version: 1 } });
    await expect.poll(seesNumbers, soon).toBe(200);
    // From another device he signs out everywhere else, through the first process.
    const phone = browserAt(() => one.base);
    await phone.ask(signIn, { body: { name: "Mr Birk", passphrase, keep: true } });
    await phone.ask(endMyOtherDevices, {});
    await expect.poll(status, soon).toBe(401);
    await birk.ask(signIn, { body: { name: "Mr Birk", passphrase, keep: true } });
    expect(await status()).toBe(200);
    await lead.ask(removePerson, { params: { id } });
    await expect.poll(status, soon).toBe(401);
    await one.close();
    await other.close();
  });
});

describe("a line to the database that is lost", () => {
  let house: TestHouse;
  let server: TestServer | undefined;
  beforeAll(async () => {
    server = process.env.DATABASE_URL ? undefined : await startTestServer(20_000 + (process.pid % 20_000));
    const url = server?.urlOf("keen_away") ?? (await emptyDatabase(inject("database").empty));
    if (server) await onServer(url, "create database keen_away");
    house = await openTestHouse(await openStore({ folder: "", url }));
  });
  afterAll(async () => {
    await house.close();
    await server?.stop();
  });

  test("connections that are ended by the server are made anew; nobody notices", async () => {
    await house.ask(getSchool, {});
    await house.store.owner.execute(
      "select pg_terminate_backend(pid) from pg_stat_activity where usename like 'keen_login_%' and datname = current_database()",
    );
    await expect.poll(async () => (await fetch(`${house.base}/api/school`)).status, { timeout: 10_000 }).toBe(200);
  });

  test("when all connections are taken, who waits too long is told so in a sentence", async () => {
    let letGo = () => {};
    const held = new Promise<void>((done) => {
      letGo = done;
    });
    const all = Array.from({ length: 8 }, () => house.store.db.transaction(() => held));
    const response = await fetch(`${house.base}/api/school`);
    expect(response.status).toBe(503);
    expect(response.headers.get("retry-after")).toBe("2");
    expect(await response.json()).toMatchObject({ title: "The database does not answer" });
    letGo();
    await Promise.all(all);
    // Each of them was given back: as many can be taken at once again.
    await Promise.all(Array.from({ length: 8 }, () => house.ask(getSchool, {})));
    expect((await fetch(`${house.base}/api/school`)).status).toBe(200);
  });

  test("a server that goes down and comes back: 503 meanwhile, then all goes on, live too", async (context) => {
    if (!server?.down) return context.skip();
    const childId = await withChild(house);
    const check = await beginOne(house, childId, undefined, "2026-11-20T08:30:00.000Z");
    const { rows } = (await house.store.owner.execute(
      `select sitting_id as id from checks where id = '${check.id}'`,
    )) as unknown as { rows: { id: string }[] };
    const other = await openTestHouse(await openStore({ folder: "", url: server.urlOf("keen_away") }));
    const path = livePaths.desk(rows[0]?.id ?? "");
    const before = await listenTo(other.base + path);
    // One is in the middle of its work: it hears of the end, and no one else's process ends by it.
    let letGo = () => {};
    const held = new Promise<void>((done) => {
      letGo = done;
    });
    const amidst = expect(
      house.store.db.transaction(async (tx) => {
        await tx.execute("select 1");
        await held;
        await tx.execute("select 1");
      }),
    ).rejects.toThrow();
    const { up } = await server.down();
    letGo();
    await amidst;
    const mark = answerTo(check, check.items[0] ?? "", { outcome: "right" }, { markedAt: at });
    expect(await house.refused(saveAnswers, { body: { answers: [mark] } })).toMatchObject({ status: 503 });
    expect((await fetch(`${house.base}/api/school`)).status).toBe(503);
    await up();
    await expect.poll(async () => (await fetch(`${house.base}/api/school`)).status, { timeout: 10_000 }).toBe(200);
    expect((await house.ask(saveAnswers, { body: { answers: [mark] } })).fates).toMatchObject([{ fate: "kept" }]);
    // The other process has missed what was told meanwhile, so it lets its desks read anew; then it hears again.
    await before.read;
    // One that is let go once more, since the look behind a signal found its line lost, comes again as browsers do.
    let heard = 0;
    for (let turn = 1; turn <= 3 && heard === 0; turn++) {
      const after = await listenTo(other.base + path);
      const next = answerTo(check, check.items[turn] ?? "", { outcome: "none" }, { markedAt: at });
      await house.ask(saveAnswers, { body: { answers: [next] } });
      await Promise.race([after.read, expect.poll(() => after.events.length, { timeout: 10_000 }).toBe(1)]);
      heard = after.events.length;
      after.close();
    }
    expect(heard).toBe(1);
    await other.close();
  });
});

test.each([
  ["postgres://keen:x@127.0.0.1:1/keen", /does not answer \(ECONNREFUSED\)/],
  ["postgres://keen:x@no.such.host.invalid/keen", /does not answer/],
])("a server that cannot be used is told in a sentence: %s", async (url, says) => {
  await expect(openStore({ folder: "", url })).rejects.toThrow(says);
});

test("a wrong password and a database that is not there are told apart", async () => {
  const { empty } = inject("database");
  const missing = Object.assign(new URL(empty), { pathname: "/not_there" }).href;
  await expect(openStore({ folder: "", url: missing })).rejects.toThrow(/has no database not_there/);
  const wrong = Object.assign(new URL(empty), { password: "wrong" }).href;
  await expect(openStore({ folder: "", url: wrong })).rejects.toThrow(/refuses keen_owner/);
});

test("an owner who is no superuser and may make roles is enough, as docs/running.md has it", async (context) => {
  if (process.env.DATABASE_URL) return context.skip();
  // A server of its own: the roles of the application are the server's, and belong to who made them first.
  const server = await startTestServer(21_000 + (process.pid % 20_000));
  const admin = server.urlOf("postgres");
  await onServer(admin, "create role keen login createrole password 'of-the-tests'");
  await onServer(admin, "create database keen owner keen");
  const url = Object.assign(new URL(server.urlOf("keen")), { username: "keen" }).href;
  const house = await openTestHouse(await openStore({ folder: "", url }));
  const childId = await withChild(house);
  expect((await house.school.children.find(childId))?.name).toBe("Ada M.");
  expect(await schoolCommand(house.store, house.all, ["add", "Orm"])).toContain("orm.localhost");
  await house.close();
  const folder = mkdtempSync(join(tmpdir(), "keen-plain-"));
  const wanted = { place: { folder: "", url }, migrations: allMigrations, shipped: house.shipped, now: new Date() };
  expect(await careCommand(wanted, ["backup", join(folder, "all.keen")])).toContain("2 schools");
  // And it is started once more, as after an upgrade.
  await (await openStore({ folder: "", url })).close();
  // Another owner on the same server is told what is missing.
  await onServer(admin, "create role other login createrole password 'of-the-tests'");
  await onServer(admin, "create database other owner other");
  const second = Object.assign(new URL(server.urlOf("other")), { username: "other" }).href;
  await expect(openStore({ folder: "", url: second })).rejects.toThrow(
    /grant keen_app, keen_door, keen_people to other with admin/,
  );
  await onServer(admin, "grant keen_app, keen_door, keen_people to other with admin option");
  await (await openStore({ folder: "", url: second })).close();
  rmSync(folder, { recursive: true });
  await server.stop();
});
