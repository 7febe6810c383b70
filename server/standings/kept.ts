import { inArray, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import { standing } from "#core/ledger";
import { type Known, knownAfter, knownBy, MODEL_VERSION, type SaidBy } from "#core/mastery";
import { outlineOf } from "../classes/outline.ts";
import { hasWritten } from "../ledger/append.ts";
import { entriesAfter, headsOf } from "../ledger/log.ts";
import { logsOfChildren, type Rule, ruleOf } from "../ledger/standing.ts";
import { ownModel, parametersOf, secureWhen } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { type LessonsOfChild, lessonsIn } from "./lessons.ts";

interface Kept {
  /** Of the last entry of the child's log that it is made of. */
  readonly number: number;
  /** The model, the words, the settings and the lessons that it was made by. */
  readonly basis: string;
  readonly known: Known;
  /** The number up to which it is stored; -1 where it is not, or by another basis. */
  readonly stored: number;
}

/** So many skills of children are kept in memory, of those that were asked for last: some 5,000 children. */
const MOST_SKILLS = 700_000;
const memory = new LRUCache<string, Kept>({
  maxSize: MOST_SKILLS,
  sizeCalculation: ({ known }) => Object.keys(known.mind.traces).length + 1,
});
const keyOf = (inside: Inside, childId: string) => `${inside.memoryKey} ${childId}`;

/** What is stored may be so many entries behind: they are added when it is read, and cost less than writing each time. */
const MOST_BEHIND = 50;

/** What is known of a child, with what it was taught and when its school calls a thing secure. */
export interface KnownChild extends Omit<LessonsOfChild, "key"> {
  readonly known: Known;
  readonly by: SaidBy;
}

/** One child whose log is asked about. */
interface Asked {
  readonly number: number;
  readonly basis: string;
  readonly of: LessonsOfChild;
}

/**
 * What is known of each of these children; who is not here is left out. It is kept in memory and stored by child and number,
 * so that neither a read nor the first one after a start replays a log: what came since is added. It is made anew from the
 * log where something before was taken back or arrived late, and where the model, the words, the settings or the lessons are
 * others. Right also when another process wrote: the number is the database's.
 */
export async function knownOf(inside: Inside, childIds: readonly string[]): Promise<Map<string, KnownChild>> {
  const rule = await ruleOf(inside);
  const lessons = await lessonsIn(inside);
  const { firstDay } = await outlineOf(inside);
  const p = await parametersOf(inside);
  const own = JSON.stringify((await ownModel(inside))?.values ?? null);
  const common = `${basisOf(inside, rule)} ${firstDay} ${own}`;
  const asked = new Map<string, Asked>();
  for (const [id, { entries, classId }] of await headsOf(inside, childIds)) {
    const of = lessons(id, classId);
    asked.set(id, { number: entries, basis: `${common} ${of.key}`, of });
  }
  const here = await keptOf(inside, asked);
  const wanted = ({ lessons: its }: LessonsOfChild) => ({ lessons: its, p, words: rule.words, firstDay });

  const behind = new Map<string, number>();
  const anew: string[] = [];
  for (const [id, { number }] of asked) {
    const one = here.get(id);
    if (!one) anew.push(id);
    else if (one.number < number) behind.set(id, one.number);
  }
  for (const [id, more] of await entriesAfter(inside, behind)) {
    const one = here.get(id) as Kept;
    const fresh = more.map(({ entry }) => entry);
    const heard = { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText };
    const known = knownAfter(one.known, fresh, { ...wanted((asked.get(id) as Asked).of), standing: heard });
    // What a reading says costs most to work out: it is stored at once.
    const stored = fresh.some((entry) => entry.outcome === "reading") ? -1 : one.stored;
    if (known) here.set(id, { ...one, known, stored, number: Math.max(...more.map((entry) => entry.number)) });
    else anew.push(id);
  }
  if (anew.length > 0)
    for (const [id, log] of await logsOfChildren(inside, anew)) {
      const { number, basis, of } = asked.get(id) as Asked;
      const answers = standing(log, { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
      here.set(id, { number, basis, known: knownBy(answers, wanted(of)), stored: number === 0 ? 0 : -1 });
    }

  if (!hasWritten(inside)) await keep(inside, here);
  const when = await secureWhen(inside);
  return new Map(
    [...asked].map(([id, { of }]) => {
      const { known } = here.get(id) as Kept;
      const { taught, lessons, plain } = of;
      return [id, { known, taught, lessons, plain, by: { lessons, p, secureWhen: when } }];
    }),
  );
}

function basisOf(inside: Inside, rule: Rule): string {
  const { words } = rule;
  return [MODEL_VERSION, inside.shipped.lexiconVersion, words.version, words.accent.id, rule.slowAfterMs].join(" ");
}

/** What memory and the database have of these children on their basis, as far as their logs go. */
async function keptOf(inside: Inside, asked: ReadonlyMap<string, Asked>): Promise<Map<string, Kept>> {
  const here = new Map<string, Kept>();
  // More than the log has: another log, of a database that was put back or a transaction that was taken back.
  const holds = (id: string, one: Pick<Kept, "basis" | "number">) =>
    one.basis === asked.get(id)?.basis && one.number <= (asked.get(id)?.number ?? 0);
  for (const id of asked.keys()) {
    const one = memory.get(keyOf(inside, id));
    if (one && holds(id, one)) here.set(id, one);
  }
  const missing = [...asked].flatMap(([id, { number }]) => (!here.has(id) && number > 0 ? [id] : []));
  if (missing.length === 0) return here;
  const { childId, number, basis, known } = t.standings;
  const rows = await inside
    .select({ childId, number, basis, known })
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
      .map(([childId, { number, basis, known }]) => ({ childId, number, basis, known }))
      .sort((one, other) => (one.childId < other.childId ? -1 : 1));
    await inside
      .insert(t.standings)
      .values(rows)
      .onConflictDoUpdate({
        target: [t.standings.schoolId, t.standings.childId],
        set: { number: sql`excluded.number`, basis: sql`excluded.basis`, known: sql`excluded.shown` },
      });
    for (const [id, one] of due) here.set(id, { ...one, stored: one.number });
  }
  for (const [id, one] of here) memory.set(keyOf(inside, id), one);
}

/** For a child that is erased, and for tests of a start: nothing of it is kept in memory. What is stored goes with the child. */
export function forgetKnown(inside: Inside, childId: string): void {
  memory.delete(keyOf(inside, childId));
}
