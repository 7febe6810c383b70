import { and, eq, gte, inArray, or, type SQL, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import { type GivenAnswer, type Source, standing } from "#core/ledger";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

type Row = typeof t.answers.$inferSelect;
type Plain = Extract<AnswerBody, { outcome: "right" }>;
type Heard = Extract<AnswerBody, { outcome: "wrong" }>;
type Stop = Extract<AnswerBody, { outcome: "stop" }>;

function sourceOf(row: Pick<Row, "source" | "checkId" | "readingId" | "sessionId" | "reportId">): Source {
  if (row.source === "check") return { kind: "check", checkId: row.checkId ?? "" };
  if (row.source === "judgement") return { kind: "judgement" };
  if (row.source === "reading") return { kind: "reading", readingId: row.readingId ?? "" };
  return { kind: "session", sessionId: row.sessionId, reportId: row.reportId };
}

/** A row of the ledger as the contract speaks of it. */
function toEntry(row: Pick<Row, (typeof columns)[number]>): AnswerBody {
  const { id, childId, day, markedBy, outcome } = row;
  const markedAt = new Date(row.markedAt).toISOString();
  const mark = { id, childId, markedAt, day, markedBy };
  if (outcome === "void") return { ...mark, outcome, voids: row.voids ?? "" };
  const check = { kind: "check" as const, checkId: row.checkId ?? "" };
  if (outcome === "note") return { ...mark, outcome, source: check, item: row.item, text: row.text ?? "" };
  if (outcome === "stop") return { ...mark, outcome, source: check, why: row.text as Stop["why"] };
  if (outcome === "reading" && row.reading)
    return {
      ...mark,
      outcome,
      source: { kind: "reading", readingId: row.readingId ?? "" },
      reading: { ...row.reading, marks: [...row.reading.marks] },
    };
  // Nearly all of a log is these: written out, since to copy one into another takes several times as long.
  const given = {
    id,
    childId,
    markedAt,
    day,
    markedBy,
    kind: row.kind as Plain["kind"],
    item: row.item ?? "",
    ms: row.ms,
    source: sourceOf(row),
    help: row.help ?? "none",
    way: row.way ?? "seen",
    pass: row.pass,
    tags: (row.tags ?? []) as Plain["tags"],
    outcome: outcome as Plain["outcome"],
  };
  if (outcome !== "wrong" && outcome !== "other" && outcome !== "blend") return given;
  return Object.assign(given, { outcome: outcome as Heard["outcome"], heard: row.heard, units: row.units });
}

const columns = [
  "id",
  "childId",
  "number",
  "source",
  "checkId",
  "sessionId",
  "readingId",
  "reportId",
  "help",
  "way",
  "kind",
  "item",
  "outcome",
  "heard",
  "ms",
  "pass",
  "tags",
  "units",
  "text",
  "reading",
  "voids",
  "markedAt",
  "day",
  "markedBy",
] as const satisfies readonly (keyof Row)[];

/** An entry with its place in the log of its child. */
export interface Numbered {
  readonly number: number;
  readonly entry: AnswerBody;
}

/** The values of a row, for `json_build_array`. */
export const columnsOfEntry = sql.join(
  columns.map((name) => sql`${t.answers[name]}`),
  sql`, `,
);
/** They as they come back. */
export type RowOfEntry = Values<typeof columns>;
type Values<Names extends readonly (keyof Row)[]> = { readonly [At in keyof Names]: Row[Names[At]] };

/** A row of the ledger, as `columnsOfEntry` gives it: named one by one, since a name that is looked up costs five times as much. */
export function readEntry(values: RowOfEntry): Numbered {
  // biome-ignore format: in the order of the columns
  const [
    id, childId, number, source, checkId, sessionId, readingId, reportId, help, way, kind, item,
    outcome, heard, ms, pass, tags, units, text, reading, voids, markedAt, day, markedBy,
  ] = values;
  // biome-ignore format: as above
  const row = {
    id, childId, number, source, checkId, sessionId, readingId, reportId, help, way, kind, item,
    outcome, heard, ms, pass, tags, units, text, reading, voids, markedAt, day, markedBy,
  };
  return { number, entry: toEntry(row) };
}

/**
 * Rows as one JSON value, in order of marking: taking ten thousand rows apart one by one costs the embedded database five
 * times as long.
 */
async function entriesWhere(inside: Inside, where: SQL | undefined): Promise<Numbered[]> {
  const a = t.answers;
  const [found] = await inside
    .select({
      log: sql<RowOfEntry[] | null>`json_agg(json_build_array(${columnsOfEntry}) order by ${a.markedAt}, ${a.id})`,
    })
    .from(a)
    .where(where);
  return (found?.log ?? []).map(readEntry);
}

/** The whole log of these children, in order of marking. */
export async function logOfChildren(inside: Inside, childIds: readonly string[]): Promise<AnswerBody[]> {
  if (childIds.length === 0) return [];
  return (await entriesWhere(inside, inArray(t.answers.childId, [...childIds]))).map(({ entry }) => entry);
}

/** All entries of these checks: answers, notes, ends, and what takes one of them back; in order of marking. */
export async function logOfChecks(inside: Inside, checkIds: readonly string[]): Promise<AnswerBody[]> {
  if (checkIds.length === 0) return [];
  return (await entriesWhere(inside, inArray(t.answers.checkId, [...checkIds]))).map(({ entry }) => entry);
}

/** The number of the last entry of each of these children; who is not here is left out. */
export async function numbersOf(inside: Inside, childIds: readonly string[]): Promise<Map<string, number>> {
  return new Map([...(await headsOf(inside, childIds))].map(([id, { entries }]) => [id, entries]));
}

/** How far the log of each of these children goes, and its class; who is not here is left out. */
export async function headsOf(
  inside: Inside,
  childIds: readonly string[],
): Promise<Map<string, { readonly entries: number; readonly classId: string }>> {
  if (childIds.length === 0) return new Map();
  const rows = await inside
    .select({ id: t.children.id, entries: t.children.entries, classId: t.children.classId })
    .from(t.children)
    .where(inArray(t.children.id, [...childIds]));
  return new Map(rows.map(({ id, ...head }) => [id, head]));
}

/**
 * What came into the logs of these children after what is known of them, in one statement; who has nothing new is left out.
 * @param known the number of the last entry that is known of each child, 0 for none
 */
export async function entriesAfter(
  inside: Inside,
  known: ReadonlyMap<string, number>,
): Promise<Map<string, Numbered[]>> {
  const fresh = new Map<string, Numbered[]>();
  if (known.size === 0) return fresh;
  const rows = [...known].map(([id, number]) => sql`(${id}::uuid, ${number}::int)`);
  const after = sql`exists (select 1 from (values ${sql.join(rows, sql`, `)}) known(id, number) where known.id = ${t.answers.childId} and ${t.answers.number} > known.number)`;
  for (const one of await entriesWhere(inside, after)) {
    const list = fresh.get(one.entry.childId);
    if (list) list.push(one);
    else fresh.set(one.entry.childId, [one]);
  }
  return fresh;
}

/**
 * Entries of a sitting, or of a session that is taught, that are new since another process told of them.
 * @param from the number of the first new entry of each child
 */
export async function entriesSince(
  inside: Inside,
  sittingId: string,
  from: Readonly<Record<string, number>>,
): Promise<AnswerBody[]> {
  const ofChildren = Object.entries(from).map(([childId, number]) =>
    and(eq(t.answers.childId, childId), gte(t.answers.number, number)),
  );
  if (ofChildren.length === 0) return [];
  const checks = inside.select({ id: t.checks.id }).from(t.checks).where(eq(t.checks.sittingId, sittingId));
  const ofIt = or(inArray(t.answers.checkId, checks), eq(t.answers.sessionId, sittingId));
  return (await entriesWhere(inside, and(or(...ofChildren), ofIt))).map(({ entry }) => entry);
}

/** The entries of a reading that stand: one, or none where a group read together. */
export async function entriesOfReading(inside: Inside, readingId: string): Promise<AnswerBody[]> {
  const entries = (await entriesWhere(inside, eq(t.answers.readingId, readingId))).map(({ entry }) => entry);
  const back = new Set(entries.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : [])));
  return entries.filter((entry) => entry.outcome !== "void" && !back.has(entry.id));
}

/** What these reports have brought into the log, without what was taken back; by report. */
export async function standingOfReports(
  inside: Inside,
  reportIds: readonly string[],
): Promise<ReadonlyMap<string, readonly GivenAnswer[]>> {
  const found = new Map<string, GivenAnswer[]>();
  if (reportIds.length === 0) return found;
  const entries = await entriesWhere(inside, inArray(t.answers.reportId, [...reportIds]));
  for (const entry of standing(entries.map((one) => one.entry))) {
    const id = entry.source.kind === "session" ? entry.source.reportId : null;
    if (id !== null) found.set(id, [...(found.get(id) ?? []), entry]);
  }
  return found;
}
