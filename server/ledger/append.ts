import { and, eq, inArray, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import { type AdmitWanted, type Answer, admit, checkOf, dayAt, endsIn, type Fate, type Source } from "#core/ledger";
import { ownZone } from "../frame/clock.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { type Found, storedFor } from "./stored.ts";

export interface Appended {
  /** One for each mark, in their order. */
  readonly fates: readonly Fate[];
  /** What is new in the log, with its day. */
  readonly added: readonly AnswerBody[];
  /** The number of the first new entry of each child that has one. */
  readonly from: ReadonlyMap<string, number>;
  /** What the school had before of what the marks speak of; null where there were none. */
  readonly stored: Found | null;
}

const written = new WeakSet<Inside>();

/** True when this transaction has put something into the ledger, which may be taken back with it. */
export function hasWritten(inside: Inside): boolean {
  return written.has(inside);
}

/** A statement has at most 65,535 parameters, and a row of the log some twenty-five. */
const ROWS_AT_ONCE = 1000;

interface AppendWanted extends Pick<AdmitWanted, "isFuture"> {
  /** The day of an instant; by the school's time zone when it is left out. */
  readonly dayOf?: AdmitWanted["dayOf"];
}

/**
 * The one way into the ledger: admits marks one by one, gives those that enter the next numbers of their children, and sets
 * or takes back the ends of checks. Everything or nothing of it stays with the transaction that it is called in.
 * @param inside a transaction; the children of the marks are held until it ends, so that writers come one after the other
 */
export async function append(inside: Inside, marks: readonly AnswerBody[], wanted: AppendWanted): Promise<Appended> {
  if (marks.length === 0) return { fates: [], added: [], from: new Map(), stored: null };
  const stored = await storedFor(inside, marks);
  const last = new Map(stored.last);
  const { isFuture, dayOf = (instant: string) => dayAt(stored.zone ?? ownZone(), instant) } = wanted;
  const fates = admit(marks, stored, { isFuture, dayOf });
  const added = fates.flatMap((fate) => (fate.fate === "kept" ? [fate.entry as AnswerBody] : []));
  const rows = added.map((entry) => {
    const number = (last.get(entry.childId) ?? 0) + 1;
    last.set(entry.childId, number);
    return toRow(entry, number, entry.outcome === "void" ? stored.entries.get(entry.voids) : undefined, added);
  });
  if (added.length > 0) written.add(inside);
  const grown = [...new Set(added.map((entry) => entry.childId))];
  for (let from = 0; from < rows.length; from += ROWS_AT_ONCE) {
    const insert = inside.insert(t.answers).values(rows.slice(from, from + ROWS_AT_ONCE));
    // The children's numbers go with the first rows, in the same statement: a mark has to be cheap.
    const numbers = grown.map((id) => sql`(${id}::uuid, ${last.get(id) ?? 0}::int)`);
    const update = sql`update ${t.children} set entries = grown.number from (values ${sql.join(numbers, sql`, `)}) grown(id, number) where grown.id = ${t.children}.id`;
    await (from === 0 ? inside.execute(sql`with counted as (${update}) ${insert.getSQL()}`) : insert);
  }
  for (const [checkId, end] of endsIn(added, stored.entries)) {
    await inside
      .update(t.checks)
      .set({ endedAt: end?.markedAt ?? null })
      .where(eq(t.checks.id, checkId));
  }
  const from = new Map(grown.map((id) => [id, (stored.last.get(id) ?? 0) + 1]));
  return { fates, added, from, stored };
}

/** An entry as its row. An undo stands with what it takes back, so that the log of a check or a reading is one look. */
function toRow(
  entry: AnswerBody,
  number: number,
  target: Answer | undefined,
  batch: readonly AnswerBody[],
): typeof t.answers.$inferInsert {
  const { id, childId, markedAt, day, markedBy, outcome } = entry;
  const mark = { id, childId, number, markedAt, day, markedBy, outcome };
  if (entry.outcome === "void") {
    const taken = target ?? batch.find((one) => one.id === entry.voids);
    return { ...mark, ...ofSource((taken as { source?: Source } | undefined)?.source), voids: entry.voids };
  }
  const place = { ...mark, ...ofSource(entry.source) };
  if (entry.outcome === "note") return { ...place, item: entry.item, text: entry.text };
  if (entry.outcome === "stop") return { ...place, text: entry.why };
  if (entry.outcome === "reading") return { ...place, kind: "words", reading: entry.reading };
  const { kind, item, ms, help, way, pass, tags } = entry;
  const heard = "heard" in entry ? { heard: entry.heard, units: entry.units } : {};
  return { ...place, kind, item, ms, help, way, pass, tags: tags.length > 0 ? tags : null, ...heard };
}

function ofSource(source: Source | undefined) {
  if (source?.kind === "reading") return { source: source.kind, readingId: source.readingId };
  if (source?.kind === "session")
    return { source: source.kind, sessionId: source.sessionId, reportId: source.reportId };
  if (source?.kind === "judgement") return { source: source.kind };
  return { source: "check" as const, checkId: source === undefined ? null : checkOf({ source }) };
}

/** The sittings of these checks that are ended by now: each with all its checks ended. */
export async function endedSittings(inside: Inside, checkIds: readonly string[]): Promise<string[]> {
  if (checkIds.length === 0) return [];
  const of = await inside
    .selectDistinct({ id: t.checks.sittingId })
    .from(t.checks)
    .where(inArray(t.checks.id, [...checkIds]));
  const open = await inside
    .selectDistinct({ id: t.checks.sittingId })
    .from(t.checks)
    .where(
      and(
        inArray(
          t.checks.sittingId,
          of.map((row) => row.id),
        ),
        sql`${t.checks.endedAt} is null`,
      ),
    );
  return of.map((row) => row.id).filter((id) => !open.some((row) => row.id === id));
}
