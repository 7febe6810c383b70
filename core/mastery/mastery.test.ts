import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import {
  canRead,
  cellOf,
  childRow,
  codeOf,
  confusionsIn,
  missedInTexts,
  needFor,
  type State,
  shownBy,
  standingOn,
  whyState,
} from "./index.ts";

const TODAY = "2026-11-20";
let serial = 0;
const standingOf = (answers: readonly GivenAnswer[], today: string) => standingOn(shownBy(answers)["b=b"], today);
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
  const row = (answers: readonly GivenAnswer[], today = TODAY) =>
    childRow({ taught: new Set(["ch=ch"]), shown: shownBy(answers, { lexicon }) }, ["ch=ch", "i=i"], today);
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
  test("two different words make what was secure unsteady, and say so; it can still be read", () => {
    const [ch, i] = row([...steady, chick, chip]);
    expect(ch).toMatchObject({ state: "unsteady", last: "right", inTexts: ["chick", "chip"] });
    expect(i?.state).toBe("not taught");
    if (!ch) throw new Error("no standing");
    expect(whyState(ch)).toBe("Right on 2026-11-08. Misread in texts since: chick, chip.");
    expect(canRead(ch)).toBe(true);
    expect(needFor(ch)).toBe(0.4);
    expect(cellOf(codeOf(ch))).toEqual({ state: "unsteady", need: 0.4, canRead: true });
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
  test("a spelling that was never asked alone comes onto the map, and is not taken for readable", () => {
    const [ch] = row([chick, chip]);
    if (!ch) throw new Error("no standing");
    expect(ch).toMatchObject({ state: "unsteady", reason: "misread, never asked", answers: 0 });
    expect(whyState(ch)).toBe("Not asked on its own yet. Misread in texts since: chick, chip.");
    expect(canRead(ch)).toBe(false);
    expect(cellOf(codeOf(ch))).toEqual({ state: "unsteady", need: needFor(ch), canRead: false });
  });
  test("a gap stays a gap", () => {
    const missed = [on("2026-11-01", "none", null, "ch=ch"), on("2026-11-08", "none", null, "ch=ch")];
    expect(row([...missed, chick, chip])[0]?.state).toBe("gap");
  });
});

