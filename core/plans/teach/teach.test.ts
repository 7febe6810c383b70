import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import type { GivenAnswer } from "#core/ledger";
import { knownBy, type SecureWhen, shipped, shownBy, standingOn, startingSecureWhen } from "#core/mastery";
import { isWordItem, readLexicon } from "#core/words";
import {
  answerOf,
  askedIn,
  fitTime,
  moreWords,
  offerIn,
  oneMore,
  partKinds,
  planSession,
  type SessionPart,
  spentBy,
  type TeachStep,
  type TeachWanted,
  teachOutcomes,
  teachState,
  toldOf,
} from "../index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const part = (kind: SessionPart["kind"], items: readonly string[], more: Partial<SessionPart> = {}): SessionPart => ({
  ...{ kind, items, minutes: 3, how: "" },
  ...more,
});
const parts = [
  part("revisit", ["s=s", "t=t", "sh=sh"], {
    each: [
      { childId: "ada", items: ["s=s", "sh=sh"] },
      { childId: "ben", items: ["t=t", "sh=sh", "ai=ai"] },
    ],
  }),
  part("teach", ["ee=ee"]),
  part("readWords", ["see", "feet", "tree", "sheep"]),
  part("writeWords", ["feel", "seed"]),
  part("lastLook", ["ee=ee"]),
];
const wanted: TeachWanted = {
  ...{ parts, seed: 4 },
  members: [
    { id: "ada", absent: false },
    { id: "ben", absent: false },
    { id: "cy", absent: true },
  ],
};

let serial = 0;
const MINUTE = 60_000;
/** Steps a second apart from an instant on. */
const steps = (list: readonly object[], from = 0): TeachStep[] =>
  list.map((one, at) => ({ id: `s${serial++}`, at: from + at * 1000, ...one }) as TeachStep);
const mark = (childId: string, outcome = "got", more = {}) => ({
  ...{ do: "mark", childId, outcome, said: null, marks: false, together: false },
  ...more,
});
const state = (list: readonly object[]) => teachState(wanted, steps(list));

