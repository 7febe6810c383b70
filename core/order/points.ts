import { findCorrespondence, type Gpc, isOwnUnit, showGrapheme, soundsOfGrapheme, splitGpc } from "#core/phonics";
import type { OrderContent } from "./order.ts";

/** What a teacher teaches as one thing: a name, and the correspondences that go with it. Each of them keeps its own evidence. */
export interface Point {
  /** The same for as long as its first correspondence begins it. */
  readonly id: string;
  readonly name: string;
  /** In teaching order. */
  readonly gpcs: readonly Gpc[];
  /** Named by the order itself, not by the rules. */
  readonly own: boolean;
}

/** Which correspondences make one point, and what it is called. The first rule that knows a correspondence has it. */
interface Rule {
  /** What the members have in common, or undefined where the rule says nothing of it. */
  readonly family: (gpc: Gpc) => string | undefined;
  readonly name: (graphemes: readonly string[]) => string;
  /** Members may stand in steps next to each other; else in one step only. */
  readonly acrossSteps: boolean;
}

const DOUBLED_AT_THE_END = new Set(["ff=f", "ll=l", "ss=s", "zz=z"]);
const QUIET = new Set(["kn=n", "wr=r", "mb=m", "gn=n", "st=s"]);
const isDoubled = (grapheme: string) => /^([b-df-hj-np-tv-z])\1$/.test(grapheme);

const rules: readonly Rule[] = [
  {
    family: (gpc) => (DOUBLED_AT_THE_END.has(gpc) ? "doubled at the end" : undefined),
    name: () => "doubled letters at the end",
    acrossSteps: true,
  },
  {
    family: (gpc) => (isDoubled(splitGpc(gpc).grapheme) ? "doubled in the middle" : undefined),
    name: () => "doubled letters in the middle",
    acrossSteps: true,
  },
  {
    family: (gpc) => (splitGpc(gpc).grapheme.includes("_") ? "final e" : undefined),
    name: (graphemes) => `final e with ${listed([...new Set(graphemes.map((one) => one[0] ?? ""))], ", ")}`,
    acrossSteps: true,
  },
  {
    family: (gpc) => (/^ce?=s$/.test(gpc) ? "soft c" : undefined),
    name: () => "soft c before e, i, y",
    acrossSteps: false,
  },
  {
    family: (gpc) => (/^(g|ge|dge)=j$/.test(gpc) ? "soft g" : undefined),
    name: (graphemes) => (graphemes.includes("dge") ? "soft g, and dge" : "soft g before e, i, y"),
    acrossSteps: false,
  },
  {
    family: (gpc) => (gpc.startsWith("ed=") ? "-ed" : undefined),
    name: (graphemes) => `-ed, ${countWord(graphemes.length)} sounds`,
    acrossSteps: true,
  },
  {
    family: (gpc) => (QUIET.has(gpc) ? "quiet" : undefined),
    name: (graphemes) => `a quiet letter: ${listed(graphemes, ", ")}`,
    acrossSteps: false,
  },
  {
    family: (gpc) => (gpc.endsWith("=schwa") ? "weak vowel" : undefined),
    name: (graphemes) => `the weak vowel: ${listed(graphemes, ", ")}`,
    acrossSteps: false,
  },
  {
    family: (gpc) => (/^(a=ai|e=ee|i=igh|o=oa|u=yoo)$/.test(gpc) ? "open vowels" : undefined),
    name: (graphemes) => `a vowel that says its name: ${listed(graphemes, ", ")}`,
    acrossSteps: false,
  },
  {
    family: (gpc) => (gpc === "ng=ng" || gpc === "n=ng" ? "ng" : undefined),
    name: () => "ng, and n before k",
    acrossSteps: false,
  },
  {
    // One spelling that is met with several sounds in one step: taught as a choice.
    family: (gpc) => {
      const { grapheme } = splitGpc(gpc);
      return grapheme.length > 1 ? `face ${grapheme}` : undefined;
    },
    name: (graphemes) => `${showGrapheme(graphemes[0] ?? "")}, ${countWord(graphemes.length)} sounds`,
    acrossSteps: false,
  },
  {
    // Longer spellings of one sound: taught by where they stand.
    family: (gpc) => {
      const { grapheme, sound } = splitGpc(gpc);
      return grapheme.length > 1 ? `sound ${sound}` : undefined;
    },
    name: (graphemes) => listed(graphemes, " and "),
    acrossSteps: false,
  },
];

/**
 * The teaching points of an order, in its order: what it or the school names itself, then what the rules put together, then each
 * correspondence by itself. Letters of one sound each (`m`, `a`) are points of their own. Every correspondence is in one point.
 */
