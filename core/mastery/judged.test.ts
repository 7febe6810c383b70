import { expect, test } from "vitest";
import { asJudged, type GivenAnswer, inCheck, type Outcome } from "#core/ledger";
import { readEntry, toLexicon } from "#core/words";
import {
  dayNumber,
  foretell,
  historyOf,
  knownBy,
  type Lessons,
  type SaidBy,
  type SecureWhen,
  shipped,
  standingOn,
  startingSecureWhen,
  whyStanding,
} from "./index.ts";

const words = { lexicon: toLexicon(["r ai n|1"].map(readEntry)) };
const lessons: Lessons = { taughtOn: () => dayNumber("2026-09-01"), sessions: () => [] };
const wanted = { lessons, p: shipped, words };
const by = (secureWhen: SecureWhen = startingSecureWhen): SaidBy => ({ lessons, p: shipped, secureWhen });
let serial = 0;

function entry(day: string, outcome: Outcome, more: Partial<GivenAnswer> = {}): GivenAnswer {
  serial += 1;
  const base = {
    id: `a${String(serial).padStart(5, "0")}`,
    childId: "c",
    item: "ai=ai",
    ms: null,
    pass: 1,
    tags: [],
  };
  const at = { markedAt: `${day}T09:00:00.000Z`, day, markedBy: "Ms Harrow" };
  return { ...base, ...at, ...inCheck("card", "k"), outcome, ...more } as GivenAnswer;
}
const judged = (day: string, knows: boolean) => entry(day, knows ? "right" : "none", asJudged("card"));
const on = (day: string, log: readonly GivenAnswer[], when?: SecureWhen) =>
  standingOn(knownBy(log, wanted), "ai=ai", day, by(when));

test("what a teacher knows counts for more than a card, makes secure by every rule, and says so", () => {
  const never = on("2026-11-02", []);
  const known = on("2026-11-02", [judged("2026-11-02", true)]);
  expect(known.chance).toBeGreaterThan(on("2026-11-02", [entry("2026-11-02", "right")]).chance);
  expect(known.chance).toBeGreaterThan(never.chance);
  for (const when of [
    startingSecureWhen,
    { by: "days", days: 2 },
    { by: "share", percent: 90, of: 5 },
    { by: "pass" },
  ] as const)
    expect(on("2026-11-02", [judged("2026-11-02", true)], when).state, when.by).toBe("secure");
  expect(whyStanding(known, startingSecureWhen)).toMatch(/A teacher says that it is known; that counts until/);
  const [piece] = historyOf([judged("2026-11-02", true)], "say ai=ai", wanted);
  expect(piece?.says).toBe("known, as the teacher says");
});
test("that it is not known is a gap at once, where one slip is none", () => {
  const strong = [entry("2026-10-05", "right"), entry("2026-10-12", "right")];
  expect(on("2026-11-02", [...strong, entry("2026-11-02", "none")]).state).not.toBe("gap");
  const not = on("2026-11-02", [...strong, judged("2026-11-02", false)]);
  expect(not.state).toBe("gap");
  expect(whyStanding(not, startingSecureWhen)).toMatch(/A teacher says that it is not known/);
});
test("it wears off within weeks, sooner than what was shown", () => {
  const said = [judged("2026-11-02", true)];
  const shown = ["2026-10-12", "2026-10-26", "2026-11-02"].map((day) => entry(day, "right"));
  expect(on("2027-01-04", said).state).not.toBe("secure");
  expect(on("2027-01-04", shown).state).toBe("secure");
});
test("an answer that goes against it ends it; one that agrees does not", () => {
  const said = judged("2026-11-02", true);
  expect(on("2026-11-04", [said, entry("2026-11-04", "right")])).toMatchObject({ state: "secure", judged: true });
  const after = on("2026-11-05", [said, entry("2026-11-04", "none"), entry("2026-11-05", "none")]);
  expect(after.judged).toBeUndefined();
  expect(after.state).not.toBe("secure");
});
test("it is never foretold, and counts in none of the school's rules", () => {
  const log = [judged("2026-11-02", true), entry("2026-11-04", "right")];
  expect(foretell(log, wanted)).toHaveLength(1);
  expect(knownBy(log, wanted).shown["ai=ai"]).toMatchObject({ days: 1, answers: 1 });
});
