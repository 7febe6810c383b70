import { differenceInCalendarDays, parseISO } from "date-fns";
import { commonWords, ownUnitsAmong, type Said, type WorthWeights, weighedNeeds } from "#core/groups";
import type { NeedFamily } from "#core/mastery";
import { findCorrespondence, showGrapheme } from "#core/phonics";
import {
  type BlockChild,
  type BlockDay,
  type BlockFixed,
  type BlockPast,
  type BlockSession,
  focusFits,
  planBlock,
  practiceWords,
  taughtTo,
  whatWouldHelp,
} from "#core/plans";
import { plural } from "#core/saying";
import { withinAge } from "#core/words";
import type { JobGiven } from "../frame/jobs.ts";
import type { Shipped } from "../shipped.ts";
import type { Common } from "../standings/repository.ts";
import { lexiconOf, type SentWords } from "../words/laid.ts";

/** Words with a spelling without which it cannot be practised. */
export const ENOUGH_WORDS = 8;

/** What a block of weeks is worked out from. */
export interface ToPlan {
  readonly words: SentWords;
  readonly common: Common;
  /** The group's, in its order: they come before what else is needed. */
  readonly targets: readonly string[];
  /** What it works on that is no spelling. */
  readonly aims: readonly NeedFamily[];
  /** What counts for what is worth teaching in this school, and what was said of single spellings for all of these children. */
  readonly weights: WorthWeights;
  readonly said: readonly Said[];
  readonly today: string;
  readonly days: readonly BlockDay[];
  readonly past: readonly BlockPast[];
  readonly fixed: readonly BlockFixed[];
  /** What each child needs besides spellings, 0 to 1 by id; as lists, since this is sent to a thread. */
  readonly besides: readonly (readonly [string, readonly (readonly [string, number])[]])[];
}

/** The children of a group as a block looks at them. */
function blockChildren(
  { common, besides }: Pick<ToPlan, "common" | "besides">,
  worthOf: (child: Common["children"][number]) => ReadonlyMap<string, number>,
): readonly BlockChild[] {
  const others = new Map(besides.map(([id, needs]) => [id, new Map(needs)]));
  return common.children.map((child) => ({
    ...(others.has(child.id) ? { besides: others.get(child.id) as ReadonlyMap<string, number> } : {}),
    ...{ id: child.id, chances: new Map(child.chances), fades: new Map(child.fades) },
    ...{ needs: new Map(child.needs), worth: worthOf(child) },
  }));
}

/** The sessions of some weeks, and what stands in the way of a target, in sentences. */
export function planWeeks(
  { words, common, besides, targets, aims, weights, said, today, days, past, fixed }: ToPlan,
  { stock }: Pick<JobGiven<Shipped>, "stock">,
): { readonly sessions: readonly BlockSession[]; readonly remarks: readonly string[] } {
  const lexicon = lexiconOf(stock.lexicon, words);
  const offered = withinAge(lexicon, common.age);
  const known = new Set(common.known);
  const pinned = new Set(said.flatMap(({ gpc, how }) => (how === "pinned" ? [gpc] : [])));
  const put = new Set(said.flatMap(({ gpc, how }) => (how === "pinned" ? [] : [gpc])));
  const counts = new Map<string, number>();
  const countOf = (gpc: string) => {
    const count = counts.get(gpc) ?? practiceWords(offered, known, gpc).length;
    counts.set(gpc, count);
    return count;
  };
  const needed = [...new Set(common.children.flatMap(({ needs }) => needs.map(([gpc]) => gpc)))];
  const sessions = planBlock({
    ...{ today, days, past, fixed },
    children: blockChildren({ common, besides }, (child) =>
      weighedNeeds(commonWords(lexicon, ownUnitsAmong(lexicon, child.chances)), {
        ...{ needs: new Map(child.needs), chances: new Map(child.chances), next: new Set(child.next) },
        ...{ fades: new Map(child.fades), weights },
      }),
    ),
    among: needed.filter((gpc) => !put.has(gpc) && findCorrespondence(gpc)),
    first: [pinned, new Set(targets.filter((gpc) => !put.has(gpc)))],
    // What someone pinned is taught with the few words that there are.
    fits: (gpc) => countOf(gpc) >= (pinned.has(gpc) ? 1 : ENOUGH_WORDS),
    ...{ pinned, put, aims: new Set(aims) },
    fitsFocus: (focus) =>
      focusFits(focus, {
        ...{ lexicon: offered, known, taught: taughtTo(common.children, known) },
        wholes: new Set(common.wholes.map((word) => word.toLowerCase())),
      }),
  });
  const name = (gpc: string) => showGrapheme(findCorrespondence(gpc)?.grapheme ?? gpc);
  const remarks = targets.flatMap((gpc) => {
    if (!needed.includes(gpc) || put.has(gpc) || !findCorrespondence(gpc) || countOf(gpc) >= ENOUGH_WORDS) return [];
    const opener = whatWouldHelp(offered, { known, targets: [gpc] });
    const helps = opener
      ? ` With ${name(opener.gpc)} known it would be ${plural(opener.words, "more", "more")}.`
      : "";
    return [`${name(gpc)} waits: ${plural(countOf(gpc), "word")} with it can be read by this group.${helps}`];
  });
  return { sessions, remarks };
}

/** True for days that are in the block. */
export function isWithin(day: string, { today, weeks }: { readonly today: string; readonly weeks: number }): boolean {
  const away = differenceInCalendarDays(parseISO(day), parseISO(today));
  return away >= 0 && away < weeks * 7;
}
