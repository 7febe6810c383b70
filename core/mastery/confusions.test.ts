import { expect, test } from "vitest";
import { type GivenAnswer, inCheck, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import { confusionsIn, trendOf } from "./index.ts";

let serial = 0;
function on(day: string, outcome: Outcome, heard: string | null = null, item = "b=b"): GivenAnswer {
  const markedAt = `${day}T09:${String(serial++ % 60).padStart(2, "0")}:00.000Z`;
  const base = {
    id: `a${serial}`,
    ...inCheck("card", "k"),
    tags: [],
    childId: "c",
    item,
    ms: 900,
    pass: 1,
    markedAt,
    day,
    markedBy: "Mx T.",
  };
  return takesHeard(outcome) ? { ...base, outcome, heard, units: null } : { ...base, outcome };
}

/** A word misread in a text. */
function inText(item: string, heard: string, day: string, tags: GivenAnswer["tags"] = []): GivenAnswer {
  return {
    ...on(day, "wrong", heard, item),
    kind: "words",
    source: { kind: "reading", readingId: "r" },
    way: "text",
    tags,
  } as GivenAnswer;
}

test("confusions count as pairs, whichever way round", () => {
  const answers = [
    on("2026-11-01", "wrong", "d", "b=b"),
    on("2026-11-08", "wrong", "b", "d=d"),
    on("2026-11-08", "wrong", "i", "e=e"),
    on("2026-11-08", "wrong"),
  ];
  const written = { ...on("2026-11-08", "wrong", "ch", "sh=sh"), kind: "write" as const };
  expect(confusionsIn([...answers, written], { lexicon: toLexicon([]), today: "2026-11-20" })).toEqual([
    {
      asked: "b",
      given: "d",
      of: "sound",
      pair: "b/d",
      count: 2,
      lately: 2,
      before: 0,
      lastDay: "2026-11-08",
      items: ["b", "d"],
    },
    {
      asked: "sh",
      given: "ch",
      of: "spelling",
      pair: "ch/sh",
      count: 1,
      lately: 1,
      before: 0,
      lastDay: "2026-11-08",
      items: ["sh → sh"],
    },
    {
      asked: "e",
      given: "i",
      of: "sound",
      pair: "e/i",
      count: 1,
      lately: 1,
      before: 0,
      lastDay: "2026-11-08",
      items: ["e"],
    },
  ]);
});

test("what was taken for another in a text counts too", () => {
  const lexicon = toLexicon([readEntry("ch i ck"), readEntry("s a t")]);
  const misread = inText("ch i ck", "/sh i k/", "2026-11-09");
  expect(confusionsIn([misread], { lexicon, today: "2026-11-20" })).toEqual([
    {
      asked: "ch",
      given: "sh",
      of: "sound",
      pair: "ch/sh",
      count: 1,
      lately: 1,
      before: 0,
      lastDay: "2026-11-09",
      items: ["chick"],
    },
  ]);
});

test("whether a pair is getting rarer is told by the last four weeks and the four before", () => {
  const days = ["2026-10-01", "2026-10-05", "2026-10-12", "2026-11-18"];
  const answers = days.map((day) => on(day, "wrong", "d", "b=b"));
  const [pair] = confusionsIn(answers, { lexicon: toLexicon([]), today: "2026-11-20" });
  expect(pair).toMatchObject({ count: 4, lately: 1, before: 3, lastDay: "2026-11-18" });
  expect(trendOf({ lately: 1, before: 3 })).toBe("less");
  expect(trendOf({ lately: 2, before: 0 })).toBe("more");
  expect(trendOf({ lately: 1, before: 0 })).toBe("alike");
  expect(trendOf({ lately: 2, before: 2 })).toBe("alike");
});
