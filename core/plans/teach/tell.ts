import { showGrapheme, splitGpc } from "#core/phonics";
import { listed } from "#core/saying";
import { kindsOfPart } from "../kinds.ts";
import type { PartKind } from "../part-kinds.ts";
import { readOf, type SessionPart } from "../plan.ts";
import type { TeachState } from "./steps.ts";

/** Children who stumble over what is taught before a smaller step is offered, and answers of each before a harder one is. */
const STUMBLING = 2;
const FIRM = 2;
/** Parts in which it can be offered: those that practise what is taught with words. */
const practised: ReadonlySet<PartKind> = new Set(["readWords", "blend", "build", "writeWords", "chain", "readAgain"]);

/**
 * What to offer in the part that runs: a smaller step when two and more stumbled in it, a harder one when everyone who is there has it.
 * Null while neither is so, and once it was offered.
 */
export function offerIn(state: TeachState, parts: readonly SessionPart[]): "smaller" | "harder" | null {
  const part = parts[state.part];
  if (!part || !practised.has(part.kind) || state.offered.includes(state.part) || state.ended) return null;
  const marks = state.marks.filter((mark) => mark.part === state.part && !mark.together);
  const stumbled = new Set(marks.flatMap(({ childId, outcome }) => (outcome === "got" ? [] : [childId])));
  const here = state.asked.filter((id) => stumbled.has(id)).length;
  if (here >= Math.min(STUMBLING, state.asked.length) && here > 0) return "smaller";
  const has = (id: string) => marks.filter((mark) => mark.childId === id && mark.outcome === "got").length >= FIRM;
  return stumbled.size === 0 && state.asked.length > 0 && state.asked.every(has) ? "harder" : null;
}

/** What is said of a session that was taught. */
export interface TeachTold {
  readonly came: readonly string[];
  readonly reached: PartKind | null;
  readonly note: string;
}

/** An item as one would name it in a note. */
function named(kind: PartKind, item: string): string {
  return kindsOfPart[kind].items === "spellings" ? showGrapheme(splitGpc(item).grapheme) : readOf(kind, item);
}

/** Items that are named of one child. */
const MOST_NAMED = 6;

/**
 * The report of a session, written from what was marked: who came, the last part that was reached, who stumbled over what, and who had
 * everything. Two sentences that someone finishes.
 * @param nameOf a child by its id
 */
export function toldOf(
  state: TeachState,
  { parts, nameOf }: { readonly parts: readonly SessionPart[]; readonly nameOf: (id: string) => string },
): TeachTold {
  const last = Math.max(-1, ...state.marks.map(({ part }) => part), ...(state.begun ? [state.part] : []));
  const kindOf = (part: number) => parts[part]?.kind ?? "teach";
  // By its last mark on an item a child has it or not.
  const stands = new Map(state.marks.map((mark) => [`${mark.childId} ${kindOf(mark.part)} ${mark.item}`, mark]));
  const stumbled = state.came.flatMap((id) => {
    const items = [...stands.values()]
      .filter(({ childId, outcome }) => childId === id && outcome !== "got")
      .map(({ part, item, said }) => `${named(kindOf(part), item)}${said ? ` (said “${said}”)` : ""}`);
    const once = [...new Set(items)].filter(Boolean);
    if (once.length === 0) return [];
    const more = once.length > MOST_NAMED ? ` and ${once.length - MOST_NAMED} more` : "";
    return [`${nameOf(id)} stumbled over ${once.slice(0, MOST_NAMED).join(", ")}${more}.`];
  });
  const asked = new Set(state.marks.map(({ childId }) => childId));
  const firm = state.came.filter(
    (id) => asked.has(id) && [...stands.values()].every((mark) => mark.childId !== id || mark.outcome === "got"),
  );
  const all = firm.length > 0 ? [`${listed(firm.map(nameOf))} had everything.`] : [];
  return {
    came: state.came,
    reached: last < 0 ? null : kindOf(last),
    note: [...stumbled, ...all].join(" ").slice(0, 1000),
  };
}
