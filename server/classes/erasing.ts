import { and, eq, inArray, notInArray, type SQL, sql } from "drizzle-orm";
import type { PlanBody } from "#contract";
import { forgetChild } from "../ledger/standing.ts";
import { forgetKnown } from "../standings/kept.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { endFeedsOf } from "../week/repository.ts";
import { forgetChildren as forgetInYears } from "./years.ts";

/** A child who is to be erased, and how it is called in notes. */
interface Leaving {
  readonly id: string;
  readonly name: string;
}

/** Rows that are written at once: a statement has at most 65,535 parameters. */
const AT_ONCE = 1000;
const idsOf = (children: readonly Leaving[]) => children.map(({ id }) => id);

/** Where first names of these children stand in a note, as whole words, as written; undefined where none could be told from a word. */
function naming(children: readonly Leaving[]): RegExp | undefined {
  const firsts = children.map(({ name }) => name.split(/\s+/)[0] ?? "").filter((first) => first.length > 1);
  if (firsts.length === 0) return undefined;
  const any = firsts.map((first) => first.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")).join("|");
  return new RegExp(`(?<![\\p{L}\\p{N}])(?:${any})(?![\\p{L}\\p{N}])`, "gu");
}

/** A text without these names, or nothing where none of them stands in it. */
function cleaned(text: string | null, pattern: RegExp | undefined): string[] {
  return text && pattern && text.search(pattern) >= 0 ? [text.replace(pattern, "this child")] : [];
}

interface Note {
  readonly id: string;
  readonly text: string;
}

/** What reports of the children's sessions, and notes in checks of others, say by their names, as it is to be. */
async function notesNaming(
  inside: Inside,
  children: readonly Leaving[],
): Promise<{ readonly reports: readonly Note[]; readonly marks: readonly Note[] }> {
  const pattern = naming(children);
  if (!pattern) return { reports: [], marks: [] };
  const notes = await inside
    .select({ id: t.answers.id, text: t.answers.text })
    .from(t.answers)
    .where(and(eq(t.answers.outcome, "note"), notInArray(t.answers.childId, idsOf(children))));
  const rows = await inside
    .select({ id: t.reports.id, note: t.reports.note, childId: t.sessionMembers.childId })
    .from(t.reports)
    .innerJoin(t.sessionMembers, eq(t.sessionMembers.sessionId, t.reports.sessionId))
    .where(inArray(t.sessionMembers.childId, idsOf(children)));
  const noteOf = new Map(rows.map(({ id, note }) => [id, note]));
  const reports = [...noteOf].flatMap(([id, note]) => {
    const there = new Set(rows.flatMap((row) => (row.id === id ? [row.childId] : [])));
    const pattern = naming(children.filter((child) => there.has(child.id)));
    return cleaned(note, pattern).map((text) => ({ id, text }));
  });
  return {
    reports,
    marks: notes.flatMap(({ id, text }) => cleaned(text, pattern).map((clean) => ({ id, text: clean }))),
  };
}

/** What is kept about a child, counted. */
export async function countTraces(inside: Inside, child: Leaving) {
  const count = async (table: typeof t.answers | typeof t.checks | typeof t.readings | typeof t.sessionMembers) =>
    (await inside.select({ count: sql<number>`count(*)::int` }).from(table).where(eq(table.childId, child.id)))[0]
      ?.count ?? 0;
  const groups = await inside
    .selectDistinct({ id: t.groupVersions.groupId })
    .from(t.groupMembers)
    .innerJoin(t.groupVersions, eq(t.groupVersions.id, t.groupMembers.versionId))
    .where(eq(t.groupMembers.childId, child.id));
  const notes = await notesNaming(inside, [child]);
  return {
    answers: await count(t.answers),
    checks: await count(t.checks),
    readings: await count(t.readings),
    groups: groups.length,
    sessions: await count(t.sessionMembers),
    notesNaming: notes.reports.length + notes.marks.length,
  };
}

/**
 * Erases children and every row that names them: answers, checks, places in groups and sessions, marks in reports, addresses of
 * their weeks. Notes about a session in which a child was keep their words, with "this child" for the name.
 */
export async function eraseAll(inside: Inside, children: readonly Leaving[]): Promise<void> {
  if (children.length === 0) return;
  const ids = idsOf(children);
  const { reports, marks } = await notesNaming(inside, children);
  const asRow = ({ id, text }: Note) => sql`(${id}::uuid, ${text}::text)`;
  await inParts(reports.map(asRow), (fresh) =>
    inside.update(t.reports).set({ note: sql`fresh.value` }).from(fresh).where(sql`fresh.id = ${t.reports.id}`),
  );
  await inParts(marks.map(asRow), (fresh) =>
    inside.update(t.answers).set({ text: sql`fresh.value` }).from(fresh).where(sql`fresh.id = ${t.answers.id}`),
  );
  await forgetInPlans(inside, ids);
  await endFeedsOf(inside, ids);
  await inside.delete(t.children).where(inArray(t.children.id, ids));
  await inside
    .insert(t.erased)
    .values(ids.map((childId) => ({ childId })))
    .onConflictDoNothing();
  await forgetInYears(inside, ids);
  for (const id of ids) {
    forgetChild(inside, id);
    forgetKnown(inside, id);
  }
  await inside.delete(t.preparations).where(
    inArray(
      t.preparations.forKey,
      ids.map((id) => `child:${id}`),
    ),
  );
  await inside
    .delete(t.sittings)
    .where(sql`not exists (select 1 from ${t.checks} c where c.sitting_id = ${t.sittings.id})`);
}

/** Writes rows some at a time. @param rows each an id and a value, which `write` finds as `fresh.id` and `fresh.value` */
async function inParts(rows: readonly SQL[], write: (fresh: SQL) => PromiseLike<unknown>): Promise<void> {
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await write(sql`(values ${sql.join(rows.slice(from, from + AT_ONCE), sql`, `)}) fresh(id, value)`);
}

/** Takes the cards of children out of the plans of sessions in which they have places. */
async function forgetInPlans(inside: Inside, childIds: readonly string[]): Promise<void> {
  const rows = await inside
    .selectDistinct({ id: t.sessions.id, plan: t.sessions.plan })
    .from(t.sessionMembers)
    .innerJoin(t.sessions, eq(t.sessions.id, t.sessionMembers.sessionId))
    .where(inArray(t.sessionMembers.childId, [...childIds]));
  const gone = new Set(childIds);
  const names = ({ parts }: PlanBody) => parts.some(({ each }) => each?.some(({ childId }) => gone.has(childId)));
  const fresh = rows
    .filter(({ plan }) => names(plan))
    .map(({ id, plan }) => {
      const parts = plan.parts.map(({ each, ...part }) =>
        each ? { ...part, each: each.filter(({ childId }) => !gone.has(childId)) } : part,
      );
      return sql`(${id}::uuid, ${JSON.stringify({ ...plan, parts })}::jsonb)`;
    });
  await inParts(fresh, (from) =>
    inside.update(t.sessions).set({ plan: sql`fresh.value` }).from(from).where(sql`fresh.id = ${t.sessions.id}`),
  );
}
