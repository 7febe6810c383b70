import { type GivenAnswer, heardIn, isRight, isRightAtOnce, type KindId, type Outcome, type Tag } from "#core/ledger";
import { type Gpc, showGrapheme } from "#core/phonics";
import { form } from "#core/saying";
import { readWordItem } from "#core/words";
import { kinds, type Mixed, type Setup, showMixed, type TellWanted, type Told } from "./kinds/index.ts";

/** One first answer with what it says. */
export interface AnswerTold {
  readonly item: string;
  /** The item as it is shown in lists. */
  readonly shows: string;
  readonly answer: GivenAnswer;
  /** What was said, written or chosen instead, as it is shown. */
  readonly heard: string | null;
  readonly told: Told;
}

/** Two things taken for one another, how often, and in which items. */
export interface MixedCount extends Mixed {
  readonly count: number;
  readonly items: readonly string[];
}

/** How a shape of words or a listening task went. */
export interface ShapeResult {
  readonly name: string;
  readonly asked: number;
  readonly atOnce: number;
  /** Right, but sounded out or slow. */
  readonly effort: number;
  readonly missed: number;
}

export interface CheckResult {
  readonly kind: KindId;
  readonly asked: number;
  /** All first answers, in order of marking. */
  readonly firsts: readonly AnswerTold[];
  /** First answers: right at once (own way included). */
  readonly known: readonly string[];
  /** First answers that were right, slowly or with effort. */
  readonly effort: readonly AnswerTold[];
  /** First answers that were wrong or not given. */
  readonly missed: readonly AnswerTold[];
  /** Missed at first, right in a later round. */
  readonly wonBack: readonly string[];
  /** Confusions as pairs, most frequent first. */
  readonly mixed: readonly MixedCount[];
  /** Spellings that failed in words, most often first. */
  readonly parts: readonly { readonly gpc: Gpc; readonly count: number; readonly items: readonly string[] }[];
  /** By shape of word, or by listening task; empty for other kinds. */
  readonly shapes: readonly ShapeResult[];
  readonly realMissed: readonly [missed: number, asked: number];
  readonly madeUpMissed: readonly [missed: number, asked: number];
  readonly tags: ReadonlyMap<Tag, number>;
  readonly ownWay: number;
  readonly reversed: number;
  /** Against the last time each item was asked before this check. */
  readonly nowRight: readonly string[];
  readonly nowMissed: readonly string[];
  /** Median milliseconds of the timed first answers, or null. */
  readonly medianMs: number | null;
}

export interface SummaryWanted extends TellWanted<Setup> {
  readonly kind: KindId;
  /** The standing answers of the check, in order of marking. */
  readonly answers: readonly GivenAnswer[];
  /** The last outcome of each item before the check. */
  readonly before: ReadonlyMap<string, Outcome>;
}

/** What a check says. */
export function summarise(wanted: SummaryWanted): CheckResult {
  const { kind: id, answers, before } = wanted;
  const kind = kinds[id];
  const first = new Map<string, GivenAnswer>();
  const later = new Map<string, GivenAnswer>();
  for (const answer of answers) (first.has(answer.item) ? later : first).set(answer.item, answer);
  const firsts = [...first.values()];
  const told = firsts.map((answer): AnswerTold => {
    const { item } = answer;
    const heard = heardIn(answer);
    return {
      item,
      shows: kinds[answer.kind].show(item),
      answer,
      heard: heard === null ? null : kinds[answer.kind].showHeard(heard),
      told: kinds[answer.kind].tell(answer, wanted),
    };
  });
  const pick = (test: (outcome: Outcome) => boolean) => told.filter(({ answer }) => test(answer.outcome));
  const missed = pick((outcome) => !isRight(outcome));
  const known = pick(isRightAtOnce).map((one) => one.item);
  const of = (test: (answer: GivenAnswer) => boolean): [number, number] => {
    const here = firsts.filter((answer) => answer.kind === "words" && test(answer));
    return [here.filter((answer) => !isRight(answer.outcome)).length, here.length];
  };
  const tags = new Map<Tag, number>();
  for (const tag of firsts.flatMap((answer) => answer.tags)) tags.set(tag, (tags.get(tag) ?? 0) + 1);
  return {
    kind: id,
    asked: firsts.length,
    firsts: told,
    known,
    effort: pick((outcome) => isRight(outcome) && !isRightAtOnce(outcome)),
    missed,
    wonBack: missed.filter(({ item }) => isRight(later.get(item)?.outcome ?? "none")).map((one) => one.item),
    mixed: countMixed(told),
    parts: failedParts(told),
    shapes: shapesOf(firsts),
    realMissed: of((answer) => !readWordItem(answer.item).madeUp),
    madeUpMissed: of((answer) => readWordItem(answer.item).madeUp),
    tags,
    ownWay: firsts.filter((answer) => answer.outcome === "ownWay").length,
    reversed: firsts.filter((answer) => answer.outcome === "reversed" || answer.tags.includes("reversed")).length,
    nowRight: known.filter((item) => before.has(item) && !isRightAtOnce(before.get(item) ?? "right")),
    nowMissed: missed.map((one) => one.item).filter((item) => isRight(before.get(item) ?? "none")),
    medianMs:
      kind.way === "cards" ? median(firsts.flatMap((answer) => (answer.ms === null ? [] : [answer.ms]))) : null,
  };
}

