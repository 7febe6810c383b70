import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type Answer,
  type GivenAnswer,
  inCheck,
  notesIn,
  type Outcome,
  standing,
  stopIn,
  takesHeard,
} from "#core/ledger";
import { deal, deskState, dice, minuteIsOver, passReached, rightInMinute, shuffled, stopAdvice } from "./index.ts";

const at = (minute: number) => new Date(Date.UTC(2026, 8, 7, 9, minute)).toISOString();
const mark = { childId: "c", day: "2026-09-07", markedBy: "Mx T." };
let serial = 0;
function given(item: string, outcome: Outcome, more: Partial<GivenAnswer> & { heard?: string } = {}): GivenAnswer {
  const base = {
    id: `id${String(serial++).padStart(4, "0")}`,
    ...inCheck("card", "k"),
    tags: [],
    childId: "c",
    item,
    ms: 1000,
    pass: 1,
    markedAt: at(serial),
    day: "2026-09-07",
    markedBy: "Mx T.",
  };
  return { ...base, outcome, ...(takesHeard(outcome) ? { heard: null, units: null } : {}), ...more } as GivenAnswer;
}

describe("the log", () => {
  test("a voided answer no longer stands; voiding it twice changes nothing", () => {
    const wrong = given("b=b", "wrong");
    const right = given("b=b", "right");
    const undo = (id: string): Answer => ({
      id,
      childId: "c",
      outcome: "void",
      voids: wrong.id,
      markedAt: at(50),
      day: "2026-09-07",
      markedBy: "Mx T.",
    });
    expect(standing([wrong, right, undo("u1"), undo("u2")])).toEqual([right]);
  });
  test("stands in order of marking, however it arrives", () => {
    const log = [given("a=a", "right"), given("b=b", "none"), given("c=k", "slow")];
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: 3 }), (mixed) => {
        expect(standing(mixed)).toEqual(log);
      }),
    );
  });
  test("a timed right answer over the threshold reads as slow; untimed kinds and other outcomes stay as marked", () => {
    const log = [
      given("a=a", "right", { ms: 3001 }),
      given("b=b", "right", { ms: 3000 }),
      given("m=m", "right", { ms: null }),
      given("m=m", "right", { kind: "write", ms: 9000 }),
      given("t=t", "ownWay", { ms: 9000 }),
    ];
    const outcomes = (slowAfterMs: number) => standing(log, { slowAfterMs }).map((answer) => answer.outcome);
    expect(outcomes(3000)).toEqual(["slow", "right", "right", "right", "ownWay"]);
    expect(outcomes(0)).toEqual(["right", "right", "right", "right", "ownWay"]);
  });
  test("notes and the end of a check are entries that can be taken back, and no answers", () => {
    const note: Answer = {
      ...mark,
      id: "n1",
      outcome: "note",
      source: { kind: "check", checkId: "k" },
      item: "a=a",
      text: "rubbed eyes",
      markedAt: at(51),
    };
    const stop: Answer = {
      ...mark,
      id: "s1",
      outcome: "stop",
      source: { kind: "check", checkId: "k" },
      why: "tired",
      markedAt: at(52),
    };
    const undo = (voids: string): Answer => ({ ...mark, id: `u${voids}`, outcome: "void", voids, markedAt: at(53) });
    const answer = given("a=a", "right");
    expect(standing([answer, note, stop])).toEqual([answer]);
    expect(notesIn([answer, note, stop])).toEqual([note]);
    expect(stopIn([answer, note, stop], "k")?.why).toBe("tired");
    expect(stopIn([answer, note, stop], "other")).toBeUndefined();
    expect(notesIn([note, undo("n1")])).toEqual([]);
    expect(stopIn([stop, undo("s1")], "k")).toBeUndefined();
  });
});

describe("dealing", () => {
  const items = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,3}=[a-z]{1,2}$/), { minLength: 2, maxLength: 40 });
  test("is complete, without repeats, the same for the same seed, another order each pass", () => {
    fc.assert(
      fc.property(items, fc.integer(), fc.integer({ min: 1, max: 5 }), (list, seed, pass) => {
        const deck = deal(list, seed, pass);
        expect([...deck].sort()).toEqual([...list].sort());
        expect(deal([...list].reverse(), seed, pass)).toEqual(deck);
        expect(deal(list, seed, pass + 1)).not.toEqual(deck);
      }),
    );
  });
  test("dice stay in range", () => {
    const from = dice(7);
    for (let roll = 0; roll < 1000; roll++) {
      expect(from.share()).toBeLessThan(1);
      expect(from.pick(3)).toBeLessThan(3);
    }
    expect(shuffled([], from)).toEqual([]);
  });
});

