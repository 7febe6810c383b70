import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

type Row = Omit<typeof t.answers.$inferSelect, "sessionId">;

/** A row of the log as the contract speaks of it. */
function toAnswer(row: Row): AnswerBody {
  const { id, childId, markedAt, day, markedBy } = row;
  const mark = { id, childId, markedAt, day, markedBy };
  if (row.outcome === "void") return { ...mark, outcome: "void", voids: row.voids ?? "" };
  const given = { ...mark, item: row.item ?? "", ms: row.ms, checkId: row.checkId, pass: row.pass };
  if (row.outcome === "wrong") return { ...given, outcome: "wrong", heard: row.heard };
  return { ...given, outcome: row.outcome as "right" | "slow" | "ownWay" | "none" };
}

function toRow(answer: AnswerBody, sessionId: string | null): typeof t.answers.$inferInsert {
  const { id, childId, markedAt, day, markedBy, outcome } = answer;
  const mark = { id, childId, markedAt, day, markedBy, outcome, sessionId };
  if (answer.outcome === "void") return { ...mark, voids: answer.voids };
  const { item, ms, checkId, pass } = answer;
  return { ...mark, item, ms, checkId, pass, heard: answer.outcome === "wrong" ? answer.heard : null };
}

/**
 * The whole log of these children, in order of marking. It comes as one JSON value: taking ten thousand rows
 * apart one by one costs the embedded database five times as long.
 */
export async function answersOfChildren(db: Db, childIds: readonly string[]): Promise<AnswerBody[]> {
  if (childIds.length === 0) return [];
  const a = t.answers;
  const entry = sql`json_build_array(${a.id}, ${a.childId}, ${a.checkId}, ${a.item}, ${a.outcome}, ${a.heard}, ${a.ms}, ${a.pass}, ${a.voids}, ${a.markedAt}, ${a.day}, ${a.markedBy})`;
  const [found] = await db
    .select({ log: sql<LogEntry[] | null>`json_agg(${entry} order by ${a.markedAt}, ${a.id})` })
    .from(a)
    .where(inArray(a.childId, [...childIds]));
  return (found?.log ?? []).map(
    ([id, childId, checkId, item, outcome, heard, ms, pass, voids, markedAt, day, markedBy]) =>
      toAnswer({
        id,
        childId,
        checkId,
        item,
        outcome,
        heard,
        ms,
        pass,
        voids,
        markedAt: new Date(markedAt).toISOString(),
        day,
        markedBy,
      }),
  );
}

type LogEntry = [
  string,
  string,
  string | null,
  string | null,
  string,
  string | null,
  number | null,
  number,
  string | null,
  string,
  string,
  string,
];

export async function answersOfCheck(db: Db, checkId: string): Promise<AnswerBody[]> {
  const given = await db
    .select()
    .from(t.answers)
    .where(eq(t.answers.checkId, checkId))
    .orderBy(t.answers.markedAt, t.answers.id);
  const ids = given.map((row) => row.id);
  const voids = ids.length === 0 ? [] : await db.select().from(t.answers).where(inArray(t.answers.voids, ids));
  return [...given, ...voids].map(toAnswer);
}

/** Of these answer ids: what is stored under them, and which are voided already. */
export async function storedAnswers(
  db: Db,
  ids: readonly string[],
): Promise<{ rows: Map<string, AnswerBody>; voided: Map<string, string> }> {
  if (ids.length === 0) return { rows: new Map(), voided: new Map() };
  const rows = await db
    .select()
    .from(t.answers)
    .where(inArray(t.answers.id, [...ids]));
  const voids = await db
    .select()
    .from(t.answers)
    .where(inArray(t.answers.voids, [...ids]));
  return {
    rows: new Map(rows.map((row) => [row.id, toAnswer(row)])),
    voided: new Map(voids.map((row) => [row.voids ?? "", row.id])),
  };
}

/** Adds to the log. An id that is there already stays as it was. */
export async function appendAnswers(
  db: Db,
  answers: readonly AnswerBody[],
  sessionId: string | null = null,
): Promise<void> {
  if (answers.length === 0) return;
  await db
    .insert(t.answers)
    .values(answers.map((answer) => toRow(answer, sessionId)))
    .onConflictDoNothing();
}

export async function findCheck(db: Db, id: string) {
  return (await db.select().from(t.checks).where(eq(t.checks.id, id)))[0];
}

export async function checksByIds(db: Db, ids: readonly string[]) {
  return ids.length === 0
    ? []
    : db
        .select()
        .from(t.checks)
        .where(inArray(t.checks.id, [...ids]));
}

export async function checksOfChild(db: Db, childId: string) {
  return db.select().from(t.checks).where(eq(t.checks.childId, childId)).orderBy(sql`${t.checks.startedAt} desc`);
}

export async function openChecks(db: Db) {
  return db
    .select({ check: t.checks, childName: t.children.name, archived: t.children.archived })
    .from(t.checks)
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(and(isNull(t.checks.endedAt), eq(t.children.archived, false)))
    .orderBy(sql`${t.checks.startedAt} desc`);
}

export async function recentlyEndedChecks(db: Db, most: number) {
  return db
    .select({ id: t.checks.id, endedAt: t.checks.endedAt, childName: t.children.name })
    .from(t.checks)
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(sql`${t.checks.endedAt} is not null`)
    .orderBy(sql`${t.checks.endedAt} desc`)
    .limit(most);
}

export async function insertCheck(db: Db, row: typeof t.checks.$inferInsert): Promise<void> {
  await db.insert(t.checks).values(row).onConflictDoNothing();
}

export async function setCheckEnd(db: Db, id: string, endedAt: string | null): Promise<void> {
  await db.update(t.checks).set({ endedAt }).where(eq(t.checks.id, id));
}
