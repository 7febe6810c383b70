import { describe, expect, test } from "vitest";
import { type GivenAnswer, inCheck, isGiven, type Outcome, takesHeard } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import {
  canRead,
  cellAt,
  childRow,
  codeOf,
  dayNumber,
  fadesOf,
  foresightOf,
  historyOf,
  knownBy,
  type Lessons,
  movedMost,
  type SaidBy,
  type SecureWhen,
  type Standing,
  secondLook,
  shipped,
  shownSpellings,
  standingOn,
  startingSecureWhen,
  weightsOf,
  whyStanding,
} from "./index.ts";

const lexicon = toLexicon(["b i n|2", "b e d|1"].map(readEntry));
const lessons: Lessons = {
  taughtOn: (thing) => (thing === "sh=sh" ? undefined : dayNumber("2026-09-01")),
  sessions: () => [],
};
const words = { lexicon };
const TODAY = "2026-11-20";
let serial = 0;

function card(day: string, outcome: Outcome, item = "b=b", more: Partial<GivenAnswer> = {}): GivenAnswer {
  const base = {
    id: `a${String(serial++).padStart(5, "0")}`,
    ...inCheck("card", `check ${day}`),
    tags: [],
    childId: "c",
    item,
    ms: 900,
    pass: 1,
    markedAt: `${day}T09:00:00.000Z`,
    day,
    markedBy: "Mx T.",
    ...more,
  };
  return (takesHeard(outcome) ? { ...base, outcome, heard: "d", units: null } : { ...base, outcome }) as GivenAnswer;
}
const by = (secureWhen: SecureWhen = startingSecureWhen): SaidBy => ({ lessons, p: shipped, secureWhen });
const wanted = { lessons, p: shipped, words };
const standing = (answers: readonly GivenAnswer[], when?: SecureWhen, today = TODAY, gpc = "b=b"): Standing =>
  standingOn(knownBy(answers, wanted), gpc, today, by(when));
const days = (...outcomes: Outcome[]) => outcomes.map((outcome, at) => card(`2026-11-${10 + at}`, outcome));