describe("a session while it runs", () => {
  test("begins with who is there; each child's own cards come in turn", () => {
    const first = state([{ do: "begin" }]);
    expect([first.here, first.came, first.part, first.turn]).toEqual([["ada", "ben"], ["ada", "ben"], 0, 0]);
    expect(first.turns).toHaveLength(5);
    expect(first.turns.slice(0, 4).map(({ childId }) => childId)).toEqual(["ada", "ben", "ada", "ben"]);
    expect(state([]).begun).toBe(false);
    // Before it begins nothing is marked.
    expect(state([mark("ada")]).marks).toEqual([]);
  });

  test("whoever comes for the cards alone is asked in piles of cards, unless no one else is here", () => {
    const [ada, ben, cy] = wanted.members as [object, object, object];
    const members = [{ ...ada, cardsOnly: true }, ben, cy] as TeachWanted["members"];
    const at = (part: number, ...more: object[]) =>
      teachState({ ...wanted, members }, steps([{ do: "begin" }, { do: "part", part }, ...more]));
    expect(at(0).asked).toEqual(["ada", "ben"]);
    expect(at(4).asked).toEqual(["ada", "ben"]);
    expect([at(2).here, at(2).asked]).toEqual([["ada", "ben"], ["ben"]]);
    expect(new Set(at(2).turns.map(({ childId }) => childId))).toEqual(new Set(["ben"]));
    expect(at(2, { do: "here", childId: "ben", here: false }).asked).toEqual(["ada"]);
    // A mark is made all the same where the adult asks it.
    expect(at(2, mark("ada")).marks).toHaveLength(1);
  });

  test("a card that was missed comes back until it is firm, and not for ever", () => {
    const once = state([{ do: "begin" }, mark("ada", "notYet"), { do: "next" }]);
    const [item] = once.turns;
    const again = once.turns.filter((turn) => turn.item === item?.item && turn.childId === "ada");
    expect(again).toHaveLength(2);
    expect(once.turns[4]).toBe(item);
    const got = state([{ do: "begin" }, mark("ada", "got"), { do: "next" }]);
    expect(got.turns).toHaveLength(5);
    const never = Array.from({ length: 60 }, () => [mark("ada", "notYet"), { do: "next" }]).flat();
    const stuck = state([{ do: "begin" }, ...never]);
    expect(stuck.turn).toBe(stuck.turns.length);
  });

  test("a second tap on the same item takes the place of the first; undone it never was", () => {
    const twice = steps([{ do: "begin" }, mark("ada", "notYet"), mark("ada", "got")]);
    expect(teachState(wanted, twice).marks.map(({ outcome }) => outcome)).toEqual(["got"]);
    const undone = [...twice, ...steps([{ do: "undo", of: twice[2]?.id }], 9000)];
    expect(teachState(wanted, undone).marks.map(({ outcome }) => outcome)).toEqual(["notYet"]);
    // Sent twice, a step counts once.
    expect(teachState(wanted, [...twice, ...twice])).toEqual(teachState(wanted, twice));
  });

  test("what was said is noted later, under an id of its own; with the mark it is gone", () => {
    const list = steps([{ do: "begin" }, mark("ada", "notYet"), { do: "next" }]);
    const said = steps([{ do: "said", of: list[1]?.id, said: "f" }], 9000);
    const [noted] = teachState(wanted, [...list, ...said]).marks;
    expect([noted?.id, noted?.said, noted?.outcome]).toEqual([said[0]?.id, "f", "notYet"]);
    const undone = steps([{ do: "undo", of: list[1]?.id }], 9999);
    expect(teachState(wanted, [...list, ...said, ...undone]).marks).toEqual([]);
  });

  test("a part that is gone back to goes on where it was left, with its marks", () => {
    const back = state([
      ...[{ do: "begin" }, { do: "part", part: 2 }, mark("ada"), { do: "next" }, mark("ben", "help"), { do: "next" }],
      ...[{ do: "part", part: 3 }, mark("ada"), { do: "part", part: 2 }],
    ]);
    expect([back.part, back.turn]).toEqual([2, 2]);
    expect(back.marks.map((one) => [one.part, one.item, one.outcome])).toEqual([
      [2, "see", "got"],
      [2, "feet", "help"],
      [3, "feel", "got"],
    ]);
  });

  test("who leaves is asked nothing more, who comes late has a turn; both came", () => {
    const left = state([{ do: "begin" }, { do: "part", part: 2 }, { do: "here", childId: "ben", here: false }]);
    expect(new Set(left.turns.map(({ childId }) => childId))).toEqual(new Set(["ada"]));
    const late = state([{ do: "begin" }, { do: "part", part: 2 }, { do: "here", childId: "cy", here: true }]);
    expect(late.turns.map(({ childId }) => childId)).toEqual(["ada", "ben", "cy", "ada"]);
    expect(late.came).toEqual(["ada", "ben", "cy"]);
    expect(left.came).toEqual(["ada", "ben"]);
    const none = state([
      ...[{ do: "here", childId: "ada", here: false }, { do: "here", childId: "ben", here: false }, { do: "begin" }],
      ...[{ do: "part", part: 2 }],
    ]);
    expect(none.turns.every(({ childId }) => childId === null)).toBe(true);
    expect(none.came).toEqual([]);
  });

  test("the clock counts each part, and stands still in a pause", () => {
    const run = (list: readonly (readonly [number, object])[]) =>
      teachState(
        wanted,
        list.map(([at, one]) => ({ id: `c${serial++}`, at: at * MINUTE, ...one }) as TeachStep),
      );
    const one = run([
      [0, { do: "begin" }],
      [2, { do: "part", part: 1 }],
      [3, { do: "pause" }],
      [8, { do: "go" }],
    ]);
    expect(spentBy(one, 9 * MINUTE).map((ms) => ms / MINUTE)).toEqual([2, 2, 0, 0, 0]);
    const ended = run([
      [0, { do: "begin" }],
      [4, { do: "end" }],
      [5, { do: "next" }],
    ]);
    expect(spentBy(ended, 99 * MINUTE)[0]).toBe(4 * MINUTE);
    expect(ended.ended).toBe(true);
  });

  test("holds for any steps in any order: it never breaks, and each mark is on an item that was asked", () => {
    const childId = fc.constantFrom("ada", "ben", "cy", "none of them");
    const step = fc.oneof(
      fc.constantFrom("begin", "pause", "go", "next", "back", "end").map((what) => ({ do: what })),
      fc.record({ do: fc.constant("here"), childId, here: fc.boolean() }),
      fc.record({ do: fc.constant("part"), part: fc.integer({ min: -1, max: 6 }) }),
      fc.record({ do: fc.constant("more"), item: fc.constantFrom("week", "sleep"), easier: fc.boolean() }),
      fc.record({ childId, outcome: fc.constantFrom(...teachOutcomes) }).map((one) => mark(one.childId, one.outcome)),
      fc.nat(80).map((of) => ({ do: "undo", of: `f${of}` })),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80 }), (list) => {
        const all = list.map((one, at) => ({ id: `f${at}`, at: at * 1000, ...one }) as TeachStep);
        const now = teachState(wanted, all);
        expect(now.turn).toBeGreaterThanOrEqual(0);
        expect(now.turn).toBeLessThanOrEqual(now.turns.length);
        expect(new Set(now.marks.map(({ id }) => id)).size).toBe(now.marks.length);
        for (const one of now.marks) expect(one.item).not.toBe("");
        for (const id of now.here) expect(wanted.members.map((each) => each.id)).toContain(id);
        const ms = spentBy(now, 80_000).reduce((sum, each) => sum + each, 0);
        expect(ms).toBeLessThanOrEqual(80_000);
      }),
    );
  });
});

