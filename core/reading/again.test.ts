import { describe, expect, test } from "vitest";
import { type Reading, type ReadingMark, wonSince } from "./index.ts";

const text = "Tom sat. The frog sat on Tom. A log fell.";
const wrong = (...places: number[]): ReadingMark[] => places.map((at) => ({ at, kind: "told", heard: null }));
const reading = (change: Partial<Reading>): Reading => ({ text, marks: [], stoppedAt: null, ms: 20_000, ...change });

describe("read again", () => {
  test("says what was won in rate and accuracy, which words come right now and which stop still", () => {
    const won = wonSince(reading({ marks: wrong(3, 8), ms: 30_000 }), reading({ marks: wrong(8, 9), ms: 15_000 }));
    expect(won.perMinute).toBeCloseTo(16);
    expect(won.accuracy).toBeCloseTo(0);
    expect(won.mended).toEqual(["frog"]);
    expect(won.still).toEqual(["log"]);
  });
  test("a word that comes right in one place and stops in another stops still", () => {
    expect(wonSince(reading({ marks: wrong(1, 4) }), reading({ marks: wrong(4) }))).toMatchObject({
      mended: [],
      still: ["sat"],
    });
  });
  test("a word that was not reached this time is neither won nor lost", () => {
    expect(wonSince(reading({ marks: wrong(9) }), reading({ stoppedAt: 4 }))).toMatchObject({
      mended: [],
      still: [],
    });
  });
  test("without a time there is no rate to compare; without a word no accuracy", () => {
    expect(wonSince(reading({ ms: null }), reading({}))).toMatchObject({ perMinute: null, accuracy: 0 });
    expect(wonSince(reading({ text: "" }), reading({}))).toMatchObject({ accuracy: null });
  });
  test("a text that was changed in between is compared word by word", () => {
    const now = reading({ text: "A frog sat. The log fell on Tom.", marks: wrong(4) });
    expect(wonSince(reading({ marks: wrong(3, 8) }), now)).toMatchObject({ mended: ["frog"], still: ["log"] });
  });
});
