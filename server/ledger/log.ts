import { eq, inArray, or, type SQL, sql } from "drizzle-orm";
import type { AnswerBody } from "#contract";
import { type GivenAnswer, type Source, standing, type TextEntry } from "#core/ledger";
import { answersInText } from "#core/reading";
import type { Db } from "../store/open.ts";
import * as t from "../store/schema.ts";
import type { SchoolWords } from "../store/splits.ts";

type Row = typeof t.answers.$inferSelect;
type Plain = Extract<AnswerBody, { outcome: "right" }>;
type Heard = Extract<AnswerBody, { outcome: "wrong" }>;
type Stop = Extract<AnswerBody, { outcome: "stop" }>;

function sourceOf(row: Row): Source {
  if (row.source === "check") return { kind: "check", checkId: row.checkId ?? "" };
  if (row.source === "reading") return { kind: "reading", readingId: row.readingId ?? "" };
  return { kind: "session", sessionId: row.sessionId, reportId: row.reportId };
}

/** A row of the ledger as the contract speaks of it. */
function toEntry(row: Row): AnswerBody {
  const { id, childId, markedAt, day, markedBy, outcome } = row;
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
  const given = {
    ...mark,
    kind: row.kind as Plain["kind"],
    item: row.item ?? "",
    ms: row.ms,
    source: sourceOf(row),
    help: row.help ?? "none",
    way: row.way ?? "seen",
    pass: row.pass,
    tags: (row.tags ?? []) as Plain["tags"],
  };
  if (outcome === "wrong" || outcome === "other" || outcome === "blend")
    return { ...given, outcome: outcome as Heard["outcome"], heard: row.heard, units: row.units };
  return { ...given, outcome: outcome as Plain["outcome"] };
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

interface Numbered {
  readonly number: number;
  readonly entry: AnswerBody;
}

/**
 * Rows as one JSON value, in order of marking: taking ten thousand rows apart one by one costs the embedded database five
 * times as long.
 */
async function entriesWhere(db: Db, where: SQL | undefined): Promise<Numbered[]> {
  const a = t.answers;
  const values = sql.join(
    columns.map((name) => sql`${a[name]}`),
    sql`, `,
  );
  const [found] = await db
    .select({
      log: sql<unknown[][] | null>`json_agg(json_build_array(${values}) order by ${a.markedAt}, ${a.id})`,
    })
    .from(a)
    .where(where);
  return (found?.log ?? []).map((entry) => {
    const row = {} as Row;
    for (let at = 0; at < columns.length; at++) row[columns[at] as "id"] = entry[at] as string;
    return { number: row.number, entry: toEntry({ ...row, markedAt: new Date(row.markedAt).toISOString() }) };
  });
}

/** The whole log of these children, in order of marking. */
export async function logOfChildren(db: Db, childIds: readonly string[]): Promise<AnswerBody[]> {
  if (childIds.length === 0) return [];
  return (await entriesWhere(db, inArray(t.answers.childId, [...childIds]))).map(({ entry }) => entry);
}

/** All entries of these checks: answers, notes, ends, and what takes one of them back; in order of marking. */
export async function logOfChecks(db: Db, checkIds: readonly string[]): Promise<AnswerBody[]> {
  if (checkIds.length === 0) return [];
  return (await entriesWhere(db, inArray(t.answers.checkId, [...checkIds]))).map(({ entry }) => entry);
}

/** The entries of a reading that stand: one, or none where a group read together. */
export async function entriesOfReading(db: Db, readingId: string): Promise<AnswerBody[]> {
  const entries = (await entriesWhere(db, eq(t.answers.readingId, readingId))).map(({ entry }) => entry);
  const back = new Set(entries.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : [])));
  return entries.filter((entry) => entry.outcome !== "void" && !back.has(entry.id));
}

/** What these reports have brought into the log, without what was taken back; by report. */
export async function standingOfReports(
  db: Db,
  reportIds: readonly string[],
): Promise<ReadonlyMap<string, readonly GivenAnswer[]>> {
  const found = new Map<string, GivenAnswer[]>();
  if (reportIds.length === 0) return found;
  const entries = await entriesWhere(db, inArray(t.answers.reportId, [...reportIds]));
  for (const entry of standing(entries.map((one) => one.entry))) {
    const id = entry.source.kind === "session" ? entry.source.reportId : null;
    if (id !== null) found.set(id, [...(found.get(id) ?? []), entry]);
  }
  return found;
}

