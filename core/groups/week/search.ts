import { type Dice, dice, shuffled } from "#core/words";
import { brokenBy, type Grid, type Spot } from "./grid.ts";
import { type Cost, costOf, missedByGroup } from "./wishes.ts";

/** What someone wants beside the wishes: a session is dearer or cheaper where it would be, say, the only change. */
export interface Extra {
  readonly of: (spot: Spot) => number;
  /** No timetable costs less with it. */
  readonly least: number;
}
export const nothingExtra: Extra = { of: () => 0, least: 0 };

/** Who is where, kept up as sessions come and go. */
export class Board {
  readonly byGroup: Spot[][];
  private readonly adultAt: Uint8Array;
  private readonly roomAt: Uint8Array;
  private readonly groupAt: Uint8Array;
  private readonly adultDay: Uint16Array;
  private readonly adultWeek: Uint16Array;
  private readonly groupDay: Uint8Array;
  private readonly missing: Uint16Array;

  constructor(readonly grid: Grid) {
    const { groups, slots, adults, rooms, days, misses } = grid;
    this.byGroup = groups.map(() => []);
    this.adultAt = new Uint8Array(adults.length * slots.length);
    this.roomAt = new Uint8Array(rooms.length * slots.length);
    this.groupAt = new Uint8Array(groups.length * slots.length);
    this.adultDay = new Uint16Array(adults.length * days);
    this.adultWeek = new Uint16Array(adults.length);
    this.groupDay = new Uint8Array(groups.length * days);
    this.missing = new Uint16Array(misses.length);
  }

  /** Whether a session breaks no rule beside those that are there; what is allowed by itself is not looked at again. */
  fits({ group, slot, adult, room }: Spot): boolean {
    const { grid } = this;
    const { slots, days } = grid;
    const day = grid.dayOf[slot] as number;
    const one = grid.adults[adult];
    if (!one || this.groupDay[group * days + day] || this.adultAt[adult * slots.length + slot]) return false;
    if (room >= 0 && this.roomAt[room * slots.length + slot]) return false;
    if ((this.adultDay[adult * days + day] as number) >= one.mostADay) return false;
    if ((this.adultWeek[adult] as number) >= one.mostAWeek) return false;
    for (const other of grid.sharing[group] ?? []) if (this.groupAt[other * slots.length + slot]) return false;
    return this.inTurn(group, slot);
  }

  private inTurn(group: number, slot: number): boolean {
    for (const at of this.grid.missed[group]?.[slot] ?? [])
      if ((this.missing[at] as number) >= (this.grid.misses[at]?.most ?? 0)) return false;
    return true;
  }

  /** What a session would add to lessons missed again, over all children. */
  turnsAt(group: number, slot: number): number {
    let again = 0;
    for (const at of this.grid.missed[group]?.[slot] ?? [])
      if ((this.missing[at] as number) > 0) again += this.grid.misses[at]?.children ?? 0;
    return again;
  }

  /** How often these lessons are missed now. @param at place in `misses` */
  missed(at: number): number {
    return this.missing[at] as number;
  }

  /** Sessions that an adult has. */
  weekOf(adult: number): number {
    return this.adultWeek[adult] as number;
  }

  put(spot: Spot): void {
    this.byGroup[spot.group]?.push(spot);
    this.change(spot, 1);
  }

  take(spot: Spot): void {
    const mine = this.byGroup[spot.group] ?? [];
    mine.splice(mine.indexOf(spot), 1);
    this.change(spot, -1);
  }

  private change({ group, slot, adult, room }: Spot, by: 1 | -1): void {
    const { slots, dayOf, days, missed } = this.grid;
    const day = dayOf[slot] as number;
    const add = (list: Uint8Array | Uint16Array, at: number) => {
      list[at] = (list[at] as number) + by;
    };
    add(this.adultAt, adult * slots.length + slot);
    if (room >= 0) add(this.roomAt, room * slots.length + slot);
    add(this.groupAt, group * slots.length + slot);
    add(this.adultDay, adult * days + day);
    add(this.adultWeek, adult);
    add(this.groupDay, group * days + day);
    for (const at of missed[group]?.[slot] ?? []) add(this.missing, at);
  }

  spots(): Spot[] {
    return this.byGroup.flat();
  }
}

/** Sessions kept in view while those of one group are placed. */
const BEAM = 10;

/**
 * Looks for a timetable: groups are taken out, one or a few at a time, and put back where they cost least. Made once, it can be
 * asked to look on; what it has is always the best so far.
 */
export class WeekFinder {
  private readonly board: Board;
  private readonly from: Dice;
  private readonly options: readonly (readonly Spot[])[];
  private best: readonly Spot[] = [];
  private bestCost = Number.POSITIVE_INFINITY;
  private now = Number.POSITIVE_INFINITY;

