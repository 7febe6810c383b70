import type { KindId } from "#core/ledger";
import { type Ask, kinds, type Section, type Setup, sectionOf } from "./kinds/index.ts";

/** Everything that a check is begun with. */
export interface PlannedCheck {
  readonly kind: KindId;
  readonly items: readonly string[];
  readonly setup: Setup;
}

/** Items of one check at most; what is drawn beyond them is left out. */
export const MOST_ITEMS = 200;

/** Draws the items of a section for a child or a group. No items when nothing fits. */
export function planCheck(ask: Ask): PlannedCheck {
  const { section, taught } = ask;
  const kind = kinds[section.kind];
  const drawn = kind.draw(ask);
  const items = drawn.items.filter(kind.fits).slice(0, MOST_ITEMS);
  const { strategy, stopAfter, form } = section;
  const own = kind.keeps?.({
    section,
    pool: [...new Set([...taught, ...items])],
    sheet: drawn.sheet,
    faces: drawn.faces,
  });
  return { kind: kind.id, items, setup: { strategy, stopAfter, form, ...own, kind: kind.id } as Setup };
}

const BETWEEN = 1500;
const LEAST = 6;

/**
 * About how many minutes the items take, at least half a minute: by the child's own pace (milliseconds an item, from
 * at least six timed answers), else by what such items take as a rule. A minute form takes a minute; a part that
 * ends by time, that long at most.
 */
export function minutesFor(
  { kind, form, minutes }: Pick<Section, "kind" | "form"> & { readonly minutes?: number },
  items: number,
  pace: { readonly ms: number; readonly answers: number } | null,
): number {
  if (form === "minute") return 1.5;
  if (minutes !== undefined) return minutes;
  const each =
    pace && pace.answers >= LEAST && kinds[kind].way === "cards" ? pace.ms + BETWEEN : kinds[kind].seconds * 1000;
  return Math.max(0.5, (items * each) / 60_000);
}

/** How many items of a part are asked at most: all of them, or as many as its minutes hold. */
export function mostAsked(
  { kind, minutes }: Pick<Section, "kind"> & { readonly minutes?: number },
  items: number,
): number {
  return minutes === undefined ? items : Math.min(items, Math.round((minutes * 60) / kinds[kind].seconds));
}

/** A plan that can be kept, changed and shared: what for, and its parts in order. */
export interface Preset {
  readonly name: string;
  /** When to use it, in one sentence. */
  readonly purpose: string;
  readonly sections: readonly Section[];
}

/** The plans that ship. */
export const shippedPresets: readonly Preset[] = [
  {
    name: "First look",
    purpose: "A child who is new here: what is known of all that was taught, and how words are read.",
    sections: [
      sectionOf("card", { scope: "all", stopAfter: 6 }),
      sectionOf("words", { blocks: ["two", "three", "fourEnd", "fourStart"], most: 4 }),
      sectionOf("exception", { scope: "all", most: 16 }),
      sectionOf("listen", { tasks: ["sounds", "apart", "where"], most: 4 }),
    ],
  },
  {
    name: "Find out in five minutes",
    purpose:
      "Any child: the tool asks only what is in doubt, a card or a word at a time, and ends when the rest is clear.",
    sections: [sectionOf("seek")],
  },
  {
    name: "Follow-up",
    purpose: "Between sessions: only what was unsteady or missed, and words that use it.",
    sections: [
      sectionOf("card", { scope: "due", most: 20 }),
      sectionOf("words", { scope: "due", blocks: ["three", "fourEnd", "fourStart"], most: 3 }),
    ],
  },
  {
    name: "End of a block",
    purpose: "After some weeks: what was taught lately, read, heard and written.",
    sections: [
      sectionOf("card", { scope: "recent", recentSteps: 5 }),
      sectionOf("words", {
        scope: "recent",
        recentSteps: 5,
        blocks: ["three", "fourEnd", "fourStart", "five"],
        most: 4,
      }),
      sectionOf("exception", { scope: "recent", recentSteps: 5 }),
      sectionOf("write", { scope: "recent", recentSteps: 5 }),
      sectionOf("dictation", { scope: "recent", recentSteps: 5, most: 5 }),
    ],
  },
];
