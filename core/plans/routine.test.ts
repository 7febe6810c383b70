import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { splitGpc } from "#core/phonics";
import {
  changeBetween,
  type Lexicon,
  readAnswers,
  readLexicon,
  readMadeUp,
  readPhrases,
  readSentences,
  withinAge,
} from "#core/words";
import {
  doers,
  kindsOfPart,
  MOST_PART_MINUTES,
  type PartKind,
  partKinds,
  planSession,
  type Routine,
  readOf,
  readRoutine,
  routineAsMarkdown,
  routineFaults,
  shippedRoutines,
  teachesNew,
} from "./index.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = withinAge(readLexicon(read("lexicon/lexicon.txt")), 9);
const order = readOrder(read("orders/words-first.txt"));
const stock = {
  lexicon,
  ...{ sentences: readSentences(read("sentences.txt")), answers: readAnswers(read("sentences.txt")) },
  ...{ madeUp: readMadeUp(read("lexicon/made-up.txt")), phrases: readPhrases(read("phrases.txt")) },
  texts: [{ title: "Sam", body: "Sam sat. Sam had a cat.", exceptions: [] }],
};
const at = (step: string, target: string, change = {}) => ({
  ...{ ...stock, target, age: 9 as const, seed: 5, exceptionWords: exceptionWordsUpTo(order, step) },
  known: new Set(taughtUpTo(order, step).filter((gpc) => gpc !== target)),
  revisit: taughtUpTo(order, step).slice(-3),
  ...change,
});
const all: Routine = {
  name: "All kinds",
  about: "",
  parts: partKinds.map((kind) => ({ kind, minutes: 3, who: "child", how: "" })),
};
const part = (plan: ReturnType<typeof planSession>, kind: PartKind) =>
  plan.parts.find((one) => one.kind === kind)?.items ?? [];
const wordOf = (text: string, from: Lexicon = lexicon) => from.find(text)[0];

test("every kind of part is filled where there is enough to fill it from", () => {
  const plan = planSession({ ...at("s24", "ai=ai"), routine: all });
  expect(plan.parts.map(({ kind }) => kind)).toEqual([...partKinds]);
  for (const { kind, items } of plan.parts) expect(items.length, kind).toBeGreaterThan(0);
  // Phrases have a picture each, none twice, those with the spelling of the day first.
  const told = part(plan, "phrase").map((item) => /\((\w+)\)$/.exec(item)?.[1] ?? "");
  expect(new Set(told).size).toBe(told.length);
  const hasTarget = (item: string) =>
    readOf("phrase", item)
      .split(" ")
      .some((word) => wordOf(word)?.units.some(({ gpc }) => gpc === "ai=ai"));
  expect(part(plan, "phrase").filter(hasTarget).length).toBeGreaterThan(2);
});

test("where no sentence can be read yet, phrases are read and written in their place, and it is said", () => {
  const first = readOrder(read("orders/held-first.txt"));
  const known = new Set(taughtUpTo(first, first.steps[5]?.id ?? ""));
  const wanted = { ...at("s1", "s=s"), known, exceptionWords: exceptionWordsUpTo(first, first.steps[5]?.id ?? "") };
  const plan = planSession({ ...wanted, routine: all });
  const [readings, written] = [part(plan, "readSentence"), part(plan, "sentence")];
  expect(readings.length).toBeGreaterThan(0);
  expect(written.length).toBeGreaterThan(0);
  expect(readings.filter((text) => written.includes(text))).toEqual([]);
  const phrases = readPhrases(read("phrases.txt"));
  for (const text of [...readings, ...written]) expect(phrases.has(text), text).toBe(true);
  expect(plan.remarks.join(" ")).toMatch(
    /No sentence in the list can be read .*; (this is a phrase|these are phrases)\./,
  );
  // Where pictures are asked for, a phrase has one.
  for (const item of part(plan, "phrase")) expect(item).toMatch(/ \(\w+\)$/);
});

