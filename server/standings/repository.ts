import type { CanRead, Gaps, SetupBody } from "#contract";
import { standing } from "#core/ledger";
import {
  type ConfusionCount,
  canRead,
  childRow,
  codeOf,
  confusionsIn,
  type Shown,
  type Standing,
  shownSpellings,
  wasAsked,
  whyState,
} from "#core/mastery";
import { shortDay } from "#core/saying";
import { findMany, list as listChildren } from "../classes/children.ts";
import { brief as briefClasses } from "../classes/repository.ts";
import { heardOfChild } from "../ledger/log.ts";
import { ruleOf } from "../ledger/standing.ts";
import { type Taught, taughtByClass, taughtNothing } from "../orders/taught.ts";
import type { Inside } from "../store/scope.ts";
import { shownOf } from "./kept.ts";

/**
 * The map of a class, or of all classes: columns in teaching order (those of a second order behind the
 * first), rows by name. Archived children and classes are left out. Correspondences that a child was asked
 * and no order of these classes has stand at the end.
 */
export async function gapMap(inside: Inside, today: string, classId?: string): Promise<Gaps> {
  const classes = (await briefClasses(inside)).filter((one) => !one.archived && (!classId || one.id === classId));
  const inMap = new Set(classes.map((one) => one.id));
  const children = (await listChildren(inside, classId)).filter(
    (child) => !child.archived && inMap.has(child.classId),
  );
  const taught = await taughtByClass(inside);
  const shown = await shownOf(
    inside,
    children.map((child) => child.id),
  );

  const columns = new Map<string, Gaps["columns"][number]>();
  for (const one of classes) {
    for (const [step, { id, title, gpcs }] of (taught.get(one.id)?.order.steps ?? []).entries()) {
      for (const gpc of gpcs) if (!columns.has(gpc)) columns.set(gpc, { gpc, stepId: id, step: step + 1, title });
    }
  }
  const outside = new Set([...shown.values()].flatMap(shownSpellings).filter((gpc) => !columns.has(gpc)));
  for (const gpc of [...outside].sort()) columns.set(gpc, { gpc, stepId: "", step: 0, title: "Outside the order" });
  const gpcs = [...columns.keys()];
  const ofClass = new Map(
    classes.map((one) => [one.id, cellsBy({ taught: taught.get(one.id)?.gpcs ?? [], columns: gpcs, today })]),
  );
  return {
    today,
    columns: [...columns.values()],
    rows: children.map(({ id, name, classId }) => {
      const cells = ofClass.get(classId)?.(shown.get(id) ?? {}) ?? "";
      return { id, name, classId, cells };
    }),
  };
}

/** The row of a child on the map as it was last worked out, by what it has shown, which is the same object until it marks. */
const lastCells = new WeakMap<Shown, { readonly by: string; readonly cells: string }>();

/** The cells of children of one class in these columns on this day; a child that nothing new came of is not worked out again. */
function cellsBy(of: {
  readonly taught: readonly string[];
  readonly columns: readonly string[];
  readonly today: string;
}) {
  const taught = new Set(of.taught);
  const by = [of.today, ...of.columns, "/", ...of.taught].join(" ");
  return (shown: Shown): string => {
    const last = lastCells.get(shown);
    if (last?.by === by) return last.cells;
    const cells = childRow({ taught, shown }, of.columns, of.today).map(codeOf).join("");
    lastCells.set(shown, { by, cells });
    return cells;
  };
}

/** One child: what is taught, and how it stands with it and with everything else it was asked. */
export async function standingsOf(
  inside: Inside,
  childId: string,
  classId: string,
  today: string,
): Promise<{ taught: Taught; standings: Map<string, Standing> }> {
  const taught = (await taughtByClass(inside)).get(classId) ?? taughtNothing;
  const shown = (await shownOf(inside, [childId])).get(childId) ?? {};
  const gpcs = [...new Set([...taught.gpcs, ...shownSpellings(shown).toSorted()])];
  const row = childRow({ taught: new Set(taught.gpcs), shown }, gpcs, today);
  return { taught, standings: new Map(gpcs.map((gpc, at) => [gpc, row[at] as Standing])) };
}

/** What children who learn together can build on. */
export interface Common {
  /** Correspondences that every one of the children can read. */
  readonly known: readonly string[];
  /** Exception words that were taught to all of them. */
  readonly wholes: readonly string[];
  /** Taught to all, read by each at some time, and unsteady in at least one: worth revisiting, newest first. */
  readonly unsteady: readonly string[];
  /** Taught to all and a gap, or missed last time, in at least one; in teaching order. */
  readonly needed: readonly string[];
}