describe("words laid over the chance", () => {
  test("not taught, not checked; what was asked before it was taught shows", () => {
    expect(standing([]).state).toBe("not checked");
    expect(standing([], undefined, TODAY, "sh=sh").state).toBe("not taught");
    const early = [card("2026-11-10", "none", "sh=sh"), card("2026-11-12", "none", "sh=sh")];
    expect(standing(early, undefined, TODAY, "sh=sh").state).toBe("gap");
  });
  test("one slip is never a gap, whoever slips", () => {
    expect(standing(days("none")).state).toBe("not sure yet");
    const weak = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m"].map((gpc) => card("2026-11-01", "none", gpc));
    const once = standing([...weak, card("2026-11-12", "wrong")]);
    expect(once.gap).toBeGreaterThan(0.8);
    expect(once.state).toBe("not sure yet");
    expect(whyStanding(once, startingSecureWhen)).toMatch(/one slip is never a gap/);
    expect(standing([...weak, ...days("wrong", "none")]).state).toBe("gap");
    expect(standing(days("right", "right", "right", "none")).state).not.toBe("gap");
  });
  test("one right answer is nothing secure, however strong the child", () => {
    const strong = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n"].flatMap((gpc) => [
      card("2026-11-01", "right", gpc),
      card("2026-11-08", "right", gpc),
    ]);
    const when: SecureWhen = { by: "model", percent: 80 };
    const once = standing([...strong, card("2026-11-12", "right")], when);
    expect(once.chance).toBeGreaterThan(0.8);
    expect(once.state).toBe("not sure yet");
    expect(whyStanding(once, when)).toMatch(/one right answer is nothing secure/);
    expect(standing([...strong, ...days("right", "right")]).state).toBe("secure");
  });
  test("what goes in four weeks is told in hundredths; of what was never asked nothing", () => {
    const known = knownBy(days("right", "right"), { ...by(), words: { lexicon } });
    const [asked, never] = ["b=b", "zz=z"].map((gpc) => standingOn(known, gpc, "2026-11-20", by()));
    const later = standingOn(known, "b=b", "2026-12-18", by()).chance;
    const lost = fadesOf(known, asked as Standing, "2026-11-20", by());
    expect(lost).toBe(Math.round(100 * ((asked?.chance ?? 0) - later)));
    expect(lost).toBeGreaterThan(0);
    expect(fadesOf(known, never as Standing, "2026-11-20", by())).toBe(0);
  });
  test("right again and again is secure, and fades", () => {
    const answers = days("right", "right", "right", "right");
    expect(standing(answers).state).toBe("secure");
    expect(standing(answers, undefined, "2029-11-20").state).not.toBe("secure");
  });
  test.each<[string, SecureWhen, Outcome[], boolean]>([
    ["two days", { by: "days", days: 2 }, ["none", "right", "right"], true],
    ["two days, not in a row", { by: "days", days: 2 }, ["right", "slow", "right"], false],
    ["three days", { by: "days", days: 3 }, ["right", "right"], false],
    ["a share", { by: "share", percent: 75, of: 4 }, ["right", "right", "right", "right"], true],
    ["a share that is not reached", { by: "share", percent: 90, of: 4 }, ["right", "none", "right", "right"], false],
    ["fewer answers than the share is of", { by: "share", percent: 75, of: 5 }, ["right", "right", "right"], false],
  ])("by the school's own rule: %s", (_, when, outcomes, secure) => {
    const good = ["s=s", "a=a", "t=t", "p=p", "i=i"].map((gpc) => card("2026-11-01", "right", gpc));
    expect(standing([...good, ...days(...outcomes)], when).state === "secure").toBe(secure);
  });
  test("by a round without an error: all cards of it, until one of a later round is missed", () => {
    const deck = ["b=b", "s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m"];
    const round = (day: string, missed?: string) =>
      deck.map((gpc, at) =>
        card(day, gpc === missed ? "none" : "right", gpc, { markedAt: `${day}T09:${10 + at}:00.000Z` }),
      );
    const clean = round("2026-11-10");
    expect(standing(clean, { by: "pass" }).state).toBe("secure");
    expect(standing(clean.slice(0, 5), { by: "pass" }).state).toBe("not sure yet");
    const broken = [...clean, ...round("2026-11-12", "m=m")];
    expect(standing(broken, { by: "pass" }).state).not.toBe("secure");
    expect(standing([...broken, ...round("2026-11-14")], { by: "pass" }).state).toBe("secure");
  });
});

test("a row, its codes, and what a map reads in them", () => {
  const answers = [
    ...days("none", "none", "wrong"),
    ...["10", "12", "14"].map((day) => card(`2026-11-${day}`, "right", "s=s")),
  ];
  const known = knownBy(answers, wanted);
  const row = childRow(known, ["b=b", "s=s", "m=m", "sh=sh"], TODAY, by());
  const cells = row.map(codeOf).join("");
  const read = row.map((_, at) => cellAt(cells, at));
  expect(read.map((cell) => cell.state)).toEqual(row.map((one) => one.state));
  expect(read.map((cell) => cell.state)).toEqual(["gap", "secure", "not checked", "not taught"]);
  expect(read[0]?.need).toBeGreaterThan(0.7);
  expect(read[0]?.canRead).toBe(false);
  expect(read[1]).toMatchObject({ need: 0, canRead: true });
  expect(read[2]).toMatchObject({ need: 0, chance: 0, canRead: false });
  expect(cellAt(cells, 99).state).toBe("not taught");
  expect(cellAt("?!x", 0).state).toBe("not taught");
  expect(shownSpellings(known)).toEqual(["b=b", "s=s"]);
});

test("no word is built on what never came right, however much else the child knows", () => {
  const others = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "d=d", "g=g", "o=o", "e=e", "r=r", "h=h"];
  const round = (outcome: Outcome, day: string) => [
    card(day, outcome),
    ...others.map((item) => card(day, "right", item)),
  ];
  const missed = standing(round("none", "2026-11-18"));
  expect(missed.chance).toBeGreaterThan(0.5);
  const readAt = (one: Standing) => cellAt(codeOf(one), 0);
  expect(readAt(missed)).toMatchObject({ state: missed.state, chance: Math.round(missed.chance * 100) / 100 });
  expect([canRead(missed), readAt(missed).canRead]).toEqual([false, false]);
  expect(readAt({ ...missed, taught: false })).toMatchObject({ state: missed.state, taught: false, canRead: false });
  const rightSince = standing([...round("none", "2026-11-17"), card("2026-11-18", "right")]);
  expect([canRead(rightSince), readAt(rightSince).canRead]).toEqual([true, true]);
  const slipped = standing([...round("right", "2026-11-17"), card("2026-11-18", "none")]);
  expect([canRead(slipped), readAt(slipped).canRead]).toEqual([true, true]);
});

