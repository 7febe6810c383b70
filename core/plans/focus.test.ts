import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { readLexicon, shapeOf } from "#core/words";
import {
  type BlockChild,
  type Focus,
  focusFits,
  focusName,
  kindOfFocus,
  minutesOfRoutine,
  planBlock,
  planSession,
  routineAbout,
  type SessionPlan,
  shippedRoutines,
  spellingsOfFocus,
  teachesNew,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const step = order.steps[24]?.id ?? "";
const known = new Set(taughtUpTo(order, step));
const exceptionWords = exceptionWordsUpTo(order, step);

const plan = (focus: Focus, routine = shippedRoutines.usual): SessionPlan =>
  planSession({
    ...{ known, lexicon, sentences, exceptionWords, focus, seed: 5 },
    routine: routineAbout(routine, focus),
    ...{ target: "s=s", revisit: ["m=m"] },
  });
const itemsOf = ({ parts }: SessionPlan, kind: string) => parts.find((part) => part.kind === kind)?.items ?? [];
const unitsOf = (text: string) => lexicon.find(text)[0]?.units ?? [];

describe("what a session can be about in place of a new spelling", () => {
  test.each<[Focus, string | undefined]>([
    [["contrast sound b/d"], "contrast"],
    [["blend CCVC", "blend CCV"], "blending"],
    [["read said", "read was"], "word"],
    [["spell sh=sh"], "writing"],
    [["rate texts"], "rate"],
    [["rate texts", "read said"], undefined],
    [["read said", "blend CCVC"], undefined],
    [["say ai=ai"], undefined],
    [[], undefined],
    [Array.from({ length: 7 }, (_, at) => `read word${at}`), undefined],
  ])("%j is %s", (focus, kind) => {
    expect(kindOfFocus(focus)).toBe(kind);
  });

  test("has the name that a teacher would give it", () => {
    expect(focusName(["read said", "read was"])).toBe("the words “said” and “was”");
    expect(focusName(["blend CCVC", "blend CCV"])).toBe("blending a cluster at the start");
    expect(focusName(["spell sh=sh", "spell ch=ch"])).toBe("writing sh and writing ch");
  });
});

describe("a session about a pair that is mixed up", () => {
  const made = plan(["contrast sound b/d"]);

  test("teaches both, and has words with one and the other", () => {
    expect([made.target, made.second]).toEqual(["b=b", "d=d"]);
    expect(made.focus).toEqual(["contrast sound b/d"]);
    expect(itemsOf(made, "teach")).toEqual(["b=b", "d=d"]);
    const has = (gpc: string) =>
      itemsOf(made, "readWords").filter((text) => unitsOf(text).some((unit) => unit.gpc === gpc));
    expect(has("b=b").length).toBeGreaterThan(2);
    expect(has("d=d").length).toBeGreaterThan(2);
  });

  test("has pairs of words that differ in those two sounds alone", () => {
    const pairs = itemsOf(made, "pairs");
    expect(pairs.length).toBeGreaterThan(0);
    for (const pair of pairs) {
      const [one = [], other = []] = pair.split(" / ").map((text) => unitsOf(text).map(({ sound }) => sound));
      expect(one).toHaveLength(other.length);
      const differs = one.flatMap((sound, at) => (sound === other[at] ? [] : [[sound, other[at]].sort().join()]));
      expect(differs).toEqual(["b,d"]);
    }
  });

  test("of two spellings of one sound sorts words", () => {
    const sounds = plan(["contrast spelling ee/ea"], shippedRoutines.usual);
    expect(spellingsOfFocus(["contrast spelling ee/ea"], known).map((gpc) => gpc.split("=")[0])).toEqual([
      "ee",
      "ea",
    ]);
    expect(sounds.parts.some(({ kind }) => kind === "sort")).toBe(true);
  });
});

test("a session about a cluster at the start has words that begin with one, all of which they can read", () => {
  const made = plan(["blend CCVC"]);
  const words = [...itemsOf(made, "blend"), ...itemsOf(made, "readWords"), ...itemsOf(made, "writeWords")];
  expect(words.length).toBeGreaterThan(12);
  for (const text of words) {
    expect(shapeOf(unitsOf(text))).toMatch(/^CCC?VC?$/);
    expect(unitsOf(text).filter(({ gpc }) => !known.has(gpc))).toEqual([]);
  }
  expect(new Set(words).size).toBe(words.length);
  // No spelling is taught in it.
  expect(teachesNew(made)).toBe(false);
  expect(made.remarks).toEqual([]);
});

test("a session about whole words begins with them", () => {
  const [last = "", before = ""] = [...exceptionWords].slice(2, 4);
  const made = plan([`read ${last}`, `read ${before}`]);
  expect(itemsOf(made, "exceptionWords").slice(0, 2)).toEqual([last, before]);
  expect(made.parts.findIndex(({ kind }) => kind === "exceptionWords")).toBe(1);
});

test("a session about writing builds words and writes them", () => {
  const made = plan(["spell sh=sh"]);
  expect(made.target).toBe("sh=sh");
  expect(made.parts.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["teach", "build", "writeWords"]));
});

