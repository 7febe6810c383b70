import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { standing, type TextEntry } from "#core/ledger";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { decodability, keyOf, readLexicon } from "#core/words";
import {
  answersInText,
  climbOf,
  entriesOf,
  misreads,
  prepareReading,
  prepareText,
  type ReadingMark,
  stepOfText,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));

const text = {
  title: "Rain on the raft",
  exceptions: [],
  body: "“Will it rain?” said Gail. The raft went down the misty canal, under a bridge, past a mill, and on. Rain fell on Gail, and on the sails. “Ahoy!” she yelled.",
  questions: [],
  words: [{ word: "raft", means: "logs tied together to float on" }],
};

describe("preparing a text", () => {
  const known = new Set(taughtUpTo(order, "s15"));
  const wholes = new Set(exceptionWordsUpTo(order, "s15").map(keyOf));
  const verdict = decodability(`${text.title}.\n${text.body}`, known, new Set(), { lexicon, wholes });
  const made = prepareReading(text, verdict, new Set(["ai=ai"]));
  test("focuses on what they are to practise and puts what is in the way first", () => {
    expect(made.focus).toEqual(["ai=ai"]);
    const notYet = new Set(
      verdict.words.filter((word) => word.verdict === "not yet").map((word) => keyOf(word.text)),
    );
    expect(notYet.has("rain")).toBe(true);
    const upTo = made.first.findIndex((word) => !notYet.has(keyOf(word)));
    expect(made.first.slice(upTo < 0 ? made.first.length : upTo).every((word) => !notYet.has(keyOf(word)))).toBe(
      true,
    );
    expect(made.first).toContain("rain");
    expect(new Set(made.first).size).toBe(made.first.length);
  });
  test("takes longer words, exception words and meanings of this text alone", () => {
    expect(made.longer).toContain("misty");
    expect(made.meanings).toEqual(text.words);
    const here = new Set(verdict.words.map((word) => keyOf(word.text)));
    for (const word of [...made.first, ...made.longer, ...made.wholes]) expect(here.has(keyOf(word))).toBe(true);
  });
  test("names keep their capital, words that only begin a sentence do not", () => {
    const named = {
      ...text,
      body: "Rain fell on Gail. “Rain,” said Gail. Gail's sails flap. Sails flap. Gail naps.",
    };
    const judged = decodability(`${named.title}.\n${named.body}`, new Set(), new Set(), { lexicon });
    const { first } = prepareReading(named, judged, new Set());
    expect(first).toContain("Gail");
    expect(first).toContain("Gail's");
    expect(first).toContain("rain");
    expect(first).toContain("sails");
  });
  test("says what to watch in the punctuation", () => {
    expect(made.watch).toEqual([
      "Someone speaks 2 times: who is it, and how do they say it?",
      "A question mark stands once: hear how the voice asks.",
      "An exclamation mark stands once: say it as it is meant.",
      "A comma stands 4 times: a short stop, and the sentence goes on.",
    ]);
  });
  test("what the text wants read as a whole is taught as one, not taken apart, until it was taught", () => {
    const whole = { ...text, exceptions: ["Gail"] };
    const judged = decodability(text.body, new Set(taughtUpTo(order, "s10")), new Set(), { lexicon, wholes });
    const { first, wholes: taught } = prepareReading(whole, judged, new Set());
    expect(taught[0]).toBe("Gail");
    expect(first).not.toContain("Gail");
    expect(prepareReading(text, judged, new Set()).first).toContain("Gail");
  });
  test("without targets, what stands in the way is in focus", () => {
    expect(prepareReading(text, verdict, new Set()).focus).toEqual(
      verdict.inTheWay.map((one) => one.gpc).slice(0, 6),
    );
  });
});

describe("the step of a text", () => {
  const climb = climbOf(order.steps);
  const stepOf = (body: string, exceptions: string[] = []) =>
    stepOfText(prepareText({ title: "", body, exceptions }, { lexicon }), climb);
  test("is where its last spelling is taught, or its word as a whole; each step before leaves something in the way", () => {
    for (const body of ["Rain fell on the sail.", "A fish swam.", "We went home.", text.body]) {
      const step = stepOf(body);
      if (step === null) throw new Error(`never: ${body}`);
      const shareAt = (id: string | undefined) =>
        decodability(body, new Set(taughtUpTo(order, id ?? null)), new Set(), {
          lexicon,
          wholes: new Set(exceptionWordsUpTo(order, id ?? null).map(keyOf)),
        }).shareOfRunning;
      expect(shareAt(order.steps[step - 1]?.id), body).toBe(1);
      if (step > 1) expect(shareAt(order.steps[step - 2]?.id), body).toBeLessThan(1);
    }
  });
  test("a word that no order teaches has none, unless it is read as a whole here", () => {
    expect(stepOf("The yacht sat.")).toBeNull();
    expect(stepOf("The yacht sat.", ["yacht"])).not.toBeNull();
  });
});

