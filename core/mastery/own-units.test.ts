import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon, withOwnUnits } from "#core/words";
import {
  chanceOn,
  changesBetween,
  dayNumber,
  type FollowWanted,
  follow,
  historyOf,
  knownBy,
  type Lessons,
  movedMost,
  type Skill,
  shipped,
  skillsIn,
  startingSecureWhen,
} from "./index.ts";

const nk = "n+k=ng+k";
const words = toLexicon(["p i n=ng k|1", "t a n=ng k|2", "k i t|1", "p i n|1", "t a n|1"].map(readEntry));
const lexicon = withOwnUnits(words, [nk]);
const TAUGHT = "2026-09-01";
const all: Lessons = { taughtOn: () => dayNumber(TAUGHT), sessions: () => [] };
const butTheUnit: Lessons = { ...all, taughtOn: (thing) => (thing === nk ? undefined : dayNumber(TAUGHT)) };
const wanted: FollowWanted = { lessons: all, p: shipped, words: { lexicon } };
const without: FollowWanted = { ...wanted, lessons: butTheUnit };
const DAY = "2026-11-19";

let serial = 0;
function answer(day: string, outcome: Outcome, kind: string, item: string, heard: string | null = null): GivenAnswer {
  const base = {
    ...{ id: `a${String(serial++).padStart(5, "0")}`, ...inCheck(kind as "card", "k"), tags: [], childId: "c", item },
    ...{
      ms: 900,
      pass: 1,
      markedAt: `${day}T09:00:00.000Z`,
      day,
      markedBy: "Mx T.",
      help: "none",
      way: "seen",
      kind,
    },
  };
  return (takesHeard(outcome) ? { ...base, outcome, heard, units: null } : { ...base, outcome }) as GivenAnswer;
}
const chance = (answers: readonly GivenAnswer[], skill: Skill, by = wanted) =>
  chanceOn(follow(answers, by), skill, "2026-11-20", by);
const at = (skill: Skill, by = wanted) => chance([], skill, by).chance;

describe("a unit of the school's own counts as the unit and as its parts", () => {
  test("its card speaks of it, and for less of each part", () => {
    const right = [answer(DAY, "right", "card", nk)];
    const gained = (skill: Skill) => chance(right, skill).chance - at(skill);
    expect(gained(`say ${nk}`)).toBeGreaterThan(gained("say k=k"));
    expect(gained("say k=k")).toBeGreaterThan(0);
    expect(gained("say n=ng")).toBeGreaterThan(0);
    expect(chance(right, `say ${nk}`)).toMatchObject({ answers: 1, misses: 0 });
    expect(chance(right, "say k=k")).toMatchObject({ answers: 1, misses: 0 });
  });
  test("missed, it blames the part that was less sure, and counts as a miss of neither", () => {
    const sure = [5, 7, 9].map((day) => answer(`2026-11-0${day}`, "right", "card", "k=k"));
    const missed = [...sure, answer(DAY, "none", "card", nk)];
    const lost = (skill: Skill) => chance(sure, skill).chance - chance(missed, skill).chance;
    expect(lost(`say ${nk}`)).toBeGreaterThan(0.1);
    expect(lost("say n=ng")).toBeGreaterThan(lost("say k=k"));
    expect(chance(missed, "say n=ng").misses).toBe(0);
    expect(chance(missed, `say ${nk}`).misses).toBe(1);
  });
  test("a word read right speaks of the unit and of each part; one that failed in a part fails in the unit", () => {
    const right = [answer(DAY, "right", "words", "p i n=ng k")];
    for (const skill of [`say ${nk}`, "say n=ng", "say k=k", "say p=p"] as const)
      expect(chance(right, skill).chance, skill).toBeGreaterThan(at(skill));
    const pin = [answer(DAY, "wrong", "words", "p i n=ng k", "pin")];
    expect(chance(pin, `say ${nk}`)).toMatchObject({ answers: 1, misses: 1 });
    expect(chance(pin, `say ${nk}`).chance).toBeLessThan(at(`say ${nk}`));
    const tink = [answer(DAY, "wrong", "words", "p i n=ng k", "tink")];
    expect(chance(tink, `say ${nk}`)).toMatchObject({ answers: 1, misses: 0 });
    expect(chance(tink, `say ${nk}`).chance).toBeGreaterThan(at(`say ${nk}`));
  });
  test("a word without it says nothing of it but by its parts", () => {
    const kit = [answer(DAY, "right", "words", "k i t")];
    expect(chance(kit, `say ${nk}`).answers).toBe(0);
    expect(chance(kit, `say ${nk}`).chance).toBeGreaterThanOrEqual(at(`say ${nk}`));
  });
  test("written and in words that were written it counts as spelling", () => {
    const written = [answer(DAY, "right", "write", nk), answer(DAY, "right", "dictation", "tank")];
    expect(chance(written, `spell ${nk}`)).toMatchObject({ answers: 2, misses: 0 });
    const wrong = [answer(DAY, "wrong", "dictation", "tank", "tak")];
    expect(chance(wrong, `spell ${nk}`)).toMatchObject({ answers: 1, misses: 1 });
    expect(chance(written, "spell k=k").answers).toBe(2);
  });
});