function median(values: readonly number[]): number | null {
  const sorted = [...values].sort((one, other) => one - other);
  return sorted[Math.floor(sorted.length / 2)] ?? null;
}

function countMixed(told: readonly AnswerTold[]): readonly MixedCount[] {
  const counts = new Map<string, MixedCount>();
  for (const { shows, told: one } of told) {
    for (const mixed of one.mixed) {
      const key = `${mixed.of} ${[mixed.asked, mixed.given].sort().join(" ")}`;
      const entry = counts.get(key) ?? { ...mixed, count: 0, items: [] };
      counts.set(key, { ...entry, count: entry.count + 1, items: [...entry.items, shows] });
    }
  }
  return [...counts.values()].sort((one, other) => other.count - one.count);
}

function failedParts(told: readonly AnswerTold[]): CheckResult["parts"] {
  const counts = new Map<Gpc, string[]>();
  for (const { shows, told: one } of told)
    for (const at of one.failed) {
      const gpc = one.units[at]?.gpc;
      if (gpc) counts.set(gpc, [...(counts.get(gpc) ?? []), shows]);
    }
  return [...counts]
    .map(([gpc, items]) => ({ gpc, count: items.length, items: [...new Set(items)] }))
    .sort((one, other) => other.count - one.count);
}

function shapesOf(firsts: readonly GivenAnswer[]): readonly ShapeResult[] {
  const found = new Map<string, ShapeResult>();
  for (const { kind, item, outcome } of firsts) {
    const name = kinds[kind].piles?.of(item);
    if (!name) continue;
    const { asked, atOnce, effort, missed } = found.get(name) ?? { asked: 0, atOnce: 0, effort: 0, missed: 0 };
    const [right, quick] = [isRight(outcome), isRightAtOnce(outcome)];
    found.set(name, {
      name,
      asked: asked + 1,
      atOnce: atOnce + (quick ? 1 : 0),
      effort: effort + (right && !quick ? 1 : 0),
      missed: missed + (right ? 0 : 1),
    });
  }
  return [...found.values()];
}

/** How the parts of a kind's right answers with effort are called. */
export function effortName(kind: KindId): string {
  return kinds[kind].effort ?? "slow";
}

