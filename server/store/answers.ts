import { eq, inArray, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import { type GivenAnswer, standing } from "#core/ledger";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

type Row = Omit<typeof t.answers.$inferSelect, "sessionId">;
type Plain = Extract<AnswerBody, { outcome: "right" }>;
type Heard = Extract<AnswerBody, { outcome: "wrong" }>;
type Stop = Extract<AnswerBody, { outcome: "stop" }>;

/** A row of the log as the contract speaks of it. */
function toAnswer(row: Row): AnswerBody {
  const { id, childId, markedAt, day, markedBy, outcome } = row;
  const mark = { id, childId, markedAt, day, markedBy };
  const checkId = row.checkId ?? "";
  if (outcome === "void") return { ...mark, outcome, voids: row.voids ?? "" };
  if (outcome === "note") return { ...mark, outcome, checkId, item: row.item, text: row.text ?? "" };
  if (outcome === "stop") return { ...mark, outcome, checkId, why: row.text as Stop["why"] };
  const given = {
    ...mark,
    kind: row.kind as Plain["kind"],
    item: row.item ?? "",
    ms: row.ms,
    checkId: row.checkId,
    pass: row.pass,
    tags: (row.tags ?? []) as Plain["tags"],
    ...(row.readingId === null ? {} : { readingId: row.readingId }),
  };
  if (outcome === "wrong" || outcome === "other" || outcome === "blend")
    return { ...given, outcome: outcome as Heard["outcome"], heard: row.heard, units: row.units };
  return { ...given, outcome: outcome as Plain["outcome"] };
}

function toRow(answer: AnswerBody, sessionId: string | null): typeof t.answers.$inferInsert {
  const { id, childId, markedAt, day, markedBy, outcome } = answer;
  const mark = { id, childId, markedAt, day, markedBy, outcome, sessionId };
  if (answer.outcome === "void") return { ...mark, voids: answer.voids };
  if (answer.outcome === "note") return { ...mark, checkId: answer.checkId, item: answer.item, text: answer.text };
  if (answer.outcome === "stop") return { ...mark, checkId: answer.checkId, text: answer.why };
  const { kind, item, ms, checkId, readingId, pass, tags } = answer;
  const heard = "heard" in answer ? { heard: answer.heard, units: answer.units } : {};
  return { ...mark, kind, item, ms, checkId, readingId, pass, tags: tags.length > 0 ? tags : null, ...heard };
}

/**
 * The whole log of these children, in order of marking. It comes as one JSON value: taking ten thousand rows
 * apart one by one costs the embedded database five times as long.
 */
export async function answersOfChildren(db: Db, childIds: readonly string[]): Promise<AnswerBody[]> {
  if (childIds.length === 0) return [];
  const a = t.answers;
  const entry = sql`json_build_array(${a.id}, ${a.childId}, ${a.checkId}, ${a.kind}, ${a.item}, ${a.outcome}, ${a.heard}, ${a.ms}, ${a.pass}, ${a.tags}, ${a.units}, ${a.text}, ${a.voids}, ${a.markedAt}, ${a.day}, ${a.markedBy}, ${a.readingId})`;
  const [found] = await db
    .select({ log: sql<LogEntry[] | null>`json_agg(${entry} order by ${a.markedAt}, ${a.id})` })
    .from(a)
    .where(inArray(a.childId, [...childIds]));
  return (found?.log ?? []).map(
    ([
      id,
      childId,
      checkId,
      kind,
      item,
      outcome,
      heard,
      ms,
      pass,
      tags,
      units,
      text,
      voids,
      at,
      day,
      markedBy,
      readingId,
    ]) =>
      toAnswer({
        id,
        childId,
        checkId,
        kind,
        item,
        outcome,
        heard,
        ms,
        pass,
        tags,
        units,
        text,
        voids,
        markedAt: new Date(at).toISOString(),
        day,
        markedBy,
        readingId,
      }),
  );
}

type LogEntry = [
  id: string,
  childId: string,
  checkId: string | null,
  kind: string,
  item: string | null,
  outcome: string,
  heard: string | null,
  ms: number | null,
  pass: number,
  tags: string[] | null,
  units: number[] | null,
  text: string | null,
  voids: string | null,
  markedAt: string,
  day: string,
  markedBy: string,
  readingId: string | null,
];

interface Kept {
  readonly count: number;
  readonly slowAfterMs: number;
  readonly answers: readonly GivenAnswer[];
}
const kept = new WeakMap<object, Map<string, Kept>>();

/**
 * The standing answers of each of these children, in order of marking; every child has an entry. What was read once
 * stays in memory, and is read again when the child's log has grown: rows are only ever added, so their number says
 * whether it has, also when another process wrote.
 */
export async function standingOfChildren(
  db: Db,
  childIds: readonly string[],
  slowAfterMs: number,
): Promise<Map<string, readonly GivenAnswer[]>> {
  const here = kept.get(db) ?? new Map<string, Kept>();
  kept.set(db, here);
  const counts = new Map(
    childIds.length === 0
      ? []
      : (
          await db
            .select({ childId: t.answers.childId, count: sql<number>`count(*)::int` })
            .from(t.answers)
            .where(inArray(t.answers.childId, [...childIds]))
            .groupBy(t.answers.childId)
        ).map((row) => [row.childId, row.count]),
  );
  const isFresh = (id: string) => {
    const one = here.get(id);
    return one !== undefined && one.count === (counts.get(id) ?? 0) && one.slowAfterMs === slowAfterMs;
  };
  const stale = childIds.filter((id) => !isFresh(id));
  const logs = new Map(stale.map((id): [string, AnswerBody[]] => [id, []]));
  for (const answer of await answersOfChildren(db, stale)) logs.get(answer.childId)?.push(answer);
  for (const [id, log] of logs) {
    here.set(id, { count: log.length, slowAfterMs, answers: standing(log, { slowAfterMs }) });
  }
  return new Map(childIds.map((id) => [id, here.get(id)?.answers ?? []]));
}

/** All entries of these checks: answers, notes, ends, and what takes one of them back; in order of marking. */
export async function answersOfChecks(db: Db, checkIds: readonly string[]): Promise<AnswerBody[]> {
  if (checkIds.length === 0) return [];
  const given = await db
    .select()
    .from(t.answers)
    .where(inArray(t.answers.checkId, [...checkIds]))
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

/** The standing entries that a reading has brought into the log. */
export async function standingOfReading(db: Db, readingId: string): Promise<AnswerBody[]> {
  const rows = await db.select().from(t.answers).where(eq(t.answers.readingId, readingId));
  const { voided } = await storedAnswers(
    db,
    rows.map((row) => row.id),
  );
  return rows.filter((row) => !voided.has(row.id)).map(toAnswer);
}

/** A statement has at most 65,535 parameters, and a row of the log some twenty. */
const ROWS_AT_ONCE = 1000;

/**
 * Adds to the log. An id that is there already stays as it was. With `inside` the rows are written in that transaction.
 */
export async function appendAnswers(
  db: Db,
  answers: readonly AnswerBody[],
  { sessionId = null, inside = db }: { readonly sessionId?: string | null; readonly inside?: Db } = {},
): Promise<void> {
  if (answers.length === 0) return;
  const fresh = new Set<string>();
  for (let from = 0; from < answers.length; from += ROWS_AT_ONCE) {
    const added = await inside
      .insert(t.answers)
      .values(answers.slice(from, from + ROWS_AT_ONCE).map((answer) => toRow(answer, sessionId)))
      .onConflictDoNothing()
      .returning({ id: t.answers.id });
    for (const row of added) fresh.add(row.id);
  }
  keepUp(
    db,
    answers.filter((answer) => fresh.has(answer.id)),
  );
}

/** What was read of a child follows what is added here, so that a mark does not cost another reading of the log. */
function keepUp(db: Db, added: readonly AnswerBody[]): void {
  const here = kept.get(db);
  if (!here) return;
  for (const childId of new Set(added.map((answer) => answer.childId))) {
    const one = here.get(childId);
    if (!one) continue;
    const mine = added.filter((answer) => answer.childId === childId);
    const { slowAfterMs } = one;
    here.set(childId, {
      slowAfterMs,
      count: one.count + mine.length,
      answers: standing([...one.answers, ...mine], { slowAfterMs }),
    });
  }
}
