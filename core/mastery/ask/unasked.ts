import type { GivenAnswer } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { form, plural, shortDay } from "#core/saying";
import { dayNumber } from "../days.ts";
import { below } from "../gaussian.ts";
import type { By } from "../listen.ts";
import { foresee, type Mind } from "../mind.ts";
import { sureness } from "../standing.ts";
import type { Candidate } from "./ask.ts";
import type { ReadSince, SeekFrom } from "./sitting.ts";

/** The cards that such a check did not show, by why. */
export interface Unasked {
  /** Read in words of this check. */
  readonly inWords: readonly Gpc[];
  /** Surely known by what was marked before; with what was read since their cards. */
  readonly known: readonly Gpc[];
  readonly read: ReadSince;
  /** Surely not known: one more miss would say nothing new. */
  readonly gaps: readonly Gpc[];
  /** Neither: time was over, or it was enough for the child. */
  readonly open: readonly Gpc[];
}

/** What a check that asks only what is in doubt did not ask, and why. */
export function unaskedIn(
  from: SeekFrom,
  { mind, by }: { readonly mind: Mind; readonly by: By },
  candidates: readonly Candidate[],
  answers: readonly GivenAnswer[],
): Unasked {
  const shown = new Set(answers.map(({ item }) => item));
  const inWords = new Set(
    candidates.flatMap(({ item, heard }) => (heard.form === "word" && shown.has(item) ? heard.skills : [])),
  );
  const day = dayNumber(answers.at(-1)?.day ?? from.day);
  const found = { inWords: [] as Gpc[], known: [] as Gpc[], gaps: [] as Gpc[], open: [] as Gpc[] };
  for (const { kind, item } of candidates) {
    if (kind !== "card" || shown.has(item)) continue;
    const gap = below(0, foresee(mind, `say ${item}`, day, by));
    const asked = (mind.traces[`say ${item}`]?.answers ?? 0) > 0;
    if (inWords.has(`say ${item}`)) found.inWords.push(item);
    else if (gap <= 1 - sureness.unsteady) found.known.push(item);
    else if (asked && gap >= sureness.gap) found.gaps.push(item);
    else found.open.push(item);
  }
  const readOf = found.known.flatMap((gpc) => from.read[gpc] ?? []).filter(({ words, texts }) => words + texts > 0);
  const read = readOf.reduce<ReadSince>(
    (sum, one) => ({
      words: sum.words + one.words,
      // One text has many spellings: the most that any was read in.
      texts: Math.max(sum.texts, one.texts),
      since: sum.since === "" || one.since < sum.since ? one.since : sum.since,
    }),
    { words: 0, texts: 0, since: "" },
  );
  return { ...found, read };
}

/**
 * Why these cards were not asked, in sentences, the most telling first; none when all were.
 * @param today the day from which others are named
 */
export function unaskedInWords({ inWords, known, read, gaps, open }: Unasked, today: string): readonly string[] {
  const all = inWords.length + known.length + gaps.length + open.length;
  if (all === 0) return [];
  const says = [`${plural(all, "card was", "cards were")} not asked:`];
  const parts: string[] = [];
  if (known.length > 0)
    parts.push(
      `${known.length} ${form(known.length, "is", "are")} surely known by what was marked before${sinceThen(read, today)}`,
    );
  if (inWords.length > 0) parts.push(`${inWords.length} came up in words just now`);
  if (gaps.length > 0)
    parts.push(
      `${gaps.length} ${form(gaps.length, "is", "are")} surely not known yet, and another miss would say nothing new`,
    );
  if (open.length > 0) parts.push(`${open.length} ${form(open.length, "is", "are")} still in doubt`);
  return [...says, ...parts];
}

function sinceThen({ words, texts, since }: ReadSince, today: string): string {
  if (words + texts === 0) return "";
  const times = [
    ...(words > 0 ? [`${plural(words, "time")} in words`] : []),
    ...(texts > 0 ? [`in ${plural(texts, "text")}`] : []),
  ];
  return `, and read ${times.join(" and ")} since ${shortDay(since, today)}`;
}