  /** @param extra beside the wishes, what a session costs where it stands */
  constructor(
    readonly grid: Grid,
    seed: number,
    private readonly extra: Extra = nothingExtra,
  ) {
    this.board = new Board(grid);
    this.from = dice(seed);
    this.options = grid.groups.map((_, group) => optionsOf(grid, group));
    for (const spot of grid.fixed) this.board.put(spot);
    const order = grid.groups.map((_, group) => group);
    // Those with the fewest places first.
    order.sort((one, other) => (this.options[one]?.length ?? 0) - (this.options[other]?.length ?? 0));
    for (const group of order) this.fill(group, 0);
    this.now = this.worth();
    this.keep();
  }

  spots(): readonly Spot[] {
    return this.best;
  }

  cost(): Cost {
    return costOf(this.grid, this.best);
  }

  /** What the best so far costs, with what was wanted beside the wishes. */
  value(): number {
    return this.bestCost;
  }

  /** Takes what someone else found, if it is better and breaks no rule but those that what is fixed breaks. */
  offer(spots: readonly Spot[]): boolean {
    const mayBreak = new Set(brokenBy(this.grid, this.grid.fixed));
    if (brokenBy(this.grid, spots).some((says) => !mayBreak.has(says))) return false;
    const value = this.valueOf(spots);
    if (value >= this.bestCost - 1e-9) return false;
    [this.best, this.bestCost] = [[...spots], value];
    this.restore();
    return true;
  }

  /** Looks on for some rounds. @returns true when something better was found */
  again(rounds: number): boolean {
    const before = this.bestCost;
    const { groups } = this.grid;
    if (groups.length === 0) return false;
    for (let round = 0; round < rounds && this.bestCost > this.extra.least + 1e-9; round++) {
      const first = this.from.pick(groups.length);
      const others = this.from.pick(Math.min(4, groups.length));
      const chosen = new Set([first]);
      for (let at = 0; at < others; at++) chosen.add(this.near(first));
      const taken = [...chosen].flatMap((group) => this.clear(group));
      for (const group of shuffled([...chosen], this.from)) this.fill(group, this.from.share() < 0.5 ? 0.6 : 0);
      const value = this.worth();
      const warm = 1.5 * this.from.share() * this.from.share();
      if (value <= this.now + warm) {
        this.now = value;
        if (value < this.bestCost - 1e-9) this.keep();
      } else {
        for (const group of chosen) this.clear(group);
        for (const spot of taken) this.board.put(spot);
      }
      if (round % 200 === 199) this.restore();
    }
    return this.bestCost < before - 1e-9;
  }

  /** Another group, more often one that stands in the way of the first. */
  private near(first: number): number {
    const { groups } = this.grid;
    const any = this.from.pick(groups.length);
    if (this.from.share() < 0.4) return any;
    const options = this.options[first] ?? [];
    const wished = options[Math.floor(this.from.share() * options.length)];
    const rival =
      wished &&
      this.board
        .spots()
        .filter(({ slot, adult, room }) => slot === wished.slot && (adult === wished.adult || room === wished.room));
    return rival?.[Math.floor(this.from.share() * rival.length)]?.group ?? any;
  }

  private isFixed(spot: Spot): boolean {
    return this.grid.fixed.includes(spot);
  }

  private clear(group: number): Spot[] {
    const mine = (this.board.byGroup[group] ?? []).filter((spot) => !this.isFixed(spot));
    for (const spot of mine) this.board.take(spot);
    return mine;
  }

  /** Places the sessions of a group where they cost least beside what is there, one after the other through the week. */
  private fill(group: number, noise: number): void {
    const { grid, board } = this;
    const { sessions = 0 } = grid.groups[group] ?? {};
    const fixed = board.byGroup[group] ?? [];
    const toPlace = sessions - fixed.length;
    if (toPlace <= 0) return;
    const weights = grid.wanted.weights;
    const open = (this.options[group] ?? []).filter((spot) => board.fits(spot));
    interface Partial {
      readonly spots: readonly Spot[];
      readonly last: number;
      readonly apart: number;
      readonly cost: number;
    }
    const start: Partial = { spots: [...fixed], last: -1, apart: 0, cost: 0 };
    let beam: Partial[] = [start];
    let best: Partial = start;
    for (let placed = 0; placed < toPlace; placed++) {
      const wider: Partial[] = [];
      for (const partial of beam)
        for (const spot of open) {
          if (spot.slot <= partial.last) continue;
          if (!this.goesWith(spot, partial.spots, fixed.length)) continue;
          const spots = [...partial.spots, spot];
          const missed = missedByGroup(grid, spots);
          const turns = board.turnsAt(group, spot.slot) + this.turnsAmong(spot, partial.spots, fixed.length);
          const apart = partial.apart + weights.turns * turns + this.extra.of(spot);
          const wishes =
            weights.adult * missed.adult +
            weights.time * missed.time +
            weights.morning * missed.morning +
            weights.apart * missed.apart;
          wider.push({ spots, last: spot.slot, apart, cost: apart + wishes + noise * this.from.share() * 4 });
        }
      if (wider.length === 0) break;
      wider.sort((one, other) => one.cost - other.cost || one.last - other.last);
      beam = narrowed(wider);
      best = beam[0] as Partial;
    }
    for (const spot of best.spots.slice(fixed.length)) board.put(spot);
  }

