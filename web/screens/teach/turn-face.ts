import type { FaceBody } from "#contract";
import { type Gpc, showGrapheme, splitGpc } from "#core/phonics";
import {
  type Board,
  boxesFor,
  columnsFor,
  commonEnds,
  heapsIn,
  heardAt,
  kindsOfPart,
  type Laid,
  type PartKind,
  readOf,
  type SessionPart,
  type Turn,
  verdicts,
} from "#core/plans";
import type { Unit } from "#core/words";

/** Kinds in which children hear or write what the adult says: they see it only once it is shown, to put theirs right. */
const unseen: ReadonlySet<PartKind> = new Set(["hear", "build", "writeWords", "sentence", "chain"]);

/** Whether children see an item of this kind before it is shown. */
export function isUnseen(kind: PartKind): boolean {
  return unseen.has(kind);
}

/** How a word stands: plain, with marks under its sounds, one sound after the other, or with its sounds apart. */
export const supports = ["plain", "marks", "byUnit", "apart"] as const;
export type Support = (typeof supports)[number];

export const supportSays: Readonly<Record<Support, string>> = {
  plain: "no marks",
  marks: "marks",
  byUnit: "sound by sound",
  apart: "sounds apart",
};

const LINE = { size: 64, spacing: 1.5 } as const;

/** The board of a turn: boxes for a word that is built or changed, columns for a word that is sorted; undefined where there is none. */
export function boardOfTurn(wanted: {
  readonly part: SessionPart | undefined;
  readonly turns: readonly Turn[];
  readonly turn: number;
  readonly unitsOf: (item: string | undefined) => readonly Unit[] | undefined;
  readonly known: readonly Gpc[];
  readonly seed: number;
}): Board | undefined {
  const { part, turns, turn, unitsOf, known, seed } = wanted;
  const item = turns[turn]?.item;
  if (!part || item === undefined) return undefined;
  if (part.kind === "sort") {
    const before = turns.slice(0, turn).map((one) => one.item);
    return columnsFor(heapsIn(part.items), { word: item, before });
  }
  const units = part.kind === "build" || part.kind === "chain" ? unitsOf(item) : undefined;
  if (!units || units.length === 0) return undefined;
  const before = part.kind === "chain" ? unitsOf(turns[turn - 1]?.item) : undefined;
  return boxesFor({ units, before, known, seed });
}

/** A board as children see it: how its tiles lie, and once it was looked at, which of them lie right. */
export function faceOfBoard(
  board: Board,
  { item, laid, isLookedAt }: { readonly item: string; readonly laid: Laid; readonly isLookedAt: boolean },
): FaceBody {
  const says = verdicts(board, laid);
  return {
    ...{ show: "board", item, look: board.look, at: [...laid] },
    places: board.places.map(({ name, has }) => ({ name, has: [...has] })),
    tiles: board.tiles.map((tile, at) => ({
      text: board.look === "boxes" ? showGrapheme(tile) : tile,
      as: isLookedAt ? (says[at] ?? null) : null,
    })),
  };
}

