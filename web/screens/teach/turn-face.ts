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

const LINE = { size: 64, spacing: 1.5 } as const;

/** What children see of a turn. */
export function faceOfTurn(wanted: {
  readonly kind: PartKind;
  readonly item: string | undefined;
  /** The units of a word that stands with marks; missing without. */
  readonly units: readonly Unit[] | undefined;
  /** What is heard or written is shown, to put it right. */
  readonly open: boolean;
}): FaceBody {
  const { kind, item, units, open } = wanted;
  if (item === undefined || kind === "hear" || (isUnseen(kind) && !open)) return { show: "nothing" };
  if (kindsOfPart[kind].items === "spellings")
    return { show: "text", text: showGrapheme(splitGpc(item).grapheme), size: "letters" };
  if (kind === "sort")
    return { show: "passage", text: item.replace(/^[^:]*:\s*/, "").replaceAll(", ", "\n"), ...LINE };
  if (kind === "pairs") return { show: "passage", text: item.replaceAll(" / ", "     "), ...LINE, size: 96 };
  const text = readOf(kind, item) || item;
  if (kindsOfPart[kind].items === "lines") return { show: "passage", text, ...LINE };
  return units ? { show: "within", text, letters: lettersOf(units) } : { show: "text", text, size: "word" };
}

type Letters = Extract<FaceBody, { show: "within" }>["letters"];

/** A word with a mark under each of its sounds; what stands between the letters of a split spelling is under its bow. */
function lettersOf(units: readonly Unit[]): Letters {
  const letters: Letters = [];
  let closing: string | undefined;
  for (const { grapheme, sound } of units) {
    const [opening = "", late] = grapheme.split("_");
    letters.push({ text: opening, as: late ? "open" : closing ? "underAsked" : sound === "" ? "other" : "asked" });
    if (closing) letters.push({ text: closing, as: "close" });
    closing = late;
  }
  if (closing) letters.push({ text: closing, as: "close" });
  return letters;
}
