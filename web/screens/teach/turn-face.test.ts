import { expect, test } from "vitest";
import { readEntry, type Unit } from "#core/words";
import { boardOfTurn, faceOfBoard, faceOfTurn, lineWords, type Support } from "./turn-face.ts";

const units = (entry: string) => readEntry(entry).units;
const face = (kind: "readWords" | "chain" | "hear" | "writeWords" | "lastLook" | "yesNo", change: object = {}) =>
  faceOfTurn({
    ...{ kind, item: "ship", units: units("sh i p"), before: undefined, support: "marks" as Support },
    ...{ sounds: 1, apart: 1, open: false },
    ...change,
  });

test("a word is plain, with its marks, sound by sound, or apart", () => {
  expect(face("readWords", { support: "plain" })).toEqual({ show: "text", text: "ship", size: "word" });
  const looks = (change: object) => {
    const shown = face("readWords", change);
    return shown.show === "within" ? shown.letters.map(({ text, as }) => `${text} ${as}`) : [];
  };
  expect(looks({})).toEqual(["sh asked", "i asked", "p asked"]);
  expect(looks({ support: "byUnit" })).toEqual(["sh asked", "i hidden", "p hidden"]);
  expect(looks({ support: "byUnit", sounds: 3 })).toEqual(looks({}));
  expect(face("readWords", { support: "apart", apart: 0.5 })).toMatchObject({ apart: 0.5 });
  expect(face("readWords", { support: "apart", apart: 0 })).toHaveProperty("apart", 0);
  // A split spelling: its letters are joined, what stands between has its own mark.
  expect(looks({ item: "cake", units: units("c a_e k") })).toEqual(["c asked", "a open", "k underAsked", "e close"]);
  expect(looks({ item: "cake", units: units("c a_e k"), support: "byUnit" })).toEqual([
    ...["c asked", "a hidden", "k hidden", "e hidden"],
  ]);
});

test("of a chain the sound that changed is marked, once it is shown", () => {
  const shown = face("chain", { before: units("sh o p"), open: true });
  expect(shown.show === "within" && shown.letters.map(({ as }) => as)).toEqual(["other", "asked", "other"]);
  expect(face("chain", { before: units("sh o p") })).toEqual({ show: "nothing" });
});

test("what is heard or written is out of sight until it is shown; answers and brackets never are in it", () => {
  expect(face("hear", { open: true })).toMatchObject({ show: "choices", look: "places" });
  expect(JSON.stringify(face("hear", { item: "fish (at the end)" }))).not.toMatch(/"choice":|true/);
  expect(face("writeWords")).toEqual({ show: "nothing" });
  expect(face("writeWords", { open: true })).toMatchObject({ show: "within", text: "ship" });
  expect(face("yesNo", { item: "Can a cat sleep? (yes: it can)", units: undefined })).toMatchObject({
    text: "Can a cat sleep?",
  });
  expect(face("lastLook", { item: "a_e=ai", units: undefined })).toEqual({
    show: "text",
    text: "a–e",
    size: "letters",
  });
});

test("a spelling hides among others; a question can be answered", () => {
  const spots = ["ai", "ay", "ee"];
  expect(face("lastLook", { item: "ay=ai", units: undefined, spots })).toEqual({
    ...{ show: "choices", item: "ay=ai", choices: spots },
  });
  expect(face("yesNo", { item: "Can a cat sleep? (yes: it can)", units: undefined })).toMatchObject({
    answers: ["yes", "no"],
  });
});

test("a board shows whether tiles lie right only once it is looked at; it never says what belongs where", () => {
  const part = { kind: "build" as const, items: ["ship"], minutes: 2, how: "" };
  const turns = [{ item: "ship", childId: null }];
  const known = ["t=t", "ch=ch"];
  const board = boardOfTurn({ part, turns, turn: 0, unitsOf: () => units("sh i p"), known, seed: 1 });
  if (!board) throw new Error("no board");
  const sh = board.tiles.indexOf("sh");
  const laid = board.first.with(sh, 1);
  const unseen = faceOfBoard(board, { item: "0 0", laid, isLookedAt: false });
  expect(unseen).toMatchObject({ show: "board", look: "boxes", at: laid });
  expect(unseen.show === "board" && unseen.tiles.every(({ as }) => as === null)).toBe(true);
  expect(Object.keys(unseen)).not.toContain("wants");
  const seen = faceOfBoard(board, { item: "0 0", laid, isLookedAt: true });
  expect(seen.show === "board" && seen.tiles[sh]).toEqual({ text: "sh", as: "wrong" });
});

test("a sort has its columns; a word that the list does not know, and any other part, has no board", () => {
  const sort = { kind: "sort" as const, items: ["ai: rain", "ay: day"], minutes: 2, how: "" };
  const turns = ["rain", "day"].map((item) => ({ item, childId: null }));
  const wanted = { turns, turn: 1, unitsOf: () => undefined, known: [], seed: 1 };
  expect(boardOfTurn({ ...wanted, part: sort })?.places).toEqual([
    { name: "ai", has: ["rain"] },
    { name: "ay", has: [] },
  ]);
  expect(boardOfTurn({ ...wanted, part: { ...sort, kind: "build" } })).toBeUndefined();
  expect(boardOfTurn({ ...wanted, part: { ...sort, kind: "readWords" } })).toBeUndefined();
  expect(boardOfTurn({ ...wanted, turn: 7, part: sort })).toBeUndefined();
});

test("a sentence stands with marks under its sounds, all at once or one after the other, in its own letters", () => {
  const known: Record<string, readonly Unit[]> = { sam: units("s a m"), made: units("m a_e d"), it: units("i t") };
  const item = "Sam made it.";
  const line = lineWords(item, (word) => known[word]);
  const looks = (change: object) => {
    const shown = face("lastLook", { kind: "sentence", item, units: undefined, open: true, line, ...change });
    return shown.show === "within" ? shown.letters : [];
  };
  const all = looks({ support: "marks" });
  expect(all.map(({ text }) => text).join("")).toBe(item);
  expect(all.filter(({ as }) => as === "hidden")).toEqual([]);
  expect(all[0]).toEqual({ text: "S", as: "asked" });
  const some = looks({ support: "byUnit", sounds: 4 }).filter(({ as }) => as !== "hidden");
  expect(some.map(({ text }) => text).join("")).toBe("Sam m");
  expect(
    face("lastLook", { kind: "sentence", item, units: undefined, open: true, line, support: "plain" }),
  ).toMatchObject({
    ...{ show: "passage", text: item },
  });
  expect(face("lastLook", { kind: "sentence", item, units: undefined, line })).toEqual({ show: "nothing" });
});