test("a session about the rate has one text, with the time in which a spelling would be taught, and words again at speed", () => {
  for (const routine of Object.values(shippedRoutines)) {
    const about = routineAbout(routine, ["rate texts"]);
    const texts = about.parts.filter(({ kind }) => kind === "text");
    const before = routine.parts.find(({ kind }) => kind === "text")?.minutes ?? 0;
    expect(texts.length, routine.name).toBe(1);
    expect(texts[0]?.how).toMatch(/^Read the text to them once/);
    expect(texts[0]?.minutes).toBeGreaterThan(before);
    expect(about.parts.some(({ kind }) => kind === "teach")).toBe(false);
  }
  const kindsOf = routineAbout(shippedRoutines.usual, ["rate texts"]).parts.map(({ kind }) => kind);
  expect(kindsOf).toContain("readAgain");
});

test("every routine is as long as before, and teaches what it is about", () => {
  for (const routine of Object.values(shippedRoutines))
    for (const focus of [
      ...[["contrast sound b/d"], ["blend CVCC"], ["read said"], ["spell sh=sh"], ["write said"]],
      ["rate texts"],
    ]) {
      const about = routineAbout(routine, focus);
      expect(minutesOfRoutine(about)).toBe(minutesOfRoutine(routine));
      const kind = kindOfFocus(focus);
      const teaches = { blending: "blend", word: "exceptionWords", rate: "text" }[kind as string] ?? "teach";
      const its = focus[0] === "write said" ? "exceptionWords" : teaches;
      expect(about.parts.some((part) => part.kind === its && part.how.length > 40)).toBe(true);
    }
});

test("what has no words is not planned", () => {
  const wholes = new Set(["said"]);
  const few = new Set(["s=s", "a=a", "t=t", "p=p", "i=i", "n=n"]);
  expect(focusFits(["blend CCVC"], { lexicon, known, taught: known, wholes })).toBe(true);
  expect(focusFits(["contrast sound b/d"], { lexicon, known, taught: known, wholes })).toBe(true);
  expect(focusFits(["contrast sound ch/j"], { lexicon, known: few, taught: known, wholes })).toBe(false);
  expect(focusFits(["read said"], { lexicon, known, taught: known, wholes })).toBe(true);
  expect(focusFits(["read was"], { lexicon, known, taught: known, wholes })).toBe(false);
});