test("who is not taught the unit has the same mind as before there was one", () => {
  const log = ["pink", "tank"].flatMap((_, day) => [
    answer(`2026-11-0${day + 1}`, "right", "words", "p i n=ng k"),
    answer(`2026-11-0${day + 1}`, "wrong", "words", "t a n=ng k", "tan"),
    answer(`2026-11-0${day + 1}`, "right", "dictation", "pink"),
  ]);
  expect(follow(log, without)).toEqual(follow(log, { ...without, words: { lexicon: words } }));
  expect(Object.keys(follow(log, wanted).traces)).toContain(`say ${nk}`);
});

test("the same answers give the same mind in any order of arrival", () => {
  const log = [1, 2, 3, 4].flatMap((day) => [
    answer(`2026-11-0${day}`, day % 2 === 0 ? "right" : "none", "card", nk),
    answer(`2026-11-0${day}`, "wrong", "words", "t a n=ng k", "tan"),
  ]);
  expect(follow([...log].reverse(), wanted)).toEqual(follow(log, wanted));
});

test("a judgement says something of the unit and of no part", () => {
  const said = { ...answer(DAY, "right", "card", nk), source: { kind: "judgement" } } as GivenAnswer;
  const mind = follow([said], wanted);
  expect(Object.keys(mind.traces)).toEqual([`say ${nk}`]);
});

test("why tells the words and cards of a unit, and of a part the card of the unit", () => {
  const log = [
    answer("2026-11-02", "none", "card", nk),
    answer("2026-11-05", "wrong", "words", "t a n=ng k", "tan"),
    answer("2026-11-09", "right", "words", "p i n=ng k"),
  ];
  expect(movedMost(historyOf(log, `say ${nk}`, wanted)).map(({ says }) => says)).toEqual([
    "read in “pink”",
    "went wrong in “tank”, read as “tan”",
    "no answer",
  ]);
  expect(historyOf(log, "say n=ng", wanted)[0]?.says).toBe("no answer, in “nk”");
});

test("what changed names the unit for who is taught it, and for no one else", () => {
  const log = [1, 3, 5, 8].map((day) => answer(`2026-11-0${day}`, "right", "words", "p i n=ng k"));
  const changed = (by: FollowWanted) =>
    changesBetween(knownBy([], by), knownBy(log, by), skillsIn(log, by.words), "2026-11-20", {
      ...by,
      secureWhen: startingSecureWhen,
    }).map(({ skill }) => skill);
  expect(changed(wanted)).toContain(`say ${nk}`);
  expect(changed(without)).not.toContain(`say ${nk}`);
  expect(changed(without)).toContain("say n=ng");
});
