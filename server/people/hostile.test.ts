import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import * as contract from "#contract";
import { dice } from "#core/checks";
import type { Actor } from "../frame/actor.ts";
import { changed, leavesOf } from "../testing-leaves.ts";
import { partOf } from "../testing-share.ts";
import { type Asked, type Askers, askingOf, endpoints, isForMembers, openAskers } from "./askers.ts";

/**
 * Requests of people who are not content with what is theirs: any endpoint, with the things of another class and another school,
 * with one leaf changed, signed in as each role, as the lead of another school and not at all. `npm run test:long` sends 10,000.
 */
const RUNS = Number(process.env.KEEN_FUZZ ?? partOf(12_000));
const SEED = Number(process.env.KEEN_SEED ?? 20261128);

let askers: Askers;
beforeAll(async () => {
  askers = await openAskers();
});
afterAll(() => askers.house.close());

const odd: readonly unknown[] = [
  ...[null, "", " ", "\u0000", "a\u0000b", "\ud800", "x".repeat(9000), "%00", "../../etc/passwd", "' or 1=1 --"],
  ...["<script>alert(1)</script>", "{{7*7}}", "__proto__", "constructor", "n+k=ng+k", "2026-02-30", "1999-12-31"],
  ...[-1, 0, 1.5, 2_147_483_648, 1e308, true, [], {}, [[]]],
];

/** What is no text of an address does not get as far as the server. */
const canBeSent = ({ params, query }: Asked) =>
  [params, query].every(
    (part) =>
      part === undefined ||
      (typeof part === "object" &&
        part !== null &&
        Object.values(part).every(
          (value) => ["string", "number"].includes(typeof value) && !/[\ud800-\udfff]/.test(String(value)),
        )),
  );

test(`${RUNS} hostile requests with and without a session: no 500, no leak, no child's name in a log`, async () => {
  const { house, own, other, foreign, actors, elsewhere, send } = askers;
  const roll = dice(SEED);
  const of = <T>(list: readonly T[]): T => list[roll.pick(list.length)] as T;
  const things = [own, other, foreign];
  const ids = things.flatMap((one) => Object.values(one).filter((id): id is string => typeof id === "string"));
  const members = (["observer", "assistant", "teacher"] as const).map((role) => actors.get(role) as Actor);
  const who: readonly (Actor | "no one")[] = [...members, elsewhere, "no one"];
  const counts = new Map<string, number>();
  for (let run = 0; run < RUNS; ) {
    const [name, endpoint] = of(endpoints);
    const actor = of(who);
    const good = JSON.parse(JSON.stringify(askingOf(name, of(things)))) as Asked;
    const path = of(leavesOf(good));
    const asking = roll.pick(4) === 0 ? good : (changed(good, path, of([...odd, of(ids), of(ids), uuid()])) as Asked);
    if (!canBeSent(asking)) continue;
    run++;
    const { status, text } = await send(endpoint, asking, actor);
    const by = actor === "no one" ? actor : actor === elsewhere ? "the lead of another school" : actor.as;
    const what = `${run}: ${name} as ${by}, ${path.join(".")} in ${JSON.stringify(asking).slice(0, 300)}`;
    counts.set(`${status}`, (counts.get(`${status}`) ?? 0) + 1);
    expect(status, what).not.toBe(500);
    const { may } = endpoint;
    if (actor === "no one" && isForMembers(may)) expect([400, 401, 404, 413, 431], what).toContain(status);
    if (actor !== "no one" && isForMembers(may) && !contract.isAtLeast(actor.as as contract.Role, may.by))
      expect([400, 403, 404, 413, 431], what).toContain(status);
    // What a link leads to is whoever's who has it.
    if (may.by === "link") continue;
    // Texts and orders are the school's; children are of their class.
    const forbidden =
      actor === "no one"
        ? /\b(Mine|Others|Foreign)\b/
        : actor === elsewhere
          ? /\b(Mine|Others)\b/
          : /\bOthers C\.|\bForeign\b/;
    expect(
      forbidden.test(text) ? text.slice(Math.max(0, text.search(forbidden) - 100)).slice(0, 300) : "",
      what,
    ).toBe("");
    if (actor !== "no one" && actor.as === "observer" && status < 400)
      expect(text.includes(own.childId), what).toBe(false);
  }
  // Not all was refused for its form before anyone looked whose it is.
  expect(counts.get("403") ?? 0).toBeGreaterThan(RUNS * 0.1);
  expect(counts.get("200") ?? 0).toBeGreaterThan(RUNS * 0.02);
  expect(house.logged.filter((line) => /\b(Mine|Others|Foreign)\b/.test(line))).toEqual([]);
  expect(house.logged.filter((line) => line.includes("unexpected error"))).toEqual([]);
});
