import { type SQL, sql } from "drizzle-orm";
import type { AnswerBody, SetupBody } from "#contract";
import type { KindId, Source, Stored } from "#core/ledger";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { columnsOfEntry, type RowOfEntry, readEntry } from "./log.ts";

/** What `admit` must know, and where marks belong. */
export interface Found extends Stored {
  /** The sitting of each of the checks. */
  readonly sittings: ReadonlyMap<string, string>;
  /** The number of the last entry of each of the children. */
  readonly last: ReadonlyMap<string, number>;
  /** The school's time zone; null while it has said none. */
  readonly zone: string | null;
}

interface Row {
  readonly zone: string | null;
  readonly entries: RowOfEntry[] | null;
  readonly checks: [string, string, string, KindId, string[], string, string | null, SetupBody | null][] | null;
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
 * All that the school has of what these marks speak of. Their children are held until the transaction ends, so that writers
 * come one after the other; the rest is read after that. Both in one message: a mark has to be cheap.
 */
export async function storedFor(inside: Inside, marks: readonly AnswerBody[]): Promise<Found> {
  const ids = <T>(pick: (source: Source) => T | null) => [
    ...new Set(marks.flatMap((mark) => (mark.outcome === "void" ? [] : (pick(mark.source) ?? [])))),
  ];
  const checkIds = ids((source) => (source.kind === "check" ? source.checkId : null));
  const readingIds = ids((source) => (source.kind === "reading" ? source.readingId : null));
  const sessionIds = ids((source) => (source.kind === "session" ? source.sessionId : null));
  const voided = marks.flatMap((mark) => (mark.outcome === "void" ? [mark.voids] : []));
  const wanted = [...new Set([...marks.map((mark) => mark.id), ...voided])];
  const { answers: a, checks: c, children: k, readings: r, sessionMembers: m } = t;
  const ofChecks = [
    ...(checkIds.length > 0 ? [sql`${c.id} in ${among(checkIds)}`] : []),
    ...(voided.length > 0 ? [sql`${c.id} in (select ${a.checkId} from ${a} where ${a.id} in ${among(voided)})`] : []),
  ];
  const childIds = [...new Set(marks.map((mark) => mark.childId))];
  // Always in one order, so that two writers never wait for each other.
  const hold = sql`select ${k.id}, ${k.entries} from ${k} where ${k.id} in ${among(childIds)} order by ${k.id} for update`;
  const read = sql`select
    (select ${t.schools.timeZone} from ${t.schools}) as zone,
    ${rowsOf(columnsOfEntry, sql`${a} where ${a.id} in ${among(wanted)} or ${a.voids} in ${among(wanted)}`)} as entries,
    ${
      ofChecks.length === 0
        ? none
        : rowsOf(
            sql`${c.id}, ${c.childId}, ${c.sittingId}, ${c.kind}, ${c.items}, ${c.startedAt}, ${c.endedAt}, ${c.setup}`,
            sql`${c} where ${sql.join(ofChecks, sql` or `)}`,
          )
    } as checks,
    ${readingIds.length === 0 ? none : rowsOf(sql`${r.id}, ${r.childId}`, sql`${r} where ${r.id} in ${among(readingIds)}`)} as readings,
    ${sessionIds.length === 0 ? none : rowsOf(sql`${m.sessionId}, ${m.childId}`, sql`${m} where ${m.sessionId} in ${among(sessionIds)}`)} as places`;
  const [held = [], rows = []] = await inside.ask(hold, read);
  const { zone, entries, checks, readings, places } = rows[0] as Row;
  const log = (entries ?? []).map((row) => readEntry(row).entry);
  const last = new Map((held as { id: string; entries: number }[]).map((child) => [child.id, child.entries]));
  const asked = new Set(wanted);
  const sessions = new Map<string, Set<string>>();
  for (const [sessionId, childId] of places ?? [])
    sessions.set(sessionId, (sessions.get(sessionId) ?? new Set()).add(childId));
  return {
    zone,
    children: new Set(last.keys()),
    last,
    checks: new Map(
      (checks ?? []).map(([id, childId, , kind, items, startedAt, , setup]) => [
        id,
        { childId, kind, items: itemsOf(items, setup), startedAt: new Date(startedAt).toISOString() },
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

/** The items of a check, with the other sounds of those whose spelling has several. */
function itemsOf(items: readonly string[], setup: SetupBody | null): ReadonlySet<string> {
  const also = setup && "faces" in setup ? Object.values(setup.faces?.also ?? {}).flat() : [];
  return new Set([...items, ...also]);
}
