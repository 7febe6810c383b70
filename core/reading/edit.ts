import type { MarkKind, ReadingMark } from "./marks.ts";

/** Of these a word has one at most: it came out in one way. */
const ways: readonly MarkKind[] = ["misread", "leftOut", "told", "skipped", "ownWay"];

/**
 * The marks after `kind` was pressed for the word at `at`. Pressed again it goes. A word comes out in one way, so that
 * another way takes the place of the one before; but a word that was told keeps what had been said for it. Put right
 * belongs to a misread and brings one; sounded out means that it came right. `ms` is the clock when it was pressed,
 * where it ran.
 */
export function pressMark(
  marks: readonly ReadingMark[],
  at: number,
  kind: MarkKind,
  ms?: number,
): readonly ReadingMark[] {
  const here = (kinds: readonly MarkKind[]) => (mark: ReadingMark) => mark.at === at && kinds.includes(mark.kind);
  const without = (kinds: readonly MarkKind[]) => marks.filter((mark) => !here(kinds)(mark));
  const added = { at, kind, heard: null, ...(ms === undefined ? {} : { ms }) };
  if (marks.some(here([kind]))) return without(kind === "misread" ? ["misread", "putRight"] : [kind]);
  if (kind === "putRight")
    return marks.some(here(["misread"]))
      ? [...marks, added]
      : [...without(ways), { ...added, kind: "misread" as const }, added];
  if (kind === "told") {
    const said = marks.filter((mark) => mark.at === at && mark.kind === "misread" && mark.heard !== null);
    return [...without([...ways, "putRight", "sounded"]), ...said, added];
  }
  if (ways.includes(kind))
    return [...without([...ways, "putRight", ...(kind === "ownWay" ? [] : ["sounded" as const])]), added];
  if (kind === "sounded") return [...without([...ways, "putRight"]), added];
  return [...marks, added];
}

/** The marks with what was said at a word; `kind` is that of the mark it belongs to. */
export function withHeard(
  marks: readonly ReadingMark[],
  at: number,
  kind: "misread" | "putIn",
  heard: string | null,
): readonly ReadingMark[] {
  return marks.map((mark) => (mark.at === at && mark.kind === kind ? { ...mark, heard } : mark));
}

/** The marks after the words of a line were skipped: each of them is left out once, however it was marked before. */
export function skipWords(
  marks: readonly ReadingMark[],
  words: readonly number[],
  ms?: number,
): readonly ReadingMark[] {
  return words.reduce<readonly ReadingMark[]>(
    (all, at) =>
      all.some((mark) => mark.at === at && mark.kind === "skipped") ? all : pressMark(all, at, "skipped", ms),
    marks,
  );
}
