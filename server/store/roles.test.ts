import { sql } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";

// What each role of the database may reach: that of a school, that of the door, that of accounts.

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  await oneOfEach(house.ask, "Mine");
});
afterAll(() => house.close());

const as = (role: string, query: string) =>
  house.store.db.transaction(async (tx) => {
    await tx.execute(sql`select set_config('role', ${role}, true)`);
    return ((await tx.execute(sql.raw(query))) as unknown as { rows: unknown[] }).rows;
  });
const refused = { cause: { code: "42501" } };

test("the role of a school sees nothing while no school is said, and no account ever", async () => {
  for (const table of ["children", "answers", "schools", "doors", "groups", "members", "trail", "devices"])
    expect(await as("keen_app", `select * from ${table}`), table).toEqual([]);
  for (const table of ["people", "passphrases", "sign_ins", "secrets", "tries"])
    await expect(as("keen_app", `select * from accounts.${table}`), table).rejects.toMatchObject(refused);
});

test("the door sees no more than where doors lead", async () => {
  expect(await as("keen_door", "select id, slug from schools")).toHaveLength(1);
  expect(await as("keen_door", "select school_id from doors where kind = 'share'")).toHaveLength(1);
  for (const query of [
    "select * from children",
    "select name from schools",
    "delete from doors",
    "select * from shares",
    "select * from members",
    "select * from accounts.people",
  ])
    await expect(as("keen_door", query), query).rejects.toMatchObject(refused);
});

test("the role of accounts sees no school", async () => {
  expect(await as("keen_people", "select id from accounts.people")).toEqual([]);
  for (const query of [
    "select * from schools",
    "select * from members",
    "select * from children",
    "select * from doors",
  ])
    await expect(as("keen_people", query), query).rejects.toMatchObject(refused);
});

test("role and school are gone with the transaction, also when it failed", async () => {
  await as("keen_app", "select 1/0").catch(() => undefined);
  const rows = await house.store.db.execute(
    sql`select current_user = session_user as own, coalesce(current_setting('app.school', true), '') as school`,
  );
  expect((rows as unknown as { rows: unknown[] }).rows).toEqual([{ own: true, school: "" }]);
});
