import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { askedAs, heardIn } from "#core/ledger";
import type { School } from "../house.ts";
import { firstSchool } from "../testing.ts";
import { openStore } from "./open.ts";
import type { OpenStore } from "./opened.ts";
import { answers, children } from "./schema.ts";
import { type Dump, databaseAt, fillFrom } from "./testing.ts";

/** A folder that was filled by the last version without a ledger: five children of the demo school, with all that was theirs. */
const dump: Dump = JSON.parse(
  gunzipSync(readFileSync(join(import.meta.dirname, "fixtures/school-at-0007.json.gz"))).toString(),
);
const isGiven = (row: Readonly<Record<string, unknown>>) => !["void", "note", "stop"].includes(String(row.outcome));
const before = dump.answers ?? [];
/** A mark of a report, taken back, and an end, taken back: the demo has neither. */
const back = [
  before.find((row) => row.session_id !== null && isGiven(row)),
  before.find((row) => row.outcome === "stop"),
].map((row, at): Dump[string][number] => ({
  ...row,
  id: `7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f000${at}`,
  outcome: "void",
  item: null,
  heard: null,
  check_id: null,
  session_id: null,
  voids: row?.id,
}));
const log = [...before, ...back];

describe("the log of a school from before there was a ledger", () => {
  let store: OpenStore;
  let school: School;
  const ids = (dump.children ?? []).map((row) => String(row.id));
  beforeAll(async () => {
    const client = await databaseAt(7);
    await fillFrom(client, { ...dump, answers: log });
    const snapshot = await client.dumpDataDir("none");
    await client.close();
    store = await openStore({ folder: "memory://", snapshot });
    school = await firstSchool(store);
  }, 60_000);
  afterAll(() => store.close());

  /** Words of readings had rows of their own; a reading is one entry. */
  const alone = (dump.readings ?? []).filter((row) => row.how !== "together");
  const kept = [...log.filter((row) => row.reading_id === null), ...alone];

  test("has every entry, numbered without a gap, and an undo behind what it takes back", async () => {
    const rows = await store.db.select().from(answers);
    expect(rows.map((row) => row.id).sort()).toEqual(kept.map((row) => String(row.id)).sort());
    for (const { id, entries } of await store.db.select().from(children)) {
      const mine = rows.filter((row) => row.childId === id);
      expect(mine.map((row) => row.number).sort((one, other) => one - other)).toEqual(mine.map((_, at) => at + 1));
      expect(entries).toBe(mine.length);
      for (const undo of mine.filter((row) => row.voids !== null))
        expect(mine.find((row) => row.id === undo.voids)?.number).toBeLessThan(undo.number);
    }
  });
  test("has as many standing answers of every child as before, and the same words of texts", async () => {
    const gone = new Set(log.map((row) => row.voids));
    const stands = await school.ledger.standingOfChildren(ids);
    for (const id of ids) {
      const was = log.filter((row) => row.child_id === id && isGiven(row) && !gone.has(row.id));
      expect(was.length).toBeGreaterThan(100);
      expect(stands.get(id)).toHaveLength(was.length);
      const inTexts = (stands.get(id) ?? []).filter((answer) => answer.source.kind === "reading");
      const say = (item: unknown, outcome: unknown, heard: unknown, at: unknown) =>
        [item, outcome, heard, Date.parse(String(at))].join(" ");
      expect(inTexts.map((one) => say(one.item, one.outcome, heardIn(one), one.markedAt)).sort()).toEqual(
        was
          .filter((row) => row.reading_id !== null)
          .map((row) => say(row.item, row.outcome, row.heard, row.marked_at))
          .sort(),
      );
    }
  });
  test("knows of each mark where it comes from, how it was asked, and that it was alone", async () => {
    const sources = { check: 0, reading: 0, session: 0, judgement: 0 };
    for (const entry of await school.ledger.logOfChildren(ids)) {
      if (!("source" in entry)) continue;
      if (entry.outcome === "reading") {
        const { text, marks, stopped_at: stoppedAt } = alone.find((row) => row.id === entry.id) ?? {};
        expect(entry.reading).toEqual({ text, marks, stoppedAt });
      }
      const was = kept.find((row) => row.id === entry.id);
      sources[entry.source.kind]++;
      const id = { check: was?.check_id, reading: was?.id, session: was?.session_id, judgement: undefined }[
        entry.source.kind
      ];
      expect(Object.values(entry.source)).toContain(id);
      if ("way" in entry) expect([entry.help, entry.way]).toEqual(["none", askedAs(entry.kind)]);
    }
    expect(sources.check).toBeGreaterThan(1000);
    expect([sources.reading, sources.session > 50]).toEqual([alone.length, true]);
  });
  test("gives each report its marks, which had a table of their own", async () => {
    const reports = await school.sessions.reportsOf((dump.sessions ?? []).map((row) => String(row.id)));
    const marks = reports.flatMap((report) =>
      report.marks.map((mark) => [report.id, mark.id, mark.gpc, mark.outcome]),
    );
    const were = (dump.report_marks ?? []).filter((row) => !back.some(({ voids }) => voids === row.id));
    expect(were.length).toBeGreaterThan(50);
    expect(marks.sort()).toEqual(were.map((row) => [row.report_id, row.id, row.item, row.outcome]).sort());
  });
});