describe("time", () => {
  const late = (minutes: number) => fitTime({ parts, part: 0, spent: [minutes * MINUTE, 0, 0, 0, 0] });

  test("nothing is said while it fits, nor half a minute over", () => {
    expect(late(2)).toEqual({ minutes: [3, 3, 3, 3, 3], says: null });
    expect(late(3.5).says).toBeNull();
  });

  test("late, what holds least gives way first; teaching and the last look stay longest", () => {
    expect(late(5)).toEqual({ minutes: [3, 3, 3, 1, 3], says: "2 minutes late: Write words has 1 minute." });
    expect(late(7).minutes).toEqual([3, 3, 1, 1, 3]);
    expect(late(13).minutes).toEqual([3, 1, 0, 0, 1]);
    expect(late(40)).toMatchObject({ minutes: [3, 0, 0, 0, 0] });
  });

  test("what is left never takes more than there is, whatever was spent", () => {
    const some = fc.array(fc.record({ kind: fc.constantFrom(...partKinds), minutes: fc.nat(9) }), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(some, fc.nat(8), fc.nat(40), (list, at, used) => {
        const where = at % list.length;
        const spent = list.map((_, place) => (place === where ? used * MINUTE : 0));
        const { minutes } = fitTime({ parts: list, part: where, spent });
        const whole = list.reduce((sum, one) => sum + one.minutes, 0);
        const after = minutes.slice(where + 1).reduce((sum, one) => sum + one, 0);
        const still = Math.max(0, (list[where]?.minutes ?? 0) - used);
        expect(after).toBeLessThanOrEqual(Math.max(0, whole - used - still) + 1);
        for (const [place, one] of minutes.entries()) expect(one).toBeLessThanOrEqual(list[place]?.minutes ?? 0);
      }),
    );
  });
});

