import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, inSession, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import {
  type Chance,
  chanceOn,
  dayNumber,
  type FollowWanted,
  follow,
  type Lessons,
  type Skill,
  shipped,
} from "./index.ts";

const lexicon = toLexicon(["r ai n|1", "t r ai n|2", "sh i p|1", "s a t|1", "b r ai n|3"].map(readEntry));
const TAUGHT = "2026-09-01";
const taughtAll: Lessons = { taughtOn: () => dayNumber(TAUGHT), sessions: () => [] };
const wanted: FollowWanted = { lessons: taughtAll, p: shipped, words: { lexicon } };
let serial = 0;

function answer(
  day: string,
  outcome: Outcome,
  item: string,
  more: Partial<GivenAnswer> & { heard?: string | null } = {},
) {
  const { heard = null, ...rest } = more;
  const base = {
    id: `a${String(serial++).padStart(5, "0")}`,
    ...inCheck("card", "k"),
    tags: [],
    childId: "c",
    item,
    ms: 900,
    pass: 1,
    markedAt: `${day}T09:00:00.000Z`,
    day,
    markedBy: "Mx T.",
    ...rest,
  };
  return (takesHeard(outcome) ? { ...base, outcome, heard, units: null } : { ...base, outcome }) as GivenAnswer;
}
const card = (day: string, outcome: Outcome, item = "ai=ai", more = {}) => answer(day, outcome, item, more);
const word = (day: string, outcome: Outcome, item: string, heard: string | null = null, more = {}) =>
  answer(day, outcome, item, { kind: "words", heard, ...more } as never);
const text = (day: string, outcome: Outcome, item: string, heard: string | null = null) =>
  word(day, outcome, item, heard, { source: { kind: "reading", readingId: "r" }, way: "text" });
const stands = (
  answers: readonly GivenAnswer[],
  day = "2026-11-20",
  skill: Skill = "say ai=ai",
  by = wanted,
): Chance => chanceOn(follow(answers, by), skill, day, by);
const DAY = "2026-11-19";
const start = stands([]).chance;