test("everyone slips, and of what no one is sure yet more has to be missing to be a need", () => {
  const need = (code: string) => cellAt(code, 0).need;
  expect(["u70", "u79", "u81", "g30"].map(need)).toEqual([0.3, 0.21, 0, 0.7]);
  expect(["o60", "o64", "o66", "o79"].map(need)).toEqual([0.4, 0.36, 0, 0]);
});
test("what was asked before it is taught shows on the map, and is no need", () => {
  const answers = ["10", "12", "14"].map((day) => card(`2026-11-${day}`, "none", "sh=sh"));
  const [code = ""] = childRow(knownBy(answers, wanted), ["sh=sh"], TODAY, by()).map(codeOf);
  expect(code).toMatch(/^G/);
  expect(cellAt(code, 0)).toMatchObject({ state: "gap", need: 0, taught: false });
  expect(cellAt(code.toLowerCase(), 0)).toMatchObject({ state: "gap", taught: true });
  expect(cellAt(code.toLowerCase(), 0).need).toBeGreaterThan(0.5);
});

describe("why", () => {
  const read = (day: string, outcome: Outcome, item: string, heard: string | null) =>
    ({ ...card(day, outcome, item), ...inCheck("words", "k"), heard, units: null }) as GivenAnswer;
  const answers = [
    card("2026-10-01", "right"),
    read("2026-10-08", "right", "b i n", null),
    read("2026-10-15", "wrong", "b e d", "/d e d/"),
    card("2026-10-22", "right"),
  ];
  const history = historyOf(answers, "say b=b", wanted);
  test("every answer that spoke of it, with what it was and how far it moved the chance", () => {
    expect(history.map(({ says }) => says)).toEqual([
      "said at once",
      "read in “bin”",
      "went wrong in “bed”, read as “ded”",
      "said at once",
    ]);
    expect(history.map(({ before, after }) => Math.sign(after.chance - before))).toEqual([1, 1, -1, 1]);
    expect(historyOf(answers, "say e=e", wanted).map(({ says }) => says)).toEqual([
      "right in “bed”, where something else went wrong",
    ]);
    expect(isGiven(history[0]?.answer as GivenAnswer)).toBe(true);
  });
  test("the three that moved it most, the newest first", () => {
    const most = movedMost(history);
    expect(most).toHaveLength(3);
    expect(most.map(({ says }) => says)).toContain("went wrong in “bed”, read as “ded”");
    expect(most.map(({ answer }) => answer.day)).toEqual(
      most
        .map(({ answer }) => answer.day)
        .sort()
        .reverse(),
    );
  });
  test("a sentence with the chance, what it stands on, and the word", () => {
    const says = whyStanding(standing(answers), startingSecureWhen);
    expect(says).toMatch(/^\d+% likely to be said at sight today, between \d+% and \d+%: 4 answers on 4 days\. /);
    expect(whyStanding(standing([]), startingSecureWhen)).toMatch(/^Taught, and not asked yet\./);
    expect(whyStanding(standing([], undefined, TODAY, "sh=sh"), startingSecureWhen)).toBe(
      "Not taught yet in this class, and never asked.",
    );
    const often = days("right", "right", "right", "right");
    expect(whyStanding(standing(often), startingSecureWhen)).toMatch(/Secure here means a chance of 85% or more\.$/);
    const two: SecureWhen = { by: "days", days: 5 };
    expect(whyStanding(standing(often, two), two)).toMatch(
      /Not sure yet: secure here means right at once on the last 5 days on which it was asked\.$/,
    );
  });
});

const all = (taught: readonly string[], targets: readonly string[] = []) => ({
  taught,
  weights: weightsOf({ taught, exceptionWords: [], targets: new Set(targets) }),
});