test("words that are heard have the sound where it is said to be", () => {
  const { sound } = splitGpc("ai=ai");
  for (const item of part(planSession({ ...at("s24", "ai=ai"), routine: all }), "hear")) {
    const [, text = "", place] = /^(\S+) \((.+)\)$/.exec(item) ?? [];
    const sounds = wordOf(text)?.units.map((unit) => unit.sound) ?? [];
    const here = sounds.indexOf(sound);
    const says =
      here < 0
        ? "not there"
        : here === 0
          ? "at the start"
          : here === sounds.length - 1
            ? "at the end"
            : "in the middle";
    expect(place).toBe(says);
  }
});

test("a chain changes one sound at a time, a heap has its spelling, a pair differs in one sound", () => {
  const plan = planSession({ ...at("s24", "ai=ai"), routine: all });
  const chain = part(plan, "chain").map((text) => wordOf(text));
  for (const [place, word] of chain.entries()) {
    const before = chain[place - 1];
    if (word && before) expect(changeBetween(before, word)).toBeDefined();
  }
  for (const heap of part(plan, "sort")) {
    const [spelling = "", words = ""] = heap.split(": ");
    for (const text of words.split(", "))
      expect(
        wordOf(text)?.units.some(({ grapheme }) => grapheme.replace("_", "–") === spelling),
        text,
      ).toBe(true);
  }
  for (const pair of part(plan, "pairs")) {
    const [one, other] = pair.split(" / ").map((text) => wordOf(text)?.units.map((unit) => unit.sound) ?? []);
    expect(one?.filter((sound, place) => sound !== other?.[place])).toHaveLength(1);
  }
});

test("each child has cards of its own: what is in doubt, never the new one, none that is surely known or lost", () => {
  const children = [
    {
      id: "una",
      chances: new Map([
        ["a=a", 0.99],
        ["sh=sh", 0.55],
        ["ch=ch", 0.8],
        ["ai=ai", 0.4],
        ["oi=oi", 0.05],
      ]),
    },
    {
      id: "kit",
      chances: new Map([
        ["sh=sh", 0.97],
        ["th=th", 0.5],
      ]),
    },
    { id: "sure", chances: new Map([["a=a", 0.99]]) },
  ];
  const plan = planSession({ ...at("s24", "ai=ai"), revisit: [], children });
  const { each = [], items = [] } = plan.parts.find(({ kind }) => kind === "revisit") ?? {};
  expect(each).toEqual([
    { childId: "una", items: ["sh=sh", "ch=ch"] },
    { childId: "kit", items: ["th=th"] },
  ]);
  expect([...items].sort()).toEqual(["ch=ch", "sh=sh", "th=th"]);
});

test("words of the last days are left out while forty fit, and taken again where fewer do", () => {
  const first = part(planSession({ ...at("s24", "ee=ee") }), "readWords");
  const next = part(planSession({ ...at("s24", "ee=ee"), hadLately: first }), "readWords");
  expect(next.filter((word) => first.includes(word))).toEqual([]);
  const few = at("s24", "oi=oi", { known: new Set(["b=b", "l=l", "c=k", "n=n"]) });
  const had = part(planSession(few), "readWords");
  expect(part(planSession({ ...few, hadLately: had }), "readWords").length).toBe(had.length);
});

test("a part that cannot be filled stays, empty, and is told", () => {
  const plan = planSession({
    ...at("s4", "a=a", { known: new Set(), madeUp: [], texts: [], sentences: [] }),
    routine: all,
  });
  expect(plan.parts).toHaveLength(partKinds.length);
  expect(plan.remarks.join(" ")).toMatch(/No made-up word.*|No text of the shelf/);
  expect(part(plan, "text")).toEqual([]);
});

test("exception words that were missed come first, and pairs are of sounds that these children mix up", () => {
  const wanted = at("s24", "ai=ai");
  const last = wanted.exceptionWords[0] ?? "";
  const plan = planSession({
    ...{ ...wanted, routine: all },
    ...{ missedWords: ["nonsense", last.toLowerCase()], mixedSounds: [["i", "e"] as const] },
  });
  expect(part(plan, "exceptionWords")[0]).toBe(last);
  for (const pair of part(plan, "pairs")) {
    const sounds = pair.split(" / ").map((text) => wordOf(text)?.units.map((unit) => unit.sound) ?? []);
    const [one = [], other = []] = sounds;
    const differ = one.flatMap((sound, place) => (sound === other[place] ? [] : [sound, other[place]]));
    expect(differ.sort()).toEqual(["e", "i"]);
  }
});

