import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import { type ByDays, needByDays, standingByDays } from "./by-days.ts";
import { shownBy } from "./shown.ts";
import { missedInTexts } from "./texts.ts";

const TODAY = "2026-11-20";
let serial = 0;
const standingOf = (answers: readonly GivenAnswer[], today: string) => standingByDays(shownBy(answers)["b=b"], today);
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

describe("what failed in texts", () => {
  const lexicon = toLexicon(["ch i ck", "ch i p", "ch o p", "s a t"].map(readEntry));
  const chick = inText("ch i ck", "/sh i k/", "2026-11-12");
  const chip = inText("ch i p", "/sh i p/", "2026-11-13");
  const steady = [on("2026-11-01", "right", null, "ch=ch"), on("2026-11-08", "right", null, "ch=ch")];
  const row = (answers: readonly GivenAnswer[], today = TODAY) => {
    const shown = shownBy(answers, { lexicon });
    return ["ch=ch", "i=i"].map((gpc) => standingByDays(shown[gpc], today));
  };
  test("is named by its spelling, with the words; what was put right and what was said on cards is not", () => {
    const mended = inText("ch o p", "/sh o p/", "2026-11-13", ["putRight"]);
    const card = { ...inText("ch o p", "/sh o p/", "2026-11-13"), ...inCheck("words", "k") };
    const found = missedInTexts([chick, mended, card, chip], { lexicon });
    expect([...found]).toEqual([
      [
        "ch=ch",
        [
          { day: "2026-11-12", word: "chick" },
          { day: "2026-11-13", word: "chip" },
        ],
      ],
    ]);
  });
  test("two different words make what was secure unsteady, and say so; what it needs is little", () => {
    const [ch, i] = row([...steady, chick, chip]);
    expect(ch).toMatchObject({ state: "unsteady", last: "right", inTexts: ["chick", "chip"] });
    expect(i?.state).toBe("not checked");
    if (!ch) throw new Error("no standing");
    expect(needByDays(ch)).toBe(0.4);
  });
  test.each<[string, readonly GivenAnswer[], string]>([
    ["one word alone, however often", [...steady, chick, inText("ch i ck", "/sh i k/", "2026-11-14")], TODAY],
    [
      "words from before the last check",
      [chick, chip, on("2026-11-14", "right", null, "ch=ch"), on("2026-11-15", "right", null, "ch=ch")],
      TODAY,
    ],
    ["words of long ago", [...steady, chick, chip], "2027-02-20"],
  ])("%s changes nothing", (_, answers, today) => {
    expect(row(answers, today)[0]).toEqual(
      row(
        answers.filter((answer) => answer.kind === "card"),
        today,
      )[0],
    );
  });
  test("a spelling that was never asked alone comes onto the map", () => {
    const [ch] = row([chick, chip]);
    if (!ch) throw new Error("no standing");
    expect(ch).toMatchObject({ state: "unsteady", reason: "misread, never asked", answers: 0 });
  });
  test("a gap stays a gap", () => {
    const missed = [on("2026-11-01", "none", null, "ch=ch"), on("2026-11-08", "none", null, "ch=ch")];
    expect(row([...missed, chick, chip])[0]?.state).toBe("gap");
  });
});

describe("the rule", () => {
  test.each<[string, ByDays["state"], [string, Outcome][]]>([
    ["never asked", "not checked", []],
    [
      "right on two days",
      "secure",
      [
        ["2026-11-01", "right"],
        ["2026-11-08", "ownWay"],
      ],
    ],
    [
      "right on one day, however often",
      "not sure yet",
      [
        ["2026-11-08", "right"],
        ["2026-11-08", "right"],
      ],
    ],
    [
      "slow on the last day",
      "unsteady",
      [
        ["2026-11-01", "right"],
        ["2026-11-08", "slow"],
      ],
    ],
    ["missed once", "gap", [["2026-11-08", "none"]]],
    [
      "missed twice",
      "gap",
      [
        ["2026-11-01", "wrong"],
        ["2026-11-08", "none"],
      ],
    ],
    [
      "missed after slow",
      "gap",
      [
        ["2026-11-01", "slow"],
        ["2026-11-08", "wrong"],
      ],
    ],
    [
      "missed after right at once",
      "unsteady",
      [
        ["2026-11-01", "right"],
        ["2026-11-08", "wrong"],
      ],
    ],
    [
      "missed first, right later the same day",
      "gap",
      [
        ["2026-11-08", "wrong"],
        ["2026-11-08", "right"],
      ],
    ],
    [
      "secure long ago",
      "unsteady",
      [
        ["2026-08-01", "right"],
        ["2026-08-08", "right"],
      ],
    ],
    [
      "won back",
      "secure",
      [
        ["2026-11-01", "wrong"],
        ["2026-11-08", "right"],
        ["2026-11-15", "right"],
      ],
    ],
  ])("%s: %s", (_, state, days) => {
    const standing = standingOf(
      days.map(([day, outcome]) => on(day, outcome)),
      TODAY,
    );
    expect(standing.state).toBe(state);
  });
  test("fades on the day after eight weeks, not before", () => {
    const days = [on("2026-09-20", "right"), on("2026-09-25", "right")];
    expect(standingOf(days, "2026-11-20").state).toBe("secure");
    expect(standingOf(days, "2026-11-21")).toMatchObject({ state: "unsteady", reason: "not asked for long" });
  });
  test("need follows the last answer", () => {
    const need = (...days: [string, Outcome][]) =>
      needByDays(
        standingOf(
          days.map(([day, outcome]) => on(day, outcome)),
          TODAY,
        ),
      );
    expect(need(["2026-11-08", "wrong"])).toBe(1);
    expect(need(["2026-11-01", "right"], ["2026-11-08", "wrong"])).toBe(0.7);
    expect(need(["2026-11-08", "slow"])).toBe(0.4);
    expect(need(["2026-11-08", "right"])).toBe(0);
    expect(need()).toBe(0);
  });
});

test("a misread in a text counts for 56 days, and on the 56th", () => {
  const two = (day: string) => ["mud", "bug"].map((word) => ({ day, word }));
  const state = (day: string) =>
    standingByDays({ answers: 0, days: 0, lastDays: [], last: [], inCleanPass: false, inTexts: two(day) }, TODAY)
      .state;
  expect(state("2026-09-25")).toBe("unsteady");
  expect(state("2026-09-24")).toBe("not checked");
});
