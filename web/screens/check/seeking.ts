import { useMemo } from "react";
import type { CheckView } from "#contract";
import { type DeskState, kindAsked, kinds, type Setup } from "#core/checks";
import { type GivenAnswer, isRightAtOnce } from "#core/ledger";
import { byOf, candidatesOf, type SeekWanted, seekNext, type Unasked, unaskedIn } from "#core/mastery";
import type { SchoolWords } from "#web/device/lexicon.ts";

/** Where a check stands in which this device chooses what comes next. */
export interface Seeking {
  readonly state: DeskState;
  /** Why this item, in a few words; empty when it is over. */
  readonly why: string;
  /** Why it ended. */
  readonly over: "settled" | "time" | undefined;
  /** The cards that were not asked so far. */
  readonly unasked: Unasked;
}

const minutesOf = (setup: Setup): number => (setup.kind === "seek" ? setup.minutes : 0);

/**
 * What such a check asks next, from what is believed of the child and the answers of the check.
 * @returns null for a check of another kind, and undefined until the words are here
 */
export function useSeeking(
  check: CheckView,
  answers: readonly GivenAnswer[],
  ground: SchoolWords | undefined,
): Seeking | null | undefined {
  const { belief, items, kind, seed, setup } = check;
  const wanted = useMemo(
    () =>
      ground && {
        items,
        kindOf: (item: string) => kindAsked(kind, item),
        seed,
        minutes: minutesOf(setup),
        words: ground,
        secondsOf: (of: keyof typeof kinds) => kinds[of].seconds,
      },
    [ground, items, kind, seed, setup],
  ) satisfies SeekWanted | undefined;
  const candidates = useMemo(() => (belief && wanted ? candidatesOf(wanted) : []), [belief, wanted]);
  return useMemo(() => {
    if (!belief) return null;
    if (!wanted) return undefined;
    const by = byOf(belief);
    const { mind, next } = seekNext(belief, candidates, answers, { ...wanted, by });
    const current = "ask" in next ? next.ask.item : undefined;
    const asked = [...new Set(answers.map(({ item }) => item))];
    const firstOf = new Map(answers.toReversed().map(({ item, outcome }) => [item, outcome]));
    return {
      state: {
        // Asked once more it is another round of that card alone.
        pass: 1 + answers.filter(({ item }) => item === current).length,
        items: current === undefined || asked.includes(current) ? asked : [...asked, current],
        given: answers,
        current,
        missed: asked.filter((item) => !isRightAtOnce(firstOf.get(item) ?? "none")),
      },
      why: "why" in next ? next.why : "",
      over: "done" in next ? next.done : undefined,
      unasked: unaskedIn(belief, { mind, by }, candidates, answers),
    };
  }, [belief, wanted, candidates, answers]);
}
