import { form, listed, plural } from "#core/saying";
import { sameName } from "./roster.ts";

/** A class as a new school year finds it. */
export interface YearClass {
  readonly id: string;
  readonly name: string;
  readonly yearGroup: string;
}

/** What becomes of a class: it goes on under this name, or leaves the school with its children. */
export interface ClassMove extends YearClass {
  readonly leaves: boolean;
}

/** A child who does not go where its class goes: into another class, or, with null, out of the school. */
export interface ChildMove {
  readonly id: string;
  readonly from: string;
  readonly to: string | null;
}

/** A new school year: what becomes of each class, which are new, and who changes class. */
export interface YearPlan {
  readonly classes: readonly ClassMove[];
  readonly added: readonly YearClass[];
  readonly children: readonly ChildMove[];
}

/** The children who are here. */
export interface YearChild {
  readonly id: string;
  readonly name: string;
  readonly classId: string;
}

const MOST_YEAR = 13;

/**
 * A year group, or a class that is called by it, one year on. What has no number stays: a teacher says what follows.
 * @example nextYear("Year 1") // "Year 2"
 * @example nextYear("P3/4") // "P4/5"
 * @example nextYear("Reception") // "Reception"
 */
export function nextYear(text: string): string {
  return text.replace(/\d+/g, (number) => (Number(number) < MOST_YEAR ? String(Number(number) + 1) : number));
}

/** All classes move up by a year; a name follows where it has the number of its year group in it. */
export function movedUp(classes: readonly YearClass[]): ClassMove[] {
  return classes.map(({ id, name, yearGroup }) => {
    const [year] = yearGroup.match(/\d+/) ?? [];
    const named = year !== undefined && new RegExp(`(?<!\\d)${year}(?!\\d)`).test(name);
    return { id, name: named ? nextYear(name) : name, yearGroup: nextYear(yearGroup), leaves: false };
  });
}

/** In which class each child is once the plan is done, by id; null for who leaves the school. */
export function afterYear(plan: YearPlan, children: readonly YearChild[]): Map<string, string | null> {
  const own = new Map(plan.children.map((one) => [one.id, one.to]));
  const gone = new Set(plan.classes.filter((one) => one.leaves).map((one) => one.id));
  return new Map(
    children.map(({ id, classId }) => {
      const to = own.get(id);
      return [id, to === undefined ? (gone.has(classId) ? null : classId) : to];
    }),
  );
}

/** Something that keeps a plan from being done, and where. */
export interface YearProblem {
  /** The class or the child. */
  readonly id: string;
  readonly says: string;
}

/**
 * What keeps the plan from being done; nothing when it can be.
 * @param here what the school has: classes and children who are not archived
 */
export function yearProblems(
  plan: YearPlan,
  here: { readonly classes: readonly YearClass[]; readonly children: readonly YearChild[] },
): YearProblem[] {
  const problems: YearProblem[] = [];
  const planned = new Map(plan.classes.map((one) => [one.id, one]));
  const classes = [
    ...here.classes.map((one) => ({ leaves: false, ...one, ...planned.get(one.id) })).filter((one) => !one.leaves),
    ...plan.added,
  ];
  const names = new Map<string, string>();
  for (const { id, name } of classes) {
    if (name.trim() === "") problems.push({ id, says: "A class needs a name." });
    else if (names.has(sameName(name))) problems.push({ id, says: `Two classes would be called “${name}”.` });
    names.set(sameName(name), name);
  }
  const open = new Map(classes.map((one) => [one.id, one.name]));
  const after = afterYear(plan, here.children);
  const inClass = new Set<string>();
  for (const { id, name } of here.children) {
    const to = after.get(id);
    if (to === null || to === undefined) continue;
    const of = open.get(to);
    if (of === undefined) problems.push({ id, says: `${name} would go into a class that leaves. Choose another.` });
    else if (inClass.has(`${to} ${sameName(name)}`))
      problems.push({
        id,
        says: `Two children called “${name}” would be in ${of}. Add a letter that tells them apart.`,
      });
    inClass.add(`${to} ${sameName(name)}`);
  }
  return problems;
}

/** What the plan does, in a sentence. */
export function saysYear(plan: YearPlan, children: readonly YearChild[]): string {
  const after = [...afterYear(plan, children)];
  const stay = plan.classes.filter((one) => !one.leaves).length;
  const left = after.filter(([, to]) => to === null).length;
  const was = new Map(children.map((one) => [one.id, one.classId]));
  const changed = after.filter(([id, to]) => to !== null && to !== was.get(id)).length;
  const parts = [
    `${plural(stay, "class", "classes")} ${form(stay, "goes", "go")} on`,
    ...(plan.added.length > 0 ? [`${plural(plan.added.length, "class is", "classes are")} new`] : []),
    ...(changed > 0 ? [`${plural(changed, "child changes", "children change")} class`] : []),
    `${left === 0 ? "no child leaves" : plural(left, "child leaves", "children leave")} the school`,
  ];
  return `${listed(parts)}.`;
}
