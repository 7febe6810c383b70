import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type Answer,
  chooseItems,
  deal,
  deskState,
  dice,
  type GivenAnswer,
  MOST_CARDS,
  type Outcome,
  passReached,
  shuffled,
  standing,
  summarise,
} from "./index.ts";

const at = (minute: number) => new Date(Date.UTC(2026, 8, 7, 9, minute)).toISOString();
let serial = 0;
function given(item: string, outcome: Outcome, more: Partial<GivenAnswer> & { heard?: string } = {}): GivenAnswer {
  const base = {
    id: `id${serial++}`,
    childId: "c",
    item,
    ms: 1000,
    checkId: "k",
    pass: 1,
    markedAt: at(serial),
    day: "2026-09-07",
    markedBy: "Mx T.",
  };
  return { ...base, outcome, ...(outcome === "wrong" ? { heard: null } : {}), ...more } as GivenAnswer;
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
});

describe("what a deck holds", () => {
  const taught = Array.from({ length: 60 }, (_, index) => `g${index}=s`);
  const base = {
    taught,
    recent: taught.slice(-3),
    picked: ["zz=z", "g1=s", "zz=z"],
    isSecure: (gpc: string) => gpc < "g2",
    wasAsked: (gpc: string) => gpc === "g59=s",
  };
  test("due: not secure, what was asked before first, 40 at most", () => {
    const items = chooseItems({ ...base, scope: "due" });
    expect(items).toHaveLength(MOST_CARDS);
    expect(items[0]).toBe("g59=s");
    expect(items.some((gpc) => gpc < "g2")).toBe(false);
  });
  test("all, recent, picked: as asked, none twice", () => {
    expect(chooseItems({ ...base, scope: "all" })).toHaveLength(60);
    expect(chooseItems({ ...base, scope: "recent" })).toEqual(["g57=s", "g58=s", "g59=s"]);
    expect(chooseItems({ ...base, scope: "picked" })).toEqual(["zz=z", "g1=s"]);
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
  const play = (outcomes: Record<string, Outcome>, pass: number, answers: GivenAnswer[] = []) => {
    for (;;) {
      const state = deskState(items, 5, pass, answers);
      if (!state.current) return answers;
      answers = [...answers, given(state.current, outcomes[state.current] ?? "right", { pass })];
    }
  };
  test("each card once, then the pass is through and holds what was missed", () => {
    const answers = play({ "b=b": "wrong", "d=d": "slow" }, 1);
    expect(answers).toHaveLength(4);
    const done = deskState(items, 5, 1, answers);
    expect(done.current).toBeUndefined();
    expect([...done.missed].sort()).toEqual(["b=b", "d=d"]);
  });
  test("the second pass holds only what was missed", () => {
    const answers = play({ "b=b": "wrong", "d=d": "slow" }, 1);
    expect([...deskState(items, 5, 2, answers).deck].sort()).toEqual(["b=b", "d=d"]);
    const after = play({ "b=b": "none" }, 2, answers);
    expect(deskState(items, 5, 3, after).deck).toEqual(["b=b"]);
    expect(passReached(after)).toBe(2);
  });
  test("undoing the last mark brings its card back", () => {
    const answers = play({}, 1);
    const undone = answers.slice(0, -1);
    expect(deskState(items, 5, 1, undone).current).toBe(answers.at(-1)?.item);
  });
});

test("a result counts first answers, tells wins and losses against last time, and pairs", () => {
  const answers = [
    given("b=b", "wrong", { heard: "d" }),
    given("a=a", "ownWay"),
    given("m=m", "slow", { ms: 4000 }),
    given("t=t", "none"),
    given("b=b", "right", { pass: 2 }),
  ];
  const before = new Map<string, Outcome>([
    ["a=a", "wrong"],
    ["t=t", "right"],
    ["m=m", "right"],
  ]);
  expect(summarise(answers, before)).toEqual({
    asked: 4,
    known: ["a=a"],
    slow: ["m=m"],
    missed: ["b=b", "t=t"],
    wonBack: ["b=b"],
    confusions: [{ pair: "b/d", gpc: "b=b", heard: "d" }],
    nowRight: ["a=a"],
    nowMissed: ["t=t"],
    medianMs: 1000,
  });
});
