import { familyOfNeed, type NeedFamily } from "#core/mastery";
import { type Focus, MOST_IN_FOCUS } from "./focus-kind.ts";

/**
 * What a block assumes of needs that are no spellings. None of it was measured on children: a session gives of such a need what one
 * gives of a spelling, and to be rid of it is worth what a need of these children is worth in the mean.
 */
const assumed = {
  /** What a session leaves of it. */
  leaves: 0.66,
  /** Of what a need counts, this share counts whatever it would bring; and what it brings where nothing else is needed. */
  even: 0.3,
  brings: 0.2,
  /** Time of a child who does not need it, beside what another gains. */
  waste: 0.28,
} as const;
/** Below this a child needs it no more. */
const THERE = 0.15;

/** A child as it is looked at here. */
interface Needing {
  readonly id: string;
  /** How much it needs each spelling, and the same weighed by what it would bring. */
  readonly needs: ReadonlyMap<string, number>;
  readonly worth: ReadonlyMap<string, number>;
  /** How much it needs of what is no spelling, 0 to 1 by id, as `otherNeeds` gives it. */
  readonly besides?: ReadonlyMap<string, number>;
}

/** What a session is about that is no spelling, and the children who need it on that day. */
export interface BlockFocus {
  readonly ids: Focus;
  readonly step: "new" | "again";
  readonly for: readonly string[];
}

/** A need that may be what a session is about, and what that would bring on the day. */
interface Candidate {
  readonly ids: Focus;
  readonly gain: number;
  readonly pinned: boolean;
  /** The group works on it. */
  readonly aimed: boolean;
}

/** The needs of a group that are no spellings, as they go down from session to session. */
export class Besides {
  private readonly needs: readonly { readonly id: string; readonly of: Map<string, number> }[];
  private readonly worth: number;
  private readonly groups: readonly Focus[];
  private readonly pinned: ReadonlySet<string>;
  private readonly aims: ReadonlySet<NeedFamily>;
  /** What was taken up already. */
  private readonly begun = new Set<string>();

  constructor(
    children: readonly Needing[],
    {
      pinned = new Set(),
      put = new Set(),
      aims = new Set(),
    }: {
      readonly pinned?: ReadonlySet<string> | undefined;
      readonly put?: ReadonlySet<string> | undefined;
      /** What the group works on that is no spelling. */
      readonly aims?: ReadonlySet<NeedFamily> | undefined;
    },
  ) {
    this.pinned = pinned;
    this.aims = aims;
    this.needs = children.map(({ id, besides = new Map<string, number>() }) => ({
      id,
      of: new Map([...besides].filter(([need]) => !put.has(need))),
    }));
    const sum = (of: (child: Needing) => Iterable<number>) =>
      children.reduce((all, child) => [...of(child)].reduce((one, other) => one + other, all), 0);
    const need = sum((child) => child.needs.values());
    const brings = need > 0 ? sum((child) => child.worth.values()) / need : assumed.brings;
    this.worth = (1 - assumed.even) * brings + assumed.even;
    const by = new Map<string, Map<string, number>>();
    for (const { of } of this.needs)
      for (const [id, count] of of) {
        const family = familyOfNeed(id) ?? id;
        const alike = by.get(family) ?? new Map<string, number>();
        by.set(family, alike.set(id, (alike.get(id) ?? 0) + count));
      }
    this.groups = [...by.values()].map((alike) =>
      [...alike]
        .sort((one, other) => other[1] - one[1])
        .slice(0, MOST_IN_FOCUS)
        .map(([id]) => id),
    );
  }

  /** What is worth most on a day, of what was not taken up in the sessions just before; undefined where nothing is needed. */
  first(wanted: {
    readonly rest: readonly { readonly focus?: Focus | undefined }[];
    readonly fits: (focus: Focus) => boolean;
  }): Candidate | undefined {
    const rests = new Set(wanted.rest.flatMap(({ focus = [] }) => focus));
    return (
      this.groups
        .filter((ids) => !ids.some((id) => rests.has(id)))
        .filter((ids) => this.needing(ids).length > 0)
        .map(
          (ids): Candidate => ({
            ...{ ids, gain: this.gain(ids), pinned: ids.some((id) => this.pinned.has(id)) },
            aimed: ids.some((id) => this.aims.has(familyOfNeed(id) ?? id)),
          }),
        )
        // What someone put first, or what the group works on, is taken up while anyone needs it.
        .filter(({ gain, pinned, aimed }) => pinned || aimed || gain > 0)
        .sort((one, other) => rankOf(other) - rankOf(one) || other.gain - one.gain)
        .find(({ ids }) => wanted.fits(ids))
    );
  }

  /** It as a session has it that is about it. */
  on(ids: Focus): BlockFocus {
    return {
      ids,
      step: ids.some((id) => this.begun.has(id)) ? "again" : "new",
      for: this.needing(ids),
    };
  }

  /** The children who need any of it. */
  private needing(ids: Focus): readonly string[] {
    return this.needs.filter(({ of }) => ids.some((id) => (of.get(id) ?? 0) >= THERE)).map(({ id }) => id);
  }

  /** A session was about it before the children were known as they are. */
  wasOn(ids: Focus): void {
    for (const id of ids) this.begun.add(id);
  }

  /** A session of the block is about it. */
  teach(ids: Focus): void {
    this.wasOn(ids);
    for (const id of ids) {
      for (const { of } of this.needs) {
        const need = of.get(id);
        if (need !== undefined) of.set(id, need * assumed.leaves);
      }
    }
  }

  private gain(ids: Focus): number {
    const each = this.needs.map(({ of }) => Math.max(0, ...ids.map((id) => of.get(id) ?? 0)));
    const gains = each.reduce((sum, need) => {
      if (need < THERE) return sum - assumed.waste;
      return sum + need * this.worth * (1 - assumed.leaves);
    }, 0);
    return gains / Math.max(1, each.length);
  }
}

/** What someone put first; what the group works on and gains by; what it gains by; what it works on for the sake of a few. */
function rankOf({ gain, pinned, aimed }: Candidate): number {
  if (pinned) return 3;
  if (gain <= 0) return 0;
  return aimed ? 2 : 1;
}
