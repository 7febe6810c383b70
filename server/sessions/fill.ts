import { commonWords, ownUnitsAmong, weighedNeeds } from "#core/groups";
import { findCorrespondence } from "#core/phonics";
import {
  type Focus,
  minutesOfRoutine,
  planSession,
  practiceWords,
  type Routine,
  roomFor,
  routineAbout,
  type SchoolWays,
  type SessionPlan,
  teachesNew,
} from "#core/plans";
import { listed } from "#core/saying";
import { type Lexicon, withinAge } from "#core/words";
import type { JobGiven } from "../frame/jobs.ts";
import type { Shipped } from "../shipped.ts";
import type { Common } from "../standings/repository.ts";
import { lexiconOf } from "../words/laid.ts";
import { ENOUGH_WORDS, planWeeks, type ToPlan } from "./block.ts";

/** Remarks that a plan has at most. */
const MOST_REMARKS = 12;

/** What a session is filled from. */
export interface ToFill extends Omit<ToPlan, "days" | "fixed"> {
  /** The target that someone asked for, and another beside it; null lets the tool choose. */
  readonly wish: string | null;
  readonly second: string | null;
  /** What it is about in place of a spelling, as someone asked; then no target is asked for. */
  readonly focus: Focus | null;
  readonly heldOn: string;
  /** What the school has chosen of that on which teachers disagree. */
  readonly ways: SchoolWays;
  readonly routine: Routine;
  /** Words that the group had in the last days. */
  readonly hadLately: readonly string[];
  /** Exception words that these children miss, and sounds that they take for one another, what is missing most first. */
  readonly missedWords: readonly string[];
  readonly mixedSounds: readonly (readonly [string, string])[];
}

/** A plan for children with this in common; or why there is none, in a sentence. */
export function fillSession(
  wanted: ToFill,
  { stock, seed }: JobGiven<Shipped>,
): { readonly plan: SessionPlan } | { readonly unfit: string } {
  const { words, common, targets, wish, weights, said, routine, hadLately, missedWords, mixedSounds } = wanted;
  const lexicon = lexiconOf(stock.lexicon, words);
  const offered = withinAge(lexicon, common.age);
  const day = dayOf(wanted, { stock });
  const focus = wanted.focus ?? (wish || !teachesNew(routine) ? undefined : (day?.focus?.ids ?? undefined));
  const [first, another] = wish ? [wish, wanted.second ?? undefined] : (day?.points ?? []).map(({ gpc }) => gpc);
  // Where no spelling is taught, what is in doubt is practised.
  const doubted = teachesNew(routine) && !focus ? undefined : mostDoubted(common, offered);
  const target = first ?? doubted ?? nextTarget({ targets, common, lexicon, offered, weights, said });
  const second = another && findCorrespondence(another) ? another : undefined;
  if (!target) return { unfit: "This group has no target yet. Choose at least one spelling for it first." };
  if (!findCorrespondence(target)) return { unfit: `${target} is not a spelling this tool knows.` };
  const plan = planSession({
    known: new Set(common.known),
    readers: common.children.map(({ name, reads }) => ({ name, reads: new Set(reads) })),
    ...{ target, second, focus, ways: wanted.ways },
    revisit: [...targets.filter((gpc) => common.known.includes(gpc)), ...common.unsteady],
    lexicon: offered,
    age: common.age,
    sentences: stock.sentences,
    answers: stock.answers,
    phrases: stock.phrases,
    madeUp: stock.madeUp,
    texts: stock.texts,
    children: common.children.map(({ id, chances }) => ({
      ...{ id, chances: new Map(chances) },
      cards: day?.cards.find(({ childId }) => childId === id)?.gpcs ?? [],
    })),
    // What was asked for is in it already.
    routine: wanted.focus ? routine : routineAbout(routine, focus ?? [], wanted.ways.exceptionWay),
    ...{ hadLately, missedWords, mixedSounds },
    exceptionWords: common.wholes,
    seed,
  });
  return { plan: withCardsOnly(plan, common, day?.cardsOnly ?? []) };
}

