import { describe, expect, test } from "vitest";
import {
  addressOf,
  answer,
  day,
  getChild,
  getGaps,
  getSchool,
  gpc,
  instant,
  line,
  listChildren,
  note,
  orderContent,
} from "./index.ts";

const id = "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1001";
const good = (schema: { safeParse(value: unknown): { success: boolean } }, value: unknown) =>
  schema.safeParse(value).success;

describe("addressOf", () => {
  test("puts params into the path and the query behind it", () => {
    expect(addressOf(getSchool, undefined)).toBe("/api/school");
    expect(addressOf(getChild, { id })).toBe(`/api/children/${id}`);
    expect(addressOf(listChildren, undefined, { classId: id })).toBe(`/api/children?classId=${id}`);
  });
  test("leaves out what is not asked for, and escapes the rest", () => {
    expect(addressOf(getGaps, undefined, { classId: undefined })).toBe("/api/gaps");
    expect(addressOf(getChild, { id: "a/b?c" })).toBe("/api/children/a%2Fb%3Fc");
    expect(addressOf(getGaps, undefined, { classId: "a&b=c" })).toBe("/api/gaps?classId=a%26b%3Dc");
  });
});

describe("words on the wire", () => {
  test.each([
    ["ea=ee", true],
    ["a_e=ai", true],
    ["qu=kw", true],
    ["", false],
    ["ea", false],
    ["EA=ee", false],
    ["ea=ee ", false],
    ["a-e=ai", false],
  ])("%j as a correspondence: %s", (text, fits) => {
    expect(good(gpc, text)).toBe(fits);
  });
  test.each([
    ["2026-11-23", true],
    ["2026-02-30", false],
    ["26-11-23", false],
    ["1999-12-31", false],
    ["2100-01-01", false],
    ["2026-11-23T00:00:00Z", false],
  ])("%j as a day: %s", (text, fits) => {
    expect(good(day, text)).toBe(fits);
  });
  test.each([
    ["2026-11-23T09:15:00.000Z", true],
    ["2026-11-23T09:15:00Z", true],
    ["2026-11-23T09:15:00+01:00", false],
    ["2026-11-23", false],
    ["0001-01-01T00:00:00Z", false],
  ])("%j as an instant: %s", (text, fits) => {
    expect(good(instant, text)).toBe(fits);
  });
  test("a line is one line, trimmed, and holds what a name holds", () => {
    const name = line(60);
    expect(name.parse("  Zoë O’N. ")).toBe("Zoë O’N.");
    for (const text of ["李 M.", "Åsa-Lil", "D'Arcy", "🦆"]) expect(good(name, text)).toBe(true);
    for (const text of ["", "   ", "a\nb", "a\u0000", "\ud800", "x".repeat(61)]) expect(good(name, text)).toBe(false);
  });
  test("a note may be empty and have several lines", () => {
    for (const text of ["", "one\ntwo\tthree"]) expect(good(note(30), text)).toBe(true);
    for (const text of ["a\u0007", "\udfff", "x".repeat(31)]) expect(good(note(30), text)).toBe(false);
  });
  test("what is missing is asked for in plain words", () => {
    const { error } = orderContent.safeParse({ name: 5 });
    expect(error?.issues.map((issue) => `${issue.path.join(".")}: ${issue.message}`)).toEqual([
      "name: This should be a string.",
      "kind: Please fill this in.",
      "why: Please fill this in.",
      "steps: Please fill this in.",
    ]);
  });
});

describe("answers", () => {
  const mark = { id, childId: id, markedAt: "2026-11-23T09:15:00.000Z", day: "2026-11-23", markedBy: "Ms Harrow" };
  const source = { kind: "check", checkId: id };
  const given = { ...mark, kind: "card", item: "b=b", ms: 900, source, help: "none", way: "seen", pass: 1, tags: [] };
  test("a right answer has nothing heard, a wrong one may", () => {
    expect(answer.parse({ ...given, outcome: "right", heard: "d" })).toEqual({ ...given, outcome: "right" });
    expect(answer.parse({ ...given, outcome: "wrong", heard: "d", units: null })).toMatchObject({ heard: "d" });
    expect(answer.parse({ ...given, outcome: "wrong", heard: null, units: [0] })).toMatchObject({ heard: null });
    expect(good(answer, { ...given, outcome: "wrong" })).toBe(false);
  });
  test("a note has words, the end of a check says why", () => {
    expect(good(answer, { ...mark, outcome: "note", source, item: null, text: "rubbed both eyes" })).toBe(true);
    expect(good(answer, { ...mark, outcome: "note", source, item: null, text: "  " })).toBe(false);
    expect(good(answer, { ...mark, outcome: "stop", source, why: "tired" })).toBe(true);
    expect(good(answer, { ...mark, outcome: "stop", source, why: "bored" })).toBe(false);
  });
  test("undo names what it takes back", () => {
    expect(good(answer, { ...mark, outcome: "void", voids: id })).toBe(true);
    expect(good(answer, { ...mark, outcome: "void" })).toBe(false);
  });
  test.each([
    { ms: -1 },
    { ms: 1.5 },
    { ms: 4_000_000 },
    { pass: 0 },
    { outcome: "maybe" },
    { item: "" },
    { kind: "song" },
    { source: { kind: "dream" } },
    { source: { kind: "check" } },
    { help: "whispered" },
    { way: "sung" },
    { tags: ["odd"] },
    { markedBy: "" },
    { childId: "7" },
  ])("%j is refused", (change) => {
    expect(good(answer, { ...given, outcome: "right", ...change })).toBe(false);
  });
});
