import type { Gaps, MapOf } from "#contract";
import {
  childRow,
  codeOf,
  fadesOf,
  type Known,
  mixedUp,
  type Skill,
  shownShapes,
  shownSpellings,
  standingOfSkill,
} from "#core/mastery";
import { allGpcs, type OrderContent, pointsAmong, pointsOf } from "#core/order";
import { plural } from "#core/saying";
import { list as listChildren } from "../classes/children.ts";
import { brief as briefClasses } from "../classes/repository.ts";
import type { ToWeigh } from "../groups/worth.ts";
import { taughtByClass, taughtNothing } from "../orders/taught.ts";
import type { Inside } from "../store/scope.ts";
import { type KnownChild, knownOf } from "./kept.ts";
import { nextOf } from "./next.ts";
import { needsInAnswersOf } from "./other-needs.ts";

/**
 * The map of a class, or of all classes: columns in teaching order (those of a second order behind the
 * first), rows by name. Archived children and classes are left out. Correspondences that a child was asked
 * and no order of these classes has stand at the end.
 */
export async function gapMap(inside: Inside, today: string, classId?: string, of: MapOf = "reading"): Promise<Gaps> {
  const classes = (await briefClasses(inside)).filter((one) => !one.archived && (!classId || one.id === classId));
  const inMap = new Set(classes.map((one) => one.id));
  const children = (await listChildren(inside, classId)).filter(
    (child) => !child.archived && inMap.has(child.classId),
  );
  const taught = await taughtByClass(inside);
  const known = await knownOf(
    inside,
    children.map((child) => child.id),
  );

  const columns = new Map<string, Gaps["columns"][number]>();
  for (const one of classes) {
    for (const [step, { id, title, gpcs }] of (taught.get(one.id)?.order.steps ?? []).entries()) {
      for (const gpc of gpcs) if (!columns.has(gpc)) columns.set(gpc, { gpc, stepId: id, step: step + 1, title });
    }
  }
  // Of children with a place of their own in another order.
  for (const { taught: its } of known.values())
    for (const [step, { id, title, gpcs }] of its.order.steps.entries())
      for (const gpc of gpcs)
        if (its.gpcs.includes(gpc) && !columns.has(gpc)) columns.set(gpc, { gpc, stepId: id, step: step + 1, title });
  if (of === "blending") return blendingMap(children, known, today);
  const outside = new Set(
    [...known.values()].flatMap((one) => shownSpellings(one.known)).filter((gpc) => !columns.has(gpc)),
  );
  for (const gpc of [...outside].sort()) columns.set(gpc, { gpc, stepId: "", step: 0, title: "Outside the order" });
  const gpcs = [...columns.keys()];
  const skills = gpcs.map((gpc): Skill => `${of === "spelling" ? "spell" : "say"} ${gpc}`);
  const by = [today, ...skills].join(" ");
  const orders = new Set([
    ...classes.map((one) => taught.get(one.id)?.order ?? taughtNothing.order),
    ...[...known.values()].map((one) => one.taught.order),
  ]);
  return {
    today,
    columns: [...columns.values()],
    points: pointsOfAll([...orders], gpcs),
    rows: children.map(({ id, name, classId }) => {
      const one = known.get(id);
      return { id, name, classId, cells: one ? cellsOf(one, skills, today, by) : "" };
    }),
  };
}

/**
 * The chance of each spelling that the children of a class, or of all, were taught or asked, with the exception words that they
 * were taught and what they are taught next; what was never taught is left out.
 */
export async function chancesOf(
  inside: Inside,
  today: string,
  classId?: string,
): Promise<{ gpcs: string[]; children: ToWeigh[] }> {
  const { columns, rows } = await gapMap(inside, today, classId);
  const gpcs = columns.map(({ gpc }) => gpc);
  const known = await knownOf(
    inside,
    rows.map(({ id }) => id),
  );
  const needs = await needsInAnswersOf(
    inside,
    rows.map(({ id }) => id),
    today,
  );
  return {
    gpcs,
    children: [...known].map(([id, { known: its, by, taught }]) => {
      const row = childRow(its, gpcs, today, by);
      const mixed = mixedUp(needs.get(id) ?? []);
      return {
        id,
        chances: row.map(({ chance }) => Math.round(chance * 1000) / 1000),
        fades: row.map((one) => fadesOf(its, one, today, by)),
        mixed: gpcs.map((gpc) => mixed.get(gpc) ?? 0),
        wholes: taught.exceptionWords,
        next: nextOf({ taught }),
      };
    }),
  };
}

/** Points by the first order that teaches them; what a second one has besides is as that has it. */
function pointsOfAll(orders: readonly OrderContent[], gpcs: readonly string[]): Gaps["points"] {
  const left = new Set(gpcs);
  return orders.flatMap((order) =>
    pointsAmong(
      pointsOf(order),
      allGpcs(order).filter((gpc) => left.delete(gpc)),
    ).map(({ name, gpcs: its }) => ({ name, gpcs: [...its] })),
  );
}

/** The map of blending: a column a shape of words that one of these children was asked, short ones first. */
function blendingMap(
  children: readonly { readonly id: string; readonly name: string; readonly classId: string }[],
  known: ReadonlyMap<string, KnownChild>,
  today: string,
): Gaps {
  const all = new Set([...known.values()].flatMap((one) => shownShapes(one.known)).filter(isBlended));
  const shapes = [...all].sort((one, other) => one.length - other.length || (one < other ? -1 : 1));
  const skills = shapes.map((shape): Skill => `blend ${shape}`);
  const by = [today, ...skills].join(" ");
  return {
    today,
    points: [],
    columns: shapes.map((shape) => ({
      gpc: shape,
      stepId: String(shape.length),
      step: shape.length,
      title: plural(shape.length, "sound"),
    })),
    rows: children.map(({ id, name, classId }) => {
      const one = known.get(id);
      return { id, name, classId, cells: one ? cellsOf(one, skills, today, by) : "" };
    }),
  };
}

/** A word of one sound is blended of nothing. */
const isBlended = (shape: string) => shape.replace(".", "").length > 1;

/** The row of a child on the map as it was last worked out, by what is known of it, which is the same object until it marks. */
const lastCells = new WeakMap<Known, { readonly by: string; readonly cells: string }>();

/** The cells of a child in these columns on this day; one that nothing new came of is not worked out again. */
function cellsOf({ known, by: saidBy }: KnownChild, skills: readonly Skill[], today: string, by: string): string {
  const key = `${by} ${JSON.stringify(saidBy.secureWhen)}`;
  const last = lastCells.get(known);
  if (last?.by === key) return last.cells;
  const cells = skills.map((skill) => codeOf(standingOfSkill(known, skill, today, saidBy))).join("");
  lastCells.set(known, { by: key, cells });
  return cells;
}