/** With who says at sight what is taught, and a sentence that says so. */
function withCardsOnly(plan: SessionPlan, { children }: Common, ids: readonly string[]): SessionPlan {
  const names = children.flatMap(({ id, name }) => (ids.includes(id) ? [name] : []));
  if (names.length === 0) return plan;
  const [says, comes] = names.length === 1 ? ["says", "comes"] : ["say", "come"];
  const remark = `${listed(names)} ${says} at sight what is taught, and ${comes} for the cards alone.`;
  return { ...plan, cardsOnly: [...ids], remarks: [remark, ...plan.remarks].slice(0, MOST_REMARKS) };
}

/** The session as a block of weeks has it on its day: its points where none is asked for, and each child's cards. */
function dayOf(wanted: ToFill, { stock }: Pick<JobGiven<Shipped>, "stock">) {
  const { wish, second, focus, heldOn, today, routine } = wanted;
  const minutes = minutesOfRoutine(routine);
  // One that is written down afterwards is as today.
  const [on = today] = [heldOn, today].sort().slice(-1);
  const asked = { gpcs: wish ? [wish, ...(second ? [second] : [])] : [], ...(focus ? { focus } : {}) };
  const fixed = wish || focus ? [{ on, ...asked }] : [];
  const days = [{ on, minutes, room: roomFor(routine, minutes) }];
  return planWeeks({ ...wanted, days, fixed }, { stock }).sessions[0];
}

/**
 * The plan's target when none is asked for: of the group's targets that some member still needs and that have enough words all
 * can read the one that is worth most to them today, what is pinned for all of them first; where none has enough, the one with most.
 */
function nextTarget({
  targets: all,
  common,
  lexicon,
  offered,
  weights,
  said,
}: Pick<ToFill, "targets" | "common" | "weights" | "said"> & { lexicon: Lexicon; offered: Lexicon }):
  | string
  | undefined {
  const put = new Set(said.flatMap(({ gpc, how }) => (how === "pinned" ? [] : [gpc])));
  // What is put off for all of them waits, unless nothing else is left.
  const free = all.filter((gpc) => !put.has(gpc));
  const targets = free.length > 0 ? free : all;
  const needed = targets.filter((gpc) => common.needed.includes(gpc));
  const open = needed.length > 0 ? needed : targets.length > 0 ? targets : common.needed;
  const known = new Set(common.known);
  const needs = common.children.map((child) =>
    weighedNeeds(commonWords(lexicon, ownUnitsAmong(lexicon, child.chances)), {
      needs: new Map(child.needs),
      chances: new Map(child.chances),
      next: new Set(child.next),
      weights,
    }),
  );
  const pinned = new Set(said.flatMap(({ gpc, how }) => (how === "pinned" ? [gpc] : [])));
  const worth = (gpc: string) => needs.reduce((sum, its) => sum + (its.get(gpc) ?? 0), 0);
  const counted = open
    .map((gpc) => ({ gpc, count: practiceWords(offered, known, gpc).length, worth: worth(gpc) }))
    .sort((one, other) => other.worth - one.worth);
  const most = [...counted].sort((one, other) => other.count - one.count)[0];
  const first = counted.find(({ gpc, count }) => pinned.has(gpc) && count > 0);
  return (first ?? counted.find(({ count }) => count >= ENOUGH_WORDS) ?? most)?.gpc;
}

/** Of what these children were taught, the spelling that is most in doubt over all of them and has words enough to practise it. */
function mostDoubted({ children, known, unsteady }: Common, offered: Lexicon): string | undefined {
  const doubt = new Map<string, number>();
  for (const { chances } of children)
    for (const [gpc, chance] of chances) doubt.set(gpc, (doubt.get(gpc) ?? 0) + chance * (1 - chance));
  const open = [...new Set([...unsteady, ...known])].sort(
    (one, other) => (doubt.get(other) ?? 0) - (doubt.get(one) ?? 0),
  );
  const readable = new Set(known);
  const enough = open.slice(0, 12).find((gpc) => practiceWords(offered, readable, gpc).length >= ENOUGH_WORDS);
  return enough ?? open[0];
}
