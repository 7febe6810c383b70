import { type Gpc, ipa, isOwnUnit, showGrapheme, withImplied } from "#core/phonics";
import { form, plural } from "#core/saying";
import {
  type DecodabilityWanted,
  keyOf,
  laidOn,
  ownUnitsIn,
  split,
  type TextVerdict,
  unread,
  wordsOf,
} from "#core/words";
import type { TextContent } from "./library.ts";

/** A text of the library taken apart once, to be laid against many readers. */
export interface PreparedText {
  readonly exceptions: ReadonlySet<string>;
  /** Running words, those of the title among them. */
  readonly words: number;
  /** Each different word with how often it stands there and the units of every reading that it may have. */
  readonly different: readonly {
    readonly key: string;
    readonly count: number;
    readonly readings: readonly (readonly Gpc[])[];
  }[];
}

/** Takes a text apart for `fitOf`. */
export function prepareText(
  { title, body, exceptions }: Pick<TextContent, "title" | "body" | "exceptions">,
  { lexicon, accent }: Pick<DecodabilityWanted, "lexicon" | "accent">,
): PreparedText {
  const counts = new Map<string, { text: string; count: number }>();
  for (const { text } of wordsOf(`${title}.\n${body}`)) {
    if (!/\p{L}/u.test(text)) continue;
    const key = keyOf(text);
    counts.set(key, { text, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  const different = [...counts].map(([key, { text, count }]) => {
    const readings = split(text, { lexicon, accent });
    // A word that was split by rule is taken in its likeliest reading alone.
    const taken = readings[0]?.source === "rules" ? readings.slice(0, 1) : readings;
    return { key, count, readings: taken.map((reading) => reading.units.map((unit) => unit.gpc)) };
  });
  return {
    exceptions: new Set(exceptions.map(keyOf)),
    words: different.reduce((sum, word) => sum + word.count, 0),
    different,
  };
}

/** What a reader builds on. */
export interface FitWanted {
  readonly known: ReadonlySet<Gpc>;
  /** Exception words that have been taught, in small letters. */
  readonly wholes?: ReadonlySet<string> | undefined;
  /** Spellings that these readers should practise. */
  readonly targets?: ReadonlySet<Gpc> | undefined;
}

/** How a text fits readers. */
export interface TextFit {
  /** Share of its words that they can read, 0 to 1, title and words to be taught as wholes among them. */
  readonly share: number;
  readonly words: number;
  /** Spellings in the way, most often first. */
  readonly inTheWay: TextVerdict["inTheWay"];
  /** Words that the text wants read as wholes and that these readers were not taught, in the order of the text. */
  readonly untaught: readonly string[];
  /** How often it has a spelling that should be practised. */
  readonly practised: TextVerdict["practised"];
  /** Why it fits as it does, in one sentence. */
  readonly why: string;
}

/** From which share of words on a text can be read alone, and from which with help. Starting values. */
export const fitLimits = { alone: 0.97, helped: 0.9 };

/**
 * How a text fits readers who know `known`: the same figures as `decodability` gives for it, for many readers at once.
 * What they should practise is counted, and is in the way all the same until they know it. A word that the text wants
 * read as a whole can be read by those who were taught it (`wholes`) or who know its spellings.
 */
export function fitOf(
  { exceptions, words, different }: PreparedText,
  { known, wholes = new Set(), targets = new Set() }: FitWanted,
): TextFit {
  const readable = withImplied(known);
  const practised = new Map<Gpc, number>();
  const inTheWay = new Map<Gpc, { count: number; words: string[] }>();
  const untaught: string[] = [];
  let missing = 0;
  for (const { key, count, readings } of different) {
    const reading = readings.find((gpcs) => unread(gpcs, readable).length === 0) ?? readings[0] ?? [];
    const units = laidOn(reading, ownUnitsIn(targets)).map(({ gpc }) => gpc);
    for (const gpc of new Set([...reading, ...units]))
      if (targets.has(gpc)) practised.set(gpc, (practised.get(gpc) ?? 0) + count);
    const blocking = unread(reading, readable).map((at) => reading[at] as Gpc);
    if (blocking.length === 0 || wholes.has(key)) continue;
    missing += count;
    if (exceptions.has(key)) {
      untaught.push(key);
      continue;
    }
    for (const gpc of blocking) {
      const found = inTheWay.get(gpc) ?? { count: 0, words: [] };
      found.count += count;
      if (!found.words.includes(key)) found.words.push(key);
      inTheWay.set(gpc, found);
    }
  }
  const fit = {
    share: words === 0 ? 1 : (words - missing) / words,
    words,
    inTheWay: [...inTheWay].map(([gpc, found]) => ({ gpc, ...found })).sort(mostFirst),
    untaught,
    practised: [...practised].map(([gpc, count]) => ({ gpc, count })).sort(mostFirst),
  };
  return { ...fit, why: whyFit(fit) };
}

function mostFirst(one: { readonly count: number }, other: { readonly count: number }): number {
  return other.count - one.count;
}

function whyFit({ share, words, inTheWay, untaught, practised }: Omit<TextFit, "why">): string {
  const named = (gpc: Gpc) => showGrapheme(gpc.split("=")[0] ?? "");
  const top = practised.slice(0, 2);
  const alike = top.length === 2 && named(top[0]?.gpc ?? "") === named(top[1]?.gpc ?? "");
  const practice = top.map(
    ({ gpc, count }) =>
      `${named(gpc)}${alike ? ` as ${ipa(gpc.split("=")[1] ?? "")}` : ""} ${count === 1 ? "once" : `${count} times`}`,
  );
  const trains = practice.length > 0 ? ` It practises ${practice.join(" and ")}.` : "";
  if (share === 1) return `Every word can be read.${trains}`;
  const missing = Math.round(words * (1 - share));
  const ways = inTheWay
    .slice(0, 3)
    .map((one) => `${named(one.gpc)} (${one.words.slice(0, 2).join(", ")})`)
    .join(", ");
  const asWholes =
    untaught.length > 0
      ? `${form(untaught.length, "the exception word", "the exception words")} ${untaught.slice(0, 3).join(", ")}`
      : "";
  const what = [ways, asWholes].filter(Boolean).join("; ");
  const more = Math.max(inTheWay.length, untaught.length) > 3 ? " and more" : "";
  return `${missing} of ${plural(words, "word")} cannot be read yet: ${what}${more}.${trains}`;
}

/** For each step of a teaching order, counted from 1: what can be read from there on, spelling and whole word. */
export interface Climb {
  readonly spellings: ReadonlyMap<Gpc, number>;
  readonly wholes: ReadonlyMap<string, number>;
  /** What it teaches as one. */
  readonly units: readonly Gpc[];
}

/** A teaching order laid out for `stepOfText`. */
export function climbOf(
  steps: readonly { readonly gpcs: readonly Gpc[]; readonly exceptionWords: readonly string[] }[],
): Climb {
  const spellings = new Map<Gpc, number>();
  const wholes = new Map<string, number>();
  const taught: Gpc[] = [];
  for (const [at, { gpcs, exceptionWords }] of steps.entries()) {
    taught.push(...gpcs);
    for (const gpc of withImplied(taught)) if (!spellings.has(gpc)) spellings.set(gpc, at + 1);
    for (const word of exceptionWords) if (!wholes.has(keyOf(word))) wholes.set(keyOf(word), at + 1);
  }
  return { spellings, wholes, units: taught.filter(isOwnUnit) };
}

/**
 * The step, counted from 1, from which every word of a text can be read; null when some word never can. A word counts
 * from the step at which the last spelling of its easiest reading is taught, or from which it is taught as a whole; the
 * text's own exception words are taken to be taught with it.
 */
export function stepOfText(
  { different, exceptions }: PreparedText,
  { spellings, wholes, units }: Climb,
): number | null {
  let last = 1;
  for (const { key, readings } of different) {
    if (exceptions.has(key)) continue;
    const bySpelling = readings.map((gpcs) => {
      const laid = laidOn(gpcs, units);
      const from = (gpc: Gpc) => spellings.get(gpc) ?? Number.POSITIVE_INFINITY;
      // By itself, or as part of what is taught as one.
      const ofPlace = (gpc: Gpc, place: number) =>
        Math.min(
          from(gpc),
          ...laid.flatMap((unit) => (place >= unit.at && place < unit.at + unit.size ? from(unit.gpc) : [])),
        );
      return Math.max(0, ...gpcs.map(ofPlace));
    });
    last = Math.max(last, Math.min(wholes.get(key) ?? Number.POSITIVE_INFINITY, ...bySpelling));
  }
  return Number.isFinite(last) ? last : null;
}

/**
 * The shelf for these readers: what they can read alone first, the farthest on in the teaching order on top, since that
 * is what they just became able to read; then what they can read with help, then the rest, the nearest first.
 */
export function byFit<T extends { readonly fit: TextFit; readonly step: number | null }>(
  texts: readonly T[],
): readonly T[] {
  // A text that its order never reaches stands behind all others.
  const stepOf = ({ step }: T) => step ?? 1000;
  const rank = ({ fit }: T) => (fit.share >= fitLimits.alone ? 0 : fit.share >= fitLimits.helped ? 1 : 2);
  return [...texts].sort(
    (one, other) =>
      rank(one) - rank(other) ||
      (rank(one) === 0 ? stepOf(other) - stepOf(one) : other.fit.share - one.fit.share) ||
      stepOf(one) - stepOf(other),
  );
}
