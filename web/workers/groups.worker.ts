import { expose } from "comlink";
import {
  type Bound,
  boundOf,
  findGroups,
  type GroupFinder,
  type GroupsWanted,
  type Proposal,
  type Solver,
} from "#core/groups";

/** Ways to propose groups for the same children, by a name of their own. */
export type Wanted = Readonly<Record<string, GroupsWanted>>;

/** Between two looks at whether someone wants something else: a round at least, which takes a second with five hundred children. */
const BREATH_MS = 30;
/** The first proposal is there after so long: what is left of it after a start is looked on. */
const FIRST_MS = 60;
/** For so long the search goes on after the first proposals. */
const LOOK_MS = 2500;

let finders = new Map<string, GroupFinder>();
/** Another for each asking: what was asked before ends. */
let turn = 0;
let solver: Promise<Solver> | undefined;

const breath = () => new Promise<void>((done) => setTimeout(done, 0));

async function openSolver(): Promise<Solver> {
  const [{ default: highs }, { default: wasm }] = await Promise.all([import("highs"), import("highs/runtime?url")]);
  return highs({ locateFile: () => wasm });
}

const worker = {
  /** The proposal of this name at once; the others, and whatever better is found for a while, are told as they come. */
  async propose(wanted: Wanted, first: string, tell: (name: string, proposal: Proposal) => void): Promise<Proposal> {
    turn++;
    const mine = turn;
    const until = performance.now() + FIRST_MS;
    const asked = wanted[first];
    if (!asked) throw new Error(`Nothing is wanted in the way ${first}.`);
    const finder = findGroups(asked);
    finders = new Map([[first, finder]]);
    while (performance.now() < until) finder.again(1);
    const others = Object.entries(wanted).filter(([name]) => name !== first);
    void lookOn(mine, others, tell);
    return finder.proposal();
  },
  /** How far the proposal of this name can be from the best there is, told round by round. */
  async bound(name: string, tell: (bound: Bound, proposal: Proposal) => void): Promise<Bound> {
    turn++;
    const mine = turn;
    const finder = finders.get(name);
    if (!finder) throw new Error("There is no proposal to go by any more. Make the groups again.");
    solver ??= openSolver();
    solver.catch(() => {
      solver = undefined;
    });
    const bounds = boundOf(finder, await solver);
    for (;;) {
      const told = bounds.next();
      if (told.done) {
        // The mix of all that was found may be better than what was told before.
        tell(told.value, finder.proposal());
        return told.value;
      }
      tell(told.value, finder.proposal());
      await breath();
      if (turn !== mine) return told.value;
    }
  },
};

/** Looks on for about so long. @returns whether something better was found */
function lookFor(finder: GroupFinder, ms: number): boolean {
  const until = performance.now() + ms;
  let better = false;
  do if (finder.again(1)) better = true;
  while (performance.now() < until);
  return better;
}

async function lookOn(
  mine: number,
  others: readonly (readonly [string, GroupsWanted])[],
  tell: (name: string, proposal: Proposal) => void,
): Promise<void> {
  // The first goes out before the others are begun.
  await breath();
  for (const [name, one] of others) {
    if (turn !== mine) return;
    const finder = findGroups(one);
    finders.set(name, finder);
    tell(name, finder.proposal());
    await breath();
  }
  const until = performance.now() + LOOK_MS;
  while (turn === mine && performance.now() < until) {
    for (const [name, finder] of finders) {
      if (turn !== mine) return;
      if (lookFor(finder, BREATH_MS)) tell(name, finder.proposal());
      await breath();
    }
  }
}

export type GroupsWorker = typeof worker;
expose(worker);
