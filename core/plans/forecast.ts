import { dayNumber } from "#core/mastery";
import { type Gpc, splitGpc, WEAK } from "#core/phonics";

/** What a forecast is made from: how a child stands today. */
export interface Foreseen {
  /** The chance of each spelling that it was taught, 0 to 1. */
  readonly chances: ReadonlyMap<Gpc, number>;
  /** How much of each chance goes in four weeks if no one asks, in hundredths. */
  readonly fades: ReadonlyMap<Gpc, number>;
  /** How much it needs each, 0 to 1, as `needFor` gives it; and the same weighed by what it would bring. */
  readonly needs: ReadonlyMap<Gpc, number>;
  readonly worth: ReadonlyMap<Gpc, number>;
}

/**
 * What a forecast assumes of children in the mean, those with whom it does not stick at first included. None of it was measured on
 * children; what follows from it was compared in simulated classes (docs/plans.md).
 */
const assumed = {
  /** The share of what is missing that a session gives a child in the mean: one point in it, each of two, and a card. */
  oneGives: 0.34,
  twoGive: 0.25,
  cardGives: 0.1,
  /** After each meeting it fades at this share of the pace. */
  slower: 0.7,
  /** Of what a need counts, this share counts whatever it would bring. */
  even: 0.3,
  /** What is no need today is worth so much, to be kept. */
  keeping: 0.3,
  fadesDays: 28,
  /** Below the first chance it is a matter for teaching and not for a card, above the second nothing has to be done. */
  cards: { lost: 0.1, sure: 0.9 },
} as const;

interface State {
  readonly day: number;
  readonly chance: number;
  /** Share of the chance that goes in four weeks. */
  readonly fades: number;
  /** What a whole chance more would be worth. */
  readonly worth: number;
}

/** How one child will stand on days to come, with what is planned until then. */
export class Forecast {
  private readonly states = new Map<Gpc, State>();

  /** @param today when the child stands so: `2026-11-23` */
  constructor({ chances, fades, needs, worth }: Foreseen, today: string) {
    for (const [gpc, chance] of chances) {
      const need = needs.get(gpc) ?? 0;
      const weighed = (1 - assumed.even) * (worth.get(gpc) ?? 0) + assumed.even * need;
      this.states.set(gpc, {
        day: dayNumber(today),
        chance,
        fades: chance > 0 ? Math.min(1, (fades.get(gpc) ?? 0) / 100 / chance) : 0,
        worth: need > 0 ? weighed / Math.max(0.05, 1 - chance) : 0,
      });
    }
  }

  /** The chance on a day that is not before today, 0 for what was not taught. */
  chance(gpc: Gpc, on: string): number {
    const state = this.states.get(gpc);
    return state ? chanceOn(state, dayNumber(on)) : 0;
  }

  /** What teaching it on a day would bring, weighed, 0 and more. @param points how many are taught in that session */
  gain(gpc: Gpc, on: string, points: number): number {
    const state = this.states.get(gpc);
    return state ? state.worth * (1 - chanceOn(state, dayNumber(on))) * givenBy(points) : 0;
  }

  /** How much of a session's time would be spent on what it says at sight already, 0 to 1. */
  idle(gpc: Gpc, on: string): number {
    return this.chance(gpc, on) ** 2;
  }

  /** What it has not surely kept or is about to lose by a day, what a card is worth most for first. */
  cards(on: string, { most, not }: { readonly most: number; readonly not: ReadonlySet<Gpc> }): Gpc[] {
    const { lost, sure } = assumed.cards;
    return this.doubtful(on, ({ gpc, chance }) => !not.has(gpc) && chance >= lost && chance < sure).slice(0, most);
  }

  /** What no one can say by a day, and matters: what to ask, first of all first. */
  looks(on: string, most: number): Gpc[] {
    return this.doubtful(on, () => true).slice(0, most);
  }

  /** It was taught on a day, beside as many others as there are points. */
  teach(gpc: Gpc, on: string, points: number): void {
    this.met(gpc, on, givenBy(points));
  }

  /** It had a card on a day. */
  meet(gpc: Gpc, on: string): void {
    this.met(gpc, on, assumed.cardGives);
  }

  private doubtful(on: string, fits: (one: { gpc: Gpc; chance: number }) => boolean): Gpc[] {
    const day = dayNumber(on);
    return [...this.states]
      .filter(([gpc]) => splitGpc(gpc).sound !== WEAK)
      .map(([gpc, state]) => ({ gpc, chance: chanceOn(state, day), worth: state.worth + assumed.keeping }))
      .filter(fits)
      .sort((one, other) => other.worth * doubt(other.chance) - one.worth * doubt(one.chance))
      .map(({ gpc }) => gpc);
  }

  private met(gpc: Gpc, on: string, gives: number): void {
    const state = this.states.get(gpc);
    if (!state) return;
    const day = dayNumber(on);
    const chance = chanceOn(state, day);
    this.states.set(gpc, {
      ...{ ...state, day },
      ...{ chance: chance + (1 - chance) * gives, fades: state.fades * assumed.slower },
    });
  }
}

const doubt = (chance: number) => chance * (1 - chance);
const givenBy = (points: number) => (points > 1 ? assumed.twoGive : assumed.oneGives);

function chanceOn({ day, chance, fades }: State, on: number): number {
  return chance * (1 - fades) ** (Math.max(0, on - day) / assumed.fadesDays);
}
