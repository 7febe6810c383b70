import { inArray, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import type { AnswerBody } from "#contract";
import { type GivenAnswer, standing, type TextEntry } from "#core/ledger";
import { answersInText } from "#core/reading";
import { slowAfterMs } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords, type SchoolWords } from "../words/repository.ts";
import { hasWritten } from "./append.ts";
import { entriesWhere, type Numbered } from "./log.ts";

/** What the answers that stand depend on beside the log. */
interface Rule {
  readonly slowAfterMs: number;
  /** The words and the accent by which readings are understood. */
  readonly words: SchoolWords;
}
const isSameRule = (one: Rule, other: Rule) =>
  one.slowAfterMs === other.slowAfterMs && one.words.version === other.words.version;

/** So many readings are remembered by what they say of their words; a class of thirty reads some five hundred in a year. */
const MOST_READINGS = 5000;
const said = new LRUCache<string, readonly GivenAnswer[]>({ max: MOST_READINGS });

function inText(entry: TextEntry, words: SchoolWords): readonly GivenAnswer[] {
  const key = `${words.version} ${entry.id}`;
  const known = said.get(key);
  if (known) return known;
  const answers = answersInText(entry, words);
  said.set(key, answers);
  return answers;
}

function standingIn(log: readonly AnswerBody[], { slowAfterMs: slow, words }: Rule): readonly GivenAnswer[] {
  return standing(log, { slowAfterMs: slow, inText: (entry) => inText(entry, words) });
}

interface Kept {
  /** Of the last entry that was read. */
  readonly number: number;
  readonly rule: Rule;
  readonly log: readonly AnswerBody[];
  readonly standing: readonly GivenAnswer[];
}

/** So many entries of logs are kept in memory, of the children that were asked for last. */
const MOST_ENTRIES = 400_000;
const kept = new LRUCache<string, Kept>({ maxSize: MOST_ENTRIES, sizeCalculation: ({ log }) => log.length + 1 });

/**
 * The standing answers of each of these children, in order of marking; every child has an entry. What was read once stays
 * in memory; the number of a child's last entry says whether there is more, and only that is read, also when another
 * process wrote it. Within a transaction that has marked, its own marks are read and not kept: it may be taken back.
 */
export async function standingOfChildren(
  inside: Inside,
  childIds: readonly string[],
): Promise<Map<string, readonly GivenAnswer[]>> {
  const rule: Rule = { slowAfterMs: await slowAfterMs(inside), words: await readWords(inside) };
  const keyOf = (id: string) => `${inside.schoolId} ${id}`;
  const last = new Map(
    childIds.length === 0
      ? []
      : (
          await inside
            .select({ id: t.children.id, entries: t.children.entries })
            .from(t.children)
            .where(inArray(t.children.id, [...childIds]))
        ).map((row) => [row.id, row.entries]),
  );
  const here = new Map<string, Kept>();
  for (const id of childIds) {
    const one = kept.get(keyOf(id));
    // More than the log has: another log, of a database that was put back or a transaction that was taken back.
    if (one && one.number <= (last.get(id) ?? 0)) here.set(id, one);
  }
  const behind = childIds.filter((id) => (here.get(id)?.number ?? 0) < (last.get(id) ?? 0));
  if (behind.length > 0) {
    // One statement for all: of each child what came after what is known of it.
    const known = behind.map((id) => sql`(${id}::uuid, ${here.get(id)?.number ?? 0}::int)`);
    const after = sql`exists (select 1 from (values ${sql.join(known, sql`, `)}) known(id, number) where known.id = ${t.answers.childId} and ${t.answers.number} > known.number)`;
    const fresh = new Map<string, Numbered[]>();
    for (const one of await entriesWhere(inside, after)) {
      const list = fresh.get(one.entry.childId);
      if (list) list.push(one);
      else fresh.set(one.entry.childId, [one]);
    }
    for (const [id, more] of fresh) {
      const log = [...(here.get(id)?.log ?? []), ...more.map(({ entry }) => entry)];
      const number = Math.max(...more.map((one) => one.number));
      keep(id, { number, rule, log, standing: standingIn(log, rule) });
    }
  }
  function keep(id: string, one: Kept): void {
    here.set(id, one);
    if (!hasWritten(inside)) kept.set(keyOf(id), one);
  }
  return new Map(
    childIds.map((id) => {
      const one = here.get(id);
      if (!one || !last.has(id)) return [id, []];
      if (!isSameRule(one.rule, rule)) keep(id, { ...one, rule, standing: standingIn(one.log, rule) });
      return [id, here.get(id)?.standing ?? []];
    }),
  );
}

/** A child was erased: nothing of its log is kept in memory. */
export function forgetChild(inside: Inside, childId: string): void {
  kept.delete(`${inside.schoolId} ${childId}`);
}