describe("what each kind of evidence does", () => {
  test("right raises, wrong lowers; slow lies between; a colleague's mark says less than a check", () => {
    const told = (outcome: Outcome, more = {}) => stands([card(DAY, outcome, "ai=ai", more)]).chance;
    expect(told("right")).toBeGreaterThan(start);
    expect(told("none")).toBeLessThan(start);
    expect(told("wrong")).toBeCloseTo(told("none"), 6);
    expect(told("ownWay")).toBe(told("right"));
    expect(told("slow")).toBeGreaterThan(told("none"));
    expect(told("slow")).toBeLessThan(told("right"));
    const inOne = { ...inSession("card", "s", "r") };
    expect(told("right", inOne)).toBeLessThan(told("right"));
    expect(told("right", inOne)).toBeGreaterThan(start);
    expect(told("right", { help: "hint" })).toBeLessThan(told("right"));
  });
  test("a second answer on the same day weighs less than one on another day", () => {
    const once = stands([card("2026-11-18", "right"), card("2026-11-18", "right")]);
    const twice = stands([card("2026-11-17", "right"), card("2026-11-18", "right")]);
    expect(once.chance).toBeLessThan(twice.chance);
    expect(once).toMatchObject({ answers: 2, days: 1 });
    expect(twice).toMatchObject({ answers: 2, days: 2 });
  });
  test("a word read right speaks for each unit, a text for each of its words, a common word for less", () => {
    const read = stands([word(DAY, "right", "b r ai n")]).chance;
    expect(read).toBeGreaterThan(start);
    expect(stands([text(DAY, "right", "b r ai n")]).chance).toBeGreaterThan(start);
    expect(stands([text(DAY, "right", "b r ai n")]).chance).toBeLessThan(read);
    const whole = { ...wanted, p: { ...shipped, textWeight: 1 } };
    expect(stands([text(DAY, "right", "b r ai n")]).chance).toBeLessThan(
      stands([text(DAY, "right", "b r ai n")], "2026-11-20", "say ai=ai", whole).chance,
    );
    expect(stands([word(DAY, "right", "r ai n")]).chance).toBeLessThan(read);
    expect(stands([word(DAY, "sounded", "b r ai n")]).chance).toBeLessThan(read);
  });
  test("what was said names the unit that failed, and clears the others", () => {
    const said = [word(DAY, "wrong", "t r ai n", "/t r a n/")];
    expect(stands(said).chance).toBeLessThan(start - 0.15);
    const other = (answers: readonly GivenAnswer[]) => stands(answers, "2026-11-20", "say t=t").chance;
    expect(other(said)).toBeGreaterThan(other([]));
  });
  test("where no one knows which unit failed, the doubtful one takes the blame", () => {
    const sure = ["2026-11-10", "2026-11-12", "2026-11-14"].flatMap((day) => [
      card(day, "right", "t=t"),
      card(day, "right", "r=r"),
      card(day, "right", "n=n"),
    ]);
    const failed = [...sure, word(DAY, "none", "t r ai n")];
    const lost = (skill: Skill) => stands(sure, DAY, skill).chance - stands(failed, DAY, skill).chance;
    expect(lost("say ai=ai")).toBeGreaterThan(3 * lost("say t=t"));
    expect(lost("say t=t")).toBeGreaterThan(0);
  });
  test("right sounds and a wrong blend speak for the units and against blending", () => {
    const blend = [word(DAY, "blend", "t r ai n")];
    expect(stands(blend).chance).toBeGreaterThan(start);
    expect(stands(blend, DAY, "blend CCVC").chance).toBeLessThan(stands([], DAY, "blend CCVC").chance - 0.1);
  });
  test("what a child does otherwise moves what it was never asked; another spelling most of all its double", () => {
    const good = ["s=s", "a=a", "t=t", "p=p", "i=i"].map((gpc) => card(DAY, "right", gpc));
    const bad = ["s=s", "a=a", "t=t", "p=p", "i=i"].map((gpc) => card(DAY, "none", gpc));
    expect(stands(good).chance).toBeGreaterThan(start);
    expect(stands(bad).chance).toBeLessThan(start);
    const double = (answers: readonly GivenAnswer[]) => stands(answers, DAY, "say ff=f").chance;
    const lost = double([card(DAY, "none", "sh=sh")]) - double([card(DAY, "none", "f=f")]);
    expect(lost).toBeGreaterThan(0);
  });
  test("writing and reading are linked, and not the same", () => {
    const written = [answer(DAY, "right", "ai=ai", { kind: "write", ms: null } as never)];
    expect(stands(written, DAY, "spell ai=ai").chance - stands([], DAY, "spell ai=ai").chance).toBeGreaterThan(0.05);
    // Chosen among several it says the same of writing, and less: it may be luck.
    const chosen = [answer(DAY, "right", "ai=ai", { kind: "choose", ms: null } as never)];
    const by = (answers: readonly GivenAnswer[]) => stands(answers, DAY, "spell ai=ai").chance;
    expect(by(chosen)).toBeGreaterThan(by([]) + 0.02);
    expect(by(chosen)).toBeLessThan(by(written));
    const read = stands([card(DAY, "none")], DAY, "spell ai=ai").chance;
    expect(read).toBeLessThan(stands([], DAY, "spell ai=ai").chance);
    const missed = [answer(DAY, "wrong", "train", { kind: "dictation", heard: "tran", ms: null } as never)];
    expect(stands(missed, DAY, "spell ai=ai").chance).toBeLessThan(stands([], DAY, "spell ai=ai").chance);
    expect(stands(missed, DAY, "spell t=t").chance).toBeGreaterThan(stands([], DAY, "spell t=t").chance);
  });
  test("an answer much slower than the child's own is slow, whatever the school's limit", () => {
    const quick = Array.from({ length: 14 }, (_, at) =>
      card(`2026-11-0${1 + (at % 9)}`, "right", ["s=s", "a=a", "t=t"][at % 3], { ms: 800 + at * 10 }),
    );
    const at = (ms: number) => stands([...quick, card(DAY, "right", "ai=ai", { ms })]).chance;
    expect(at(4500)).toBeLessThan(at(900) - 0.02);
  });
});

