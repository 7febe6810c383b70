import { type Column, type Prices, pricedGroups, worthOfBlocks } from "./price.ts";
import type { GroupFinder } from "./propose.ts";

/** A solver of linear programs: a model as CPLEX LP text, its columns `x0`, `x1` … and its rows in their order. */
export interface Solver {
  solve(
    model: string,
    options?: { readonly time_limit?: number },
  ): {
    readonly Status: string;
    readonly ObjectiveValue: number;
    readonly Columns: Readonly<Record<string, { readonly Index: number; readonly Primal?: number }>>;
    readonly Rows: readonly { readonly Index: number; readonly Dual?: number }[];
  };
}

/** How far from the best a proposal can be at most. */
export interface Bound {
  /** What is missing to the bound, as a share of the need that the proposal meets; 0 is proven to be the best. */
  readonly gap: number;
  /** No round more would bring the bound down. */
  readonly done: boolean;
}

/** The share of the worth that pricing may miss, first much and at last next to nothing: a wide bound is there soon. */
const SLACKS = [0.3, 0.1, 0.03, 0.01, 0.002, 0.0002];
const CLOSE = 1.5;
/** How far prices stay with those that gave the best bound so far, 0 to 1: from round to round they would jump about. */
const TRUST = 0.7;
const EPS = 1e-6;

/**
 * Works out how far a proposal can be from the best grouping there is, by column generation: the best mix of groups that may
 * be shared out in parts (a linear program over the groups known so far) sets a price on each child; groups that are worth more
 * than their price are added, until there are none. Prices at any time give an upper bound (Lagrange). On the way better groups
 * may turn up; the proposal then follows. Yields after each round.
 */
export function* boundOf(finder: GroupFinder, solver: Solver): Generator<Bound, Bound> {
  const { table, rules, search } = finder.inside;
  const pool = new Map<string, Column>();
  const addSeen = () => {
    for (const [key, blocks] of search.seen)
      if (!pool.has(key)) pool.set(key, { blocks, worth: worthOfBlocks(table, rules, blocks) });
  };
  let bound = Number.POSITIVE_INFINITY;
  const told = (done: boolean): Bound => {
    const gap = Math.max(0, bound - search.worth) / Math.max(EPS, finder.need());
    return { gap: gap < EPS ? 0 : gap, done };
  };
  if (rules.groups === 0 || rules.blocks.length === 0) {
    bound = search.worth;
    return told(true);
  }
  addSeen();
  let step = 0;
  let trust = TRUST;
  let bestPrices: Prices | undefined;
  while (step < SLACKS.length) {
    const size = { blocks: rules.blocks.length, groups: rules.groups };
    const now = pricesBy(solver, [...pool.values()], size);
    const prices = bestPrices ? between(bestPrices, now, trust) : now;
    const slack = ((SLACKS[step] ?? 0) * Math.max(1, finder.need())) / rules.groups;
    const { columns: better, most } = pricedGroups(table, rules, prices, slack);
    const paidFor = (all: Prices) => all.blocks.reduce((sum, price) => sum + price, 0);
    const reached = paidFor(prices) + rules.groups * Math.max(0, most);
    if (reached < bound) [bound, bestPrices] = [reached, prices];
    const fresh = better.filter(({ blocks }) => !pool.has(blocks.join()));
    for (const column of fresh) pool.set(column.blocks.join(), column);
    const helps = fresh.some(({ blocks, worth }) => {
      const cost = blocks.reduce((sum, block) => sum + (now.blocks[block] as number), now.group);
      return worth > cost + EPS;
    });
    // What the old prices led to is of no use by the new ones: they are trusted less, until they alone find nothing more.
    const mixed = paidFor(now) + rules.groups * now.group;
    // Most of what is missing is what pricing may miss.
    const close = bound - mixed < CLOSE * slack * rules.groups;
    if (helps && !close) trust = TRUST;
    else if (close || prices === now || trust === 0) {
      step++;
      trust = TRUST;
    } else trust = trust > 0.3 ? trust - 0.3 : 0;
    yield told(bound - search.worth < EPS);
    if (bound - search.worth < EPS) return told(true);
  }
  const whole = [...pool.values()];
  if (whole.length === 0) return told(true);
  const mixed = solver.solve(modelOf(whole, rules.blocks.length, rules.groups, true), { time_limit: 5 });
  const chosen = whole.filter((_, at) => (mixed.Columns[`x${at}`]?.Primal ?? 0) > 0.5);
  search.offer(chosen.map(({ blocks }) => blocks));
  return told(true);
}

/** What the best mix of these groups, which may be shared out in parts, pays for each block and for a group. */
function pricesBy(
  solver: Solver,
  columns: readonly Column[],
  { blocks, groups }: { blocks: number; groups: number },
): Prices {
  const prices = new Float64Array(blocks);
  if (columns.length === 0) return { blocks: prices, group: 0 };
  const solved = solver.solve(modelOf(columns, blocks, groups));
  if (solved.Status !== "Optimal") throw new Error(`The bound could not be worked out: ${solved.Status}.`);
  const duals = solved.Rows.map(({ Dual = 0 }) => Math.max(0, Dual));
  const inSome = new Set(columns.flatMap((column) => column.blocks));
  for (let block = 0; block < blocks; block++) if (inSome.has(block)) prices[block] = duals.shift() ?? 0;
  return { blocks: prices, group: duals[0] ?? 0 };
}

/** Prices a share of the way back to the old ones. */
function between(old: Prices, now: Prices, share: number): Prices {
  const mix = (one: number, other: number) => share * one + (1 - share) * other;
  return {
    blocks: now.blocks.map((price, at) => mix(old.blocks[at] as number, price)),
    group: mix(old.group, now.group),
  };
}

/** Each block in one group at most, and no more groups than there may be; with whole numbers, groups are taken or not. */
function modelOf(columns: readonly Column[], blocks: number, groups: number, whole = false): string {
  const name = (at: number) => `x${at}`;
  const rows: string[][] = Array.from({ length: blocks }, () => []);
  for (const [at, column] of columns.entries()) for (const block of column.blocks) rows[block]?.push(name(at));
  const all = columns.map((_, at) => name(at));
  const lines = [
    "Maximize",
    ` worth: ${wrap(columns.map(({ worth }, at) => `${worth.toFixed(6)} ${name(at)}`))}`,
    "Subject To",
    // A row without columns would have no place among the duals.
    ...rows.flatMap((row, block) => (row.length > 0 ? [` b${block}: ${wrap(row)} <= 1`] : [])),
    ` groups: ${wrap(all)} <= ${groups}`,
    ...(whole ? ["Binary", ...all.map((one) => ` ${one}`)] : ["Bounds", ...all.map((one) => ` ${one} >= 0`)]),
    "End",
  ];
  return lines.join("\n");
}

/** Terms over several lines: a line of the format ends somewhere. */
function wrap(terms: readonly string[]): string {
  return terms.reduce((text, term, at) => text + (at === 0 ? "" : at % 8 === 0 ? "\n + " : " + ") + term, "");
}