/** What a check says, as sentences that a colleague who was not there understands; the main thing first. */
export function resultInWords(result: CheckResult): readonly string[] {
  const { asked, known, effort, missed, parts, mixed, shapes, wonBack, kind } = result;
  if (asked === 0) return ["Nothing was asked."];
  const says: string[] = [
    `${known.length} of ${asked} right at once${effort.length > 0 ? `, ${effort.length} ${effortName(kind)}` : ""}${missed.length > 0 ? `, ${missed.length} missed` : ""}.`,
  ];
  const weak = shapes.filter((shape) => shape.asked >= 2 && shape.missed * 2 >= shape.asked);
  const firm = shapes.filter((shape) => shape.asked >= 2 && shape.missed === 0);
  if (weak.length > 0)
    says.push(`${weak.map((shape) => `${shape.name} (${shape.missed} of ${shape.asked} missed)`).join("; ")}.`);
  if (weak.length > 0 && firm.length > 0)
    says.push(`Firm: ${firm.map((shape) => shape.name.toLowerCase()).join(", ")}.`);
  for (const { gpc, count, items } of parts.slice(0, 3))
    if (count > 1) says.push(`${showGrapheme(gpc.split("=")[0] ?? "")} failed ${count} times: ${items.join(", ")}.`);
  for (const pair of mixed.slice(0, 3)) if (pair.count > 1) says.push(`${pair.count} times ${showMixed(pair)}.`);
  const sounded = effort.filter((one) => one.answer.outcome === "sounded").length;
  if (kind === "words" && sounded > 0 && sounded * 2 > asked)
    says.push("Most words are still sounded out aloud, also those that were right.");
  const blended = missed.filter((one) => one.answer.outcome === "blend").length;
  if (blended > 1)
    says.push(`${blended} times the sounds were right and the word was not: blending is what to practise.`);
  const [realMissed, real] = result.realMissed;
  const [madeUpMissed, madeUp] = result.madeUpMissed;
  if (real >= 3 && madeUp >= 3 && madeUpMissed / madeUp - realMissed / real > 0.34)
    says.push("Made-up words fail much more often than real ones: known words may be read as wholes.");
  const firsts = missed.filter((one) =>
    one.told.says.some((text) => text.startsWith("It is the first sound")),
  ).length;
  if (firsts > 1) says.push(`The first sound of a cluster fell away ${firsts} times.`);
  const { nowRight, nowMissed } = result;
  const be = (list: readonly string[], one: string, more: string) => form(list.length, one, more);
  if (wonBack.length > 0) says.push(`${wonBack.length} of the missed came right in a later round.`);
  if (nowRight.length > 0)
    says.push(
      `${nowRight.length} that ${be(nowRight, "was", "were")} not right at once last time ${be(nowRight, "is", "are")} now.`,
    );
  if (nowMissed.length > 0)
    says.push(
      `${nowMissed.length} that ${be(nowMissed, "was", "were")} right last time ${be(nowMissed, "was", "were")} missed.`,
    );
  return says;
}

const SOME = 3;
const heardAlike = new Set(["f/th", "dh/v", "f/s", "s/th", "m/n", "b/p", "d/t", "g/k", "e/i", "n/ng", "b/v", "a/u"]);
const seenAlike = new Set([
  "b d",
  "p q",
  "b p",
  "d q",
  "m n",
  "n u",
  "h n",
  "i l",
  "f t",
  "g q",
  "c e",
  "M W",
  "b/d",
]);

/**
 * Words of care where the pattern suggests that hearing, sight or speech should be looked at by those who can; null
 * otherwise. Never a diagnosis.
 */
export function careWords(result: CheckResult): string | null {
  const advice =
    "This is an observation, not a diagnosis. If it stays in spite of good teaching, talk to the family and to the qualified specialist under your local procedure.";
  const sum = (test: (mixed: MixedCount) => boolean) =>
    result.mixed.filter(test).reduce((total, mixed) => total + mixed.count, 0);
  const key = (mixed: Mixed, between: string) => [mixed.asked, mixed.given].sort().join(between);
  const heard = sum((mixed) => mixed.of === "sound" && heardAlike.has(key(mixed, "/")));
  const seen = sum((mixed) =>
    mixed.of === "spelling" ? seenAlike.has(key(mixed, " ")) : result.kind !== "listen" && key(mixed, "/") === "b/d",
  );
  if (result.kind === "listen" && result.asked >= 6 && result.missed.length * 3 >= result.asked * 2)
    return `Most of the listening was missed. Could the child hear well today? ${advice}`;
  if (heard >= SOME)
    return `${heard} misses are sounds that are heard nearly alike. Could the child hear well today? ${advice}`;
  if (seen + result.reversed >= SOME)
    return `${seen + result.reversed} misses are letters that look alike or were turned round. Many children do this while they learn; are the glasses on, is the light good? ${advice}`;
  if (result.ownWay >= SOME)
    return `${result.ownWay} answers were said in the child's own way and count as right. An accent, a home language or a speech sound that is still developing is no reading error. ${advice}`;
  return null;
}
