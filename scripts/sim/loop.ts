import { chooseTargets, commonWords, type Learner, proposeGroups, weighedNeeds } from "#core/groups";
import {
  dayNumber,
  fadesOf,
  type Known,
  knownAfter,
  knownBy,
  type Lessons,
  needFor,
  type SaidBy,
  shipped,
  standingOn,
  startingSecureWhen,
} from "#core/mastery";
import type { Gpc } from "#core/phonics";
import { type Helped, playTerm, type SchoolDay, type Term } from "#core/readers";
import { GAP } from "./measures.ts";
import { shippedLexicon, shippedOrders, type World } from "./worlds.ts";

/** Who is helped with what: all with the same, as before there was a model, by shared need alone, by what a need opens, and by the truth. */
export const policies = ["the same for all", "in the list", "shared need", "what it opens", "oracle"] as const;
type Policy = (typeof policies)[number];

const SESSION_WEEKS = 8;
/** Weeks after the last session at which it is seen what has stayed. */
const LATER = 4;
/** Groups are made anew after so many days; a target is not taught again in so many sessions. */
const [ANEW_DAYS, LATELY] = [14, 6];
export const SIZE = { by: "size", least: 4, most: 5 } as const;
const CHILDREN = 25;
const FADES_DAYS = 28;

export interface LoopLine {
  readonly world: string;
  readonly policy: Policy;
  /** Of the gaps at the first check, the share that is none when sessions end, and four weeks later. */
  readonly closed: number;
  readonly lasting: number;
  /** Weighed common words that a child reads in the mean, more than at the check: when sessions end, and four weeks later. */
  readonly words: number;
  readonly wordsLater: number;
  /** Share of the places in sessions that went on what that child would have said more often than not. */
  readonly wasted: number;
}

/** A child as grouping sees it, and by what chances it reads. */
export interface Judged {
  readonly learner: Learner;
  readonly chances: ReadonlyMap<Gpc, number>;
  /** How much of each chance goes in four weeks, in hundredths. */
  readonly fades: ReadonlyMap<Gpc, number>;
}
type ChildOfDay = SchoolDay["children"][number];

function lessonsOf(on: SchoolDay, child: ChildOfDay): Lessons {
  return {
    taughtOn: (thing) => {
      const day = on.taughtOn.get(thing);
      return day === undefined ? undefined : dayNumber(day);
    },
    sessions: (thing) =>
      child.sessions.flatMap(({ day, taught, revisited }) =>
        taught.includes(thing) || revisited.includes(thing)
          ? [{ day: dayNumber(day), taught: taught.includes(thing) }]
          : [],
      ),
  };
}

function learnerOf(id: string, needs: ReadonlyMap<Gpc, number>, chances: ReadonlyMap<Gpc, number>) {
  const secure = new Set([...chances].flatMap(([gpc, chance]) => (chance >= 0.85 ? [gpc] : [])));
  return { learner: { id, needs, secure }, chances };
}

/** As the model has it, from what was answered before that day. */
export function believer(): (on: SchoolDay, child: ChildOfDay) => Judged {
  const kept = new Map<string, { known: Known; taken: number }>();
  const words = { lexicon: shippedLexicon(), accent: undefined };
  return (on, child) => {
    const by: SaidBy = { lessons: lessonsOf(on, child), p: shipped, secureWhen: startingSecureWhen };
    const wanted = { ...by, words, standing: {} };
    const before = kept.get(child.childId);
    const fresh = child.log.slice(before?.taken ?? 0);
    const known = (before && knownAfter(before.known, fresh, wanted)) ?? knownBy(child.log, wanted);
    kept.set(child.childId, { known, taken: child.log.length });
    const standings = [...on.taughtOn.keys()].map((gpc) => [gpc, standingOn(known, gpc, on.day, by)] as const);
    const needs = new Map(
      standings.flatMap(([gpc, one]) => (needFor(one) > 0 ? [[gpc, needFor(one)] as const] : [])),
    );
    const fades = new Map(standings.map(([gpc, one]) => [gpc, fadesOf(known, one, on.day, by)]));
    return {
      ...learnerOf(child.childId, needs, new Map(standings.map(([gpc, one]) => [gpc, one.chance]))),
      fades,
    };
  };
}

/** As it is in truth. */
export function knowing(on: SchoolDay, child: ChildOfDay): Judged {
  const chances = new Map([...on.taughtOn.keys()].map((gpc) => [gpc, child.truth(gpc)]));
  const needs = new Map([...chances].flatMap(([gpc, chance]) => (chance < 0.8 ? [[gpc, 1 - chance] as const] : [])));
  const fades = new Map([...chances].map(([gpc, chance]) => [gpc, 100 * (chance - child.truth(gpc, FADES_DAYS))]));
  return { ...learnerOf(child.childId, needs, chances), fades };
}

/** Needs weighed by what they open for the child. */
export function weighed({ learner, chances, fades }: Judged): Learner {
  const by = { needs: learner.needs, chances, fades };
  return { ...learner, needs: weighedNeeds(commonWords(shippedLexicon()), by) };
}