describe("the rule", () => {
  test.each<[string, State, [string, Outcome][]]>([
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
    expect(whyState(standing)).toMatch(/\.$/);
  });
  test("fades on the day after eight weeks, not before", () => {
    const days = [on("2026-09-20", "right"), on("2026-09-25", "right")];
    expect(standingOf(days, "2026-11-20").state).toBe("secure");
    expect(standingOf(days, "2026-11-21")).toMatchObject({ state: "unsteady", reason: "not asked for long" });
  });
  test("need follows the last answer", () => {
    const need = (...days: [string, Outcome][]) =>
      needFor(
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
    expect(canRead(standingOf([on("2026-11-08", "slow")], TODAY))).toBe(true);
    expect(canRead(standingOf([], TODAY))).toBe(false);
  });
});

test("a child's row: taught or not, and a gap shows even before teaching", () => {
  const answers = [on("2026-11-08", "wrong", "d", "b=b"), on("2026-11-08", "wrong", "i", "e=e")];
  const row = childRow(
    { taught: new Set(["b=b", "m=m"]), shown: shownBy(answers) },
    ["b=b", "m=m", "e=e", "sh=sh"],
    TODAY,
  );
  expect(row.map((standing) => standing.state)).toEqual(["gap", "not checked", "gap", "not taught"]);
});

test("confusions count as pairs, whichever way round", () => {
  const answers = [
    on("2026-11-01", "wrong", "d", "b=b"),
    on("2026-11-08", "wrong", "b", "d=d"),
    on("2026-11-08", "wrong", "i", "e=e"),
    on("2026-11-08", "wrong"),
  ];
  const written = { ...on("2026-11-08", "wrong", "ch", "sh=sh"), kind: "write" as const };
  expect(confusionsIn([...answers, written], { lexicon: toLexicon([]) })).toEqual([
    { asked: "b", given: "d", of: "sound", pair: "b/d", count: 2, lastDay: "2026-11-08", items: ["b", "d"] },
    { asked: "sh", given: "ch", of: "spelling", pair: "ch/sh", count: 1, lastDay: "2026-11-08", items: ["sh → sh"] },
    { asked: "e", given: "i", of: "sound", pair: "e/i", count: 1, lastDay: "2026-11-08", items: ["e"] },
  ]);
});

test("what was taken for another in a text counts too", () => {
  const lexicon = toLexicon([readEntry("ch i ck"), readEntry("s a t")]);
  const misread = inText("ch i ck", "/sh i k/", "2026-11-09");
  expect(confusionsIn([misread], { lexicon })).toEqual([
    { asked: "ch", given: "sh", of: "sound", pair: "ch/sh", count: 1, lastDay: "2026-11-09", items: ["chick"] },
  ]);
});

test("what is told of each state, word by word", () => {
  const told = (standing: ReturnType<typeof standingOf>) => whyState(standing, (day) => `the ${day.slice(8)}th`);
  const after = (...history: [string, Outcome][]) =>
    standingOf(
      history.map(([day, outcome]) => on(day, outcome)),
      TODAY,
    );
  expect(told({ state: "not taught", answers: 0 })).toBe("Not taught yet in this class.");
  expect(told({ state: "not checked", answers: 0 })).toBe("Taught, and not checked yet.");
  expect(told(after(["2026-11-17", "right"], ["2026-11-18", "ownWay"]))).toBe(
    "Right at once on the last 2 days it was asked, last on the 18th.",
  );
  expect(told(after(["2026-11-18", "right"]))).toBe(
    "Right at once on the 18th, the only day it was asked; a second day in a row makes it secure.",
  );
  expect(told(after(["2026-11-18", "none"]))).toBe("Missed on the 18th, the first time that it was asked.");
  expect(told(after(["2026-11-17", "slow"], ["2026-11-18", "none"]))).toBe(
    "Missed on the 18th, and not right at once the time before.",
  );
  expect(told(after(["2026-11-17", "right"], ["2026-11-18", "none"]))).toBe(
    "Missed on the 18th, though right at once the time before.",
  );
  expect(told(after(["2026-11-18", "slow"]))).toBe("Right but slow on the 18th.");
  expect(told(after(["2026-11-17", "none"], ["2026-11-18", "right"]))).toBe(
    "Right at once on the 18th; a second day in a row makes it secure.",
  );
  expect(told(after(["2026-07-17", "right"], ["2026-07-18", "right"]))).toBe(
    "Was secure, and has not been asked for more than 56 days (last on the 18th).",
  );
  const words = ["mud", "bug", "tub", "cub", "rub"].map((word) => ({ day: "2026-11-19", word }));
  const shown = {
    answers: 2,
    days: 2,
    lastDays: shownBy([on("2026-11-17", "right"), on("2026-11-18", "right")])["b=b"]?.lastDays ?? [],
    inTexts: words,
  };
  expect(told(standingOn(shown, TODAY))).toBe("Right on the 18th. Misread in texts since: mud, bug, tub, cub.");
  expect(told(standingOn({ answers: 0, days: 0, lastDays: [], inTexts: words }, TODAY))).toBe(
    "Not asked on its own yet. Misread in texts since: mud, bug, tub, cub.",
  );
});

test("a misread in a text counts for 56 days, and on the 56th", () => {
  const two = (day: string) => ["mud", "bug"].map((word) => ({ day, word }));
  const state = (day: string) => standingOn({ answers: 0, days: 0, lastDays: [], inTexts: two(day) }, TODAY).state;
  expect(state("2026-09-25")).toBe("unsteady");
  expect(state("2026-09-24")).toBe("not checked");
});

test("the letter of a cell says the same as its standing", () => {
  const histories: Outcome[][] = [
    [],
    ["right"],
    ["right", "right"],
    ["right", "wrong"],
    ["none"],
    ["slow"],
    ["right", "slow"],
  ];
  for (const history of histories) {
    const standing = standingOf(
      history.map((outcome, at) => on(`2026-11-0${at + 1}`, outcome)),
      TODAY,
    );
    expect(cellOf(codeOf(standing))).toEqual({
      state: standing.state,
      need: needFor(standing),
      canRead: canRead(standing),
    });
  }
  const faded = standingOf([on("2026-08-01", "right"), on("2026-08-02", "right")], TODAY);
  expect(cellOf(codeOf(faded))).toEqual({ state: "unsteady", need: 0.2, canRead: true });
});