describe("evidence", () => {
  const from = { lexicon, sessionId: "session", day: "2026-11-27", markedBy: "Jo P." };
  const marked = (kind: SessionPart["kind"], item: string, more: object = {}) => {
    const one = teachState(
      { ...wanted, parts: [part(kind, [item])] },
      steps([{ do: "begin" }, mark("ada", "got", more)]),
    );
    const [made] = one.marks;
    if (!made) throw new Error("no mark");
    return answerOf(made, { ...from, kind });
  };

  test("a mark is an answer by the kind of its part", () => {
    expect(marked("revisit", "sh=sh")).toMatchObject({ kind: "card", item: "sh=sh", outcome: "right", help: "none" });
    expect(marked("readWords", "sheep")).toMatchObject({ kind: "words", item: "sh ee p" });
    expect(marked("writeWords", "sheep")).toMatchObject({ kind: "dictation", item: "sheep" });
    expect(marked("exceptionWords", "said")).toMatchObject({ kind: "exception", item: "said" });
    expect(marked("text", "The lock")).toBeNull();
    expect(marked("hear", "ship (at the start)")).toBeNull();
    expect(marked("readWords", "zzgrub")).toBeNull();
  });

  test("with help, with marks under the sounds or among others it is told so; what was said goes with it", () => {
    expect(marked("readWords", "sheep", { outcome: "help" })).toMatchObject({ outcome: "right", help: "hint" });
    expect(marked("readWords", "sheep", { marks: true })).toMatchObject({ help: "hint" });
    expect(marked("readWords", "sheep", { together: true })).toMatchObject({ help: "together" });
    expect(marked("readWords", "sheep", { outcome: "notYet", said: "ship" })).toMatchObject({
      ...{ outcome: "wrong", heard: "ship", help: "none" },
    });
  });

  test("answering together never makes a spelling secure, by the chance or by any rule of a school", () => {
    const by = { lessons: { taughtOn: () => 20_000, sessions: () => [] }, p: shipped };
    const words = { lexicon, accent: undefined };
    const stateWith = (together: boolean, secureWhen: SecureWhen) => {
      const answers = Array.from({ length: 12 }, (_, at) => {
        const day = `2026-11-${String(10 + at)}`;
        return { ...marked("revisit", "sh=sh", { together }), id: `t${at}`, day, markedAt: `${day}T09:00:00.000Z` };
      }) as GivenAnswer[];
      const known = knownBy(answers, { ...by, words });
      return standingOn(known, "sh=sh", "2026-11-22", { ...by, secureWhen }).state;
    };
    const rules: readonly SecureWhen[] = [
      ...[startingSecureWhen, { by: "days", days: 2 } as const],
      { by: "share", percent: 80, of: 5 },
    ];
    for (const when of rules) {
      expect(stateWith(false, when), when.by).toBe("secure");
      expect(stateWith(true, when), when.by).not.toBe("secure");
    }
  });

  test("what was said with help, or among others, counts in no rule of the school; what was said alone does", () => {
    const shown = (more: object) => Object.keys(shownBy([marked("revisit", "sh=sh", more) as GivenAnswer]));
    expect(shown({})).toEqual(["sh=sh"]);
    expect(shown({ together: true })).toEqual([]);
    expect(shown({ outcome: "help" })).toEqual([]);
  });

  test("a word that was not written right is no trouble for the model", () => {
    const by = { lessons: { taughtOn: () => 20_000, sessions: () => [] }, p: shipped };
    const answers = [null, "shep"].flatMap(
      (said, at) => ({ ...marked("writeWords", "sheep", { outcome: "notYet", said }), id: `w${at}` }) as GivenAnswer,
    );
    const known = knownBy(answers, { ...by, words: { lexicon, accent: undefined } });
    expect(Object.keys(known.mind.traces)).toContain("spell ee=ee");
  });

  test("every item of a planned session is an answer or none, and what it asks is an item of its kind", () => {
    const plan = planSession({
      ...{
        known: new Set(["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "ee=ee"]),
        target: "d=d",
        lexicon,
        seed: 2,
      },
      ...{ revisit: ["s=s"], sentences: [], exceptionWords: ["the"] },
    });
    for (const { kind, items } of plan.parts)
      for (const item of items) {
        const asked = askedIn(kind, item, lexicon);
        if (asked?.kind === "words") expect(isWordItem(asked.item)).toBe(true);
      }
    expect(
      plan.parts.flatMap(({ kind, items }) => items.flatMap((item) => askedIn(kind, item, lexicon) ?? [])).length,
    ).toBeGreaterThan(10);
  });
});

describe("on the spot", () => {
  const more = moreWords({
    lexicon,
    known: new Set(["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "l=l", "sh=sh"]),
    targets: ["ee=ee"],
  });
  const units = (text: string | null) => lexicon.find(text ?? "")[0]?.units.length ?? 0;
  const ask = (step: "same" | "easier" | "harder", like: string, used: readonly string[] = []) =>
    oneMore(more, { kind: "readWords", like, used: new Set(used), step });

  test("one more like it, an easier one, a harder one; none twice, none where the part has no words", () => {
    const same = ask("same", "sheet");
    expect(same).not.toBe("sheet");
    expect(units(same)).toBe(3);
    expect(units(ask("easier", "sleep"))).toBeLessThan(4);
    expect(units(ask("harder", "see"))).toBeGreaterThan(2);
    expect(ask("same", "sheet", [same ?? ""])).not.toBe(same);
    expect(oneMore(more, { kind: "revisit", like: "s=s", used: new Set(), step: "same" })).toBeNull();
    expect(oneMore([], { kind: "readWords", like: "see", used: new Set(), step: "same" })).toBeNull();
  });

  test("two who stumble are offered a smaller step, once; everyone firm a harder one", () => {
    const at = (list: readonly object[]) =>
      offerIn(state([{ do: "begin" }, { do: "part", part: 2 }, ...list]), parts);
    const next = { do: "next" };
    expect(at([mark("ada", "notYet"), next])).toBeNull();
    expect(at([mark("ada", "notYet"), next, mark("ben", "help")])).toBe("smaller");
    expect(
      at([mark("ada", "notYet"), next, mark("ben", "help"), { do: "offer", offer: "smaller", taken: false }]),
    ).toBeNull();
    expect(at([mark("ada"), next, mark("ben"), next, mark("ada"), next, mark("ben")])).toBe("harder");
    expect(at([mark("ada"), next, mark("ben"), next, mark("ada")])).toBeNull();
  });
});

test("the report is written from what was marked", () => {
  const run = state([
    ...[
      { do: "begin" },
      { do: "part", part: 2 },
      mark("ada", "notYet", { said: "fit" }),
      { do: "next" },
      mark("ben"),
    ],
    ...[{ do: "part", part: 3 }, mark("ada", "help"), { do: "end" }],
  ]);
  const name = (id: string) => ({ ada: "Ada F.", ben: "Ben O." })[id] ?? "";
  expect(toldOf(run, { parts, nameOf: name })).toEqual({
    ...{ came: ["ada", "ben"], reached: "writeWords" },
    note: "Ada F. stumbled over see (said “fit”), feel. Ben O. had everything.",
  });
  expect(toldOf(state([]), { parts, nameOf: name })).toEqual({ came: [], reached: null, note: "" });
});

test("a sort asks word by word, mixed; what is no sort of two heaps is asked as it stands", () => {
  const sortOf = (items: readonly string[]) =>
    teachState({ ...wanted, parts: [part("sort", items)] }, steps([{ do: "begin" }])).turns.map(({ item }) => item);
  const mixed = sortOf(["ai: rain, tail, paid", "ay: day, tray, play"]);
  expect(mixed.toSorted()).toEqual(["day", "paid", "play", "rain", "tail", "tray"]);
  expect(mixed).not.toEqual(["rain", "tail", "paid", "day", "tray", "play"]);
  expect(sortOf(["ai: rain, tail"])).toEqual(["ai: rain, tail"]);
  expect(sortOf(["rain", "tail"])).toEqual(["rain", "tail"]);
  expect(askedIn("sort", "rain", lexicon)).toBeNull();
});