/** Groups made anew every two weeks, and each day the target that is best for the group that day. */
export function chooser(
  policy: Exclude<Policy, "in the list" | "the same for all">,
  seed: number,
): (on: SchoolDay) => readonly Helped[] {
  const judge = policy === "oracle" ? knowing : believer();
  let groups: readonly (readonly string[])[] = [];
  let madeOn = Number.NEGATIVE_INFINITY;
  return (on) => {
    const taught = [...on.taughtOn.keys()];
    const judged = on.children.map((child) => judge(on, child));
    const learners = policy === "shared need" ? judged.map(({ learner }) => learner) : judged.map(weighed);
    const today = dayNumber(on.day);
    if (today - madeOn >= ANEW_DAYS) {
      const proposal = proposeGroups({ learners, order: taught, shape: SIZE, mostTargets: 4, seed });
      groups = proposal.groups.map(({ members }) => members);
      madeOn = today;
    }
    const byId = new Map(learners.map((one) => [one.id, one]));
    const sessions = new Map(on.children.map((child) => [child.childId, child.sessions]));
    return groups.flatMap((childIds): Helped[] => {
      const lately = new Set(
        childIds.flatMap((id) => (sessions.get(id) ?? []).slice(-LATELY).flatMap((one) => one.taught)),
      );
      const members = childIds.map((id) => {
        const { needs, ...rest } = byId.get(id) as Learner;
        return { ...rest, needs: new Map([...needs].filter(([gpc]) => !lately.has(gpc))) };
      });
      const [target] = chooseTargets(members, taught, 1);
      return target ? [{ childIds, targets: [target] }] : [];
    });
  };
}

/** Everyone in groups as they stand in the list, and each day the next spelling of what was taught, the same for all. */
function sameForAll(): (on: SchoolDay) => readonly Helped[] {
  let day = -1;
  return (on) => {
    day++;
    const taught = [...on.taughtOn.keys()];
    const target = taught[day % Math.max(1, taught.length)];
    const ids = on.children.map(({ childId }) => childId);
    const groups = Array.from({ length: Math.ceil(ids.length / SIZE.most) }, (_, at) =>
      ids.slice(at * SIZE.most, (at + 1) * SIZE.most),
    );
    return target ? groups.map((childIds) => ({ childIds, targets: [target] })) : [];
  };
}

function chooserOf(policy: Policy, seed: number) {
  if (policy === "in the list") return undefined;
  return policy === "the same for all" ? sameForAll() : chooser(policy, seed);
}

/** Plays a class through eight weeks of sessions and four without, once for each way of choosing. */
export function playLoop(world: World, seed: number): LoopLine[] {
  return policies.map((policy) => {
    const order = shippedOrders()[seed % shippedOrders().length] as ReturnType<typeof shippedOrders>[number];
    let [wasted, places] = [0, 0];
    const choose = chooserOf(policy, seed);
    const term = playTerm({
      ...{ memory: world.memory, assumptions: world.assumptions, order, lexicon: shippedLexicon() },
      ...{ reached: 17, children: CHILDREN, seed: seed * 1000 + 500, weeks: SESSION_WEEKS + LATER },
      lookAfter: [0, SESSION_WEEKS, SESSION_WEEKS + LATER],
      sessionWeeks: SESSION_WEEKS,
      choose,
      onSession: (chance) => {
        places++;
        if (chance >= GAP) wasted++;
      },
    });
    return { world: world.name, policy, ...measured(term), wasted: wasted / Math.max(1, places) };
  });
}

function measured({ lookedOn, children }: Term): Omit<LoopLine, "world" | "policy" | "wasted"> {
  const [first = "", end = "", later = ""] = lookedOn;
  let [gaps, closed, lasting] = [0, 0, 0];
  let [words, wordsLater] = [0, 0];
  for (const { truth } of children) {
    const at = (day: string) => truth.get(day) ?? new Map<Gpc, number>();
    for (const [gpc, chance] of at(first)) {
      if (chance >= GAP) continue;
      gaps++;
      if ((at(end).get(gpc) ?? 0) >= GAP) closed++;
      if ((at(later).get(gpc) ?? 0) >= GAP) lasting++;
    }
    // Of what was taught by the check: what the class learns later is no doing of the sessions.
    const taught = [...at(first).keys()];
    const reads = (day: string) => readable(new Map(taught.map((gpc) => [gpc, at(day).get(gpc) ?? 0])));
    words += reads(end) - reads(first);
    wordsLater += reads(later) - reads(first);
  }
  return {
    closed: closed / gaps,
    lasting: lasting / gaps,
    words: words / children.length,
    wordsLater: wordsLater / children.length,
  };
}

/** Weighed common words that come right with these chances, in the mean. */
function readable(chances: ReadonlyMap<Gpc, number>): number {
  const { units, weights, gpcs } = commonWords(shippedLexicon());
  const of = gpcs.map((gpc) => chances.get(gpc) ?? 0);
  return units.reduce((sum, its, at) => {
    let all = weights[at] as number;
    for (const unit of its) all *= of[unit] as number;
    return sum + all;
  }, 0);
}

/** Mean and spread over seeds, a line a world and way, as a table in Markdown. */
export function loopTable(lines: readonly LoopLine[]): string {
  const told = (all: readonly number[], digits: number) => {
    const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
    const spread = Math.sqrt(all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, all.length - 1));
    return `${mean.toFixed(digits)} ±${spread.toFixed(digits)}`;
  };
  const rows = [...new Set(lines.map(({ world }) => world))].flatMap((world) =>
    policies.map((policy) => {
      const its = lines.filter((line) => line.world === world && line.policy === policy);
      const of = (name: "closed" | "lasting" | "words" | "wordsLater" | "wasted", digits = 2) =>
        told(
          its.map((line) => line[name]),
          digits,
        );
      return `| ${world} | ${policy} | ${of("closed")} | ${of("lasting")} | ${of("words", 0)} | ${of("wordsLater", 0)} | ${of("wasted")} |`;
    }),
  );
  return [
    "| world | groups and targets by | gaps closed | still closed after 4 weeks | words more | words more after 4 weeks | spent on what is known |",
    "|---|---|---|---|---|---|---|",
    ...rows,
  ].join("\n");
}
