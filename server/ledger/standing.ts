import { LRUCache } from "lru-cache";
import type { AnswerBody } from "#contract";
import { checkOf, type GivenAnswer, isRight, standing, type TextEntry } from "#core/ledger";
import { answersInText } from "#core/reading";
import { slowAfterMs } from "../settings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords, type SchoolWords } from "../words/repository.ts";
import { hasWritten } from "./append.ts";
import { entriesAfter, numbersOf } from "./log.ts";

/** What the answers that stand depend on beside the log. */
export interface Rule {
  readonly slowAfterMs: number;
  /** The words and the accent by which readings are understood. */
  readonly words: SchoolWords;
  /** What a reading says went wrong, or came with effort. */
  readonly inText: (entry: TextEntry) => readonly GivenAnswer[];
  /** What it says of each of its words, those that were right too. */
  readonly wholeText: (entry: TextEntry) => readonly GivenAnswer[];
}
const isSameRule = (one: Rule, other: Rule) =>
  one.slowAfterMs === other.slowAfterMs && one.words.version === other.words.version;

/** The rule of the school as it is now. */
export async function ruleOf(inside: Inside): Promise<Rule> {
  const words = await readWords(inside);
  return {
    slowAfterMs: await slowAfterMs(inside),
    words,
    inText: (entry) => inText(entry, words),
    wholeText: (entry) => answersInText(entry, { ...words, all: true }),
  };
}

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

/** The whole log of each of these children, as it is kept in memory; every child has an entry. */
export async function logsOfChildren(
  inside: Inside,
  childIds: readonly string[],
): Promise<Map<string, readonly AnswerBody[]>> {
  const here = await keptLogs(inside, childIds, await ruleOf(inside));
  return new Map(childIds.map((id) => [id, here.get(id)?.log ?? []]));
}

/**
 * The standing answers of each of these children, in order of marking; every child has an entry. What was read once stays
 * in memory; the number of a child's last entry says whether there is more, and only that is read, also when another
 * process wrote it. Within a transaction that has marked, its own marks are read and not kept: it may be taken back.
 */
export async function standingOfChildren(
  inside: Inside,
  childIds: readonly string[],
): Promise<Map<string, readonly GivenAnswer[]>> {
  const rule = await ruleOf(inside);
  const here = await keptLogs(inside, childIds, rule);
  return new Map(
    childIds.map((id) => {
      const one = here.get(id);
      if (!one) return [id, []];
      if (isSameRule(one.rule, rule)) return [id, one.standing];
      const now = { ...one, rule, standing: standing(one.log, rule) };
      keep(inside, id, now);
      return [id, now.standing];
    }),
  );
}

/** How many items each check of a child has asked, and how many of them were right, by the first answer of the first round. */
export async function countsOfChecks(
  inside: Inside,
  childId: string,
): Promise<Map<string, { readonly asked: number; readonly right: number }>> {
  const answers = (await standingOfChildren(inside, [childId])).get(childId) ?? [];
  const seen = new Map<string, Set<string>>();
  const counts = new Map<string, { asked: number; right: number }>();
  for (const answer of answers) {
    const checkId = answer.source.kind === "check" ? checkOf(answer) : null;
    if (checkId === null || answer.pass !== 1) continue;
    const items = seen.get(checkId) ?? new Set();
    if (items.has(answer.item)) continue;
    seen.set(checkId, items.add(answer.item));
    const { asked, right } = counts.get(checkId) ?? { asked: 0, right: 0 };
    counts.set(checkId, { asked: asked + 1, right: right + (isRight(answer.outcome) ? 1 : 0) });
  }
  return counts;
}

function keep(inside: Inside, id: string, one: Kept): void {
  if (!hasWritten(inside)) kept.set(`${inside.memoryKey} ${id}`, one);
}

/** What is kept of these children, with what came since; a child without an entry is not among them. */
async function keptLogs(inside: Inside, childIds: readonly string[], rule: Rule): Promise<Map<string, Kept>> {
  const keyOf = (id: string) => `${inside.memoryKey} ${id}`;
  const last = await numbersOf(inside, childIds);
  const here = new Map<string, Kept>();
  for (const id of childIds) {
    const one = kept.get(keyOf(id));
    // More than the log has: another log, of a database that was put back or a transaction that was taken back.
    if (one && one.number <= (last.get(id) ?? 0)) here.set(id, one);
  }
  const behind = childIds.filter((id) => (here.get(id)?.number ?? 0) < (last.get(id) ?? 0));
  const known = new Map(behind.map((id) => [id, here.get(id)?.number ?? 0]));
  for (const [id, more] of await entriesAfter(inside, known)) {
    const log = [...(here.get(id)?.log ?? []), ...more.map(({ entry }) => entry)];
    const number = Math.max(...more.map((one) => one.number));
    const one = { number, rule, log, standing: standing(log, rule) };
    here.set(id, one);
    keep(inside, id, one);
  }
  return here;
}

/** For a child that is erased: nothing of its log is kept in memory. */
export function forgetChild(inside: Inside, childId: string): void {
  kept.delete(`${inside.memoryKey} ${childId}`);
}