describe("in a block of weeks", () => {
  const today = "2026-11-23";
  const days = [0, 1, 3, 4, 7, 8, 10, 11].map((at) => ({
    ...{
      on: `2026-${at > 7 ? "12" : "11"}-${String(at > 7 ? at - 7 : 23 + at).padStart(2, "0")}`,
      minutes: 15,
      room: 1,
    },
  }));
  const child = (id: string, besides: Record<string, number>, chance = 0.2): BlockChild => ({
    ...{ id, chances: new Map([["ai=ai", chance]]), fades: new Map(), besides: new Map(Object.entries(besides)) },
    ...{ needs: new Map([["ai=ai", 1 - chance]]), worth: new Map([["ai=ai", 1 - chance]]) },
  });
  const block = (children: readonly BlockChild[], more: Partial<Parameters<typeof planBlock>[0]> = {}) =>
    planBlock({ today, days, past: [], children, fitsFocus: () => true, ...more });

  test("what most of them mix up has sessions, less often as it goes down, and never twice running", () => {
    const group = ["ada", "ben", "cy"].map((id) => child(id, { "contrast sound b/d": 0.8 }));
    const at = block(group).flatMap(({ focus }, day) => (focus ? [day] : []));
    expect(at.length).toBeGreaterThan(0);
    expect(at.length).toBeLessThan(days.length);
    for (const [where, day] of at.entries()) if (where > 0) expect(day - (at[where - 1] ?? 0)).toBeGreaterThan(2);
    const [first] = block(group).filter(({ focus }) => focus);
    expect(first?.focus).toEqual({ ids: ["contrast sound b/d"], step: "new", for: ["ada", "ben", "cy"] });
    expect(first?.points).toEqual([]);
  });

  test("what one of five needs is no session for all, unless someone put it first", () => {
    const group = [child("ada", { "read said": 0.9 }), ...["ben", "cy", "di", "ed"].map((id) => child(id, {}))];
    expect(block(group).every(({ focus }) => focus === null)).toBe(true);
    const all = ["ada", "ben", "cy"].map((id) => child(id, { "read said": 0.4 }, 0.1));
    expect(block(all, { pinned: new Set(["read said"]) })[0]?.focus?.ids).toEqual(["read said"]);
    expect(block(all, { put: new Set(["read said"]) }).every(({ focus }) => focus === null)).toBe(true);
  });

  test("put first for one it comes all the same, while it is needed; a spelling that was put first comes before what was not", () => {
    const one = [child("ada", { "read said": 0.9 }), child("ben", {}), child("cy", {})];
    const pinned = new Set(["read said"]);
    const found = block(one, { pinned }).flatMap(({ focus }) => (focus ? [focus.for] : []));
    expect(found[0]).toEqual(["ada"]);
    const sure = [child("ada", { "read said": 0.1 })];
    expect(block(sure, { pinned }).every(({ focus }) => focus === null)).toBe(true);
    const all = ["ada", "ben", "cy"].map((id) => child(id, { "contrast sound b/d": 0.9 }, 0.5));
    expect(block(all)[0]?.focus).not.toBeNull();
    const spelling = { pinned: new Set(["ai=ai"]), first: [new Set(["ai=ai"])] };
    expect(block(all, spelling)[0]?.points.map(({ gpc }) => gpc)).toEqual(["ai=ai"]);
  });

  test("what the group works on comes before a spelling that it does not, and before what it needs more", () => {
    const group = ["ada", "ben", "cy"].map((id) => child(id, { "read said": 0.4, "blend CCVC": 0.7 }, 0.1));
    const first = (more: object) => block(group, more)[0]?.focus?.ids ?? [];
    expect(first({})).toEqual([]);
    expect(first({ aims: new Set(["exception words"]) })).toEqual(["read said"]);
    // Its own spellings are weighed against it as ever.
    expect(first({ aims: new Set(["exception words"]), first: [new Set(["ai=ai"])] })).toEqual([]);
    // Two of five alone need it: it has the days on which there is nothing else.
    const two = ["ada", "ben", "cy", "di", "ed"].map((id, at) => child(id, at < 2 ? { "read said": 0.6 } : {}, 0.99));
    expect(block(two).every(({ focus }) => focus === null)).toBe(true);
    expect(block(two, { aims: new Set(["exception words"]) })[0]?.focus?.for).toEqual(["ada", "ben"]);
    const busy = ["ada", "ben", "cy", "di", "ed"].map((id, at) => child(id, at < 2 ? { "read said": 0.6 } : {}, 0.1));
    expect(block(busy, { aims: new Set(["exception words"]) })[0]?.points).toHaveLength(1);
    const done = ["ada", "ben"].map((id) => child(id, { "read said": 0.1 }, 0.1));
    expect(block(done, { aims: new Set(["exception words"]) }).every(({ focus }) => focus === null)).toBe(true);
  });

  test("words that are missed come together, shapes that are called alike too", () => {
    const group = ["ada", "ben", "cy"].map((id) =>
      child(id, { "read said": 0.9, "read was": 0.8, "blend CCVC": 0.9, "blend CCCVC": 0.9 }),
    );
    const found = block(group).flatMap(({ focus }) => (focus ? [[...focus.ids].sort().join()] : []));
    expect(found).toContain("read said,read was");
    expect(found).toContain("blend CCCVC,blend CCVC");
  });

  test("a teacher's word stands, also for what has no need", () => {
    const fixed = [{ on: days[2]?.on ?? "", gpcs: [], focus: ["contrast sound b/d"] }];
    const [, , third] = block([child("ada", {})], { fixed });
    expect(third).toMatchObject({ fixed: true, points: [], focus: { ids: ["contrast sound b/d"], for: [] } });
  });

  test("without words for it nothing is planned", () => {
    const group = ["ada", "ben"].map((id) => child(id, { "blend CCVC": 0.9 }));
    expect(block(group, { fitsFocus: () => false }).every(({ focus }) => focus === null)).toBe(true);
  });
});