  /** Rules between a session and those of the same group that are not on the board yet. */
  private goesWith(spot: Spot, spots: readonly Spot[], fixed: number): boolean {
    const { grid } = this;
    const day = grid.dayOf[spot.slot];
    const adult = grid.adults[spot.adult];
    let byAdult = 0;
    for (let at = fixed; at < spots.length; at++) {
      const other = spots[at] as Spot;
      if (grid.dayOf[other.slot] === day) return false;
      if (other.adult === spot.adult) byAdult++;
    }
    if (adult && byAdult > 0 && !this.hasWeekFor(spot.adult, byAdult + 1)) return false;
    for (const at of grid.missed[spot.group]?.[spot.slot] ?? []) {
      const { most = 0, at: places = [] } = grid.misses[at] ?? {};
      if (most === Number.POSITIVE_INFINITY) continue;
      const mine = spots
        .slice(fixed)
        .filter((one) => places.some(([group, slot]) => group === one.group && slot === one.slot)).length;
      if (this.board.missed(at) + mine + 1 > most) return false;
    }
    return true;
  }

  private hasWeekFor(adult: number, more: number): boolean {
    return this.board.weekOf(adult) + more <= (this.grid.adults[adult]?.mostAWeek ?? 0);
  }

  private turnsAmong(spot: Spot, spots: readonly Spot[], fixed: number): number {
    let again = 0;
    for (const at of this.grid.missed[spot.group]?.[spot.slot] ?? []) {
      if (this.board.missed(at) > 0) continue;
      const { at: places = [], children = 0 } = this.grid.misses[at] ?? {};
      const before = spots
        .slice(fixed)
        .some((one) => places.some(([group, slot]) => group === one.group && slot === one.slot));
      if (before) again += children;
    }
    return again;
  }

  private valueOf(spots: readonly Spot[]): number {
    return costOf(this.grid, spots).all + spots.reduce((sum, spot) => sum + this.extra.of(spot), 0);
  }

  private worth(): number {
    return this.valueOf(this.board.spots());
  }

  private keep(): void {
    this.best = this.board.spots();
    this.bestCost = this.now;
  }

  private restore(): void {
    for (const spot of this.board.spots()) this.board.take(spot);
    for (const spot of this.best) this.board.put(spot);
    this.now = this.bestCost;
  }
}

/** Every session that a group could have, the tightest room first. */
function optionsOf(grid: Grid, group: number): Spot[] {
  const found: Spot[] = [];
  const rooms = grid.rooms
    .map((room, at) => ({ at, fits: room.fits }))
    .sort((one, other) => one.fits - other.fits)
    .map(({ at }) => at);
  for (const [slot] of grid.slots.entries()) {
    if (grid.whyThen[group]?.[slot]?.length !== 0) continue;
    for (const [adult] of grid.adults.entries()) {
      if (grid.whyBy[group]?.[adult]?.[slot]?.length !== 0) continue;
      if (grid.rooms.length === 0) found.push({ group, slot, adult, room: -1 });
      for (const room of rooms)
        if (grid.whyIn[group]?.[room]?.[slot]?.length === 0 && grid.mayBe[adult]?.[room])
          found.push({ group, slot, adult, room });
    }
  }
  return found;
}

/** The best few, no more than a third of them by the same adults: what is alike finds the same end. */
function narrowed<One extends { readonly spots: readonly Spot[] }>(sorted: readonly One[]): One[] {
  const kept: One[] = [];
  const alike = new Map<string, number>();
  for (const one of sorted) {
    const key = one.spots.map(({ adult }) => adult).join();
    const count = alike.get(key) ?? 0;
    if (count >= Math.ceil(BEAM / 3)) continue;
    alike.set(key, count + 1);
    kept.push(one);
    if (kept.length >= BEAM) break;
  }
  return kept;
}
