import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { type GivenAnswer, inCheck } from "#core/ledger";
import { readLexicon } from "#core/words";
import { type Ask, defaultSettings, kinds, planCheck, sectionOf } from "../index.ts";

const nk = "n+k=ng+k";
const taught = ["m=m", "a=a", "t=t", "i=i", "p=p", "n=n", "k=k", "s=s", nk, "b+z=b+z"];
const base: Omit<Ask, "section"> = {
  lexicon: readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8")),
  ...{
    madeUp: [],
    sentences: [],
    compounds: [],
    exceptionWords: [],
    settings: defaultSettings,
    taught,
    recent: [nk],
  },
  ...{ secure: new Set<string>(), last: new Map(), seed: 3 },
} as never;
const drawn = (kind: "card" | "find" | "write") =>
  planCheck({ ...base, section: { ...sectionOf(kind), scope: "all" } } as never);
const wrong = (kind: "card" | "find" | "write", heard: string) =>
  ({
    ...{
      id: "a",
      ...inCheck(kind, "k"),
      item: nk,
      childId: "c",
      pass: 1,
      ms: 900,
      tags: [],
      outcome: "wrong",
      heard,
    },
    ...{ markedAt: "2026-09-07T09:00:00.000Z", day: "2026-09-07", markedBy: "Mx T.", units: null },
  }) as unknown as GivenAnswer;

test("a card shows the letters of a unit and asks its sounds", () => {
  const { items, setup } = drawn("card") as never as { items: string[]; setup: never };
  expect(items).toContain(nk);
  expect(kinds.card.face(nk, setup, 1)).toEqual({ show: "text", text: "nk", size: "letters" });
  const expects = (answerForm: typeof defaultSettings.answerForm, item = nk) =>
    kinds.card.prompt(item, { ...defaultSettings, answerForm }, setup).expects;
  expect(expects("sound")).toBe("/ŋk/ as in tank");
  expect(expects("nameKeywordSound")).toBe("N K, tank, /ŋk/ as in tank");
  expect(expects("nameKeywordSound", "b+z=b+z")).toBe("B Z, /bz/");
  const likely = kinds.card.likely(nk, setup, 1);
  expect(likely.slice(0, 2).map(({ shows }) => shows)).toEqual(["ng", "k"]);
  expect(likely.every(({ outcome, shows }) => outcome === "wrong" && !shows.includes("+"))).toBe(true);
});

test("what was said or written instead is told, and is no pair that is mixed up", () => {
  const { setup } = drawn("card") as never as { setup: never };
  const told = kinds.card.tell(wrong("card", "ng"), { lexicon: base.lexicon, setup } as never);
  expect(told).toMatchObject({ says: ["nk: said “ng” for “ngk”."], mixed: [] });
  const written = kinds.write.tell(wrong("write", "ck"), { lexicon: base.lexicon, setup } as never);
  expect(written).toMatchObject({ says: ["Heard “ngk” and wrote ck, not nk."], mixed: [] });
});

test("it is found among others, and written", () => {
  const { setup } = drawn("find") as never as { setup: never };
  const face = kinds.find.face(nk, setup, 4) as { choices: readonly string[] };
  expect(face.choices).toContain("nk");
  expect(face.choices.join("")).not.toMatch(/[+_]/);
  expect(kinds.find.prompt(nk, defaultSettings, setup)).toEqual({ say: "ngk, as in tank", expects: "nk for /ŋk/" });
  const writing = drawn("write") as never as { items: string[]; setup: never };
  expect(writing.items).toContain(nk);
  expect(kinds.write.prompt("b+z=b+z", defaultSettings, writing.setup).say).toBe("bz");
});