test("the school's own words for a part stand in the plan", () => {
  const [first] = all.parts;
  const routine = { ...all, parts: first ? [{ ...first, how: "Use the blue box." }] : [] };
  expect(planSession({ ...at("s24", "ai=ai"), routine }).parts[0]?.how).toBe("Use the blue box.");
});

test("what a child reads of an item leaves out answers, heads and what is only heard", () => {
  expect(readOf("yesNo", "Can a duck sip tea? (no: it has no cup)")).toBe("Can a duck sip tea?");
  expect([readOf("sort", "ai: rain, tail"), readOf("hear", "ship (at the start)"), readOf("text", "Mud")]).toEqual([
    ...["rain, tail", "", ""],
  ]);
});

const anyRoutine = fc.record({
  name: fc.stringMatching(/^[A-Za-z][A-Za-z ]{0,20}[a-z]$/),
  about: fc.stringMatching(/^([A-Z][a-z ]{0,30}\.)?$/),
  parts: fc.array(
    fc.record({
      kind: fc.constantFrom(...partKinds),
      minutes: fc.nat(MOST_PART_MINUTES),
      who: fc.constantFrom(...doers),
      how: fc.stringMatching(/^([A-Z][a-z]{1,10}( [a-z]{1,8}){0,4}\.)?$/),
    }),
    { minLength: 1, maxLength: 14 },
  ),
});

test("a routine goes out as Markdown and as JSON and comes back the same", () => {
  fc.assert(
    fc.property(anyRoutine, (routine) => {
      expect(readRoutine(routineAsMarkdown(routine))).toEqual({ routine, leftOut: [] });
      expect(readRoutine(JSON.stringify(routine))).toEqual({ routine, leftOut: [] });
    }),
  );
});

test("whatever is read, what comes out can be held or is told", () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.json(),
        fc.string().map((text) => `- Teach: ${text} min, ${text}`),
      ),
      (text) => {
        const told = readRoutine(text);
        if ("trouble" in told) expect(told.trouble).toMatch(/\.$|”\.$/);
        else expect(told.routine.parts.length).toBeGreaterThan(0);
      },
    ),
  );
});

test("bad files: what cannot be read is named, the rest stays", () => {
  const text = "# Ours\n- Teach: 4 min, the adult shows. Slowly.\n- Sing: 3 min\n- Read words: 999 minutes\n";
  expect(readRoutine(text)).toEqual({
    routine: {
      name: "Ours",
      about: "",
      parts: [
        { kind: "teach", minutes: 4, who: "adult", how: "Slowly." },
        { kind: "readWords", minutes: 60, who: "child", how: "" },
      ],
    },
    leftOut: ["- Sing: 3 min"],
  });
  expect(readRoutine("{ half")).toEqual({ trouble: expect.stringContaining("JSON") });
  expect(readRoutine("nothing here")).toEqual({ trouble: expect.stringContaining("No part") });
  expect(readRoutine("x".repeat(60_000))).toEqual({ trouble: expect.stringContaining("too long") });
  expect(routineFaults({ name: " ", about: "", parts: [] })).toHaveLength(2);
  expect(
    routineFaults({ name: "A", about: "", parts: [{ kind: "teach", minutes: 0, who: "adult", how: "" }] }),
  ).toEqual(["A routine of no minutes cannot be held."]);
});

test("what ships can be held, for 10 to 30 minutes, with and without something new", () => {
  const routines = Object.values(shippedRoutines);
  expect(routines.flatMap(routineFaults)).toEqual([]);
  expect(routines.some((one) => !teachesNew(one))).toBe(true);
  const used = new Set(routines.flatMap(({ parts }) => parts.map(({ kind }) => kind)));
  expect([...partKinds].filter((kind) => !used.has(kind))).toEqual([]);
  for (const kind of partKinds) expect(kindsOfPart[kind].about).toMatch(/\.$/);
});
