import { describe, expect, test } from "vitest";
import { nextText } from "./index.ts";

const text = (id: string, step: number | null, share = 1) => ({
  id,
  step,
  fit: { share, words: 100, inTheWay: [], untaught: [], practised: [], why: "" },
});
const shelf = [
  text("mud", 3),
  text("fog", 5),
  text("rain", 8),
  text("snow", 9),
  text("frost", 12, 0.92),
  text("hail", 14, 0.6),
  text("sleet", null, 1),
];
const given = (id: string, hardness: "too hard" | "teaching" | "easy" | null, times = 1, read: string[] = [id]) =>
  nextText({ id, hardness, times }, shelf, new Set(read))?.text.id;

describe("the text for tomorrow", () => {
  test.each<[string, string | undefined, ReturnType<typeof given>]>([
    ["too hard: the nearest easier one", given("rain", "too hard"), "fog"],
    ["too hard, with the easier one read: the one before", given("rain", "too hard", 1, ["rain", "fog"]), "mud"],
    ["too hard, and nothing is easier", given("mud", "too hard"), undefined],
    ["right for teaching: again", given("rain", "teaching"), "rain"],
    ["right for teaching, for the third time: further on", given("rain", "teaching", 3), "snow"],
    ["easy: the nearest further on", given("fog", "easy"), "rain"],
    [
      "easy, and further on needs help: the farthest that can be read alone and was not read",
      given("snow", "easy"),
      "rain",
    ],
    [
      "easy, all that can be read alone were read: with help",
      given("snow", "easy", 1, ["mud", "fog", "rain", "snow"]),
      "frost",
    ],
    ["nothing is left", given("frost", "easy", 1, ["mud", "fog", "rain", "snow", "frost"]), undefined],
    [
      "an easy text that is no longer on the shelf: the farthest that can be read alone",
      given("gone", "easy"),
      "snow",
    ],
  ])("%s", (_, proposed, wanted) => {
    expect(proposed).toBe(wanted);
  });
});
