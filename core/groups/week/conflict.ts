import { allRules, type Grid } from "./grid.ts";
import { MixedProgram, type MixedSolver, type Term } from "./mixed.ts";
import { counted, type Rule } from "./rules.ts";

/** Rules that cannot all be kept, and what each of them keeps from being. */
export interface Conflict {
  /** Without any one of them the others could be kept. */
  readonly rules: readonly GivenUp[];
  /** No fewer rules stand against each other; else there was no time to be sure. */
  readonly smallest: boolean;
}

export interface GivenUp extends Rule {
  /** How many more sessions could be placed without it: of those that have no place, all or some; 0 where others stand in the way too. */
  readonly allows: number;
  /** Nothing would be without a place. */
  readonly all: boolean;
}

/** For one look at what can be kept, in seconds. */
const LOOK = 1.5;
const MOST_LOOKS = 120;

/**
 * The smallest set of rules that cannot all be kept, where not every session has a place; undefined where every session could
 * have one. Sets of rules to give up are collected, each as small as can be; a set that meets all of them, and cannot be kept,
 * is the answer, and none smaller is.
 * @param seconds after which the search ends with what it has
 */
export function conflictOf(
  grid: Grid,
  solver: MixedSolver,
  { now, seconds }: { readonly now: () => number; readonly seconds: number },
): Conflict | undefined {
  const until = now() + seconds * 1000;
  const loose = new LooseModel(grid, allRules(grid));
  const giveUps: (readonly number[])[] = [];
  let kept: readonly number[] = [];
  let smallest = true;
  for (let look = 0; ; look++) {
    if (look >= MOST_LOOKS || now() > until) {
      smallest = false;
      break;
    }
    const found = loose.giveUpBeside(kept, solver);
    if (found === "cannot") break;
    if (found === "unsure") {
      smallest = false;
      break;
    }
    if (found.length === 0) return undefined;
    giveUps.push(found);
    kept = fewestThatMeet(giveUps, loose.rules.length, solver);
  }
  if (!smallest) kept = shrunk(loose, solver, { now, until: now() + seconds * 1000 });
  const missing = shortWithout(grid, undefined, solver);
  const rules = kept.map((at): GivenUp => {
    const rule = loose.rules[at] as Rule;
    const left = shortWithout(grid, rule, solver);
    return { ...rule, allows: Math.max(0, missing - left), all: left === 0 };
  });
  const rank = (rule: GivenUp) => (rule.kind === "sessions" ? 0 : 1);
  return { rules: rules.toSorted((one, other) => rank(one) - rank(other)), smallest };
}

/** Rules that cannot all be kept, of which none can be left out as far as there was time to try: begun from all. */
function shrunk(
  loose: LooseModel,
  solver: MixedSolver,
  { now, until }: { readonly now: () => number; readonly until: number },
): readonly number[] {
  let kept: readonly number[] = loose.rules.map((_, at) => at);
  // The fewer groups are left, the quicker is the next look.
  const order = kept.toSorted((one, other) => Number(isSessions(other)) - Number(isSessions(one)));
  for (const at of order) {
    if (now() > until) break;
    const rest = kept.filter((one) => one !== at);
    if (loose.cannotKeep(rest, solver)) kept = rest;
  }
  return kept;

  function isSessions(at: number): boolean {
    return loose.rules[at]?.kind === "sessions";
  }
}

/** The fewest rules of which every set has one. */
function fewestThatMeet(sets: readonly (readonly number[])[], rules: number, solver: MixedSolver): number[] {
  const program = new MixedProgram();
  // Among as few the same ones each time.
  const columns = Array.from({ length: rules }, (_, at) => program.column({ cost: 1 + at * 1e-6 }));
  for (const set of sets)
    program.row(
      set.map((at): Term => [columns[at] as number, 1]),
      { least: 1 },
    );
  const { values } = program.solve(solver, { seconds: LOOK });
  return columns.filter((at) => (values?.[at] ?? 0) > 0.5);
}

/** How many sessions have no place at best when a rule is given up; of *so many sessions*, one of them. */
function shortWithout(grid: Grid, rule: Rule | undefined, solver: MixedSolver): number {
  const model = new LooseModel(grid, rule ? [rule] : [], {
    counting: true,
    fewer: rule?.kind === "sessions" ? rule.key : undefined,
  });
  if (rule) model.program.hold(model.columnOf.get(rule.key) as number, rule.kind === "sessions" ? 0 : 1);
  const { value } = model.program.solve(solver, { seconds: LOOK });
  return Math.round(value);
}

/** The week as a mixed program in which rules can be given up. Rules that are not listed are kept. */
class LooseModel {
  readonly program = new MixedProgram();
  readonly columnOf = new Map<string, number>();
  private readonly meets: number[][] = [];
  private readonly taken: number[][][] = [];
  private readonly housed: number[][][] = [];

  /** @param counting it is minimised how many sessions have no place; else how many rules are given up */
  constructor(
    private readonly grid: Grid,
    readonly rules: readonly Rule[],
    private readonly how: { readonly counting: boolean; readonly fewer?: string | undefined } = { counting: false },
  ) {
    for (const { key } of rules) this.columnOf.set(key, this.program.column({ cost: how.counting ? 0 : 1 }));
    for (const [group] of grid.groups.entries()) this.addGroup(group);
    this.addOnce();
    this.addCounts();
  }