describe("what a reading brings into the log", () => {
  const reading = (marks: readonly ReadingMark[]) => ({
    text: "The ship can stop.",
    marks,
    stoppedAt: null,
    ms: null,
  });
  test("misread, told, sounded out and in their own way, with the units of the word; nothing for the rest", () => {
    const entries = entriesOf(
      reading([
        { at: 3, kind: "misread", heard: "top", ms: 4000 },
        { at: 1, kind: "misread", heard: "chip" },
        { at: 1, kind: "putRight", heard: null },
        { at: 0, kind: "told", heard: null },
        { at: 2, kind: "sounded", heard: null },
        { at: 2, kind: "again", heard: null },
        { at: 3, kind: "endMark", heard: null },
      ]),
      { lexicon },
    );
    expect(entries.map(({ at, outcome, heard, putRight, ms }) => [at, outcome, heard, putRight, ms])).toEqual([
      [0, "none", null, false, 0],
      [1, "wrong", "chip", true, 0],
      [2, "sounded", null, false, 0],
      [3, "wrong", "top", false, 4000],
    ]);
    expect(entries[3]?.item).toBe("s t o p");
  });
  test("a misread that is right is none, and one that no one noted has nothing heard", () => {
    expect(entriesOf(reading([{ at: 3, kind: "misread", heard: "stop" }]), { lexicon })).toEqual([]);
    expect(entriesOf(reading([{ at: 3, kind: "misread", heard: null }]), { lexicon })[0]).toMatchObject({
      outcome: "wrong",
      heard: null,
    });
  });
  test("sounded out and then misread, or told, is one entry of what it came to; left out and put right is none", () => {
    const marks = (kinds: readonly ReadingMark["kind"][]) =>
      entriesOf(reading(kinds.map((kind) => ({ at: 1, kind, heard: kind === "misread" ? "chip" : null }))), {
        lexicon,
      }).map((entry) => [entry.outcome, entry.heard, entry.soundedOut]);
    expect(marks(["sounded", "misread"])).toEqual([["wrong", "chip", true]]);
    expect(marks(["misread", "sounded"])).toEqual([["wrong", "chip", true]]);
    expect(marks(["sounded", "told"])).toEqual([["none", null, true]]);
    expect(marks(["sounded"])).toEqual([["sounded", null, false]]);
    expect(marks(["leftOut", "putRight"])).toEqual([]);
    expect(entriesOf(reading([{ at: -1, kind: "putIn", heard: "and" }]), { lexicon })).toEqual([]);
  });
  test("a reading of the log says its words as answers, with an id each; asked for all, up to the stop", () => {
    const entry: TextEntry = {
      id: "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f0001",
      childId: "c",
      markedAt: "2026-11-20T09:00:00.000Z",
      day: "2026-11-20",
      markedBy: "Mx T.",
      outcome: "reading",
      source: { kind: "reading", readingId: "r" },
      reading: {
        text: "The ship can stop.",
        marks: [
          { at: 1, kind: "misread", heard: "chip", ms: 3000 },
          { at: 1, kind: "putRight", heard: null },
          { at: 2, kind: "leftOut", heard: null },
          { at: 3, kind: "told", heard: null },
        ],
        stoppedAt: 2,
      },
    };
    const [first, ...others] = answersInText(entry, { lexicon });
    expect(others).toEqual([]);
    expect(first).toMatchObject({
      id: "7d0c5a1e-2f0b-4c1a-9e55-000000000001",
      item: "sh i p",
      outcome: "wrong",
      heard: "chip",
      tags: ["putRight"],
      way: "text",
      help: "none",
      markedAt: "2026-11-20T09:00:03.000Z",
    });
    expect(
      answersInText(entry, { lexicon, all: true }).map((one) => [one.outcome, one.item.replaceAll(" ", "")]),
    ).toEqual([
      ["right", "th=dhe=schwa"],
      ["wrong", "ship"],
    ]);
    expect(standing([entry])).toEqual([]);
    expect(standing([entry], { inText: (one) => answersInText(one, { lexicon }) })).toEqual([first]);
  });
  test("what stands behind the word where reading stopped was not read", () => {
    const marks = [1, 2, 3].map((at) => ({ at, kind: "misread" as const, heard: "zip" }));
    const stopped = { ...reading(marks), stoppedAt: 2 };
    expect(entriesOf(stopped, { lexicon }).map((entry) => entry.at)).toEqual([1, 2]);
    expect(misreads(stopped, { lexicon }).map((one) => one.at)).toEqual([1, 2]);
  });
  test("a word that was misread and then told is one entry, with what was said", () => {
    const both = (heard: string | null) =>
      entriesOf(
        reading([
          { at: 1, kind: "misread", heard },
          { at: 1, kind: "told", heard: null },
        ]),
        { lexicon },
      ).map((entry) => [entry.outcome, entry.heard]);
    expect(both("chip")).toEqual([["wrong", "chip"]]);
    expect(both(null)).toEqual([["wrong", null]]);
    expect(both("ship")).toEqual([["none", null]]);
  });
  test("left out, skipped and put in say nothing about a spelling, and a mark at no word neither", () => {
    const kinds = ["leftOut", "skipped", "putIn", "waited"] as const;
    expect(
      entriesOf(
        reading([...kinds.map((kind) => ({ at: 1, kind, heard: null })), { at: 99, kind: "told", heard: null }]),
        { lexicon },
      ),
    ).toEqual([]);
  });
});
