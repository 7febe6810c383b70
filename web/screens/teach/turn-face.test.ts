import { expect, test } from "vitest";
import { readEntry } from "#core/words";
import { faceOfTurn, type Support } from "./turn-face.ts";

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
  expect(face("readWords", { support: "apart", apart: 0 })).not.toHaveProperty("apart");
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
  expect(face("hear", { open: true })).toEqual({ show: "nothing" });
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
