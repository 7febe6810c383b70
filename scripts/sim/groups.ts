import highs from "highs";
import { boundOf, findGroups, type GroupsWanted, type Learner, type Limits, type Pair } from "#core/groups";
import { playTerm } from "#core/readers";
import { dice, shuffled } from "#core/words";
import { believer, weighed } from "./loop.ts";
import { shippedLexicon, shippedOrders, worlds } from "./worlds.ts";

/** Classes of each size, and how long the search may look and the bound be worked on, in milliseconds. */
const SIZES = [24, 48, 96] as const;
const CLASSES = 20;
const LOOK_MS = 2000;
const BOUND_MS = 60_000;

interface Line {
  readonly children: number;
  readonly limits: string;
  /** Share of the need met by which the first proposal, and the best after two seconds, may miss the best there is. */
  readonly first: number;
  readonly gap: number;
  readonly proven: boolean;
  readonly firstMs: number;
  readonly boundMs: number;
}

/** A class after its first check, as the tool sees it. */
function classOf(children: number, seed: number): readonly Learner[] {
  const world = worlds[seed % worlds.length] as (typeof worlds)[number];
  const order = shippedOrders()[seed % shippedOrders().length] as ReturnType<typeof shippedOrders>[number];
  let found: readonly Learner[] = [];
  const judge = believer();
  playTerm({
    ...{ memory: world.memory, assumptions: world.assumptions, order, lexicon: shippedLexicon() },
    ...{ reached: 17, children, seed: seed * 1000 + 77, weeks: 1, sessionWeeks: 1, lookAfter: [0] },
    choose: (on) => {
      if (found.length === 0) found = on.children.map((child) => weighed(judge(on, child)));
      return [];
    },
    onSession: () => {},
  });
  return found.map((learner, at) => ({
    ...learner,
    classId: `class ${at % 4}`,
    year: 1 + ((at % 4) >> 1) + ((at % 8) >> 2),
  }));
}

/** One of ten mixes of limits, by number. */
function mixOf(
  number: number,
  learners: readonly Learner[],
  seed: number,
): { name: string; wanted: Partial<GroupsWanted> } {
  const random = dice(seed);
  const ids = shuffled(
    learners.map(({ id }) => id),
    random,
  );
  const pairs = (count: number, from = 0): Pair[] =>
    Array.from({ length: count }, (_, at): Pair => [ids[from + 2 * at] as string, ids[from + 2 * at + 1] as string]);
  const enough = Math.ceil(learners.length / 5) + 1;
  const now = (list: readonly Learner[]) =>
    list.map((one) => ({ ...one, group: `now ${ids.indexOf(one.id) % Math.ceil(ids.length / 5)}` }));
  const mixes: { name: string; limits?: Limits; more?: Partial<GroupsWanted> }[] = [
    { name: "none" },
    { name: "4 pairs apart", limits: { apart: pairs(4) } },
    { name: "3 pairs together", limits: { together: pairs(3) } },
    { name: "within classes", limits: { withinClasses: true } },
    { name: "years 1 apart at most", limits: { yearsApart: 1 } },
    { name: "adults for a group more", limits: { mostGroups: enough } },
    { name: "adults for two groups too few", limits: { mostGroups: Math.max(1, enough - 3) } },
    { name: "stay where they are", more: { stay: 0.5, learners: now(learners) } },
    {
      name: "2 alone, 3 locked, 3 apart",
      limits: {
        alone: ids.slice(0, 2),
        locked: new Map(ids.slice(2, 5).map((id, at) => [id, at] as const)),
        apart: pairs(3, 6),
      },
    },
    {
      name: "all at once",
      limits: { apart: pairs(3), together: pairs(2, 8), yearsApart: 1, mostGroups: enough },
      more: { stay: 0.25, learners: now(learners) },
    },
  ];
  const mix = mixes[number % mixes.length] as (typeof mixes)[number];
  return { name: mix.name, wanted: { limits: mix.limits ?? {}, ...mix.more } };
}

/** Looks for groups in made-up classes with mixed limits and works out how far they are from the best. */
export async function compareGroups(classes = CLASSES, sizes: readonly number[] = SIZES): Promise<Line[]> {
  const solver = await highs();
  const lines: Line[] = [];
  for (const children of sizes) {
    console.error(`${children} children …`);
    for (let number = 0; number < classes; number++) {
      const learners = classOf(children, number + 1);
      const { name, wanted } = mixOf(number, learners, number + 11);
      const order = [...new Set(learners.flatMap(({ needs }) => [...needs.keys()]))];
      const began = performance.now();
      const finder = findGroups({
        learners,
        order,
        shape: { by: "size", least: 3, most: 5 },
        seed: number,
        ...wanted,
      });
      const firstMs = performance.now() - began;
      const first = finder.inside.search.worth;
      while (performance.now() - began < LOOK_MS) finder.again(5);
      const met = finder.inside.search.worth;
      const asked = performance.now();
      const bounds = boundOf(finder, solver);
      let told = bounds.next();
      while (!told.done && performance.now() - asked < BOUND_MS) told = bounds.next();
      const need = finder.need();
      const best = need * (1 + told.value.gap) + (finder.inside.search.worth - need);
      lines.push({
        ...{ children, limits: name, first: (best - first) / need, gap: (best - met) / need },
        ...{ proven: told.value.gap < 1e-4, firstMs, boundMs: performance.now() - asked },
      });
      console.error(
        `  ${name}: first ${pc(lines.at(-1)?.first ?? 0)}, then ${pc(lines.at(-1)?.gap ?? 0)}, found with bound ${pc(told.value.gap)}, ${Math.round(lines.at(-1)?.boundMs ?? 0)} ms`,
      );
    }
  }
  return lines;
}

const pc = (share: number) => `${(100 * share).toFixed(2)}%`;

/** A line a size, as a table in Markdown. */
export function groupsTable(lines: readonly Line[]): string {
  const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
  const rows = [...new Set(lines.map(({ children }) => children))].map((children) => {
    const its = lines.filter((line) => line.children === children);
    const of = (name: "first" | "gap" | "firstMs" | "boundMs") => its.map((line) => line[name]);
    return `| ${children} | ${its.length} | ${pc(mean(of("first")))} | ${pc(mean(of("gap")))} | ${pc(Math.max(...of("gap")))} | ${Math.round(mean(of("firstMs")))} ms, ${Math.round(Math.max(...of("firstMs")))} at most | ${(mean(of("boundMs")) / 1000).toFixed(1)} s |`;
  });
  return [
    "| children | classes | first proposal from the bound | after two seconds, mean | worst | time of the first | time of the bound |",
    "|---|---|---|---|---|---|---|",
    ...rows,
  ].join("\n");
}
