import type { GivenAnswer, Tag, TextEntry } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import {
  type ExplainWanted,
  explain,
  isWordItem,
  keyOf,
  misreadInWords,
  split,
  type UnitHeard,
  wordItem,
} from "#core/words";
import { type MarkKind, marksThatCount, type Reading, textWords } from "./marks.ts";
import { scoreReading } from "./score.ts";

/** What a misread word of a text says. */
export interface MisreadTold {
  readonly at: number;
  readonly word: string;
  readonly heard: string;
  readonly putRight: boolean;
  readonly units: readonly UnitHeard[];
  readonly says: readonly string[];
}

/** A spelling that failed in a reading: how often, and in which words. */
export interface FailedSpelling {
  readonly gpc: Gpc;
  readonly count: number;
  readonly words: readonly string[];
}

/** What each noted misread says, unit by unit, in the order of the text. One that is right in this accent says nothing. */
export function misreads(reading: Reading, wanted: ExplainWanted): readonly MisreadTold[] {
  const words = textWords(reading.text);
  const marks = marksThatCount(reading, words.length);
  const mended = new Set(marks.filter((mark) => mark.kind === "putRight").map((mark) => mark.at));
  return marks
    .flatMap((mark): MisreadTold[] => {
      const word = words[mark.at]?.text;
      if (mark.kind !== "misread" || mark.heard === null || word === undefined) return [];
      const told = explain(word, mark.heard, wanted);
      if (told.right) return [];
      const { at, heard } = mark;
      return [{ at, word, heard, putRight: mended.has(at), units: told.units, says: misreadInWords(told) }];
    })
    .sort((one, other) => one.at - other.at);
}

/** Spellings behind the misreads that stayed, most often first. */
export function failedSpellings(told: readonly MisreadTold[]): readonly FailedSpelling[] {
  const counts = new Map<Gpc, string[]>();
  for (const one of told) {
    if (one.putRight) continue;
    for (const { unit, outcome } of one.units)
      if (outcome !== "right" && unit.sound !== "") counts.set(unit.gpc, [...(counts.get(unit.gpc) ?? []), one.word]);
  }
  return [...counts]
    .map(([gpc, words]) => ({ gpc, count: words.length, words: [...new Set(words)] }))
    .sort((one, other) => other.count - one.count);
}

/** What a reading says of one of its words: that it went wrong, or came with effort. */
export interface WordRead {
  readonly at: number;
  /** The word in its units, as in a check of words. */
  readonly item: string;
  readonly outcome: "wrong" | "none" | "sounded" | "ownWay";
  /** What was said, with `wrong`; null when no one noted it. */
  readonly heard: string | null;
  /** The child mended it by itself. */
  readonly putRight: boolean;
  /** It was sounded out, and went wrong all the same. */
  readonly soundedOut: boolean;
  /** Milliseconds into the reading. */
  readonly ms: number;
}

/**
 * What a reading says of its words: those misread (also those put right, which are confusions all the same), told,
 * sounded out and said in the child's own way. A word is one entry: one that was misread and then told is a misread, with
 * what was said; one that was sounded out and then misread or told is what it came to.
 * What was left out says nothing about a spelling, and what stands behind the stop was not read. A misread that is right
 * in the school's accent is none. In the order of the text.
 */
export function entriesOf(reading: Reading, wanted: ExplainWanted): readonly WordRead[] {
  const words = textWords(reading.text);
  const marks = marksThatCount(reading, words.length);
  const at = (kind: MarkKind) => new Set(marks.filter((mark) => mark.kind === kind).map((mark) => mark.at));
  const [mended, told, misread, sounded] = [at("putRight"), at("told"), at("misread"), at("sounded")];
  return marks
    .filter(({ at, kind }) => !(kind === "told" && misread.has(at)))
    .filter(({ at, kind }) => !(kind === "sounded" && (misread.has(at) || told.has(at))))
    .flatMap((mark): WordRead[] => {
      const word = words[mark.at]?.text;
      const kind = outcomes[mark.kind];
      if (word === undefined || kind === undefined) return [];
      const heardAs = mark.kind === "misread" && mark.heard !== null ? explain(word, mark.heard, wanted) : undefined;
      if (heardAs?.right && !told.has(mark.at)) return [];
      const outcome = heardAs?.right ? "none" : kind;
      const units =
        heardAs && !heardAs.right ? heardAs.units.map((one) => one.unit) : (split(word, wanted)[0]?.units ?? []);
      const item = wordItem({ text: keyOf(word), units });
      if (!isWordItem(item)) return [];
      const heard = outcome === "wrong" ? mark.heard : null;
      return [
        {
          at: mark.at,
          item,
          outcome,
          heard,
          putRight: mended.has(mark.at),
          soundedOut: kind !== "sounded" && kind !== "ownWay" && sounded.has(mark.at),
          ms: mark.ms ?? 0,
        },
      ];
    })
    .sort((one, other) => one.at - other.at);
}

/**
 * A reading of the log as answers to its words, in the order of the text: those that went wrong or came with effort, and
 * with `all` the others too, up to where reading stopped. What is put right in the school's splits later counts at once.
 * @example answersInText(entry, { lexicon }).map(({ item, outcome }) => [item, outcome]) // [["ch i p", "wrong"]]
 */
export function answersInText(
  entry: TextEntry,
  { all = false, ...wanted }: ExplainWanted & { readonly all?: boolean },
): readonly GivenAnswer[] {
  const { id, childId, day, markedBy, source, reading } = entry;
  const whole: Reading = { ...reading, ms: null };
  const begun = Date.parse(entry.markedAt);
  const answer = ({ at, ms }: Pick<WordRead, "at" | "ms">, item: string, tags: readonly Tag[]) => ({
    // An id of its own for each word, always the same.
    id: `${id.slice(0, 24)}${at.toString(16).padStart(12, "0")}`,
    childId,
    // Marks without a time keep the order of the text.
    markedAt: new Date(begun + Math.max(ms, at)).toISOString(),
    day,
    markedBy,
    kind: "words" as const,
    item,
    ms: null,
    source,
    help: "none" as const,
    way: "text" as const,
    pass: 1,
    tags,
  });
  const marked = entriesOf(whole, wanted).map((word): [number, GivenAnswer] => {
    const tags: Tag[] = [];
    if (word.putRight) tags.push("putRight");
    if (word.soundedOut) tags.push("soundedOut");
    const { outcome, heard } = word;
    const given = answer(word, word.item, tags);
    return [word.at, outcome === "wrong" ? { ...given, outcome, heard, units: null } : { ...given, outcome }];
  });
  if (!all) return marked.map(([, one]) => one);
  const said = new Map(marked);
  const words = textWords(reading.text);
  return scoreReading(whole).words.flatMap((result, at): GivenAnswer[] => {
    const one = said.get(at);
    if (one) return [one];
    const word = words[at]?.text ?? "";
    const item = wordItem({ text: keyOf(word), units: split(word, wanted)[0]?.units ?? [] });
    return result === "right" && isWordItem(item) ? [{ ...answer({ at, ms: 0 }, item, []), outcome: "right" }] : [];
  });
}

const outcomes: Partial<Record<MarkKind, WordRead["outcome"]>> = {
  misread: "wrong",
  told: "none",
  sounded: "sounded",
  ownWay: "ownWay",
};
