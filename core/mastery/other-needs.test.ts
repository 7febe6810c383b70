import { expect, test } from "vitest";
import { type GivenAnswer, inCheck, type KindId, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon, wordItem } from "#core/words";
import {
  isOtherNeed,
  knownBy,
  mixedUp,
  otherNeedName,
  otherNeeds,
  type SaidBy,
  shipped,
  startingSecureWhen,
} from "./index.ts";

const entries = ["s t o p", "s t e p", "c a t", "b e d", "d o g", "s p o t"].map(readEntry);
const lexicon = toLexicon(entries);
const itemOf = (text: string) => wordItem(entries.find((word) => word.text === text) as never);
const words = { lexicon, accent: undefined };
const today = "2026-11-20";
const by: SaidBy = {
  lessons: { taughtOn: () => 20_000, sessions: () => [] },
  p: shipped,
  secureWhen: startingSecureWhen,
};

let serial = 0;
function answer(kind: KindId, item: string, outcome: Outcome, more: { day?: string; heard?: string | null } = {}) {
  serial++;
  const day = more.day ?? "2026-11-12";
  const base = {
    id: `a${String(serial).padStart(4, "0")}`,
    ...inCheck(kind, "k"),
    ...{ tags: [], childId: "c", item, ms: 900, pass: 1, day, markedBy: "Mx T." },
    markedAt: `${day}T09:${String(serial % 60).padStart(2, "0")}:00.000Z`,
  };
  return (
    takesHeard(outcome) ? { ...base, outcome, heard: more.heard ?? null, units: null } : { ...base, outcome }
  ) as GivenAnswer;
}
const needsOf = (answers: readonly GivenAnswer[]) =>
  otherNeeds({ known: knownBy(answers, { ...by, words }), answers, words, today, by });

test("a pair that is mixed up in more than one item is a contrast; a slip, or one item alone, is not", () => {
  const mixed = [
    answer("card", "b=b", "wrong", { heard: "d" }),
    answer("card", "d=d", "wrong", { heard: "b" }),
    answer("card", "b=b", "right", { day: "2026-11-13" }),
    answer("card", "d=d", "right", { day: "2026-11-13" }),
    answer("card", "m=m", "right"),
  ];
  expect(needsOf(mixed).filter(({ kind }) => kind === "contrast")).toEqual([
    {
      ...{ id: "contrast sound b/d", kind: "contrast", need: 0.5, misses: 2, answers: 4 },
      ...{ lastDay: "2026-11-12", items: ["b", "d"], lostFirst: 0 },
    },
  ]);
  expect([...mixedUp(needsOf(mixed))]).toEqual([
    ["b=b", 2],
    ["d=d", 2],
  ]);
  const once = [answer("card", "b=b", "wrong", { heard: "d" })];
  expect(needsOf(once)).toEqual([]);
  const oneItem = [..."12"].map(() => answer("card", "b=b", "wrong", { heard: "d" }));
  expect(needsOf(oneItem).filter(({ kind }) => kind === "contrast")).toEqual([]);
  const rare = [
    ...mixed,
    ...[..."1234567890123456789"].map(() => answer("card", "b=b", "right", { day: "2026-11-14" })),
  ];
  expect(needsOf(rare).filter(({ kind }) => kind === "contrast")).toEqual([]);
});

test("a mix-up of more than four weeks ago is no need today", () => {
  const old = { day: "2026-10-20" };
  const answers = [
    answer("card", "b=b", "wrong", { ...old, heard: "d" }),
    answer("card", "d=d", "wrong", { ...old, heard: "b" }),
  ];
  expect(needsOf(answers)).toEqual([]);
  const day = { day: "2026-10-24" };
  const later = answers.map((one) => ({ ...one, ...day }));
  expect(needsOf(later).map(({ kind }) => kind)).toEqual(["contrast"]);
});

test("a shape whose sounds are right and whose word is not is blending, with the words that lost their first sound", () => {
  const answers = [
    answer("words", itemOf("cat"), "right"),
    answer("words", itemOf("stop"), "blend", { heard: "/t o p/" }),
    answer("words", itemOf("step"), "blend", { heard: "/t e p/" }),
    answer("words", itemOf("spot"), "blend", { heard: "/s o t/" }),
    answer("words", itemOf("stop"), "blend", { day: "2026-11-16", heard: "/t o p/" }),
  ];
  const [blending] = needsOf(answers).filter(({ kind }) => kind === "blending");
  expect(blending).toMatchObject({ id: "blend CCVC", misses: 4, answers: 4, lastDay: "2026-11-16", lostFirst: 3 });
  expect(otherNeedName(blending?.id ?? "")).toBe("blending a cluster at the start");
});

test("an exception word and a spelling that is not written are needs once they were missed twice", () => {
  const twice = (kind: KindId, item: string) => [
    answer(kind, item, "wrong", { day: "2026-11-10" }),
    answer(kind, item, "wrong", { day: "2026-11-16" }),
  ];
  const needs = needsOf([
    ...twice("exception", "said"),
    ...twice("write", "sh=sh"),
    answer("exception", "was", "wrong"),
    answer("card", "sh=sh", "right"),
  ]);
  expect(needs.map(({ id, kind }) => [id, kind])).toEqual([
    ["read said", "word"],
    ["spell sh=sh", "writing"],
  ]);
});

test.each([
  ["contrast sound b/d", "“b” and “d” told apart"],
  ["contrast sound ee/i", "“ee” and “i” told apart"],
  ["contrast spelling ai/ay", "“ai” and “ay” told apart"],
  ["blend CVCC", "blending a cluster at the end"],
  ["blend CCVCC", "blending clusters at both ends"],
  ["blend CV.CVC", "blending words of two syllables and more"],
  ["blend CVC", "blending three sounds"],
  ["blend VC", "blending two sounds"],
  ["read said", "the word “said”"],
  ["write said", "writing the word “said”"],
  ["spell a_e=ai", "writing a–e"],
])("%s is called %s", (id, name) => {
  expect(isOtherNeed(id)).toBe(true);
  expect(otherNeedName(id)).toBe(name);
});

test.each(["ai=ai", "say ai=ai", "blend xyz", "contrast b/d", "", "read two words", "hear sounds"])(
  "%s is no such need",
  (id) => {
    expect(isOtherNeed(id)).toBe(false);
  },
);
