import { proposeGroups } from "#core/groups";
import { dayNumber } from "#core/mastery";
import type { Gpc } from "#core/phonics";
import { type BlockChild, type BlockPast, Forecast, planBlock } from "#core/plans";
import { type Helped, playTerm, type SchoolDay, type Term, type TermWanted } from "#core/readers";
import { believer, chooser, type Judged, knowing, SIZE, weighed } from "./loop.ts";
import { GAP } from "./measures.ts";
import { shippedLexicon, shippedOrders, type World } from "./worlds.ts";

/** How sessions are planned: one spelling a day and the same revisits for all; a block of weeks; the same block by the truth. */
const planners = ["a spelling a day", "a block of weeks", "oracle"] as const;
type Planner = (typeof planners)[number];

/** Sessions a week, and weeks of them: what was gained is measured after the first, played on to the second. */
const [A_WEEK, WEEKS, LONG_WEEKS] = [4, 6, 12];
/** Weeks without sessions after which it is seen what has stayed. */
const LATER = 4;
const ANEW_DAYS = 14;
const CHILDREN = 25;
const MINUTES = 20;
/** Cards that a child is asked at the end of a week. */
const LOOKS = 10;
/** Share of the gaps that are to be closed. */
const AIM = 0.6;

export interface PlanLine {
  readonly world: string;
  readonly planner: Planner;
  /** Of the gaps at the first check, the share that is none after 24 sessions and four weeks without. */
  readonly lasting: number;
  /** Sessions until 60% of the gaps are closed, 48 and half the way to the next where they are not. */
  readonly sessions: number;
  /** Of the gaps, the share closed after 48 sessions. */
  readonly closed: number;
  /** Share of the places of targets that went on what that child would have said at sight more often than not. */
  readonly known: number;
}

function blockChild(judged: Judged): BlockChild {
  const { learner, chances, fades } = judged;
  return { id: learner.id, chances, fades, needs: learner.needs, worth: weighed(judged).needs };
}

/** Who learns together with what on a day, with each child's cards; and what each is asked at the end of a week. */
function blocks(planner: "a block of weeks" | "oracle", seed: number): Pick<TermWanted, "choose" | "look"> {
  const judge = planner === "oracle" ? knowing : believer();
  let groups: readonly (readonly string[])[] = [];
  let madeOn = Number.NEGATIVE_INFINITY;
  const choose = (on: SchoolDay): readonly Helped[] => {
    const among = [...on.taughtOn.keys()];
    const judged = on.children.map((child) => judge(on, child));
    const today = dayNumber(on.day);
    if (today - madeOn >= ANEW_DAYS) {
      const proposal = proposeGroups({
        learners: judged.map(weighed),
        order: among,
        shape: SIZE,
        mostTargets: 4,
        seed,
      });
      groups = proposal.groups.map(({ members }) => members);
      madeOn = today;
    }
    const byId = new Map(judged.map((one) => [one.learner.id, blockChild(one)]));
    return groups.flatMap((childIds): Helped[] => {
      const [session] = planBlock({
        today: on.day,
        children: childIds.flatMap((id) => byId.get(id) ?? []),
        days: [{ on: on.day, minutes: MINUTES, room: 2 }],
        past: pastOf(on, childIds),
        among,
      });
      const cards = new Map((session?.cards ?? []).map(({ childId, gpcs }) => [childId, gpcs]));
      const cardsOnly = new Set(session?.cardsOnly);
      return [
        {
          childIds: childIds.filter((id) => !cardsOnly.has(id)),
          targets: (session?.points ?? []).map(({ gpc }) => gpc),
          cards,
        },
        { childIds: childIds.filter((id) => cardsOnly.has(id)), targets: [], cards },
      ];
    });
  };
  const look = (on: SchoolDay) =>
    new Map(
      on.children.map((child) => {
        const its = new Forecast(blockChild(judge(on, child)), on.day);
        return [child.childId, its.looks(on.day, LOOKS)] as const;
      }),
    );
  return { choose, look };
}

/** Sessions of the children who are together now: what more than half of those who were there were taught. */
function pastOf(on: SchoolDay, childIds: readonly string[]): BlockPast[] {
  const byDay = new Map<string, Map<Gpc, number>>();
  for (const { childId, sessions } of on.children)
    if (childIds.includes(childId))
      for (const { day, taught } of sessions) {
        const counts = byDay.get(day) ?? new Map<Gpc, number>();
        byDay.set(day, counts);
        for (const gpc of taught) counts.set(gpc, (counts.get(gpc) ?? 0) + 1);
      }
  return [...byDay]
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .map(([day, counts]) => ({
      on: day,
      taught: [...counts].filter(([, count]) => count * 2 > childIds.length).map(([gpc]) => gpc),
    }));
}

