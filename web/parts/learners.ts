import type { Gaps, WorthView } from "#contract";
import { type Learner, worthOfNeed } from "#core/groups";
import { cellAt } from "#core/mastery";

/**
 * The children of a map as the grouping sees them: what each needs, weighed by what it would open for that child.
 * @param worth undefined where no one knows; then every need weighs alike
 */
export function learnersOf(map: Gaps, worth?: WorthView): readonly Learner[] {
  const opensOf = new Map(worth?.rows.map((row) => [row.id, row.opens]));
  const place = new Map(worth?.gpcs.map((gpc, at) => [gpc, at]));
  return map.rows.map((row) => {
    const needs = new Map<string, number>();
    const secure = new Set<string>();
    map.columns.forEach(({ gpc }, at) => {
      const cell = cellAt(row.cells, at);
      if (cell.need > 0) needs.set(gpc, cell.need);
      if (cell.state === "secure") secure.add(gpc);
    });
    const opens = opensOf.get(row.id);
    if (!opens) return { id: row.id, needs, secure };
    const of = (gpc: string) => opens[place.get(gpc) ?? -1] ?? 0;
    const best = Math.max(0, ...[...needs.keys()].map(of));
    return {
      id: row.id,
      needs: new Map([...needs].map(([gpc, need]) => [gpc, worthOfNeed(need, of(gpc), best)])),
      secure,
    };
  });
}

/** What a spelling opens for those of some children who need it: common words in the mean, and examples. */
export interface OpenedFor {
  readonly gpc: string;
  readonly words: number;
  readonly examples: readonly string[];
}

/** What each of these targets would open for these children, what opens most first; what opens nothing is left out. */
export function openedFor(
  targets: readonly string[],
  members: readonly Learner[],
  worth: WorthView | undefined,
): readonly OpenedFor[] {
  if (!worth) return [];
  const opensOf = new Map(worth.rows.map((row) => [row.id, row.opens]));
  return targets
    .map((gpc): OpenedFor => {
      const at = worth.gpcs.indexOf(gpc);
      const who = members.filter(({ needs }) => (needs.get(gpc) ?? 0) > 0);
      const sum = who.reduce((total, { id }) => total + (opensOf.get(id)?.[at] ?? 0), 0);
      return { gpc, words: who.length > 0 ? Math.round(sum / who.length) : 0, examples: worth.examples[gpc] ?? [] };
    })
    .filter(({ words }) => words > 0)
    .sort((one, other) => other.words - one.words);
}

/** The spellings that it is worth most to teach one child next, what is worth most first, with what each would open. */
export function nextBest(learner: Learner, worth: WorthView | undefined, most = 5): readonly OpenedFor[] {
  const targets = [...learner.needs].sort(([, one], [, other]) => other - one).map(([gpc]) => gpc);
  const opened = new Map(openedFor(targets, [learner], worth).map((one) => [one.gpc, one]));
  return targets.flatMap((gpc) => opened.get(gpc) ?? []).slice(0, most);
}

/** Of what was taught so much has to have been asked, or nothing can be said of who belongs where. */
const ASKED_FOR_A_PLACE = 1 / 3;

/** Children of whom too little is known to place them, and no need: how many of the taught spellings were asked, by id. */
export function tooLittleKnown(map: Gaps): ReadonlyMap<string, { readonly asked: number; readonly taught: number }> {
  const found = new Map<string, { asked: number; taught: number }>();
  for (const row of map.rows) {
    const cells = map.columns.map((_, at) => cellAt(row.cells, at));
    // What is known to be needed is enough to begin with.
    if (cells.some(({ need }) => need > 0)) continue;
    const states = cells.map(({ state }) => state).filter((state) => state !== "not taught");
    const asked = states.filter((state) => state !== "not checked").length;
    if (states.length > 0 && asked < states.length * ASKED_FOR_A_PLACE)
      found.set(row.id, { asked, taught: states.length });
  }
  return found;
}
