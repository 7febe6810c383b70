import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { readLexicon } from "#core/words";
import { materialsOf, type SessionPart } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const part = (kind: SessionPart["kind"], items: readonly string[], each?: SessionPart["each"]): SessionPart => ({
  ...{ kind, items, minutes: 2, how: "", ...(each ? { each } : {}) },
});

test("what is laid out for a session: each thing once, tiles as often as one word has them, no answers", () => {
  const plan = {
    parts: [
      part("revisit", ["s=s"], [{ childId: "ada", items: ["s=s", "ch=ch"] }]),
      part("hear", ["ship (at the start)"]),
      part("teach", ["ee=ee"]),
      part("readWords", ["feet", "see"]),
      part("readAgain", ["see", "feet"]),
      part("build", ["tent", "settee"]),
      part("sort", ["ee: tree, week", "ea: tea"]),
      part("pairs", ["sheep / ship"]),
      part("writeWords", ["feel", "keep", "seed"]),
      part("sentence", ["I can see a bee."]),
      part("yesNo", ["Can a cat sleep? (yes: it can)"]),
      part("phrase", ["a bee on a flower (bee)"]),
      part("text", ["Mud on the lock"]),
      part("lastLook", ["ee=ee"]),
    ],
  };
  const told = materialsOf([plan], lexicon);
  expect(told).toMatchObject({
    cards: ["s=s", "ee=ee", "ch=ch"],
    words: ["feet", "see", "tree", "week", "tea", "sheep", "ship"],
    marked: ["feet", "see"],
    pictures: ["bee"],
    lines: ["a bee on a flower", "Can a cat sleep?"],
    writes: { words: 3, sentences: 1 },
    mats: [["ee", "ea"]],
    texts: ["Mud on the lock"],
  });
  expect(told.tiles).toEqual([
    ...[
      { grapheme: "e", count: 1 },
      { grapheme: "ee", count: 1 },
      { grapheme: "n", count: 1 },
    ],
    ...[
      { grapheme: "s", count: 1 },
      { grapheme: "t", count: 2 },
      { grapheme: "tt", count: 1 },
    ],
  ]);
  expect(told.boxes).toBe(4);
  // A week is laid out once; each session has sheets of its own.
  expect(materialsOf([plan, plan], lexicon)).toEqual({ ...told, mats: [...told.mats, ...told.mats] });
  expect(materialsOf([], lexicon)).toEqual({
    ...{ cards: [], words: [], marked: [], pictures: [], lines: [], tiles: [], boxes: 0, mats: [], texts: [] },
    writes: { words: 0, sentences: 0 },
  });
});