test("a second look takes what is doubtful or fading, and leaves what is settled or was asked today", () => {
  const answers = [
    ...days("none", "none", "none"),
    ...["10", "12", "14"].map((day) => card(`2026-11-${day}`, "right", "s=s")),
    card("2026-11-12", "none", "m=m"),
    card(TODAY, "none", "t=t"),
  ];
  const looks = secondLook(knownBy(answers, wanted), all(["b=b", "s=s", "m=m", "t=t", "p=p"]), TODAY, by());
  expect(looks.map(({ gpc }) => gpc)).toEqual(["m=m"]);
  const later = secondLook(knownBy(answers, wanted), all(["b=b", "s=s"]), "2028-03-20", by());
  expect(later.find(({ gpc }) => gpc === "s=s")?.why).toBe("fading");
  // What a group works at comes before what is as doubtful.
  const alike = ["m=m", "n=n"].map((gpc) => card("2026-11-12", "none", gpc));
  const first = (targets: readonly string[]) =>
    secondLook(knownBy(alike, wanted), all(["m=m", "n=n"], targets), TODAY, by())[0]?.gpc;
  expect([first(["m=m"]), first(["n=n"])]).toEqual(["m=m", "n=n"]);
});

test("foresight counts each way on the same cards, and nothing for nothing", () => {
  const answers = Array.from({ length: 40 }, (_, at) =>
    card(
      `2026-${String(10 + Math.floor(at / 20)).padStart(2, "0")}-${10 + (at % 20)}`,
      at % 4 === 0 ? "none" : "right",
      at % 4 === 0 ? "b=b" : "s=s",
    ),
  );
  const { answers: count, ways, bands } = foresightOf([{ answers, wanted }]);
  expect(count).toBe(40);
  expect(ways.map(({ name }) => name)).toEqual(["model", "days", "last", "share"]);
  const loss = new Map(ways.map(({ name, logLoss }) => [name, logLoss]));
  expect(loss.get("model")).toBeLessThan(loss.get("share") ?? 0);
  expect(bands.reduce((sum, band) => sum + band.count, 0)).toBe(40);
  expect(foresightOf([])).toEqual({ answers: 0, ways: [], bands: [] });
});

describe("a lesson on a day on which the child was away", () => {
  const away = (...things: readonly string[]): Lessons => ({ ...lessons, missed: (thing) => things.includes(thing) });
  const as = (its: Lessons, answers: readonly GivenAnswer[] = []) =>
    standingOn(knownBy(answers, { ...wanted, lessons: its }), "b=b", TODAY, { ...by(), lessons: its });

  test("counts for less than one that it had, and for more than none; it stays to be asked", () => {
    const [none, missed, had] = [{ ...lessons, taughtOn: () => undefined }, away("b=b"), away("m=m")].map((one) =>
      as(one),
    );
    expect(missed?.chance).toBeLessThan((had?.chance ?? 0) - 0.05);
    expect(missed?.chance).toBeGreaterThan((none?.chance ?? 1) + 0.05);
    expect([missed?.state, missed?.taught, missed?.missed, had?.missed]).toEqual(["not checked", true, true, false]);
    expect(whyStanding(missed as Standing, startingSecureWhen)).toMatch(
      /^Taught on a day on which the child was away/,
    );
    expect(whyStanding(had as Standing, startingSecureWhen)).toMatch(/^Taught, and not asked yet/);
  });

  test("asked, it stands by its answers: what it missed then makes hardly a difference", () => {
    const right = ["10", "12", "14", "16"].map((day) => card(`2026-11-${day}`, "right"));
    expect(Math.abs(as(away("b=b"), right).chance - as(lessons, right).chance)).toBeLessThan(0.06);
    expect(as(away("b=b"), right).state).toBe("secure");
  });

  test("what was taught then and never asked is worth a second look", () => {
    const its = away("b=b");
    const look = (answers: readonly GivenAnswer[]) =>
      secondLook(knownBy(answers, { ...wanted, lessons: its }), all(["b=b", "s=s"]), TODAY, {
        ...by(),
        lessons: its,
      });
    expect(look([]).map(({ gpc, why }) => [gpc, why])).toEqual([["b=b", "away"]]);
    expect(look(days("right", "right", "right", "right"))).toEqual([]);
  });
});
