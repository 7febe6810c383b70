import "fake-indexeddb/auto";
import { expect, test, vi } from "vitest";
import { draftOf, freshDraft, readDraft } from "./draft.ts";

vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => {} });

const childId = "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1001";
const text = { id: "mud", title: "Mud", body: "Mud on a mat." };
const fresh = () => freshDraft({ text, childId, group: [], fit: 0.9, markedBy: " " });

test("a fresh draft is one child's, or a group's", () => {
  expect(fresh()).toMatchObject({ ms: 0, finished: false, body: { how: "alone", markedBy: "Teacher", fit: 0.9 } });
  const group = [{ childId, name: "Ada M.", readingId: childId, came: true }];
  expect(freshDraft({ text, childId, group, fit: null, markedBy: "Ms Harrow" }).body).toMatchObject({
    how: "together",
    markedBy: "Ms Harrow",
  });
});

test("what the device kept comes back as it was", () => {
  const kept = { ...fresh(), ms: 4000, asksLast: true, finished: true };
  expect(readDraft(JSON.parse(JSON.stringify(kept)), fresh())).toEqual(kept);
});

test("loaded again while the clock ran, it stands at what it said last; a finished one keeps its time", () => {
  expect(readDraft({ ...fresh(), ms: 4000, tick: 9000 }, fresh())?.ms).toBe(9000);
  expect(readDraft({ ...fresh(), ms: 60_000, tick: 60_200, finished: true }, fresh())?.ms).toBe(60_000);
});

test("a draft of a version that knew less of a reading is read, with its marks", () => {
  const { turns: _, fit: __, how: ___, ...body } = { ...fresh().body, marks: [{ at: 1, kind: "told", heard: null }] };
  const old = { id: fresh().id, ms: 3000, finished: false, body };
  expect(readDraft(old, fresh())).toMatchObject({
    ms: 3000,
    limited: true,
    group: [],
    body: { how: "alone", turns: [], marks: [{ at: 1, kind: "told" }] },
  });
});

test.each([
  ["nothing of a reading", { id: childId, body: { text: 7 } }],
  ["a mark that is none", { ...fresh(), body: { ...fresh().body, marks: [{ at: -1, kind: "odd" }] } }],
  ["another thing altogether", "text"],
])("%s is not taken for one", (_, kept) => {
  expect(readDraft(kept, fresh())).toBeUndefined();
});

test("a kept reading opens finished, under its own id", () => {
  const { body } = fresh();
  const opened = draftOf({ id: childId, ...body, ms: 42_000 });
  expect(opened).toMatchObject({ id: childId, ms: 42_000, finished: true, asksLast: false, body: { textId: "mud" } });
});
