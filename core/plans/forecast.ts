import { differenceInCalendarDays, parseISO } from "date-fns";
import type { Gpc } from "#core/phonics";

/** What a forecast is made from. */
export interface Foreseen {
  readonly chances: ReadonlyMap<Gpc, number>;
  readonly fades: ReadonlyMap<Gpc, number>;
  readonly needs: ReadonlyMap<Gpc, number>;
}

/** Days over which fading is told. */
const FADES_DAYS = 28;
/** The share of what is missing that a session gives a child in the mean: one point in it, each of two, and a card. */
const [ONE_GIVES, TWO_GIVE, CARD_GIVES] = [0.55, 0.4, 0.2];
/** After each meeting it fades at this share of the pace. */
const SLOWER = 0.7;
/** What no one needs today and fades is worth this much of what a need is. */
const KEEPING = 0.3;

interface State {
  day: string;
  chance: number;
  /** Share of the chance that goes in four weeks. */
  fades: number;
  worth: number;
}

/** How one child will stand on days to come, with what is planned until then. */
export function forecast({ chances, fades, needs }: Foreseen, today: string) {
  const states = new Map<Gpc, State>();
  for (const [gpc, chance] of chances) {
    const need = needs.get(gpc) ?? 0;
    states.set(gpc, {
      day: today,
      chance,
      fades: chance > 0 ? Math.min(1, (fades.get(gpc) ?? 0) / 100 / chance) : 0,
      worth: need > 0 ? need / Math.max(0.05, 1 - chance) : 0,
    });
  }
  const now = (state: State, on: string) => {
    const days = Math.max(0, differenceInCalendarDays(parseISO(on), parseISO(state.day)));
    return state.chance * (1 - state.fades) ** (days / FADES_DAYS);
  };
  const met = (gpc: Gpc, on: string, gives: number) => {
    const state = states.get(gpc);
    if (!state) return;
    const chance = now(state, on);
    states.set(gpc, { ...state, day: on, chance: chance + (1 - chance) * gives, fades: state.fades * SLOWER });
  };
  return {
    chance: (gpc: Gpc, on: string): number => {
      const state = states.get(gpc);
      return state ? now(state, on) : 0;
    },
    /** What teaching it on a day would bring, weighed. @param room points in the session */
    gain: (gpc: Gpc, on: string, room: number): number => {
      const state = states.get(gpc);
      return state ? state.worth * (1 - now(state, on)) * (room > 1 ? TWO_GIVE : ONE_GIVES) : 0;
    },
    /** How surely it is said at sight without being taught, 0 to 1. */
    says: (gpc: Gpc, on: string): number => {
      const state = states.get(gpc);
      return state ? now(state, on) ** 2 : 0;
    },
    /** What it is about to lose, or has not surely kept, what is most worth a card first. */
    cards: (
      on: string,
      { most, not, least, sure }: { most: number; not: ReadonlySet<Gpc>; least: number; sure: number },
    ): Gpc[] =>
      [...states]
        .map(([gpc, state]) => ({ gpc, chance: now(state, on), state }))
        .filter(({ gpc, chance }) => !not.has(gpc) && chance >= least && chance < sure)
        .map(({ gpc, chance, state }) => ({ gpc, value: (state.worth + KEEPING) * chance * (1 - chance) }))
        .sort((one, other) => other.value - one.value)
        .slice(0, most)
        .map(({ gpc }) => gpc),
    teach: (gpc: Gpc, on: string, points: number) => met(gpc, on, points > 1 ? TWO_GIVE : ONE_GIVES),
    meet: (gpc: Gpc, on: string) => met(gpc, on, CARD_GIVES),
  };
}
