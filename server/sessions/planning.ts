import type { PlanBody } from "#contract";
import { findCorrespondence } from "#core/phonics";
import { planSession, practiceWords, type SessionPlan } from "#core/plans";
import type { Lexicon } from "#core/words";
import { unfit } from "../frame/problem.ts";
import { type Common, commonOf } from "../standings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords } from "../words/repository.ts";

/** A plan with what its group could read when it was made. */
export interface Filled {
  readonly plan: PlanBody;
  readonly known: string[];
  readonly wholes: string[];
}

/** Words with the target that make a lesson. */
const ENOUGH_WORDS = 8;

/**
 * The plan's target when none is asked for: the first of the group's targets that some member still needs and
 * that has enough words all can read; where none has, the one with most.
 */
function nextTarget(targets: readonly string[], common: Common, lexicon: Lexicon): string | undefined {
  const needed = targets.filter((gpc) => common.needed.includes(gpc));
  const open = needed.length > 0 ? needed : targets.length > 0 ? targets : common.needed;
  const known = new Set(common.known);
  const counted = open.map((gpc) => ({ gpc, count: practiceWords(lexicon, known, gpc).length }));
  const most = [...counted].sort((one, other) => other.count - one.count)[0];
  return (counted.find(({ count }) => count >= ENOUGH_WORDS) ?? most)?.gpc;
}

/** What a session is planned for. */
export interface PlanWanted {
  readonly childIds: readonly string[];
  /** The group's, in its order. */
  readonly targets: readonly string[];
  /** The target that someone asked for; null lets the tool choose. */
  readonly wish: string | null;
  readonly seed: number;
  readonly today: string;
}

/**
 * A plan for these children, with what they can read today.
 * @throws HttpProblem 422 when there is nothing to teach
 */
export async function planFor(inside: Inside, { childIds, targets, wish, seed, today }: PlanWanted): Promise<Filled> {
  const { lexicon } = await readWords(inside);
  const common = await commonOf(inside, childIds, today);
  const target = wish ?? nextTarget(targets, common, lexicon);
  if (!target) throw unfit("This group has no target yet. Choose at least one spelling for it first.");
  if (!findCorrespondence(target)) throw unfit(`${target} is not a spelling this tool knows.`);
  const plan: SessionPlan = planSession({
    known: new Set(common.known),
    target,
    revisit: [...targets.filter((gpc) => common.known.includes(gpc)), ...common.unsteady],
    lexicon,
    sentences: inside.shipped.sentences,
    exceptionWords: common.wholes,
    seed,
  });
  return {
    plan: {
      target,
      remarks: plan.remarks,
      parts: plan.parts,
    },
    known: [...common.known],
    wholes: [...common.wholes],
  };
}