/** What these children have in common. None of them has nothing. */
export async function commonOf(inside: Inside, childIds: readonly string[], today: string): Promise<Common> {
  const children = await findMany(inside, childIds);
  const taught = await taughtByClass(inside);
  const shown = await shownOf(inside, childIds);
  const shared = (lists: readonly (readonly string[])[]) =>
    (lists[0] ?? []).filter((entry) => lists.every((list) => list.includes(entry)));
  const gpcs = [
    ...new Set(
      children.flatMap((child) => [
        ...(taught.get(child.classId)?.gpcs ?? []),
        ...shownSpellings(shown.get(child.id) ?? {}).toSorted(),
      ]),
    ),
  ];
  const rows = children.map((child) =>
    childRow({ taught: new Set(taught.get(child.classId)?.gpcs), shown: shown.get(child.id) ?? {} }, gpcs, today),
  );
  const everyone = (at: number, test: (one: Standing) => boolean) =>
    rows.length > 0 && rows.every((row) => test(row[at] as Standing));
  const someone = (at: number, test: (one: Standing) => boolean) => rows.some((row) => test(row[at] as Standing));
  const at = [...gpcs.keys()];
  return {
    known: at.filter((index) => everyone(index, canRead)).map((index) => gpcs[index] as string),
    wholes: shared(children.map((child) => taught.get(child.classId)?.exceptionWords ?? [])),
    unsteady: at
      .filter(
        (index) =>
          everyone(index, wasAsked) &&
          someone(index, (one) => one.state === "unsteady" || one.state === "not sure yet"),
      )
      .map((index) => gpcs[index] as string)
      .reverse(),
    needed: at
      .filter((index) => someone(index, (one) => wasAsked(one) && !canRead(one)))
      .map((index) => gpcs[index] as string),
  };
}

/** What each of the children can read (the last time right), by name, and what some of them still need. */
export async function readersOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<{ children: CanRead[]; needed: string[] }> {
  const children = await findMany(inside, childIds);
  const taught = await taughtByClass(inside);
  const shown = await shownOf(inside, childIds);
  const needed = new Set<string>();
  const readers = children.map((child) => {
    const mine = taught.get(child.classId) ?? taughtNothing;
    const own = shown.get(child.id) ?? {};
    const gpcs = [...new Set([...mine.gpcs, ...shownSpellings(own).toSorted()])];
    const row = childRow({ taught: new Set(mine.gpcs), shown: own }, gpcs, today);
    const known: string[] = [];
    for (const [at, gpc] of gpcs.entries()) {
      const standing = row[at] as Standing;
      if (canRead(standing)) known.push(gpc);
      else if (wasAsked(standing)) needed.add(gpc);
    }
    return { id: child.id, name: child.name, known, wholes: [...mine.exceptionWords] };
  });
  return { children: readers.sort((one, other) => one.name.localeCompare(other.name)), needed: [...needed] };
}

/** Of each of these children, the taught spellings that are secure today. */
export async function secureOf(
  inside: Inside,
  children: readonly { readonly id: string; readonly classId: string }[],
  today: string,
): Promise<Map<string, ReadonlySet<string>>> {
  const taught = await taughtByClass(inside);
  const shown = await shownOf(
    inside,
    children.map((child) => child.id),
  );
  return new Map(
    children.map(({ id, classId }) => {
      const { gpcs } = taught.get(classId) ?? taughtNothing;
      const row = childRow({ taught: new Set(gpcs), shown: shown.get(id) ?? {} }, gpcs, today);
      return [id, new Set(gpcs.filter((_, at) => row[at]?.state === "secure"))];
    }),
  );
}

/** How a child stands with one spelling today, and why, in a sentence. */
export async function reasonFor(
  inside: Inside,
  child: { readonly id: string; readonly classId: string },
  gpc: string,
  today: string,
): Promise<{ state: Standing["state"]; why: string }> {
  const { standings } = await standingsOf(inside, child.id, child.classId, today);
  const standing: Standing = standings.get(gpc) ?? { state: "not taught", answers: 0 };
  return { state: standing.state, why: whyState(standing, (day) => shortDay(day, today)) };
}

/**
 * What a child takes for what, over all checks and texts.
 * @param setups what its checks were made with, by id
 */
export async function confusionsOf(
  inside: Inside,
  childId: string,
  setups: ReadonlyMap<string, SetupBody>,
): Promise<readonly ConfusionCount[]> {
  const by = await ruleOf(inside);
  return confusionsIn(standing(await heardOfChild(inside, childId), by), {
    ...by.words,
    setupOf: (checkId) => setups.get(checkId ?? ""),
  });
}
