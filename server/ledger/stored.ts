import { type SQL, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import type { KindId, Source, Stored } from "#core/ledger";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { columnsOfEntry, type RowOfEntry, readEntry } from "./log.ts";

/** What `admit` must know, and where marks belong. */
export interface Found extends Stored {
  /** The sitting of each of the checks. */
  readonly sittings: ReadonlyMap<string, string>;
  /** The school's time zone; null while it has said none. */
  readonly zone: string | null;
}

interface Row {
  readonly zone: string | null;
  readonly entries: RowOfEntry[] | null;
  readonly checks: [string, string, string, KindId, string[], string, string | null][] | null;
  readonly readings: [string, string][] | null;
  readonly places: [string, string][] | null;
}

const rowsOf = (values: SQL, from: SQL) => sql`(select json_agg(json_build_array(${values})) from ${from})`;
const none = sql`null::json`;
const among = (ids: readonly string[]) =>
  sql`(${sql.join(
    ids.map((id) => sql`${id}::uuid`),
    sql`, `,
  )})`;

/**
 * All that the school has of what these marks speak of, asked in one statement: a mark has to be cheap.
 * @param children those of the marks who are here
 */
export async function storedFor(
  inside: Inside,
  marks: readonly AnswerBody[],
  children: ReadonlySet<string>,
): Promise<Found> {
  const ids = <T>(pick: (source: Source) => T | null) => [
    ...new Set(marks.flatMap((mark) => (mark.outcome === "void" ? [] : (pick(mark.source) ?? [])))),
  ];
  const checkIds = ids((source) => (source.kind === "check" ? source.checkId : null));
  const readingIds = ids((source) => (source.kind === "reading" ? source.readingId : null));
  const sessionIds = ids((source) => (source.kind === "session" ? source.sessionId : null));
  const voided = marks.flatMap((mark) => (mark.outcome === "void" ? [mark.voids] : []));
  const wanted = [...new Set([...marks.map((mark) => mark.id), ...voided])];
  const { answers: a, checks: c, readings: r, sessionMembers: m } = t;
  const ofChecks = [
    ...(checkIds.length > 0 ? [sql`${c.id} in ${among(checkIds)}`] : []),
    ...(voided.length > 0 ? [sql`${c.id} in (select ${a.checkId} from ${a} where ${a.id} in ${among(voided)})`] : []),
  ];
  const { rows } = (await inside.execute(sql`select
    (select ${t.schools.timeZone} from ${t.schools}) as zone,
    ${rowsOf(columnsOfEntry, sql`${a} where ${a.id} in ${among(wanted)} or ${a.voids} in ${among(wanted)}`)} as entries,
    ${
      ofChecks.length === 0
        ? none
        : rowsOf(
            sql`${c.id}, ${c.childId}, ${c.sittingId}, ${c.kind}, ${c.items}, ${c.startedAt}, ${c.endedAt}`,
            sql`${c} where ${sql.join(ofChecks, sql` or `)}`,
          )
    } as checks,
    ${readingIds.length === 0 ? none : rowsOf(sql`${r.id}, ${r.childId}`, sql`${r} where ${r.id} in ${among(readingIds)}`)} as readings,
    ${sessionIds.length === 0 ? none : rowsOf(sql`${m.sessionId}, ${m.childId}`, sql`${m} where ${m.sessionId} in ${among(sessionIds)}`)} as places`)) as unknown as {
    rows: Row[];
  };
  const { zone, entries, checks, readings, places } = rows[0] as Row;
  const log = (entries ?? []).map((row) => readEntry(row).entry);
  const asked = new Set(wanted);
  const sessions = new Map<string, Set<string>>();
  for (const [sessionId, childId] of places ?? [])
    sessions.set(sessionId, (sessions.get(sessionId) ?? new Set()).add(childId));
  return {
    zone,
    children,
    checks: new Map(
      (checks ?? []).map(([id, childId, , kind, items, startedAt]) => [
        id,
        { childId, kind, items: new Set(items), startedAt: new Date(startedAt).toISOString() },
      ]),
    ),
    sittings: new Map((checks ?? []).map(([id, , sittingId]) => [id, sittingId])),
    readings: new Map(readings ?? []),
    sessions,
    entries: new Map(log.filter((entry) => asked.has(entry.id)).map((entry) => [entry.id, entry])),
    takenBack: new Set(log.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : []))),
    ended: new Set((checks ?? []).flatMap(([id, , , , , , endedAt]) => (endedAt === null ? [] : [id]))),
  };
}