export function pointsOf(order: OrderContent): readonly Point[] {
  const stepAt = new Map(order.steps.flatMap((step, at) => step.gpcs.map((gpc) => [gpc, at] as const)));
  const all = [...stepAt.keys()];
  const taken = new Set<Gpc>();
  const points: Point[] = [];
  for (const { name, gpcs } of order.points ?? []) {
    const its = all.filter((gpc) => gpcs.includes(gpc) && !taken.has(gpc));
    if (its[0] === undefined) continue;
    for (const gpc of its) taken.add(gpc);
    points.push({ id: its[0], name, gpcs: its, own: true });
  }
  for (const rule of rules) {
    const families = new Map<string, Gpc[]>();
    for (const gpc of all) {
      // What a school teaches as one is a point already.
      const family = taken.has(gpc) || isOwnUnit(gpc) ? undefined : rule.family(gpc);
      if (family !== undefined) families.set(family, [...(families.get(family) ?? []), gpc]);
    }
    for (const members of families.values())
      for (const gpcs of runs(members, stepAt, rule.acrossSteps ? 1 : 0)) {
        if (gpcs.length < 2) continue;
        for (const gpc of gpcs) taken.add(gpc);
        const name = rule.name(gpcs.map((gpc) => splitGpc(gpc).grapheme));
        points.push({ id: gpcs[0] as Gpc, name, gpcs, own: false });
      }
  }
  for (const gpc of all)
    if (!taken.has(gpc)) points.push({ id: gpc, name: nameAlone(gpc, all), gpcs: [gpc], own: false });
  const place = new Map(all.map((gpc, at) => [gpc, at]));
  return points.sort((one, other) => (place.get(one.id) ?? 0) - (place.get(other.id) ?? 0));
}

/** Members of one family, cut where the next stands more than so many steps on. */
function runs(members: readonly Gpc[], stepAt: ReadonlyMap<Gpc, number>, reach: number): Gpc[][] {
  const found: Gpc[][] = [];
  for (const gpc of members) {
    const last = found.at(-1)?.at(-1);
    const near = last !== undefined && (stepAt.get(gpc) ?? 0) - (stepAt.get(last) ?? 0) <= reach;
    if (near) found.at(-1)?.push(gpc);
    else found.push([gpc]);
  }
  return found;
}

/** A spelling by itself; with a word where the order teaches it with several sounds. */
function nameAlone(gpc: Gpc, all: readonly Gpc[]): string {
  const { grapheme } = splitGpc(gpc);
  const shown = showGrapheme(grapheme);
  const several = soundsOfGrapheme(grapheme).filter((one) => all.includes(one.gpc)).length > 1;
  const keyword = findCorrespondence(gpc)?.keyword;
  return several && keyword ? `${shown} as in ${keyword}` : shown;
}

/** A point of which some is meant: the whole of it, or a part that is called by its spellings. */
export interface PointMeant extends Point {
  /** The name of the whole, where a part is meant. */
  readonly partOf?: string;
}

/** Correspondences as the points that they belong to, in the order of the points; what no point has stands alone. */
export function pointsAmong(points: readonly Point[], gpcs: readonly Gpc[]): readonly PointMeant[] {
  const wanted = new Set(gpcs);
  const all = points.flatMap((point) => point.gpcs);
  const found = points.flatMap((point): PointMeant[] => {
    const its = point.gpcs.filter((gpc) => wanted.delete(gpc));
    if (its.length === point.gpcs.length) return [point];
    if (its.length === 0) return [];
    const name =
      its.length === 1
        ? nameAlone(its[0] as Gpc, all)
        : listed(
            its.map((gpc) => splitGpc(gpc).grapheme),
            " and ",
          );
    return [{ ...point, gpcs: its, name, partOf: point.name }];
  });
  return [...found, ...[...wanted].map((gpc) => ({ id: gpc, name: nameAlone(gpc, [gpc]), gpcs: [gpc], own: false }))];
}

/** The order with these correspondences as one point of this name; what they were in before keeps the rest. */
export function joinPoints(order: OrderContent, name: string, gpcs: readonly Gpc[]): OrderContent {
  const others = (order.points ?? []).flatMap((point) => {
    const left = point.gpcs.filter((gpc) => !gpcs.includes(gpc));
    return left.length > 0 ? [{ ...point, gpcs: left }] : [];
  });
  return { ...order, points: [...others, { name, gpcs: [...gpcs] }] };
}

/** The order with each correspondence of a point as a point of its own. */
export function splitPoint(order: OrderContent, point: Point): OrderContent {
  const all = order.steps.flatMap((step) => step.gpcs);
  return point.gpcs.reduce<OrderContent>((before, gpc) => joinPoints(before, nameAlone(gpc, all), [gpc]), order);
}

/** The order without points of its own among these correspondences: the rules have them again. */
export function forgetPoints(order: OrderContent, gpcs: readonly Gpc[]): OrderContent {
  const points = (order.points ?? []).filter((point) => !point.gpcs.some((gpc) => gpcs.includes(gpc)));
  return { ...order, points };
}

function listed(entries: readonly string[], last: string): string {
  const shown = entries.map(showGrapheme);
  if (shown.length < 2) return shown.join("");
  return `${shown.slice(0, -1).join(", ")}${last}${shown.at(-1)}`;
}

function countWord(count: number): string {
  return ["no", "one", "two", "three", "four", "five", "six"][count] ?? String(count);
}
