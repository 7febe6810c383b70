import type { Gaps, NextView, OtherNeedsView, WorthView } from "#contract";
import {
  type Brings,
  bestOf,
  heeding,
  type Learner,
  learnersIn,
  bringsNothing as nothing,
  startingWeights,
  type WorthWeights,
  withOthers,
  worthOfNeed,
} from "#core/groups";
import { cellAt, isNeedFamily, type NeedFamily, plainFamilies } from "#core/mastery";

/** By what needs are weighed: what each spelling brings, how much each part counts, and what a teacher said of it. */
export interface Weighing {
  /** Undefined where no one knows; then every need weighs alike. */
  readonly worth?: WorthView | undefined;
  readonly weights?: WorthWeights | undefined;
  readonly said?: NextView | undefined;
  /** What children need that is no spelling, where it is to count beside the spellings. */
  readonly others?: OtherNeedsView | undefined;
}

/** What each spelling would bring a child, by spelling; undefined of a child of whom no one worked it out. */
function bringsOf(worth: WorthView | undefined, childId: string): ((gpc: string) => Brings) | undefined {
  const row = worth?.rows.find(({ id }) => id === childId);
  if (!worth || !row) return undefined;
  const place = new Map(worth.gpcs.map((gpc, at) => [gpc, at]));
  return (gpc) => {
    const at = place.get(gpc);
    if (at === undefined) return nothing;
    return {
      ...{ words: row.opens[at] ?? 0, texts: row.texts[at] ?? 0, next: row.next[at] ?? 0 },
      ...{ fades: row.fades[at] ?? 0, mixed: row.mixed[at] ?? 0 },
    };
  };
}

/** The children of a map as the grouping sees them: what each needs, weighed by what it would bring that child. */
export function learnersOf(
  map: Gaps,
  { worth, weights = startingWeights, said, others }: Weighing = {},
): readonly Learner[] {
  const ofClass = new Map(said?.classes.map((one) => [one.id, one.said]));
  const ofChild = new Map(said?.children.map((one) => [one.id, one.said]));
  const plain = learnersIn(map);
  const saidOf = new Map(
    plain.map(({ id, classId = "" }) => [id, [...(ofClass.get(classId) ?? []), ...(ofChild.get(id) ?? [])]]),
  );
  const weighed = plain.map((learner) => {
    const about = saidOf.get(learner.id) ?? [];
    const brings = bringsOf(worth, learner.id);
    if (!brings) return heeding(learner, about);
    const best = bestOf([...learner.needs.keys()].map(brings));
    const needs = new Map(
      [...learner.needs].map(([gpc, need]) => [gpc, worthOfNeed(need, brings(gpc), best, weights)]),
    );
    return heeding({ ...learner, needs }, about);
  });
  if (!others) return weighed;
  const needs = new Map(others.children.map((child) => [child.id, child.needs]));
  return withOthers(weighed, { plain, others: needs, said: saidOf });
}

/** What a group of these children can work on that is no spelling: what most of them need first, then what is no pair. */
export function familiesFor(learners: readonly Learner[]): readonly NeedFamily[] {
  const counts = new Map<NeedFamily, number>();
  for (const { needs } of learners)
    for (const one of needs.keys()) if (isNeedFamily(one)) counts.set(one, (counts.get(one) ?? 0) + 1);
  const needed = [...counts].sort(([, one], [, other]) => other - one).map(([family]) => family);
  return [...new Set([...needed, ...plainFamilies])];
}

/** What a spelling brings those of some children who need it: in the mean, with examples. */
export interface OpenedFor {
  readonly gpc: string;
  /** How many of them need it. */
  readonly need: number;
  readonly words: number;
  readonly examples: readonly string[];
  /** Of the words, those with what the class is taught next. */
  readonly next: number;
  /** Titles of texts that it opens for some child of the map. */
  readonly titles: readonly string[];
  /** Texts that it opens for the child of them for whom it opens most. */
  readonly texts: number;
  /** How many of those who need it mix it up with another, and how many will lose a good part of their chance in four weeks. */
  readonly mixed: number;
  readonly fading: number;
}

/** So many hundredths of a chance are a good part of it. */
const FADES_MUCH = 10;

/** What each of these targets would bring these children, what opens most first; what brings nothing is left out. */
export function openedFor(
  targets: readonly string[],
  members: readonly Learner[],
  worth: WorthView | undefined,
): readonly OpenedFor[] {
  if (!worth) return [];
  const all = new Map(members.map(({ id }) => [id, bringsOf(worth, id)]));
  return targets
    .map((gpc): OpenedFor => {
      const who = members.filter(({ needs }) => (needs.get(gpc) ?? 0) > 0);
      const brought = who.map(({ id }) => all.get(id)?.(gpc) ?? nothing);
      const mean = (part: "words" | "next") =>
        who.length > 0 ? Math.round(brought.reduce((sum, one) => sum + one[part], 0) / who.length) : 0;
      const texts = Math.max(0, ...brought.map((one) => one.texts));
      return {
        ...{ gpc, need: who.length, words: mean("words"), next: mean("next"), texts },
        mixed: brought.filter((one) => one.mixed > 0).length,
        fading: brought.filter((one) => one.fades >= FADES_MUCH).length,
        examples: worth.examples[gpc] ?? [],
        titles: texts > 0 ? (worth.titles[gpc] ?? []) : [],
      };
    })
    .filter(({ words, texts }) => words > 0 || texts > 0)
    .sort((one, other) => other.words - one.words);
}

/** The spellings that it is worth most to teach these children next, what is worth most first, with what each would bring. */
export function nextBest(learners: readonly Learner[], worth: WorthView | undefined, most = 8): readonly OpenedFor[] {
  const sums = new Map<string, number>();
  for (const { needs } of learners) for (const [gpc, need] of needs) sums.set(gpc, (sums.get(gpc) ?? 0) + need);
  const targets = [...sums].sort(([, one], [, other]) => other - one).map(([gpc]) => gpc);
  const opened = new Map(openedFor(targets.slice(0, 3 * most), learners, worth).map((one) => [one.gpc, one]));
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
    const taught = cells.filter((cell) => cell.taught);
    const asked = taught.filter(({ state }) => state !== "not checked").length;
    if (taught.length > 0 && asked < taught.length * ASKED_FOR_A_PLACE)
      found.set(row.id, { asked, taught: taught.length });
  }
  return found;
}
