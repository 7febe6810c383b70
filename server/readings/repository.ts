import { randomUUID } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import { and, desc, eq, getTableColumns, gte, inArray, isNotNull, isNull } from "drizzle-orm";
import type { AnswerBody, ReadingView } from "#contract";
import { append } from "../ledger/append.ts";
import { entriesOfReading } from "../ledger/log.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

const { removedAt: _removedAt, schoolId: _schoolId, ...columns } = getTableColumns(t.readings);

/** The readings of a child, the newest first. */
export async function ofChild(inside: Inside, childId: string): Promise<ReadingView[]> {
  return ofChildren(inside, [childId]);
}

/** The readings of these children, the newest first. */
export async function ofChildren(inside: Inside, childIds: readonly string[]): Promise<ReadingView[]> {
  if (childIds.length === 0) return [];
  return inside
    .select(columns)
    .from(t.readings)
    .where(and(inArray(t.readings.childId, [...childIds]), isNull(t.readings.removedAt)))
    .orderBy(desc(t.readings.readAt), t.readings.id);
}

/** What these children read alone against the clock since a day, in no order. */
export async function timedSince(inside: Inside, childIds: readonly string[], day: string) {
  if (childIds.length === 0) return [];
  const { childId, day: readOn, title, text, marks, stoppedAt, ms } = t.readings;
  return inside
    .select({ childId, day: readOn, title, text, marks, stoppedAt, ms })
    .from(t.readings)
    .where(
      and(
        inArray(t.readings.childId, [...childIds]),
        isNull(t.readings.removedAt),
        eq(t.readings.how, "alone"),
        gte(t.readings.day, day),
        isNotNull(t.readings.ms),
      ),
    );
}

/** One reading, also one that was taken away; or undefined. */
export async function find(inside: Inside, id: string): Promise<ReadingView | undefined> {
  return (await inside.select(columns).from(t.readings).where(eq(t.readings.id, id)))[0];
}

/**
 * Keeps a reading; the same id again is written over. What it says of its words is an entry of its child's log, which is
 * replaced when the reading says something else.
 */
export async function put(inside: Inside, row: ReadingView): Promise<void> {
  await inside
    .insert(t.readings)
    .values(row)
    .onConflictDoUpdate({ target: [t.readings.schoolId, t.readings.id], set: { ...row, removedAt: null } });
  // Asked once the row is held, so that two writers of one reading come one after the other.
  const changes = changesOf(row, await entriesOfReading(inside, row.id));
  await append(inside, changes, { dayOf: () => row.day, isFuture: () => false });
}

/** What nobody says of a text that was read while a session was taught. */
export const plainReading = {
  how: "alone" as const,
  ...{ ms: null, turns: [], fit: null, understanding: [], note: "" },
  voice: { phrases: null, stops: null, pace: null, expression: null },
};

/** Takes a reading away, and back what it said of its words; kept again, it is there again. */
export async function remove(
  inside: Inside,
  id: string,
  by: { readonly markedAt: string; readonly day: string; readonly markedBy: string },
): Promise<void> {
  const gone = (await entriesOfReading(inside, id)).map(
    (one): AnswerBody => ({ ...by, id: randomUUID(), childId: one.childId, outcome: "void", voids: one.id }),
  );
  await append(inside, gone, { dayOf: () => by.day, isFuture: () => false });
  await inside.update(t.readings).set({ removedAt: by.markedAt }).where(eq(t.readings.id, id));
}

/**
 * What brings the log from what stands there of a reading to what the reading says now: nothing when it says the same, else
 * the entry before is taken back and a new one comes. What stopped a group is not one child's.
 */
function changesOf(reading: ReadingView, standing: readonly AnswerBody[]): AnswerBody[] {
  const { id: readingId, childId, readAt, day, markedBy, how, text, marks, stoppedAt } = reading;
  const mark = { childId, markedBy, day, markedAt: new Date(readAt).toISOString() };
  const entry: AnswerBody = {
    ...mark,
    id: randomUUID(),
    outcome: "reading",
    source: { kind: "reading", readingId },
    reading: { text, marks, stoppedAt },
  };
  const says = (one: AnswerBody) =>
    one.outcome === "reading" && isDeepStrictEqual(plain(one.reading), plain(entry.reading)) && one.day === day;
  if (how === "alone" && standing.length === 1 && standing.every(says)) return [];
  const gone = standing.map((one): AnswerBody => ({ ...mark, id: randomUUID(), outcome: "void", voids: one.id }));
  return how === "alone" ? [...gone, entry] : gone;
}

/** As it comes back from the database. */
const plain = ({ text, stoppedAt, marks }: ReadingView | Pick<ReadingView, "text" | "stoppedAt" | "marks">) => ({
  text,
  stoppedAt,
  marks: marks.map(({ at, kind, heard, ms = null }) => ({ at, kind, heard, ms })),
});
