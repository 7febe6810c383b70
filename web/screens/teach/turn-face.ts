import type { FaceBody } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { kindsOfPart, type PartKind, readOf } from "#core/plans";
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

/** What children see of a turn. */
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
}): FaceBody {
  const { kind, item, units, before, support, sounds, apart, open } = wanted;
  if (item === undefined || kind === "hear" || (isUnseen(kind) && !open)) return { show: "nothing" };
  if (kindsOfPart[kind].items === "spellings")
    return { show: "text", text: showGrapheme(splitGpc(item).grapheme), size: "letters" };
  if (kind === "sort")
    return { show: "passage", text: item.replace(/^[^:]*:\s*/, "").replaceAll(", ", "\n"), ...LINE };
  if (kind === "pairs") return { show: "passage", text: item.replaceAll(" / ", "     "), ...LINE, size: 96 };
  const text = readOf(kind, item) || item;
  if (kindsOfPart[kind].items === "lines") return { show: "passage", text, ...LINE };
  if (!units || support === "plain") return { show: "text", text, size: "word" };
  // Of a chain the one sound that is another is marked.
  const changed = kind === "chain" && before ? changedIn(before, units) : undefined;
  const last = support === "byUnit" ? sounds : units.length;
  const letters = lettersOf(units, (at) => (at >= last ? "hidden" : !changed || changed.has(at) ? "seen" : "quiet"));
  return { show: "within", text, letters, ...(support === "apart" && apart > 0 ? { apart } : {}) };
}

/** Places of the units that are others than in the word before. */
function changedIn(before: readonly Unit[], now: readonly Unit[]): ReadonlySet<number> {
  const [short, long] = [before.length, now.length];
  let from = 0;
  while (from < Math.min(short, long) && before[from]?.gpc === now[from]?.gpc) from++;
  let back = 0;
  while (back < Math.min(short, long) - from && before[short - 1 - back]?.gpc === now[long - 1 - back]?.gpc) back++;
  return new Set(Array.from({ length: Math.max(1, long - from - back) }, (_, at) => from + at));
}

type Letters = Extract<FaceBody, { show: "within" }>["letters"];
type Seen = "seen" | "quiet" | "hidden";

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
