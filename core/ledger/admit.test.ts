import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type AdmitWanted, type Answer, admit, checkOf, endsIn, inCheck, inSession, type Stored } from "./index.ts";

const stored: Stored = {
  children: new Set(["ada", "ben"]),
  checks: new Map([
    [
      "cards",
      { childId: "ada", kind: "card", items: new Set(["b=b", "ea=ee"]), startedAt: "2026-11-20T08:00:00.000Z" },
    ],
  ]),
  readings: new Map([["tins", "ben"]]),
  sessions: new Map([["monday", new Set(["ben"])]]),
  entries: new Map(),
  takenBack: new Set(),
  ended: new Set(),
};
const wanted: AdmitWanted = { dayOf: () => "2026-11-20", isFuture: (instant) => instant > "2026-11-21" };
const base = { childId: "ada", markedAt: "2026-11-20T08:10:00.000Z", day: "2000-01-01", markedBy: "Ms Harrow" };
const given = (id: string, change: object = {}) =>
  ({
    ...base,
    id,
    ...inCheck("card", "cards"),
    item: "b=b",
    outcome: "right",
    ms: 900,
    pass: 1,
    tags: [],
    ...change,
  }) as Answer;
const undo = (id: string, voids: string, change: object = {}) =>
  ({ ...base, id, outcome: "void", voids, ...change }) as Answer;
const end = (id: string, change: object = {}) =>
  ({ ...base, id, outcome: "stop", source: { kind: "check", checkId: "cards" }, why: "done", ...change }) as Answer;
const fatesOf = (marks: readonly Answer[], of = stored) =>
  admit(marks, of, wanted).map((fate) => (fate.fate === "refused" ? fate.says : fate.fate));

describe("what may enter the ledger", () => {
  test("is said mark by mark, in their order; a kept one has the day of the school", () => {
    const fates = admit([given("1"), given("2", { item: "th=th" }), given("3")], stored, wanted);
    expect(fates.map(({ fate }) => fate)).toEqual(["kept", "refused", "kept"]);
    expect(fates[0]).toMatchObject({ entry: { id: "1", day: "2026-11-20" } });
  });
  test("a mark that is there is there, whatever its day and the order of its fields; with other content it is refused", () => {
    const there = { ...stored, entries: new Map([["1", given("1", { day: "2026-11-20" })]]) };
    const turned = Object.fromEntries(Object.entries(given("1")).reverse()) as unknown as Answer;
    expect(fatesOf([given("1"), turned, given("1", { outcome: "slow" })], there)).toEqual([
      "there",
      "there",
      "Another mark has this id.",
    ]);
    expect(fatesOf([given("7"), given("7"), given("7", { ms: 901 })])).toEqual([
      "kept",
      "there",
      "Another mark has this id.",
    ]);
  });
  test.each<[string, Answer, string]>([
    ["an unknown child", given("1", { childId: "zed" }), "This child is not here any more."],
    [
      "a time to come",
      given("1", { markedAt: "2026-11-22T08:00:00.000Z" }),
      "The time lies ahead of the server's clock.",
    ],
    ["an unknown check", given("1", inCheck("card", "none")), "The check is not here any more."],
    ["another child's check", given("1", { childId: "ben" }), "The check is another child's."],
    [
      "a time before the check",
      given("1", { markedAt: "2026-11-20T07:00:00.000Z" }),
      "The time is before the check began.",
    ],
    ["another kind", given("1", { kind: "write" }), "The check is one of another kind: Spelling cards."],
    [
      "an unknown reading",
      given("1", { source: { kind: "reading", readingId: "x" } }),
      "The reading is not here any more.",
    ],
    [
      "another child's reading",
      given("1", { source: { kind: "reading", readingId: "tins" } }),
      "The reading is another child's.",
    ],
    ["an unknown session", given("1", inSession("card", "x", null)), "The session is not here any more."],
    [
      "a session without a place",
      given("1", inSession("card", "monday", null)),
      "This child has no place in the session.",
    ],
    ["an undo of nothing", undo("1", "x"), "The mark to take back is not in the log."],
  ])("refuses %s, with the reason", (_, mark, says) => {
    expect(fatesOf([mark])).toEqual([says]);
  });
  test("takes what readings and sessions say of their children", () => {
    const ben = { childId: "ben" };
    expect(
      fatesOf([
        given("1", { ...ben, source: { kind: "reading", readingId: "tins" } }),
        given("2", { ...ben, ...inSession("card", "monday", "report") }),
      ]),
    ).toEqual(["kept", "kept"]);
  });
  test("a mark can be taken back once, by an undo of its child, also within one batch", () => {
    expect(
      fatesOf([given("1"), undo("2", "1", { childId: "ben" }), undo("3", "1"), undo("4", "1"), undo("5", "3")]),
    ).toEqual([
      "kept",
      "The mark to take back is another child's.",
      "kept",
      "This mark has been taken back already.",
      "The mark to take back is not in the log.",
    ]);
  });
  test("of two ends of a check the first to come counts; taken back, the check can end again", () => {
    const earlier = { markedAt: "2026-11-20T08:05:00.000Z" };
    const marks = [end("1"), end("2", earlier), undo("3", "1"), end("4")];
    expect(fatesOf(marks)).toEqual(["kept", "there", "kept", "kept"]);
    expect(fatesOf([end("9")], { ...stored, ended: new Set(["cards"]) })).toEqual(["there"]);
    const kept = admit(marks, stored, wanted).flatMap((fate) => (fate.fate === "kept" ? [fate.entry] : []));
    expect([...endsIn(kept, new Map())]).toEqual([["cards", expect.objectContaining({ id: "4" })]]);
    expect([...endsIn(kept.slice(0, 2), new Map())]).toEqual([["cards", null]]);
  });
  test("sent again in any cut and order, everything is there, and nothing enters twice", () => {
    const marks = [given("1"), given("2", { item: "ea=ee" }), undo("3", "1"), end("4"), given("5", { pass: 2 })];
    const first = admit(marks, stored, wanted);
    const entries = new Map(first.flatMap((fate) => (fate.fate === "kept" ? [[fate.entry.id, fate.entry]] : [])));
    const after = { ...stored, entries, takenBack: new Set(["1"]), ended: new Set(["cards"]) };
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...marks), { maxLength: 12 }), (again) => {
        expect(fatesOf(again, after)).toEqual(again.map(() => "there"));
      }),
    );
  });
});

test("an entry knows its check when it has one", () => {
  expect([
    checkOf(given("1")),
    checkOf(given("1", inSession("card", "monday", null))),
    checkOf(undo("1", "2")),
  ]).toEqual(["cards", null, null]);
});
