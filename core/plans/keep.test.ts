import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { readLexicon, readMadeUp } from "#core/words";
import { planSession, type Routine, readRoutine, routineAsMarkdown, routineOf, shippedRoutines } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const from = {
  ...{ known: new Set(["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m"]), target: "d=d", lexicon, seed: 2 },
  ...{ revisit: ["s=s"], sentences: [], exceptionWords: ["the"] },
};

test("the parts of a session are a routine again, whatever it taught; own words stay", () => {
  for (const routine of Object.values(shippedRoutines)) {
    const plan = planSession({ ...from, routine });
    expect(routineOf(plan, routine.name)).toEqual({ ...routine, about: "" });
  }
  const own: Routine = {
    ...{ name: "Ours", about: "" },
    parts: [
      { kind: "readWords", minutes: 4, who: "together", how: "Nod when you are ready.", marks: false },
      { kind: "readAgain", minutes: 1, who: "child", how: "", marks: true },
    ],
  };
  const plan = planSession({ ...from, routine: own });
  expect(plan.parts.map(({ who, marks }) => [who, marks])).toEqual([
    ["together", false],
    [undefined, true],
  ]);
  expect(routineOf(plan, "Ours")).toEqual(own);
  // Marks are in its file too.
  const text = routineAsMarkdown(own);
  expect(text).toContain("- Read words: 4 min, all together, without marks. Nod when you are ready.");
  expect(readRoutine(text)).toEqual({ routine: own, leftOut: [] });
  expect(readRoutine(JSON.stringify(own))).toEqual({ routine: own, leftOut: [] });
});

test("sessions are held in the school's ways: what is said to a card, how exception words are read, whether made-up words are used", () => {
  const ways = { answerForm: "nameSound", exceptionWay: "wholes", madeUp: false } as const;
  const routine = shippedRoutines.mixed;
  const madeUp = readMadeUp(readFileSync("data/lexicon/made-up.txt", "utf8"));
  const [usual, ours] = [planSession({ ...from, madeUp, routine }), planSession({ ...from, madeUp, routine, ways })];
  const how = ({ parts }: typeof usual, kind: string) => parts.find((part) => part.kind === kind)?.how ?? "";
  expect(how(usual, "teach")).toMatch(/^Show d, say “d” as in /);
  expect(how(ours, "teach")).toMatch(/^Show d, say the names of its letters, then “d” as in /);
  expect(how(ours, "lastLook")).toContain("the names of its letters and the sound at sight");
  expect(usual.parts.some(({ kind }) => kind === "madeUp")).toBe(true);
  expect(ours.parts.some(({ kind }) => kind === "madeUp")).toBe(false);
  expect(ours.remarks).toContain("This school uses no made-up words: words are read in their place.");
  const plain = planSession({ ...from, ways });
  expect(how(plain, "exceptionWords")).toContain("spell it with the names of its letters");
  expect(routineOf(plain, "A").parts.every((part) => part.how === "")).toBe(true);
});

test.each([1, 12])(
  "a session for %i: each has cards of its own, and what is said about them stays short",
  (count) => {
    const chances = new Map([...from.known].map((gpc, at) => [gpc, at % 2 ? 0.5 : 0.98]));
    const children = Array.from({ length: count }, (_, at) => ({ id: `c${at}`, chances }));
    const readers = children.map(({ id }) => ({ name: id, reads: new Set(["s=s", "a=a"]) }));
    const plan = planSession({ ...from, children, readers });
    expect(plan.parts.find(({ kind }) => kind === "revisit")?.each).toHaveLength(count);
    expect(plan.parts.every(({ items }) => items.length <= 40)).toBe(true);
    expect(plan.remarks.filter((remark) => remark.includes("needs help with"))).toHaveLength(Math.min(8, count));
    expect(plan.remarks.length).toBeLessThanOrEqual(12);
  },
);
