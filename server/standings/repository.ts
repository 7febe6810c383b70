import type { CanRead, Gaps } from "#contract";
import type { GivenAnswer } from "#core/ledger";
import { canRead, childRow, codeOf, missedInTexts, rule, type Standing, type TextMiss } from "#core/mastery";
import { findMany, list as listChildren } from "../classes/children.ts";
import { list as listClasses } from "../classes/repository.ts";
import { standingOfChildren } from "../ledger/standing.ts";
import { type Taught, taughtByClass, taughtNothing } from "../orders/taught.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords } from "../words/repository.ts";

interface Said {
  readonly answers: readonly GivenAnswer[];
  readonly inTexts: ReadonlyMap<string, readonly TextMiss[]>;
}
const saidNothing: Said = { answers: [], inTexts: new Map() };

/** What children said to spellings they saw, also in sessions, and which failed in texts: what the map is made of. */
async function saidBy(inside: Inside, childIds: readonly string[]): Promise<Map<string, Said>> {
  const words = await readWords(inside);
  const all = await standingOfChildren(inside, childIds);
  return new Map(
    [...all].map(([id, answers]) => [
      id,
      { answers: answers.filter((answer) => answer.kind === "card"), inTexts: missedInTexts(answers, words) },
    ]),
  );
}

/** The spellings that a child was asked, and those that failed in texts often enough to stand on the map. */
function askedOf({ answers, inTexts }: Said): readonly string[] {
  const failed = [...inTexts].filter(([, misses]) => new Set(misses.map((miss) => miss.word)).size >= rule.textWords);
  return [...answers.map((answer) => answer.item), ...failed.map(([gpc]) => gpc)];
}

/**
 * The map of a class, or of all classes: columns in teaching order (those of a second order behind the
 * first), rows by name. Archived children and classes are left out. Correspondences that a child was asked
 * and no order of these classes has stand at the end.
 */
export async function gapMap(inside: Inside, today: string, classId?: string): Promise<Gaps> {
  const classes = (await listClasses(inside)).filter((one) => !one.archived && (!classId || one.id === classId));
  const inMap = new Set(classes.map((one) => one.id));
  const children = (await listChildren(inside, classId)).filter(
    (child) => !child.archived && inMap.has(child.classId),
  );
  const taught = await taughtByClass(inside);
  const said = await saidBy(
    inside,
    children.map((child) => child.id),
  );

  const columns = new Map<string, Gaps["columns"][number]>();
  for (const one of classes) {
    for (const [step, { id, title, gpcs }] of (taught.get(one.id)?.order.steps ?? []).entries()) {
      for (const gpc of gpcs) if (!columns.has(gpc)) columns.set(gpc, { gpc, stepId: id, step: step + 1, title });
    }
  }
  for (const one of said.values()) {
    for (const item of askedOf(one))
      if (!columns.has(item)) columns.set(item, { gpc: item, stepId: "", step: 0, title: "Outside the order" });
  }
  const gpcs = [...columns.keys()];
  return {
    today,
    columns: [...columns.values()],
    rows: children.map((child) => {
      const row = childRow(
        { id: child.id, taught: new Set(taught.get(child.classId)?.gpcs), ...(said.get(child.id) ?? saidNothing) },
        gpcs,
        today,
      );
      return { id: child.id, name: child.name, classId: child.classId, cells: row.map(codeOf).join("") };
    }),
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
  const said = (await saidBy(inside, [childId])).get(childId) ?? saidNothing;
  const gpcs = [...new Set([...taught.gpcs, ...askedOf(said)])];
  const row = childRow({ id: childId, taught: new Set(taught.gpcs), ...said }, gpcs, today);
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
  const said = await saidBy(inside, childIds);
  const shared = (lists: readonly (readonly string[])[]) =>
    (lists[0] ?? []).filter((entry) => lists.every((list) => list.includes(entry)));
  const gpcs = [
    ...new Set(
      children.flatMap((child) => [
        ...(taught.get(child.classId)?.gpcs ?? []),
        ...askedOf(said.get(child.id) ?? saidNothing),
      ]),
    ),
  ];
  const rows = children.map((child) =>
    childRow(
      { id: child.id, taught: new Set(taught.get(child.classId)?.gpcs), ...(said.get(child.id) ?? saidNothing) },
      gpcs,
      today,
    ),
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
        (index) => everyone(index, (one) => one.last !== null) && someone(index, (one) => one.state === "unsteady"),
      )
      .map((index) => gpcs[index] as string)
      .reverse(),
    needed: at
      .filter((index) => someone(index, (one) => one.last !== null && !canRead(one)))
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
  const said = await saidBy(inside, childIds);
  const needed = new Set<string>();
  const readers = children.map((child) => {
    const mine = taught.get(child.classId) ?? taughtNothing;
    const given = said.get(child.id) ?? saidNothing;
    const gpcs = [...new Set([...mine.gpcs, ...askedOf(given)])];
    const row = childRow({ id: child.id, taught: new Set(mine.gpcs), ...given }, gpcs, today);
    const known: string[] = [];
    for (const [at, gpc] of gpcs.entries()) {
      const standing = row[at] as Standing;
      if (canRead(standing)) known.push(gpc);
      else if (standing.last !== null) needed.add(gpc);
    }
    return { id: child.id, name: child.name, known, wholes: [...mine.exceptionWords] };
  });
  return { children: readers.sort((one, other) => one.name.localeCompare(other.name)), needed: [...needed] };
}
