import { allowed, type Grid, type Spot } from "./grid.ts";
import { MixedProgram, type MixedSolver, type Term } from "./mixed.ts";
import { type Extra, nothingExtra } from "./search.ts";
import { costOf, UNPLACED } from "./wishes.ts";

const NOON = 12 * 60;

/** What was worked out of the best timetable. */
export interface Proven {
  /** A timetable, the one that was there before or a better one. */
  readonly spots: readonly Spot[];
  readonly cost: number;
  /** No timetable costs less. */
  readonly bound: number;
  readonly proven: boolean;
}

/**
 * The best timetable by its wishes, and how good any can be: a mixed program of which session is in which slot, by whom and
 * where, solved from a timetable that is there.
 * @param seconds after which what was found so far is told
 */
export function bestWeek(
  grid: Grid,
  solver: MixedSolver,
  {
    from,
    seconds,
    extra = nothingExtra,
  }: { readonly from: readonly Spot[]; readonly seconds: number; readonly extra?: Extra },
): Proven {
  const price = (spots: readonly Spot[]) =>
    costOf(grid, spots).all + spots.reduce((sum, spot) => sum + extra.of(spot), 0);
  const cost = price(from);
  if (cost <= extra.least + 1e-9) return { spots: from, cost, bound: cost, proven: true };
  const model = new WeekModel(grid, extra);
  const found = model.program.solve(solver, { seconds, start: model.startOf(from) });
  const better = found.values && model.spotsOf(found.values);
  const spots = better && price(better) < cost - 1e-9 ? better : from;
  const reached = price(spots);
  const bound = Math.min(reached, Math.max(extra.least, found.bound));
  return { spots, cost: reached, bound, proven: found.end === "best" || reached - bound < 1e-6 };
}

/** The mixed program of a week. */
class WeekModel {
  readonly program = new MixedProgram();
  /** [group][slot]: column of "meets then", or -1. */
  private readonly meets: number[][];
  /** [group][slot][adult], [group][slot][room]. */
  private readonly taken: number[][][];
  private readonly housed: number[][][];
  private readonly short: number[] = [];

  constructor(
    readonly grid: Grid,
    private readonly extra: Extra,
  ) {
    const { groups, slots } = grid;
    const none = () => slots.map((): number[] => []);
    this.meets = groups.map(() => slots.map(() => -1));
    this.taken = groups.map(none);
    this.housed = groups.map(none);
    for (const [group] of groups.entries()) this.addGroup(group);
    this.addOnce();
    this.addCounts();
  }

  private terms(list: readonly number[]): Term[] {
    return list.flatMap((column): Term[] => (column < 0 ? [] : [[column, 1]]));
  }

  private addGroup(group: number): void {
    const { grid, program } = this;
    const { slots, adults, rooms, wanted } = grid;
    const { weights } = wanted;
    const { sessions = 0 } = grid.groups[group] ?? {};
    const adultUsed = adults.map(() => -1);
    const timeUsed = Array.from({ length: grid.times }, () => -1);
    const fixed = grid.fixed.filter((one) => one.group === group);
    for (const [slot, { from }] of slots.entries()) {
      const held = fixed.find((one) => one.slot === slot);
      const open = adults.map((_, adult) =>
        rooms.length === 0
          ? allowed(grid, { group, slot, adult, room: -1 })
          : rooms.some((_, room) => allowed(grid, { group, slot, adult, room })),
      );
      if (!held && !open.includes(true)) continue;
      const meets = program.column({ cost: from >= NOON ? weights.morning : 0 });
      (this.meets[group] as number[])[slot] = meets;
      if (held) program.hold(meets, 1);
      const taken = adults.map((_, adult) => {
        if (held ? held.adult !== adult : !open[adult]) return -1;
        return program.column({ cost: this.extra.of({ group, slot, adult, room: held?.room ?? -1 }) });
      });
      (this.taken[group] as number[][])[slot] = taken;
      program.row([[meets, -1], ...this.terms(taken)], { least: 0, most: 0 });
      if (rooms.length > 0) this.addRooms({ group, slot, meets, taken }, held);
      const time = grid.timeOf[slot] as number;
      if (weights.time > 0 && sessions > 1) {
        if (timeUsed[time] === -1) timeUsed[time] = program.column({ cost: weights.time, whole: false });
        program.row(
          [
            [timeUsed[time] as number, 1],
            [meets, -1],
          ],
          { least: 0 },
        );
      }
    }
    const all = this.terms(this.meets[group] ?? []);
    const short = program.column({ cost: UNPLACED, upper: sessions });
    this.short[group] = short;
    program.row([...all, [short, 1]], { least: sessions, most: sessions });
    // Without a session there is no adult, and no time, too many: a group that gets none pays one less.
    const any = sessions > 1 ? program.column({ whole: false }) : -1;
    if (any >= 0)
      program.row(
        [
          [any, 1],
          [short, 1],
        ],
        { most: sessions },
      );
    const onePays = (weight: number) => {
      if (any >= 0 && weight > 0) program.addCost(any, -weight);
    };
    if (sessions > 1 && weights.adult > 0) {
      for (const [adult] of adults.entries()) {
        const mine = slots.map((_, slot) => this.taken[group]?.[slot]?.[adult] ?? -1);
        if (mine.every((column) => column < 0)) continue;
        const used = program.column({ cost: weights.adult, whole: false });
        adultUsed[adult] = used;
        for (let day = 0; day < grid.days; day++) {
          const onDay = mine.filter((column, slot) => column >= 0 && grid.dayOf[slot] === day);
          program.row([[used, 1], ...onDay.map((column): Term => [column, -1])], { least: 0 });
        }
      }
      onePays(weights.adult);
    }
    if (sessions > 1 && weights.time > 0) onePays(weights.time);
    this.addDays(group, weights.apart);
  }

