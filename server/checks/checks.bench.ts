import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import { bench, describe } from "vitest";
import { addClass, getSchool, getSitting, importChildren, markTaught, saveAnswers } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { answerTo, begin, part } from "./marking.ts";

const CHILDREN = 300;
const AT = "2026-11-20T08:00:00.000Z";

/** A school of 300 children with so many answers each, spread over what is taught and over the days before. */
async function school(each: number): Promise<{ house: TestHouse; children: string[] }> {
  const house = await openTestHouse();
  const { orders } = await house.ask(getSchool, {});
  const [order] = orders;
  const classId = uuid();
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId: order?.id ?? "" } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s14", taughtOn: "2026-11-02", at: AT },
  });
  const children = Array.from({ length: CHILDREN }, () => uuid());
  for (const ids of [children.slice(0, 150), children.slice(150)])
    await house.ask(importChildren, {
      body: { children: ids.map((id) => ({ id, classId, name: `Child ${id.slice(0, 8)}`, note: "" })) },
    });
  const gpcs = (order?.content.steps ?? []).slice(0, 14).flatMap((step) => step.gpcs);
  await house.store.db.execute(sql`
    insert into answers (id, child_id, kind, item, outcome, ms, pass, marked_at, day, marked_by)
    select gen_random_uuid(), c.id, 'card', (${sql.raw(`array['${gpcs.join("','")}']`)})[1 + n % ${sql.raw(String(gpcs.length))}],
      case when n % 5 = 0 then 'none' else 'right' end, 900, 1,
      timestamptz '2026-11-19T09:00:00Z' - n * interval '3 hours',
      (timestamptz '2026-11-19T09:00:00Z' - n * interval '3 hours')::date, 'Ms Harrow'
    from children c, generate_series(1, ${sql.raw(String(each))}) n`);
  await house.store.db.execute(sql`analyze`);
  return { house, children };
}

const [small, large] = [await school(10), await school(1000)];
const turn = { small: 0, large: 0 };

/** One child's check: begun, one answer marked, and seen with what it says. */
async function errand(name: "small" | "large", child: string): Promise<void> {
  const { house } = name === "small" ? small : large;
  const { id, checks } = await begin(house, [child], [part("card")], AT);
  const [check] = checks;
  const [item] = check?.items ?? [];
  if (!check || !item) throw new Error("nothing to ask");
  await house.ask(saveAnswers, { body: { answers: [answerTo(check, item, { outcome: "right" })] } });
  await house.ask(getSitting, { params: { id } });
}

const next = (name: "small" | "large") =>
  (name === "small" ? small : large).children[turn[name]++ % CHILDREN] as string;

describe("a check is begun, marked and seen: a child whose log was not read since the server started", () => {
  bench("baseline: 3,000 answers of 300 children", () => errand("small", next("small")), {
    iterations: 100,
    time: 0,
    warmupIterations: 0,
    warmupTime: 0,
  });
  bench("300,000 answers of 300 children", () => errand("large", next("large")), {
    iterations: 100,
    time: 0,
    warmupIterations: 0,
    warmupTime: 0,
  });
});

describe("a check is begun, marked and seen: again", () => {
  bench("baseline: 3,000 answers of 300 children", () => errand("small", small.children[0] as string), {
    iterations: 60,
    time: 0,
  });
  bench("300,000 answers of 300 children", () => errand("large", large.children[0] as string), {
    iterations: 60,
    time: 0,
  });
});