/** What children see of a turn without a board. */
export function faceOfTurn(wanted: {
  readonly kind: PartKind;
  readonly item: string | undefined;
  /** The word in its units, where the list knows it; and the word before it, of a chain. */
  readonly units: readonly Unit[] | undefined;
  readonly before: readonly Unit[] | undefined;
  readonly support: Support;
  /** Sounds that are shown of it, by sound; and how far its sounds stand apart, 0 to 1. */
  readonly sounds: number;
  readonly apart: number;
  /** What is heard or written is shown, to put it right. */
  readonly open: boolean;
  /** The words of a line that is read or written, to stand with marks under their sounds. */
  readonly line?: readonly LineWord[] | undefined;
  /** Spellings among which the one that is asked hides. */
  readonly spots?: readonly string[] | undefined;
  /** The text that is read, and how large it stands. */
  readonly passage?: { readonly text: string; readonly size: number; readonly spacing: number } | undefined;
}): FaceBody {
  const { kind, item, units, before, support, sounds, apart, open, spots, passage, line } = wanted;
  if (item === undefined) return { show: "nothing" };
  if (kind === "hear") return { show: "choices", item, choices: [...heardAt], look: "places" };
  if (isUnseen(kind) && !open) return { show: "nothing" };
  if (spots) return { show: "choices", item, choices: [...spots] };
  if (kindsOfPart[kind].items === "spellings")
    return { show: "text", text: showGrapheme(splitGpc(item).grapheme), size: "letters" };
  if (kind === "sort" && !item.includes(",")) return { show: "text", text: item.slice(0, 120), size: "word" };
  if (kind === "sort") return { show: "passage", text: readOf(kind, item).replaceAll(", ", "\n"), ...LINE };
  if (kind === "text" && passage) return { show: "passage", ...passage };
  if (kind === "pairs") return { show: "passage", text: item.replaceAll(" / ", "     "), ...LINE, size: 96 };
  const text = readOf(kind, item) || item;
  if (line && support !== "plain" && support !== "apart")
    return {
      show: "within",
      text,
      letters: lettersOfLine(line, support === "byUnit" ? sounds : Number.POSITIVE_INFINITY),
    };
  if (kind === "yesNo") return { show: "passage", text, ...LINE, answers: ["yes", "no"] };
  if (kindsOfPart[kind].items === "lines") return { show: "passage", text, ...LINE };
  if (!units || support === "plain") return { show: "text", text, size: "word" };
  // Of a chain the one sound that is another is marked.
  const changed = kind === "chain" && before ? changedIn(before, units) : undefined;
  const last = support === "byUnit" ? sounds : units.length;
  const letters = lettersOf(units, (at) => (at >= last ? "hidden" : !changed || changed.has(at) ? "seen" : "quiet"));
  return { show: "within", text, letters, ...(support === "apart" ? { apart } : {}) };
}

/** Places of the units that are others than in the word before. */
function changedIn(before: readonly Unit[], now: readonly Unit[]): ReadonlySet<number> {
  const gpcsOf = (units: readonly Unit[]) => units.map(({ gpc }) => gpc);
  const { start, end } = commonEnds(gpcsOf(before), gpcsOf(now));
  return new Set(Array.from({ length: Math.max(1, now.length - start - end) }, (_, at) => start + at));
}

type Letters = Extract<FaceBody, { show: "within" }>["letters"];
type Seen = "seen" | "quiet" | "hidden";

/** A piece of a line: a word that the list knows, in its units, or what has none. */
export interface LineWord {
  readonly text: string;
  readonly units: readonly Unit[] | undefined;
}

/** A line in its pieces, words and what stands between them. */
export function lineWords(text: string, unitsOf: (word: string) => readonly Unit[] | undefined): readonly LineWord[] {
  return (text.match(/[\p{L}'’]+|[^\p{L}'’]+/gu) ?? []).map((one) => ({
    text: one,
    units: unitsOf(one) ?? unitsOf(one.toLowerCase()),
  }));
}

/** The letters of a line, as large or small as they stand there; of its sounds so many are shown. */
function lettersOfLine(line: readonly LineWord[], sounds: number): Letters {
  let before = 0;
  return line.flatMap(({ text, units }) => {
    const from = before;
    before += units?.length ?? 0;
    // What has no sounds of its own comes with the sound before it.
    if (!units) return [{ text, as: from <= sounds ? ("other" as const) : ("hidden" as const) }];
    let at = 0;
    return lettersOf(units, (unit) => (from + unit >= sounds ? "hidden" : "seen")).map((letter) => {
      const shown = text.slice(at, at + letter.text.length);
      at += letter.text.length;
      return { ...letter, text: shown };
    });
  });
}

/** A word with a mark under each of its sounds; what stands between the letters of a split spelling is under its bow. */
function lettersOf(units: readonly Unit[], seenAt: (at: number) => Seen): Letters {
  const letters: Letters = [];
  let closing: { readonly text: string; readonly seen: Seen } | undefined;
  for (const [at, { grapheme, sound }] of units.entries()) {
    const [opening = "", late] = grapheme.split("_");
    const seen = seenAt(at);
    const look = closing ? "underAsked" : sound === "" ? "other" : "asked";
    const shown = seen === "hidden" ? "hidden" : seen === "quiet" ? "other" : look;
    letters.push({ text: opening, as: late && seen === "seen" ? "open" : shown });
    if (closing)
      letters.push({
        text: closing.text,
        as: closing.seen === "seen" ? "close" : closing.seen === "quiet" ? "other" : "hidden",
      });
    closing = late ? { text: late, seen } : undefined;
  }
  if (closing)
    letters.push({
      text: closing.text,
      as: closing.seen === "seen" ? "close" : closing.seen === "quiet" ? "other" : "hidden",
    });
  return letters;
}
