import { inArray, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import { rule, type Shown, shownAfter, shownBy } from "#core/mastery";
import { hasWritten } from "../ledger/append.ts";
import { entriesAfter, numbersOf } from "../ledger/log.ts";
import { type Rule, ruleOf, standingOfChildren } from "../ledger/standing.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

interface Kept {
  /** Of the last entry of the child's log that it is made of. */
  readonly number: number;
  /** The rule, the words and the settings that it was made by. */
  readonly basis: string;
  readonly shown: Shown;
  /** The number up to which it is stored; -1 where it is not, or by another basis. */
  readonly stored: number;
}

/** So many spellings of children are kept in memory, of those that were asked for last: some 5,000 children. */
const MOST_SPELLINGS = 500_000;
const memory = new LRUCache<string, Kept>({
  maxSize: MOST_SPELLINGS,
  sizeCalculation: ({ shown }) => Object.keys(shown).length + 1,
});
const keyOf = (inside: Inside, childId: string) => `${inside.memoryKey} ${childId}`;

/** What is stored may be so many entries behind: they are added when it is read, and cost less than writing each time. */
const MOST_BEHIND = 50;

/**
 * What each of these children has shown; every child has an entry. It is kept in memory and stored by child and number, so
 * that neither a read nor the first one after a start replays a log: what came since is added. It is made anew from the log
 * where something before was taken back or arrived late, and where the rule, the words or the settings are others. Right
 * also when another process wrote: the number is the database's.
 */
export async function shownOf(inside: Inside, childIds: readonly string[]): Promise<Map<string, Shown>> {
  const by = await ruleOf(inside);
  const basis = basisOf(inside, by);
  const last = await numbersOf(inside, childIds);
  const here = await keptOf(inside, [...last.keys()], { basis, last });

  const behind = new Map<string, number>();
  const anew: string[] = [];
  for (const [id, number] of last) {
    const one = here.get(id);
    if (!one) {
      if (number > 0) anew.push(id);
    } else if (one.number < number) behind.set(id, one.number);
  }
  for (const [id, more] of await entriesAfter(inside, behind)) {
    const one = here.get(id) as Kept;
    const fresh = more.map(({ entry }) => entry);
    const shown = shownAfter(one.shown, fresh, { ...by, words: by.words });
    // What a reading says costs most to work out: it is stored at once.
    const stored = fresh.some((entry) => entry.outcome === "reading") ? -1 : one.stored;
    if (shown) here.set(id, { ...one, shown, stored, number: Math.max(...more.map((entry) => entry.number)) });
    else anew.push(id);
  }
  if (anew.length > 0)
    for (const [id, answers] of await standingOfChildren(inside, anew))
      here.set(id, { number: last.get(id) ?? 0, basis, shown: shownBy(answers, by.words), stored: -1 });

  if (!hasWritten(inside)) await keep(inside, here);
  return new Map(childIds.map((id) => [id, here.get(id)?.shown ?? {}]));
}

function basisOf(inside: Inside, by: Rule): string {
  return [rule.version, inside.shipped.lexiconVersion, by.words.version, by.words.accent.id, by.slowAfterMs].join(
    " ",
  );
}

/** What memory and the database have of these children on this basis, as far as their logs go. */
async function keptOf(
  inside: Inside,
  childIds: readonly string[],
  { basis, last }: { readonly basis: string; readonly last: ReadonlyMap<string, number> },
): Promise<Map<string, Kept>> {
  const here = new Map<string, Kept>();
  // More than the log has: another log, of a database that was put back or a transaction that was taken back.
  const holds = (id: string, one: Pick<Kept, "basis" | "number">) =>
    one.basis === basis && one.number <= (last.get(id) ?? 0);
  for (const id of childIds) {
    const one = memory.get(keyOf(inside, id));
    if (one && holds(id, one)) here.set(id, one);
  }
  const missing = childIds.filter((id) => !here.has(id) && (last.get(id) ?? 0) > 0);
  if (missing.length === 0) return here;
  const { childId, number, basis: of, shown } = t.standings;
  const rows = await inside
    .select({ childId, number, basis: of, shown })
    .from(t.standings)
    .where(inArray(childId, missing));
  for (const row of rows) if (holds(row.childId, row)) here.set(row.childId, { ...row, stored: row.number });
  return here;
}

/** Keeps all in memory, and stores those that are far ahead of what is stored. */
async function keep(inside: Inside, here: Map<string, Kept>): Promise<void> {
  const due = [...here].filter(([, one]) => one.stored < 0 || one.number - one.stored >= MOST_BEHIND);
  if (due.length > 0) {
    // Always in one order, so that two processes never wait for each other.
    const rows = due
      .map(([childId, { number, basis, shown }]) => ({ childId, number, basis, shown }))
      .sort((one, other) => (one.childId < other.childId ? -1 : 1));
    await inside
      .insert(t.standings)
      .values(rows)
      .onConflictDoUpdate({
        target: [t.standings.schoolId, t.standings.childId],
        set: { number: sql`excluded.number`, basis: sql`excluded.basis`, shown: sql`excluded.shown` },
      });
    for (const [id, one] of due) here.set(id, { ...one, stored: one.number });
  }
  for (const [id, one] of here) memory.set(keyOf(inside, id), one);
}

/** For a child that is erased, and for tests of a start: nothing of it is kept in memory. What is stored goes with the child. */
export function forgetShown(inside: Inside, childId: string): void {
  memory.delete(keyOf(inside, childId));
}
