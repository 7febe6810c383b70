import { BEFORE_FIRST, type MarkKind, type ReadingMark } from "./marks.ts";

/** How a word came out, and what belongs to it. Beside each of these only those may stand that it names. */
const beside: Partial<Record<MarkKind, readonly MarkKind[]>> = {
  misread: ["putRight", "told", "sounded"],
  told: ["misread", "sounded"],
  leftOut: ["putRight"],
  skipped: [],
  ownWay: ["sounded"],
  putRight: ["misread", "leftOut", "sounded"],
  sounded: ["misread", "told", "ownWay", "putRight"],
};

/**
 * The marks after `kind` was pressed for the word at `at`. Pressed again it goes. A word comes out in one way, so that
 * another way takes the place of the one before; but what was sounded out may then go wrong, what was misread may then be
 * told, and what was misread or left out may be put right. Put right brings a misread where there is neither, and goes with
 * it. Before the first word a word can be put in, and nothing else. `ms` is the clock when it was pressed, where it ran.
 */
export function pressMark(
  marks: readonly ReadingMark[],
  at: number,
  kind: MarkKind,
  ms?: number,
): readonly ReadingMark[] {
  if (at === BEFORE_FIRST && kind !== "putIn") return marks;
  const here = (kinds: readonly MarkKind[]) => (mark: ReadingMark) => mark.at === at && kinds.includes(mark.kind);
  const without = (kinds: readonly MarkKind[]) => marks.filter((mark) => !here(kinds)(mark));
  const added = { at, kind, heard: null, ...(ms === undefined ? {} : { ms }) };
  if (marks.some(here([kind])))
    return without(kind === "misread" || kind === "leftOut" ? [kind, "putRight"] : [kind]);
  const stays = beside[kind];
  if (!stays) return [...marks, added];
  const gives = (Object.keys(beside) as MarkKind[]).filter((one) => !stays.includes(one));
  const left = without(gives);
  if (kind === "putRight" && !left.some(here(["misread", "leftOut"])))
    return [...left, { ...added, kind: "misread" as const }, added];
  const after = [...left, added];
  // What was to be mended is gone: sounded out, and it was right.
  return after.some(here(["misread", "leftOut"])) ? after : after.filter((mark) => !here(["putRight"])(mark));
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
