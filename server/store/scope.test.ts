import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type AnswerOf, type Asking, beginYear, type Endpoint } from "#contract";
import type { Meeting } from "#core/groups";
import type { School } from "../house.ts";
import { addSchool, listSchools } from "../people/schools.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { type OneOfEach, oneOfEach } from "../testing-school.ts";
import { scopeOf } from "./scope.ts";
import { everyAsking } from "./scope-asked.ts";

/** What one school has is neither seen nor changed from another, by any function of any repository, nor by raw SQL. */
let house: TestHouse;
let mine: OneOfEach;
let other: School;
let [here, elsewhere] = ["", ""];

const rowsOf = async (query: string) =>
  ((await house.store.owner.execute(sql.raw(query))) as unknown as { rows: Record<string, unknown>[] }).rows;
/** Every row of the first school, as the owner of the tables sees them. */
async function everything(): Promise<string> {
  const tables = await rowsOf(
    "select table_name as name from information_schema.columns where column_name = 'school_id' and table_schema = 'public' order by 1",
  );
  const all = [];
  for (const { name } of tables)
    all.push([name, await rowsOf(`select * from "${name}" where school_id = '${here}' order by "${name}"::text`)]);
  all.push(await rowsOf(`select * from schools where id = '${here}'`));
  return JSON.stringify(all);
}
/** Raw SQL in the application's role, in the name of the other school. */
async function raw(query: string): Promise<Record<string, unknown>[]> {
  return scopeOf(house.store, elsewhere, house.shipped).run(
    async (inside) => ((await inside.execute(sql.raw(query))) as unknown as { rows: Record<string, unknown>[] }).rows,
  );
}

const yearId = crypto.randomUUID();
const memberId = crypto.randomUUID();
const deviceId = crypto.randomUUID();
const accountId = crypto.randomUUID();
let meeting: Meeting;
const routine = {
  name: "Mine",
  about: "",
  parts: [{ kind: "teach" as const, minutes: 3, who: "adult" as const, how: "" }],
};
let invitation = { id: "", token: "" };

beforeAll(async () => {
  house = await openTestHouse();
  mine = await oneOfEach(
    <E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>> => house.ask(endpoint, asking),
    "Mine",
  );
  await house.ask(beginYear, { body: { id: yearId, classes: [], added: [], children: [] } });
  const { people, invitations, trail, devices } = house.school;
  await devices.letIn({ id: deviceId, name: "Mine tablet", token: "mine", at: "2026-11-20T09:00:00.000Z" });
  await people.add(memberId, { name: "Mine Lead", role: "lead", classIds: [], groupIds: [], typedNames: [] });
  await people.setAccount(memberId, accountId);
  const { token } = await invitations.invite(memberId, house.now);
  invitation = { token, id: (await invitations.byToken(token))?.id ?? "" };
  const seen = { at: "2020-01-01T00:00:00.000Z", memberId, by: "Mine Lead", did: "child-seen" as const };
  await trail.write({ ...seen, about: mine.childId });
  const { childId, groupId } = mine;
  const placement = { id: yearId, groupId, day: 5 as const, from: 540, to: 560, adultId: memberId, roomId: null };
  await house.school.week.putPlacements([{ ...placement, fixed: false }]);
  meeting = {
    ...{ id: yearId, placementId: yearId, dueOn: "2026-11-20", groupId, on: "2026-11-20", from: 540, to: 560 },
    ...{ adultId: memberId, roomId: null, cancelled: false, byHand: false, sequence: 0 },
  };
  await house.school.week.putMeetings({ added: [meeting], changed: [] }, "2026-11-20T09:00:00.000Z");
  await house.school.routines.save(yearId, { version: 0, routine });
  await house.school.week.addFeed({ id: memberId, whose: `child:${childId}` }, "mine");
  elsewhere = (await addSchool(house.store.owner, "Orm Tower")).id;
  here = (await listSchools(house.store.owner))[0]?.id ?? "";
  other = house.all.as({ schoolId: elsewhere });
  await other.orders.ship();
});
afterAll(() => house.close());

describe("another school's rows", () => {
  test("are out of reach of every function of every repository", async () => {
    const before = await everything();
    const asked = everyAsking({
      other,
      elsewhere,
      mine,
      meeting,
      invitation,
      routine,
      ids: { yearId, memberId, deviceId, accountId },
    });
    let count = 0;
    for (const [room, functions] of Object.entries(asked))
      for (const [name, ask] of Object.entries(functions)) {
        count++;
        // Some are refused by the database (a class of another school is no class here); none sees or changes anything.
        const told = await Promise.resolve(ask()).catch((error: { cause?: { code?: string }; code?: string }) => {
          expect(["23503", "23505"], `${room}.${name}`).toContain(error.cause?.code ?? error.code);
        });
        const said = JSON.stringify(told, (_, value) => (value instanceof Map ? [...value] : value)) ?? "";
        expect(said, `${room}.${name}`).not.toMatch(/Mine/);
      }
    expect(count).toBeGreaterThan(75);
    expect(await everything()).toBe(before);
  });

  test("are out of reach of raw SQL in the application's role", async () => {
    const tables = await rowsOf(
      "select c.relname as name, c.relrowsecurity and c.relforcerowsecurity as walled, (select count(*)::int from pg_policies p where p.tablename = c.relname and p.policyname = 'of_school') as policies from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r' order by 1",
    );
    expect(tables.length).toBeGreaterThan(24);
    const before = await everything();
    for (const { name, walled, policies } of tables) {
      expect([walled, policies], String(name)).toEqual([true, 1]);
      const own = name === "schools" ? "id" : "school_id";
      expect(await raw(`select * from "${name}" where ${own} = '${here}'`), String(name)).toEqual([]);
      // Of the trail no one changes a row, of whichever school.
      if (name === "trail") {
        for (const query of [`update trail set by = ''`, `update trail set school_id = '${here}'`])
          await expect(raw(query)).rejects.toMatchObject({ cause: { code: "42501" } });
        expect(await raw(`delete from trail where school_id = '${here}' returning *`)).toEqual([]);
        continue;
      }
      expect(await raw(`update "${name}" set ${own} = ${own} where ${own} = '${here}' returning *`)).toEqual([]);
      if (name === "schools") continue;
      expect(await raw(`delete from "${name}" where school_id = '${here}' returning *`)).toEqual([]);
      // What it may see it may not move.
      const has = Number((await raw(`select count(*)::int as count from "${name}"`))[0]?.count);
      const moved = raw(`update "${name}" set school_id = '${here}'`);
      if (has > 0) await expect(moved, String(name)).rejects.toMatchObject({ cause: { code: "42501" } });
      else await moved;
    }
    await expect(raw(`delete from schools`)).rejects.toMatchObject({ cause: { code: "42501" } });
    await expect(raw(`insert into schools (id, slug) values (gen_random_uuid(), 'x')`)).rejects.toMatchObject({
      cause: { code: "42501" },
    });
    const smuggled = `insert into members (school_id, id, name, role) values ('${here}', gen_random_uuid(), 'x', 'lead')`;
    await expect(raw(smuggled)).rejects.toMatchObject({ cause: { code: "42501" } });
    expect(await everything()).toBe(before);
  });
});