  /** The fewest rules to give up so that these can be kept; `cannot` where they stand against each other. */
  giveUpBeside(kept: readonly number[], solver: MixedSolver): readonly number[] | "cannot" | "unsure" {
    const columns = this.rules.map(({ key }) => this.columnOf.get(key) as number);
    for (const [at, column] of columns.entries()) this.program.hold(column, 0, kept.includes(at) ? 0 : 1);
    const { values, end } = this.program.solve(solver, { seconds: LOOK });
    if (end === "none") return "cannot";
    if (!values) return "unsure";
    return this.rules.flatMap((_, at) => ((values[columns[at] as number] ?? 0) > 0.5 ? at : []));
  }

  /** True when these rules are known to stand against each other, with all others given up. */
  cannotKeep(kept: readonly number[], solver: MixedSolver): boolean {
    const held = new Set(kept);
    for (const [at, { key }] of this.rules.entries())
      this.program.hold(this.columnOf.get(key) as number, held.has(at) ? 0 : 1);
    return this.program.solve(solver, { seconds: LOOK }).end === "none";
  }

  /** A choice that rules stand against is open only when all of them are given up. */
  private choice(against: readonly Rule[]): number {
    if (against.some(({ key }) => !this.columnOf.has(key))) return -1;
    const column = this.program.column({});
    for (const { key } of against)
      this.program.row(
        [
          [column, 1],
          [this.columnOf.get(key) as number, -1],
        ],
        { most: 0 },
      );
    return column;
  }

  private terms(columns: readonly number[], factor = 1): Term[] {
    return columns.flatMap((column): Term[] => (column < 0 ? [] : [[column, factor]]));
  }

  /** A count that may be passed when its rule is given up. */
  private atMost(columns: readonly number[], rule: Rule, most: number): void {
    const terms = this.terms(columns);
    if (terms.length <= most) return;
    const loose = this.columnOf.get(rule.key);
    const more: Term[] = loose === undefined ? [] : [[loose, most - terms.length]];
    this.program.row([...terms, ...more], { most });
  }

  private addGroup(group: number): void {
    const { grid, program } = this;
    const one = grid.groups[group];
    if (!one) return;
    const rooms = grid.rooms;
    this.meets[group] = grid.slots.map((_, slot) => this.choice(grid.whyThen[group]?.[slot] ?? []));
    this.taken[group] = [];
    this.housed[group] = [];
    for (const [slot, meets] of (this.meets[group] as number[]).entries()) {
      if (meets < 0) continue;
      const taken = grid.adults.map((_, adult) => this.choice(grid.whyBy[group]?.[adult]?.[slot] ?? []));
      (this.taken[group] as number[][])[slot] = taken;
      program.row([[meets, -1], ...this.terms(taken)], { least: 0, most: 0 });
      if (rooms.length === 0) continue;
      const housed = rooms.map((_, room) => this.choice(grid.whyIn[group]?.[room]?.[slot] ?? []));
      (this.housed[group] as number[][])[slot] = housed;
      program.row([[meets, -1], ...this.terms(housed)], { least: 0, most: 0 });
      for (const [adult, column] of taken.entries()) {
        if (column < 0 || !grid.mayBe[adult]?.includes(false)) continue;
        const loose = this.columnOf.get(`adult-rooms ${grid.adults[adult]?.id}`);
        const places = housed.filter((_, room) => grid.mayBe[adult]?.[room]);
        const more: Term[] = loose === undefined ? [] : [[loose, 1]];
        program.row([[column, -1], ...this.terms(places), ...more], { least: 0 });
      }
    }
    const { key } = counted.sessions(one);
    const sessions = one.sessions - (this.how.fewer === key ? 1 : 0);
    if (sessions <= 0) return;
    const loose = this.columnOf.get(key);
    const short = this.how.counting ? program.column({ cost: 1, upper: sessions }) : -1;
    const more: Term[] = [...(loose === undefined ? [] : [[loose, sessions] as const]), ...this.terms([short])];
    program.row([...this.terms(this.meets[group] as number[]), ...more], { least: sessions });
    for (let day = 0; day < grid.days; day++)
      program.row(this.terms((this.meets[group] as number[]).filter((_, slot) => grid.dayOf[slot] === day)), {
        most: 1,
      });
  }

  private addOnce(): void {
    const { grid, program } = this;
    const all = (of: (group: number) => number | undefined) =>
      this.terms(grid.groups.map((_, group) => of(group) ?? -1));
    for (const [slot] of grid.slots.entries()) {
      for (const [adult] of grid.adults.entries())
        program.row(
          all((group) => this.taken[group]?.[slot]?.[adult]),
          { most: 1 },
        );
      for (const [room] of grid.rooms.entries())
        program.row(
          all((group) => this.housed[group]?.[slot]?.[room]),
          { most: 1 },
        );
      for (const [group, others] of grid.sharing.entries())
        for (const other of others)
          if (other > group)
            program.row(this.terms([this.meets[group]?.[slot] ?? -1, this.meets[other]?.[slot] ?? -1]), { most: 1 });
    }
  }

  private addCounts(): void {
    const { grid } = this;
    for (const [at, adult] of grid.adults.entries()) {
      const on = (day?: number) =>
        grid.groups.flatMap((_, group) =>
          grid.slots.flatMap((__, slot) =>
            day === undefined || grid.dayOf[slot] === day ? (this.taken[group]?.[slot]?.[at] ?? -1) : [],
          ),
        );
      this.atMost(on(), counted.adultWeek(adult), adult.mostAWeek);
      for (let day = 0; day < grid.days; day++) this.atMost(on(day), counted.adultDay(adult), adult.mostADay);
    }
    for (const { what, at, most } of grid.misses)
      this.atMost(
        at.map(([group, slot]) => this.meets[group]?.[slot] ?? -1),
        counted.most(what, most),
        most,
      );
  }
}
