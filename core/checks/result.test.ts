import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, type KindId, type Outcome, takesHeard } from "#core/ledger";
import { readLexicon } from "#core/words";
import {
  careWords,
  minutesFor,
  plainSetup,
  planCheck,
  resultInWords,
  sectionOf,
  shippedPresets,
  showMixed,
  summarise,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
let serial = 0;
function on(kind: KindId, item: string, outcome: Outcome, heard?: string, more: Partial<GivenAnswer> = {}) {
  return {
    id: `a${serial++}`,
    ...inCheck(kind, "k"),
    item,
    childId: "c",
    pass: 1,
    ms: 1000,
    tags: [],
    markedAt: "2026-09-07T09:00:00.000Z",
    day: "2026-09-07",
    markedBy: "Mx T.",
    outcome,
    ...(takesHeard(outcome) ? { heard: heard ?? null, units: null } : {}),
    ...more,
  } as GivenAnswer;
}
const sum = (kind: KindId, answers: readonly GivenAnswer[], before: Record<string, Outcome> = {}) =>
  summarise({ kind, answers, before: new Map(Object.entries(before)), lexicon, setup: plainSetup(kind) });

describe("what a check of spellings says", () => {
  const result = sum(
    "card",
    [
      on("card", "b=b", "wrong", "d"),
      on("card", "a=a", "ownWay"),
      on("card", "m=m", "slow", undefined, { ms: 4000 }),
      on("card", "t=t", "none"),
      on("card", "b=b", "right", undefined, { pass: 2 }),
    ],
    { "a=a": "wrong", "t=t": "right", "m=m": "right" },
  );
  test("counts first answers, wins and losses against last time, and pairs", () => {
    expect(result).toMatchObject({
      asked: 4,
      known: ["a=a"],
      wonBack: ["b=b"],
      nowRight: ["a=a"],
      nowMissed: ["t=t"],
      medianMs: 1000,
      ownWay: 1,
    });
    expect(result.effort.map((one) => one.item)).toEqual(["m=m"]);
    expect(result.missed.map((one) => [one.item, one.heard])).toEqual([
      ["b=b", "d"],
      ["t=t", null],
    ]);
    expect(result.mixed.map(showMixed)).toEqual(["“d” for “b”"]);
  });
  test("as sentences, the main thing first", () => {
    expect(resultInWords(result)).toEqual([
      "1 of 4 right at once, 1 slow, 2 missed.",
      "1 of the missed came right in a later round.",
      "1 that was not right at once last time is now.",
      "1 that was right last time was missed.",
    ]);
    expect(resultInWords(sum("card", []))).toEqual(["Nothing was asked."]);
  });
});

describe("what a check of words says", () => {
  test("which shapes fail, which part, and that first sounds of clusters fall away", () => {
    const result = sum("words", [
      on("words", "p i n", "right"),
      on("words", "b oa t", "sounded"),
      on("words", "s t o p", "wrong", "/t o p/"),
      on("words", "f r o g", "wrong", "/r o g/"),
      on("words", "ch i p", "wrong", "/sh i p/"),
      on("words", "ch i n", "wrong", "/sh i n/"),
    ]);
    const told = resultInWords(result).join(" ");
    expect(result.shapes.map(({ name, asked, missed }) => [name, asked, missed])).toEqual([
      ["Three sounds", 4, 2],
      ["Four, cluster at the start", 2, 2],
    ]);
    expect(result.parts[0]).toEqual({ gpc: "ch=ch", count: 2, items: ["chip", "chin"] });
    expect(told).toContain("Four, cluster at the start (2 of 2 missed)");
    expect(told).toContain("ch failed 2 times: chip, chin.");
    expect(told).toContain("2 times “sh” for “ch”.");
    expect(told).toContain("The first sound of a cluster fell away 2 times.");
  });
  test("right sounds with wrong blends, words read as wholes, words always sounded out", () => {
    const blends = sum(
      "words",
      ["c a t", "d o g", "h e n"].map((item) => on("words", item, "blend")),
    );
    expect(resultInWords(blends).join(" ")).toContain("blending is what to practise");
    const wholes = sum("words", [
      ...["c a t", "d o g", "h e n"].map((item) => on("words", item, "right")),
      ...["?z a p t", "?v u b", "?n e g"].map((item) => on("words", item, "none")),
    ]);
    expect(wholes.madeUpMissed).toEqual([3, 3]);
    expect(resultInWords(wholes).join(" ")).toContain("known words may be read as wholes");
    const aloud = sum(
      "words",
      ["c a t", "d o g", "h e n"].map((item) => on("words", item, "sounded")),
    );
    expect(resultInWords(aloud).join(" ")).toContain("still sounded out aloud");
  });
});

describe("words of care", () => {
  const care = (kind: KindId, ...answers: GivenAnswer[]) => careWords(sum(kind, answers));
  test("sounds heard nearly alike point to hearing, look-alikes to sight, own ways to speech; never a diagnosis", () => {
    const alike = ["th=th", "f=f", "m=m"].map((item, at) => on("card", item, "wrong", ["f", "th", "n"][at]));
    expect(care("card", ...alike)).toMatch(/hear well today.*observation, not a diagnosis/);
    const seen = ["b=b", "d=d", "p=p"].map((item) => on("write", item, "reversed"));
    expect(care("write", ...seen)).toMatch(/look alike or were turned round/);
    const own = ["th=th", "r=r", "s=s"].map((item) => on("card", item, "ownWay"));
    expect(care("card", ...own)).toMatch(/own way and count as right/);
    expect(care("card", on("card", "ai=ai", "wrong", "a"), on("card", "oa=oa", "none"))).toBeNull();
  });
  test("most of the listening missed points to hearing", () => {
    const misses = ["p i n", "c a t", "d o g", "h e n", "b u s", "m a p"].map((word) =>
      on("listen", `sounds ${word}`, "none"),
    );
    expect(care("listen", ...misses)).toMatch(/Could the child hear well today/);
  });
});

describe("planning", () => {
  test("minutes follow the child's own pace once there is enough of it", () => {
    const section = { kind: "card", form: "deck" } as const;
    expect(minutesFor(section, 30, null)).toBe(2);
    expect(minutesFor(section, 30, { ms: 4500, answers: 20 })).toBe(3);
    expect(minutesFor(section, 30, { ms: 4500, answers: 5 })).toBe(2);
    expect(minutesFor({ kind: "card", form: "minute" }, 200, null)).toBe(1.5);
    expect(minutesFor(section, 0, null)).toBe(0.5);
  });
  test("the plans that ship say what they are for, and each part is one that can be drawn", () => {
    for (const { name, purpose, sections } of shippedPresets) {
      expect(purpose).toMatch(/\.$/);
      expect(sections.length).toBeGreaterThan(0);
      expect(
        sections.every((section) => section.most > 0),
        name,
      ).toBe(true);
    }
  });
  test("what may stand among the choices is kept with the check", () => {
    const ask = {
      section: sectionOf("find", { scope: "all" }),
      settings: {
        answerForm: "sound",
        exceptionWay: "sounded",
        severalSounds: "word",
        madeUp: true,
        slowAfter: 3,
        letterShapes: "written",
        deviceVoice: false,
      } as const,
      lexicon,
      madeUp: [],
      sentences: [],
      compounds: [],
      taught: ["b=b", "d=d", "p=p"],
      recent: [],
      exceptionWords: [],
      recentExceptionWords: [],
      secure: new Set<string>(),
      last: new Map(),
      seed: 1,
    };
    expect(planCheck(ask).setup).toMatchObject({ kind: "find", pool: ["b=b", "d=d", "p=p"] });
    expect(planCheck({ ...ask, section: sectionOf("card", { scope: "all" }) }).setup).not.toHaveProperty("pool");
  });
});