/** Plays a class through 24 sessions and four weeks without, and once more through 48, by each planner. */
export function playPlans(world: World, seed: number, children = CHILDREN): PlanLine[] {
  return planners.map((planner) => {
    const order = shippedOrders()[seed % shippedOrders().length] as ReturnType<typeof shippedOrders>[number];
    let [known, places] = [0, 0];
    const play = (sessionWeeks: number, lookAfter: readonly number[]) =>
      playTerm({
        ...{ memory: world.memory, assumptions: world.assumptions, order, lexicon: shippedLexicon() },
        ...{ reached: 17, children, seed: seed * 1000 + 500, weeks: Math.max(...lookAfter), lookAfter },
        sessionWeeks,
        ...(planner === "a spelling a day" ? { choose: chooser("what it opens", seed) } : blocks(planner, seed)),
        onSession: (chance) => {
          places++;
          if (chance >= GAP) known++;
        },
      });
    const short = closedOf(play(WEEKS, [0, WEEKS, WEEKS + LATER]));
    const long = closedOf(
      play(
        LONG_WEEKS,
        Array.from({ length: LONG_WEEKS + 1 }, (_, week) => week),
      ),
    );
    return {
      ...{ world: world.name, planner, lasting: short.at(-1) ?? 0, closed: long.at(-1) ?? 0 },
      ...{ sessions: sessionsUntil(AIM, long), known: known / Math.max(1, places) },
    };
  });
}

/** Of the gaps on the first day that was looked at, the share closed on each of them. */
function closedOf({ lookedOn, children }: Term): number[] {
  const [first = ""] = lookedOn;
  const gaps = children.flatMap(({ truth }) =>
    [...(truth.get(first) ?? [])].flatMap(([gpc, chance]) => (chance < GAP ? [{ gpc, truth }] : [])),
  );
  return lookedOn.map(
    (day) =>
      gaps.filter(({ gpc, truth }) => (truth.get(day)?.get(gpc) ?? 0) >= GAP).length / Math.max(1, gaps.length),
  );
}

/** Sessions until a share was closed, between two weeks in proportion. */
function sessionsUntil(aim: number, weekly: readonly number[]): number {
  for (let week = 1; week < weekly.length; week++) {
    const [before = 0, after = 0] = [weekly[week - 1], weekly[week]];
    if (after >= aim) return (week - 1 + (aim - before) / Math.max(1e-9, after - before)) * A_WEEK;
  }
  return LONG_WEEKS * A_WEEK * 1.5;
}

/** Mean and spread over seeds, a line a world and planner, and what was aimed at, in Markdown. */
export function plansTable(lines: readonly PlanLine[]): string {
  const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
  const told = (all: readonly number[], digits: number) => {
    const middle = mean(all);
    const spread = Math.sqrt(all.reduce((sum, one) => sum + (one - middle) ** 2, 0) / Math.max(1, all.length - 1));
    return `${middle.toFixed(digits)} ±${spread.toFixed(digits)}`;
  };
  const of = (planner: Planner, name: "lasting" | "sessions" | "closed" | "known", world?: string) =>
    lines.filter((line) => line.planner === planner && (!world || line.world === world)).map((line) => line[name]);
  const worlds = [...new Set(lines.map(({ world }) => world))];
  const rows = worlds.flatMap((world) =>
    planners.map(
      (planner) =>
        `| ${world} | ${planner} | ${told(of(planner, "lasting", world), 2)} | ${told(of(planner, "closed", world), 2)} | ${told(of(planner, "sessions", world), 0)} | ${told(of(planner, "known", world), 2)} |`,
    ),
  );
  const share = (world?: string) =>
    mean(of("a block of weeks", "lasting", world)) / mean(of("oracle", "lasting", world));
  const times = (world?: string) =>
    mean(of("a block of weeks", "sessions", world)) / mean(of("oracle", "sessions", world));
  const least = Math.min(...worlds.map(share));
  const most = Math.max(...worlds.map(times));
  return [
    "| world | planned by | closed for good after 24 sessions | closed after 48 | sessions until 60% are closed | spent on what is known |",
    "|---|---|---|---|---|---|",
    ...rows,
    "",
    `A block of weeks has ${(100 * share()).toFixed(0)}% of the oracle's lasting gain (${(100 * least).toFixed(0)}% at least in one world),`,
    `takes ${times().toFixed(2)} times its sessions to close 60% of the gaps (${most.toFixed(2)} at most in one world),`,
    `and spends ${(100 * mean(of("a block of weeks", "known"))).toFixed(0)}% of the places of targets on what a child says at sight (one spelling a day: ${(100 * mean(of("a spelling a day", "known"))).toFixed(0)}%, oracle: ${(100 * mean(of("oracle", "known"))).toFixed(0)}%).`,
  ].join("\n");
}