  private addRooms(
    { group, slot, meets, taken }: { group: number; slot: number; meets: number; taken: readonly number[] },
    held: Spot | undefined,
  ): void {
    const { grid, program } = this;
    const housed = grid.rooms.map((_, room) => {
      if (held) return held.room === room ? program.column({}) : -1;
      const some = grid.adults.some((_, adult) => allowed(grid, { group, slot, adult, room }));
      return some ? program.column({}) : -1;
    });
    (this.housed[group] as number[][])[slot] = housed;
    program.row([[meets, -1], ...this.terms(housed)], { least: 0, most: 0 });
    if (held) return;
    for (const [adult, column] of taken.entries()) {
      if (column < 0) continue;
      const places = housed.filter((_, room) => allowed(grid, { group, slot, adult, room }));
      if (places.length < this.terms(housed).length) program.row([[column, -1], ...this.terms(places)], { least: 0 });
    }
  }

  /** One session a day, and two days running where it cannot be helped. */
  private addDays(group: number, weight: number): void {
    const { grid, program } = this;
    const onDay = Array.from({ length: grid.days }, (_, day) =>
      this.terms((this.meets[group] ?? []).filter((_, slot) => grid.dayOf[slot] === day)),
    );
    for (const terms of onDay) program.row(terms, { most: 1 });
    if (weight === 0) return;
    for (const [day, next] of grid.nextDay.entries()) {
      if (next < 0 || !onDay[day]?.length || !onDay[next]?.length) continue;
      const running = program.column({ cost: weight, whole: false });
      program.row([[running, -1], ...(onDay[day] ?? []), ...(onDay[next] ?? [])], { most: 1 });
    }
  }

  /** No adult, room or child is in two places at once. */
  private addOnce(): void {
    const { grid, program } = this;
    const { groups, adults, rooms, slots } = grid;
    for (const [slot] of slots.entries()) {
      for (const [adult] of adults.entries())
        program.row(this.terms(groups.map((_, group) => this.taken[group]?.[slot]?.[adult] ?? -1)), { most: 1 });
      for (const [room] of rooms.entries())
        program.row(this.terms(groups.map((_, group) => this.housed[group]?.[slot]?.[room] ?? -1)), { most: 1 });
      for (const [group, others] of grid.sharing.entries())
        for (const other of others)
          if (other > group)
            program.row(this.terms([this.meets[group]?.[slot] ?? -1, this.meets[other]?.[slot] ?? -1]), { most: 1 });
    }
  }

  /** Sessions of an adult in a day and a week, and lessons that a child misses. */
  private addCounts(): void {
    const { grid, program } = this;
    for (const [adult, { mostADay, mostAWeek }] of grid.adults.entries()) {
      const all = grid.groups.flatMap((_, group) =>
        grid.slots.map((_, slot) => ({ day: grid.dayOf[slot], column: this.taken[group]?.[slot]?.[adult] ?? -1 })),
      );
      const columns = (list: typeof all) => this.terms(list.map(({ column }) => column));
      program.row(columns(all), { most: mostAWeek });
      for (let day = 0; day < grid.days; day++)
        program.row(columns(all.filter((one) => one.day === day)), { most: mostADay });
    }
    const weight = grid.wanted.weights.turns;
    for (const { at, most, children } of grid.misses) {
      const terms = this.terms(at.map(([group, slot]) => this.meets[group]?.[slot] ?? -1));
      if (most < terms.length) program.row(terms, { most });
      if (weight === 0 || terms.length < 2) continue;
      const again = program.column({ cost: weight * children, upper: terms.length, whole: false });
      program.row([[again, -1], ...terms], { most: 1 });
    }
  }

  /** The choices of a timetable as a start: what follows from them the solver finds. */
  startOf(spots: readonly Spot[]): ReadonlyMap<number, number> {
    const start = new Map<number, number>();
    for (const list of [this.meets, this.taken.flat(), this.housed.flat()])
      for (const column of list.flat()) if (column >= 0) start.set(column, 0);
    for (const { group, slot, adult, room } of spots) {
      for (const column of [
        this.meets[group]?.[slot],
        this.taken[group]?.[slot]?.[adult],
        this.housed[group]?.[slot]?.[room],
      ])
        if (column !== undefined && column >= 0) start.set(column, 1);
    }
    for (const [group, column] of this.short.entries()) {
      const mine = spots.filter((one) => one.group === group).length;
      start.set(column, (this.grid.groups[group]?.sessions ?? 0) - mine);
    }
    return start;
  }

  spotsOf(values: Float64Array): Spot[] {
    const chosen = (columns: readonly number[] | undefined) =>
      columns?.findIndex((column) => column >= 0 && (values[column] ?? 0) > 0.5) ?? -1;
    return this.meets.flatMap((columns, group) =>
      columns.flatMap((column, slot): Spot[] => {
        if (column < 0 || (values[column] ?? 0) < 0.5) return [];
        return [{ group, slot, adult: chosen(this.taken[group]?.[slot]), room: chosen(this.housed[group]?.[slot]) }];
      }),
    );
  }
}
