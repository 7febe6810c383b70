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

/** Rounds between two looks at whether someone wants something else. */
const ROUNDS = 4;
/** For so long the first proposals are looked for: a blink. */
const FIRST_MS = 100;
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
  /** The first proposals at once; whenever a better one is found for a while, it is told. */
  async propose(wanted: Wanted, tell: (name: string, proposal: Proposal) => void): Promise<Record<string, Proposal>> {
    turn++;
    const mine = turn;
    const until = performance.now() + FIRST_MS;
    finders = new Map(Object.entries(wanted).map(([name, one]) => [name, findGroups(one)]));
    while (finders.size > 0 && performance.now() < until) for (const finder of finders.values()) finder.again(1);
    const first = Object.fromEntries([...finders].map(([name, finder]) => [name, finder.proposal()]));
    void lookOn(mine, tell);
    return first;
  },
  /** How far the proposal of this name can be from the best there is, told round by round. */
  async bound(name: string, tell: (bound: Bound, proposal: Proposal) => void): Promise<Bound> {
    turn++;
    const mine = turn;
    const finder = finders.get(name);
    if (!finder) throw new Error("There is no proposal yet.");
    solver ??= openSolver();
    solver.catch(() => {
      solver = undefined;
    });
    const bounds = boundOf(finder, await solver);
    for (;;) {
      const told = bounds.next();
      if (told.done) return told.value;
      tell(told.value, finder.proposal());
      await breath();
      if (turn !== mine) return told.value;
    }
  },
};

async function lookOn(mine: number, tell: (name: string, proposal: Proposal) => void): Promise<void> {
  const until = performance.now() + LOOK_MS;
  while (turn === mine && performance.now() < until) {
    for (const [name, finder] of finders) {
      if (turn !== mine) return;
      if (finder.again(ROUNDS)) tell(name, finder.proposal());
      await breath();
    }
  }
}

export type GroupsWorker = typeof worker;
expose(worker);
