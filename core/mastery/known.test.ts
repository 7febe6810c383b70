import fc from "fast-check";
import { expect, test } from "vitest";
import { type Answer, dayAt, type GivenAnswer, inCheck, type Outcome, standing, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import {
  chanceOn,
  dayNumber,
  type Known,
  type KnownWanted,
  knownAfter,
  knownBy,
  type Lessons,
  leftOutOf,
  shipped,
  standingByDays,
} from "./index.ts";

const lexicon = toLexicon(["ch i ck", "ch i p", "s a t", "sh o p"].map(readEntry));
const words = { lexicon };
const lessons: Lessons = {
  taughtOn: (thing) => (thing === "d=d" ? dayNumber("2026-09-10") : dayNumber("2026-06-01")),
  sessions: (thing) =>
    thing === "ch=ch"
      ? [
          { day: dayNumber("2026-08-20"), taught: true },
          { day: dayNumber("2026-10-01"), taught: false },
        ]
      : [],
};
const heard: KnownWanted["standing"] = {
  slowAfterMs: 3000,
  // A reading of these tests says one word of it, which stands in its text's place.
  inText: (entry) => [
    {
      ...inCheck("words", "k"),
      id: `${entry.id} 1`,
      childId: "c",
      markedAt: entry.markedAt,
      day: entry.day,
      markedBy: "A",
      item: "ch i ck",
      ms: null,
      pass: 1,
      tags: [],
      source: { kind: "reading", readingId: "r" },
      way: "text",
      outcome: "wrong",
      heard: "/sh i k/",
      units: null,
    } as GivenAnswer,
  ],
};
const wanted: KnownWanted = { words, lessons, p: shipped, standing: heard };

const instant = fc
  .record({ day: fc.integer({ min: 0, max: 90 }), minute: fc.integer({ min: 0, max: 600 }) })
  .map(({ day, minute }) => new Date(Date.UTC(2026, 7, 1, 8, minute) + day * 86_400_000).toISOString());

const step = fc.record({
  what: fc.constantFrom("card", "card", "card", "text", "reading", "void"),
  markedAt: instant,
  late: fc.boolean(),
  item: fc.constantFrom("b=b", "d=d", "ch=ch"),
  outcome: fc.constantFrom<Outcome>("right", "right", "slow", "wrong", "none", "ownWay"),
  ms: fc.constantFrom(900, 4000, null),
  word: fc.constantFrom(["ch i ck", "/sh i k/"], ["ch i p", "/sh i p/"]),
  which: fc.nat(),
  batch: fc.boolean(),
});

/** A log as it grows: mostly in order of time, some late, some taken back; in batches of one and more. */
const growing = fc.array(step, { maxLength: 60 }).map((steps) => {
  const batches: Answer[][] = [[]];
  const all: Answer[] = [];
  const times = steps.map((one) => one.markedAt).sort();
  for (const [at, one] of steps.entries()) {
    const markedAt = one.late ? one.markedAt : (times[at] ?? one.markedAt);
    const mark = { id: `m${at}`, childId: "c", markedAt, day: dayAt("UTC", markedAt), markedBy: "A" };
    const given = { ...mark, ...inCheck("card", "k"), item: one.item, ms: one.ms, pass: 1, tags: [] };
    const entry = (
      one.what === "void"
        ? { ...mark, outcome: "void", voids: all[one.which % Math.max(1, all.length)]?.id ?? "none" }
        : one.what === "reading"
          ? { ...mark, outcome: "reading", source: { kind: "reading", readingId: "r" }, reading: {} }
          : one.what === "text"
            ? {
                ...given,
                kind: "words",
                source: { kind: "reading", readingId: "r" },
                way: "text",
                item: one.word[0],
                outcome: "wrong",
                heard: one.word[1],
                units: null,
              }
            : takesHeard(one.outcome)
              ? { ...given, outcome: one.outcome, heard: null, units: null }
              : { ...given, outcome: one.outcome }
    ) as Answer;
    all.push(entry);
    if (one.batch) batches.push([entry]);
    else batches.at(-1)?.push(entry);
  }
  return batches;
});

test("what is kept and carried on is what a replay of the whole log gives, on any day", () => {
  let [carried, replayed] = [0, 0];
  fc.assert(
    fc.property(growing, fc.integer({ min: 0, max: 200 }), (batches, later) => {
      let known: Known = knownBy([], wanted);
      const log: Answer[] = [];
      for (const batch of batches) {
        log.push(...batch);
        const whole = knownBy(standing(log, heard), wanted);
        const next = knownAfter(known, batch, wanted);
        if (next) carried++;
        else replayed++;
        // Stored and read back, as it is between two starts.
        known = JSON.parse(JSON.stringify(next ?? whole));
        // To the last digit, in whatever batches it came.
        expect(known).toEqual(JSON.parse(JSON.stringify(whole)));
        expect(knownBy([...standing(log, heard)].reverse(), wanted)).toEqual(whole);
        const today = dayAt("UTC", new Date(Date.UTC(2026, 9, 1) + later * 86_400_000));
        for (const gpc of ["b=b", "ch=ch"]) {
          expect(standingByDays(known.shown[gpc], today)).toEqual(standingByDays(whole.shown[gpc], today));
          expect(chanceOn(known.mind, `say ${gpc}`, today, wanted)).toEqual(
            chanceOn(whole.mind, `say ${gpc}`, today, wanted),
          );
        }
      }
    }),
    { seed: 12, numRuns: 600 },
  );
  // Both ways are taken, else this test says nothing.
  expect(carried).toBeGreaterThan(1000);
  expect(replayed).toBeGreaterThan(300);
});

test("in order of time nothing is replayed but for what was taken back", () => {
  const mark = (day: string, outcome: "right" | "none", id: string): Answer =>
    ({
      ...inCheck("card", "k"),
      id,
      childId: "c",
      markedAt: `${day}T09:00:00.000Z`,
      day,
      markedBy: "A",
      item: "b=b",
      ms: 900,
      pass: 1,
      tags: [],
      outcome,
    }) as Answer;
  const first = knownAfter(knownBy([], wanted), [mark("2026-11-01", "none", "1")], wanted);
  const second = first && knownAfter(first, [mark("2026-11-08", "right", "2")], wanted);
  expect(second?.shown["b=b"]).toMatchObject({ answers: 2, days: 2 });
  expect(second && knownAfter(second, [mark("2026-11-02", "right", "3")], wanted)).toBeNull();
  const undo = { id: "4", childId: "c", markedAt: "2026-11-09T09:00:00.000Z", day: "2026-11-09", markedBy: "A" };
  expect(second && knownAfter(second, [{ ...undo, outcome: "void", voids: "1" }], wanted)).toBeNull();
});

test("what cannot be read, and what was marked before the school's first day, is left out and told", () => {
  const card = (day: string, outcome: "right" | "none", item: string): GivenAnswer => ({
    ...inCheck("card", "k"),
    ...{ id: `${day} ${item}`, childId: "c", markedAt: `${day}T09:00:00.000Z`, day, markedBy: "A" },
    ...{ item, ms: null, pass: 1, tags: [], outcome },
  });
  const good = card("2026-10-05", "right", "s=s");
  const odd = card("2026-10-05", "none", "zq=x");
  const early = card("1970-01-01", "none", "s=s");
  const firstDay = "2025-09-01";
  const with3 = knownBy([good, odd, early], { ...wanted, firstDay });
  expect(with3.mind).toEqual(knownBy([good], wanted).mind);
  expect(leftOutOf([good, odd, early], firstDay).map(({ answer, why }) => [answer.id, why])).toEqual([
    [odd.id, "“zq=x” is no item of Spelling cards"],
    [early.id, "marked on a day before the school's first, 2025-09-01"],
  ]);
  expect(leftOutOf([good, early], "")).toEqual([]);
});