describe("where a check stands", () => {
  const items = ["a=a", "b=b", "d=d", "m=m"];
  const check = { items, seed: 5, strategy: "shuffled", form: "deck", before: new Map() } as const;
  const play = (outcomes: Record<string, Outcome>, pass: number, answers: GivenAnswer[] = []) => {
    for (;;) {
      const state = deskState(check, pass, answers);
      if (!state.current) return answers;
      answers = [...answers, given(state.current, outcomes[state.current] ?? "right", { pass })];
    }
  };
  test("each card once, then the pass is through and holds what was missed", () => {
    const answers = play({ "b=b": "wrong", "d=d": "slow" }, 1);
    expect(answers).toHaveLength(4);
    const done = deskState(check, 1, answers);
    expect(done.current).toBeUndefined();
    expect([...done.missed].sort()).toEqual(["b=b", "d=d"]);
  });
  test("the second pass holds only what was missed", () => {
    const answers = play({ "b=b": "wrong", "d=d": "slow" }, 1);
    expect([...deskState(check, 2, answers).items].sort()).toEqual(["b=b", "d=d"]);
    const after = play({ "b=b": "none" }, 2, answers);
    expect(deskState(check, 3, after).items).toEqual(["b=b"]);
    expect(passReached(after)).toBe(2);
  });
  test("undoing the last mark brings its card back", () => {
    const answers = play({}, 1);
    const undone = answers.slice(0, -1);
    expect(deskState(check, 1, undone).current).toBe(answers.at(-1)?.item);
  });
});

describe("which item comes next", () => {
  const items = ["a=a", "b=b", "d=d", "m=m"];
  const before = new Map<string, Outcome>([
    ["a=a", "right"],
    ["b=b", "none"],
    ["m=m", "slow"],
  ]);
  const check = { items, seed: 5, strategy: "inOrder", form: "deck", before } as const;
  test("in order: as the check has them", () => {
    expect(deskState(check, 1, []).current).toBe("a=a");
    expect(deskState(check, 1, [given("a=a", "right")]).current).toBe("b=b");
  });
  test("only what was missed: not what was right, and not what was never asked", () => {
    const missed = { ...check, strategy: "missed" } as const;
    expect([...deskState(missed, 1, []).items].sort()).toEqual(["b=b", "m=m"]);
    expect(deskState(missed, 1, [given("b=b", "right"), given("m=m", "right")]).current).toBeUndefined();
  });
  test("a minute goes over all items again and again", () => {
    const minute = { ...check, form: "minute" } as const;
    const first = items.map((item) => given(item, "right", { ms: 10_000 }));
    expect(deskState(minute, 1, first).current).toBeUndefined();
    expect(deskState(minute, 2, first).items).toEqual(items);
    const second = [...first, ...items.map((item) => given(item, "right", { ms: 8000, pass: 2 }))];
    expect(minuteIsOver(first)).toBe(false);
    expect(minuteIsOver(second)).toBe(true);
    expect(rightInMinute(second)).toBe(6);
    expect(rightInMinute([given("a=a", "none", { ms: 1000 }), given("b=b", "slow", { ms: 60_000 })])).toBe(0);
  });
});

describe("advice to stop", () => {
  const none = () => given("a=a", "none");
  test("after so many without an answer in a row, and says why; never before, never when switched off", () => {
    expect(stopAdvice([none(), none(), none()], 3)).toEqual({ suggested: true, why: "No answer 3 times in a row." });
    expect(stopAdvice([none(), none()], 3).suggested).toBe(false);
    expect(stopAdvice([none(), given("b=b", "right"), none(), none()], 3).suggested).toBe(false);
    expect(stopAdvice([none(), given("b=b", "wrong"), none()], 3)).toEqual({
      suggested: true,
      why: "The last 3 were missed.",
    });
    expect(stopAdvice([none(), none(), none()], 0).suggested).toBe(false);
  });
});