test("an answer to what no one knows is left out, whatever stands in it", () => {
  const odd = ["zz=zz=q", "", "ai", "x=ai"].map((item) => card(DAY, "none", item));
  const words = ["? ", "q=q", "r ai n=|||", "ai+"].map((item) => word(DAY, "right", item));
  expect(follow([...odd, ...words], wanted).traces).toEqual({});
  expect(stands([...odd, ...words])).toEqual(stands([]));
});
test("the worked example of Help", () => {
  const rainy = toLexicon(["r ai n|2", "t r ai n|2"].map(readEntry));
  const by = { ...wanted, words: { lexicon: rainy } };
  const known = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "d=d", "e=e", "o=o", "u=u"].map((gpc, at) =>
    card("2026-10-01", at % 6 === 5 ? "none" : "right", gpc),
  );
  const percent = (log: readonly GivenAnswer[], day: string, skill: Skill = "say ai=ai") =>
    Math.round(100 * stands(log, day, skill, by).chance);
  const rain = [...known, word("2026-10-01", "right", "r ai n")];
  const train = [...rain, word("2026-10-08", "wrong", "t r ai n", "tran")];
  expect([percent(known, "2026-10-01"), percent(rain, "2026-10-01"), percent(train, "2026-10-08")]).toEqual([
    64, 78, 53,
  ]);
  for (const skill of ["say t=t", "say r=r"] as const)
    expect(percent(train, "2026-10-08", skill)).toBeGreaterThan(percent(rain, "2026-10-08", skill));
});

describe("time and lessons", () => {
  const two = [card("2026-09-20", "right"), card("2026-09-27", "right")];
  test("it fades, and is less sure, the longer no one asks; what came after long keeps longer", () => {
    const at = (day: string) => stands(two, day);
    expect(at("2026-12-20").chance).toBeLessThan(at("2026-09-28").chance);
    expect(at("2026-12-20").high - at("2026-12-20").low).toBeGreaterThan(
      at("2026-09-28").high - at("2026-09-28").low,
    );
    const spaced = [card("2026-09-10", "right"), card("2026-11-02", "right")];
    const close = [card("2026-09-10", "right"), card("2026-09-11", "right")];
    expect(stands(spaced, "2026-11-03").halfLife).toBeGreaterThan(stands(close, "2026-11-03").halfLife);
    expect(stands([...two, card("2026-10-04", "none")], "2026-10-05").halfLife).toBeLessThan(
      stands(two, "2026-10-05").halfLife,
    );
  });
  test("a session raises the chance before the next answer, and makes it less sure; a lesson too", () => {
    const missed = [card("2026-11-02", "none"), card("2026-11-05", "none")];
    const held: Lessons = {
      taughtOn: taughtAll.taughtOn,
      sessions: (thing) => (thing === "ai=ai" ? [{ day: dayNumber("2026-11-10"), taught: true }] : []),
    };
    const with_ = { ...wanted, lessons: held };
    expect(stands(missed, "2026-11-12", "say ai=ai", with_).chance).toBeGreaterThan(
      stands(missed, "2026-11-12").chance + 0.05,
    );
    // One that is still to come changes nothing.
    expect(stands(missed, "2026-11-08", "say ai=ai", with_)).toEqual(stands(missed, "2026-11-08"));
    const late: Lessons = { taughtOn: () => dayNumber("2026-11-10"), sessions: () => [] };
    const before = { ...wanted, lessons: late };
    expect(stands([], "2026-11-09", "say ai=ai", before).chance).toBeLessThan(
      stands([], "2026-11-10", "say ai=ai", before).chance,
    );
    expect(stands(missed, "2026-11-12", "say ai=ai", before).chance).toBeGreaterThan(
      stands(missed, "2026-11-09", "say ai=ai", before).chance,
    );
  });
  test("of a child that keeps what it learned the fading is taken to be slower everywhere", () => {
    const items = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "d=d"];
    const keeps = items.flatMap((gpc) => [card("2026-05-01", "right", gpc), card("2026-11-01", "right", gpc)]);
    const loses = items.flatMap((gpc) => [card("2026-05-01", "right", gpc), card("2026-11-01", "none", gpc)]);
    const early: FollowWanted = { ...wanted, lessons: { ...taughtAll, taughtOn: () => dayNumber("2026-04-01") } };
    expect(stands(keeps, "2026-11-20", "say ai=ai", early).halfLife).toBeGreaterThan(
      1.04 * stands(loses, "2026-11-20", "say ai=ai", early).halfLife,
    );
  });
});
