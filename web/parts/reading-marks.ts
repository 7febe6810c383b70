import type { MarkKind } from "#core/reading";

/** The marks of a reading: what they are called, which key gives them, and how they stand at a word. */
export const readingMarks: readonly {
  readonly kind: MarkKind;
  readonly name: string;
  readonly key: string;
  readonly sign: string;
  /** Needed often: on a phone it stands there without asking for more. */
  readonly often: boolean;
}[] = [
  { kind: "misread", name: "Misread", key: "m", sign: "×", often: true },
  { kind: "putRight", name: "Put right", key: "r", sign: "✓", often: true },
  { kind: "told", name: "Told", key: "t", sign: "T", often: true },
  { kind: "leftOut", name: "Left out", key: "l", sign: "–", often: true },
  { kind: "putIn", name: "Put in", key: "i", sign: "+", often: false },
  { kind: "sounded", name: "Sounded out", key: "s", sign: "·", often: true },
  { kind: "again", name: "Said again", key: "a", sign: "↺", often: false },
  { kind: "waited", name: "Long stop", key: "w", sign: "…", often: false },
  { kind: "endMark", name: "End mark read over", key: "e", sign: "⁄", often: false },
  { kind: "ownWay", name: "In their own way", key: "o", sign: "○", often: false },
];

const signs = new Map<MarkKind, string>([
  ...readingMarks.map(({ kind, sign }): [MarkKind, string] => [kind, sign]),
  ["skipped", "–"],
]);

/** The signs of a word's marks, to stand above it. */
export function signsOf(kinds: readonly MarkKind[]): string {
  return kinds.map((kind) => signs.get(kind) ?? "").join("");
}