/** Of these ids: the entries under them, and which of them are taken back. */
export async function entriesUnder(
  db: Db,
  ids: readonly string[],
): Promise<{ entries: Map<string, AnswerBody>; takenBack: Set<string> }> {
  const entries = new Map<string, AnswerBody>();
  const takenBack = new Set<string>();
  if (ids.length === 0) return { entries, takenBack };
  const wanted = new Set(ids);
  const where = or(inArray(t.answers.id, [...ids]), inArray(t.answers.voids, [...ids]));
  for (const { entry } of await entriesWhere(db, where)) {
    if (wanted.has(entry.id)) entries.set(entry.id, entry);
    if (entry.outcome === "void") takenBack.add(entry.voids);
  }
  return { entries, takenBack };
}

/** What the answers that stand depend on beside the log. */
export interface StandingOf {
  readonly slowAfterMs: number;
  /** The words and the accent by which readings are understood. */
  readonly words: SchoolWords;
}

const isSameRule = (one: StandingOf, other: StandingOf) =>
  one.slowAfterMs === other.slowAfterMs &&
  one.words.lexicon === other.words.lexicon &&
  one.words.accent === other.words.accent;

/** What readings say of their words, worked out once for the words and the accent; goes with the entry. */
const said = new WeakMap<TextEntry, { readonly words: SchoolWords; readonly answers: readonly GivenAnswer[] }>();

function inText(entry: TextEntry, words: SchoolWords): readonly GivenAnswer[] {
  const known = said.get(entry);
  if (known?.words.lexicon === words.lexicon && known.words.accent === words.accent) return known.answers;
  const answers = answersInText(entry, words);
  said.set(entry, { words, answers });
  return answers;
}

function standingIn(log: readonly AnswerBody[], { slowAfterMs, words }: StandingOf): readonly GivenAnswer[] {
  return standing(log, { slowAfterMs, inText: (entry) => inText(entry, words) });
}

interface Kept {
  /** Of the last entry that was read. */
  readonly number: number;
  readonly wanted: StandingOf;
  readonly log: readonly AnswerBody[];
  readonly standing: readonly GivenAnswer[];
}
const kept = new WeakMap<object, Map<string, Kept>>();

/**
 * The standing answers of each of these children, in order of marking; every child has an entry. What was read once stays
 * in memory; the number of a child's last entry says whether there is more, and only that is read, also when another
 * process wrote it.
 */
export async function standingOfChildren(
  db: Db,
  childIds: readonly string[],
  wanted: StandingOf,
): Promise<Map<string, readonly GivenAnswer[]>> {
  const here = kept.get(db) ?? new Map<string, Kept>();
  kept.set(db, here);
  const last = new Map(
    childIds.length === 0
      ? []
      : (
          await db
            .select({ id: t.children.id, entries: t.children.entries })
            .from(t.children)
            .where(inArray(t.children.id, [...childIds]))
        ).map((row) => [row.id, row.entries]),
  );
  const behind = childIds.filter((id) => (here.get(id)?.number ?? 0) < (last.get(id) ?? 0));
  if (behind.length > 0) {
    // One statement for all: of each child what came after what is known of it.
    const known = behind.map((id) => sql`(${id}::uuid, ${here.get(id)?.number ?? 0}::int)`);
    const after = sql`exists (select 1 from (values ${sql.join(known, sql`, `)}) known(id, number) where known.id = ${t.answers.childId} and ${t.answers.number} > known.number)`;
    const fresh = new Map<string, Numbered[]>();
    for (const one of await entriesWhere(db, after)) {
      const list = fresh.get(one.entry.childId);
      if (list) list.push(one);
      else fresh.set(one.entry.childId, [one]);
    }
    for (const [id, more] of fresh) {
      const log = [...(here.get(id)?.log ?? []), ...more.map(({ entry }) => entry)];
      const number = Math.max(...more.map((one) => one.number));
      here.set(id, { number, wanted, log, standing: standingIn(log, wanted) });
    }
  }
  return new Map(
    childIds.map((id) => {
      const one = here.get(id);
      if (!one || !last.has(id)) return [id, []];
      if (isSameRule(one.wanted, wanted)) return [id, one.standing];
      const now = { ...one, wanted, standing: standingIn(one.log, wanted) };
      here.set(id, now);
      return [id, now.standing];
    }),
  );
}
