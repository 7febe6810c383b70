import { type Gpc, showGrapheme } from "#core/phonics";
import type { Lexicon } from "#core/words";
import { hasMarks } from "./kinds.ts";
import { readOf, type SessionPart } from "./plan.ts";

/** What is laid out for sessions, each thing once. */
export interface Materials {
  /** Spellings, a card each: what is taught, what is revisited. */
  readonly cards: readonly Gpc[];
  /** Words on strips, those to read. */
  readonly words: readonly string[];
  /** Those of them that stand with marks under their sounds. */
  readonly marked: readonly string[];
  /** Pictures, by the words that they show. */
  readonly pictures: readonly string[];
  /** Sentences and questions on strips, without their answers. */
  readonly lines: readonly string[];
  /** Spellings as tiles, as many of each as the longest need of one word has: `ee`, 2. */
  readonly tiles: readonly { readonly grapheme: string; readonly count: number }[];
  /** Boxes in a row, for the word with most sounds; 0 where none is built. */
  readonly boxes: number;
  /** Of a sheet to write on: words and sentences. */
  readonly writes: { readonly words: number; readonly sentences: number };
  /** Heads of mats to sort on, a mat each. */
  readonly mats: readonly (readonly string[])[];
  /** Titles of texts of the shelf. */
  readonly texts: readonly string[];
}

/** Kinds of part whose words are read from strips. */
const strips: readonly SessionPart["kind"][] = ["readWords", "readAgain", "exceptionWords", "madeUp"];

/** What is to be laid out for one session, or for those of a week together: what comes twice is laid out once. */
export function materialsOf(
  plans: readonly { readonly parts: readonly SessionPart[] }[],
  lexicon: Lexicon,
): Materials {
  const parts = plans.flatMap((plan) => plan.parts);
  const of = (...kinds: readonly SessionPart["kind"][]) => parts.filter(({ kind }) => kinds.includes(kind));
  const items = (...kinds: readonly SessionPart["kind"][]) => of(...kinds).flatMap((part) => part.items);
  const once = <T>(list: readonly T[]) => [...new Set(list)];
  const own = of("revisit", "lastLook").flatMap(({ each }) => each?.flatMap((one) => one.items) ?? []);
  const built = once(items("build", "chain", "blend"));
  const unitsOf = (text: string) => lexicon.find(text)[0]?.units ?? [];
  const tiles = new Map<string, number>();
  for (const text of built) {
    const counts = new Map<string, number>();
    for (const { grapheme } of unitsOf(text)) counts.set(grapheme, (counts.get(grapheme) ?? 0) + 1);
    for (const [grapheme, count] of counts) tiles.set(grapheme, Math.max(count, tiles.get(grapheme) ?? 0));
  }
  const sorted = items("sort");
  const most = (kind: SessionPart["kind"]) =>
    Math.max(
      0,
      ...plans.map((plan) => plan.parts.filter((part) => part.kind === kind).flatMap((part) => part.items).length),
    );
  return {
    cards: once([...items("teach", "revisit", "lastLook"), ...own]),
    words: once([
      ...items(...strips),
      ...sorted.flatMap((line) => readOf("sort", line).split(/,\s*/)).filter(Boolean),
      ...items("pairs").flatMap((pair) => pair.split(/\s*\/\s*/)),
    ]),
    marked: once(
      of(...strips)
        .filter(hasMarks)
        .flatMap((part) => part.items),
    ),
    pictures: once(items("phrase").flatMap((line) => /\(([^()]+)\)\s*$/.exec(line)?.[1] ?? [])),
    lines: once([
      ...items("readSentence"),
      ...items("phrase").map((line) => readOf("phrase", line)),
      ...items("yesNo").map((line) => readOf("yesNo", line)),
    ]),
    tiles: [...tiles]
      .map(([grapheme, count]) => ({ grapheme: showGrapheme(grapheme), count }))
      .sort((one, other) => one.grapheme.localeCompare(other.grapheme)),
    boxes: Math.max(
      0,
      ...once(items("build", "chain")).map((text) => unitsOf(text).filter(({ sound }) => sound).length),
    ),
    writes: { words: most("writeWords"), sentences: most("sentence") },
    mats: of("sort").flatMap((part) => {
      const heads = part.items.flatMap((line) => /^([^:]+):/.exec(line)?.[1] ?? []);
      return heads.length > 0 ? [heads] : [];
    }),
    texts: once(items("text")),
  };
}
