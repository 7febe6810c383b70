import { expose } from "comlink";
import {
  bestWeek,
  type ChangeProposed,
  type Conflict,
  type Cost,
  changeFor,
  conflictOf,
  costOf,
  type DaysRead,
  daysInCalendar,
  daysInTable,
  gridOf,
  type HoursRead,
  hoursInCalendar,
  hoursInTable,
  type Missing,
  type MixedSolver,
  type Placed,
  placedOf,
  type Spot,
  spotOf,
  WeekFinder,
  type WeekWanted,
} from "#core/groups";
import { readTable } from "./table.ts";

/** The first answer is there after so long; then it is looked on, and the proof may take so long. */
const FIRST_MS = 120;
const LOOK_MS = 400;
const PROOF_S = 2;
const WHY_S = 12;
const CHANGE_S = 3;
const SEED = 17;
const CALENDAR = /^\uFEFF?\s*BEGIN:VCALENDAR/i;

/** A timetable as it is being found. */
export interface Made {
  readonly placed: readonly Placed[];
  readonly cost: Cost;
  /** Points of wishes by which it can be better at most; null until it is known. */
  readonly gap: number | null;
}

let turn = 0;
let solver: Promise<MixedSolver> | undefined;
const breath = () => new Promise<void>((done) => setTimeout(done, 0));

async function openSolver(): Promise<MixedSolver> {
  const [{ default: highs }, { default: wasm }] = await Promise.all([import("highs"), import("highs/runtime?url")]);
  return highs({ locateFile: () => wasm });
}

/** The solver, opened once; asked again after it could not be. */
function opened(): Promise<MixedSolver> {
  solver ??= openSolver();
  solver.catch(() => {
    solver = undefined;
  });
  return solver;
}

const worker = {
  /** A timetable at once, told again when it is better; the last is told with how far it is from the best. */
  async make(wanted: WeekWanted, before: readonly Placed[], tell: (made: Made) => void): Promise<Made> {
    turn++;
    const mine = turn;
    const grid = gridOf(wanted);
    const begun = performance.now();
    const finder = new WeekFinder(grid, SEED);
    const spots = before.flatMap((one) => spotOf(grid, one) ?? []);
    if (spots.length === before.length) finder.offer(spots);
    while (performance.now() - begun < FIRST_MS) finder.again(2);
    const made = (found: readonly Spot[], gap: number | null): Made => ({
      ...{ placed: placedOf(grid, found), cost: costOf(grid, found), gap },
    });
    tell(made(finder.spots(), null));
    const ready = opened();
    while (performance.now() - begun < LOOK_MS && turn === mine) {
      finder.again(5);
      await breath();
    }
    const first = made(finder.spots(), null);
    tell(first);
    if (turn !== mine) return first;
    try {
      const {
        spots: best,
        cost,
        bound,
        proven,
      } = bestWeek(grid, await ready, { from: finder.spots(), seconds: PROOF_S });
      return made(best, proven ? 0 : cost - bound);
    } catch {
      // Without the solver there is a timetable all the same, and nothing is known of how good it is.
      return first;
    }
  },
  /** The smallest set of rules that stand against each other; undefined where all can be kept. */
  async conflict(wanted: WeekWanted): Promise<Conflict | undefined> {
    return conflictOf(gridOf(wanted), await opened(), { now: () => performance.now(), seconds: WHY_S });
  },
  /** The change of a week that touches fewest children when something is not there. */
  async change(wanted: WeekWanted, placed: readonly Placed[], missing: readonly Missing[]): Promise<ChangeProposed> {
    const found = await opened().catch(() => undefined);
    return changeFor(wanted, placed, missing, { ...(found && { solver: found }), seconds: CHANGE_S });
  },
  /** Hours of every week, read from a calendar file or a table. */
  readHours(text: string, from: { zone: string; from: string; weeks: number }): HoursRead {
    if (CALENDAR.test(text)) return hoursInCalendar(text, from);
    const { rows, trouble } = readTable(text);
    const { lessons, leftOut } = hoursInTable(rows.map(({ cells }) => cells));
    return { lessons, leftOut: [...(trouble ? [trouble] : []), ...leftOut] };
  },
  /** Terms, holidays or days off, read from a calendar file or a table. */
  readDays(text: string, between: { from: string; to: string }): DaysRead {
    if (CALENDAR.test(text)) return daysInCalendar(text, between);
    const { rows, trouble } = readTable(text);
    const { days, leftOut } = daysInTable(rows.map(({ cells }) => cells));
    return { days, leftOut: [...(trouble ? [trouble] : []), ...leftOut] };
  },
};

export type WeekWorker = typeof worker;
expose(worker);
