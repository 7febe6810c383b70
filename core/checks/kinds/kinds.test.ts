import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { type GivenAnswer, heardIn, inCheck, type KindId, kindIds, type Outcome, takesHeard } from "#core/ledger";
import { findCorrespondence, showGrapheme, spellingsOfSound, splitGpc, withImplied } from "#core/phonics";
import {
  decodability,
  readLexicon,
  readMadeUp,
  readSentences,
  readWordItem,
  split,
  wordsSoundingLike,
} from "#core/words";
import {
  type Ask,
  asSheet,
  blockIds,
  choicesFor,
  choicesOnSheet,
  defaultSettings,
  kinds,
  outcomeOfWriting,
  plainSetup,
  planCheck,
  type Section,
  type Setup,
  type SetupOf,
  sectionOf,
  taskOf,
  tasks,
  withGap,
} from "../index.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = readLexicon(read("lexicon/lexicon.txt"));
const taught = [
  ..."m=m a=a t=t d=d o=o p=p s=s i=i n=n c=k g=g e=e h=h b=b u=u r=r l=l f=f w=w j=j k=k v=v x=ks y=y z=z".split(
    " ",
  ),
  ..."sh=sh ch=ch th=th ng=ng ck=k ss=s ll=l ai=ai ee=ee oa=oa igh=igh ar=ar".split(" "),
];
const base: Omit<Ask, "section"> = {
  lexicon,
  madeUp: readMadeUp(read("lexicon/made-up.txt")),
  sentences: readSentences(read("sentences.txt")),
  compounds: readSentences(read("compounds.txt")),
  settings: defaultSettings,
  taught,
  recent: ["ai=ai", "ee=ee"],
  exceptionWords: ["the", "was", "said", "come"],
  recentExceptionWords: ["come"],
  secure: new Set(taught.filter((gpc) => splitGpc(gpc).grapheme.length === 1)),
  last: new Map([["igh=igh", "none"]]),
  seed: 11,
};
const plan = (kind: KindId, change: Partial<Section> = {}, ask: Partial<Ask> = {}) =>
  planCheck({ ...base, ...ask, section: sectionOf(kind, change) });
const known = new Set(taught);

function answer(
  kind: KindId,
  item: string,
  outcome: Outcome,
  change: Partial<GivenAnswer> & { heard?: string | null; units?: number[] } = {},
) {
  return {
    id: "a1",
    ...inCheck(kind, "k"),
    item,
    childId: "c",
    pass: 1,
    ms: 900,
    tags: [],
    markedAt: "2026-09-07T09:00:00.000Z",
    day: "2026-09-07",
    markedBy: "Mx T.",
    outcome,
    ...(takesHeard(outcome) ? { heard: null, units: null } : {}),
    ...change,
  } as GivenAnswer;
}
const tell = (one: GivenAnswer, setup: Setup = plainSetup(one.kind)) => kinds[one.kind].tell(one, { lexicon, setup });

describe("every kind", () => {
  test.each(kindIds)("%s: draws items of its own, none twice, the same for the same seed", (kind) => {
    const { items, setup } = plan(kind, { scope: "all", blocks: blockIds, tasks });
    expect(items.length).toBeGreaterThan(3);
    expect(new Set(items).size).toBe(items.length);
    expect(items.every(kinds[kind].fits)).toBe(true);
    expect(plan(kind, { scope: "all", blocks: blockIds, tasks })).toEqual({ kind, items, setup });
    expect(kinds[kind].fits("no=such thing |")).toBe(false);
  });
  test.each(kindIds)(
    "%s: every likely answer is one that its own telling understands, and none is the right one",
    (kind) => {
      const { items, setup } = plan(kind, { scope: "all", blocks: blockIds, tasks });
      for (const item of items.slice(0, 40))
        for (const likely of kinds[kind].likely(item, setup, 3)) {
          if (likely.outcome !== "wrong") continue;
          expect(
            tell(answer(kind, item, "wrong", { heard: likely.heard }), setup).says.join(" "),
            `${item} ${likely.shows}`,
          ).not.toBe("");
          expect(likely.shows).not.toBe(kinds[kind].show(item));
        }
    },
  );
  test.each(kindIds)("%s: a right answer says nothing, five places take five outcomes", (kind) => {
    const [item = ""] = plan(kind, { scope: "all" }).items;
    expect(tell(answer(kind, item, "right")).mixed).toEqual([]);
    const pad = kinds[kind].pad(defaultSettings);
    expect(pad).toHaveLength(5);
    expect(pad[0].outcome).toBe("right");
    expect(pad[4].outcome).toBe("none");
  });
  test("nothing taught draws nothing that needs letters", () => {
    for (const kind of kindIds.filter((id) => id !== "listen" && id !== "names"))
      expect(plan(kind, { scope: "all" }, { taught: [], exceptionWords: [] }).items).toEqual([]);
  });
});

describe("spelling cards", () => {
  test("due: what is not secure, what was asked before first", () => {
    const { items } = plan("card");
    expect(items[0]).toBe("igh=igh");
    expect(items.some((gpc) => splitGpc(gpc).grapheme.length === 1)).toBe(false);
    expect(plan("card", { scope: "recent" }).items).toEqual(["ai=ai", "ee=ee"]);
    expect(plan("card", { scope: "picked", picked: ["b=b", "b=b", "not one"] }).items).toEqual(["b=b"]);
  });
  test("what the child says is the school's setting, and its parts are marked on their own", () => {
    const expects = (answerForm: typeof defaultSettings.answerForm) =>
      kinds.card.prompt("sh=sh", { ...defaultSettings, answerForm }, plainSetup("card")).expects;
    const word = findCorrespondence("sh=sh")?.keyword ?? "";
    expect(expects("sound")).toBe(`/ʃ/ as in ${word}`);
    expect(expects("nameSound")).toContain("S H");
    expect(expects("nameKeywordSound")).toMatch(new RegExp(`S H, ${word}`));
    expect(kinds.card.tags({ ...defaultSettings, answerForm: "nameKeywordSound" })).toHaveLength(2);
    expect(kinds.card.tags(defaultSettings)).toEqual([]);
  });
});

describe("choose the spelling", () => {
  const vowels = [...taught, ..."ay=ai a_e=ai ea=ee oe=oa ow=oa".split(" ")];
  const chosen = (change: object = {}) => {
    const { items, setup } = plan("choose", { scope: "all", ...change } as never, { taught: vowels });
    return { items, setup: setup as SetupOf<"choose"> };
  };

  test("asks what was taught with several ways, each in a word that has it, of which all else can be read", () => {
    const { items, setup } = chosen();
    expect(items).toEqual(expect.arrayContaining(["ai=ai", "ay=ai", "a_e=ai", "ee=ee", "ea=ee"]));
    // There is one way of writing these.
    expect(items.filter((gpc) => ["sh=sh", "igh=igh", "m=m"].includes(gpc))).toEqual([]);
    const can = withImplied(vowels);
    for (const item of items) {
      const { units, text } = readWordItem(setup.words[item] ?? "");
      expect(
        units.filter(({ gpc }) => gpc === item),
        item,
      ).toHaveLength(1);
      expect(
        units.every(({ gpc, sound }) => sound === "" || can.has(gpc)),
        text,
      ).toBe(true);
      // Heard alone it is that word and no other.
      expect(wordsSoundingLike(text, lexicon), text).toEqual([]);
      for (const way of setup.ways[item] ?? []) expect(splitGpc(way).sound).toBe(splitGpc(item).sound);
    }
  });

  test("the word has one gap, also for a split spelling, which its shape does not give away", () => {
    expect(withGap("r ai n", "ai=ai")).toEqual(["r", "n"]);
    expect(withGap("l a_e t", "a_e=ai")).toEqual(["l", "t"]);
    expect(withGap("d ay", "ay=ai")).toEqual(["d", ""]);
    expect(withGap("sh a_e k", "sh=sh")).toEqual(["", "ake"]);
    const { items, setup } = chosen();
    for (const item of items) {
      const [before, after] = withGap(setup.words[item] ?? "", item);
      expect(before.length + after.length, item).toBeGreaterThan(0);
    }
  });

  test("the choices are its taught ways, the right one once, in an order of the card; another one is told", () => {
    const { items, setup } = chosen();
    for (const item of items) {
      const face = kinds.choose.face(item, setup, 5);
      if (face.show !== "choices") throw new Error("no choices");
      expect(
        face.choices.filter((one) => one === showGrapheme(splitGpc(item).grapheme)),
        item,
      ).toHaveLength(1);
      expect(face.choices.length).toBeGreaterThan(1);
      expect(new Set(face.choices).size).toBe(face.choices.length);
      expect(kinds.choose.face(item, setup, 5)).toEqual(face);
      const text = readWordItem(setup.words[item] ?? "").text;
      expect(kinds.choose.prompt(item, defaultSettings, setup)).toMatchObject({ say: text });
    }
    const text = readWordItem(setup.words["ai=ai"] ?? "").text;
    expect(tell(answer("choose", "ai=ai", "wrong", { heard: "ay" }), setup)).toMatchObject({
      says: [`Chose ay for “${text}”, not ai.`],
      mixed: [{ asked: "ai", given: "ay", of: "spelling" }],
    });
  });

  test("what is due comes to as many as are wanted; what was picked by hand needs another way picked beside it or taught", () => {
    expect(chosen({ scope: "due", most: 3 }).items).toHaveLength(3);
    expect(chosen({ scope: "picked", picked: ["igh=igh", "ai=ai"] }).items).toEqual(["ai=ai"]);
    expect(chosen({ scope: "picked", picked: ["igh=igh", "ie=igh"] }).items).toEqual(["igh=igh", "ie=igh"]);
  });
});

describe("hear and find", () => {
  test("has 4 to 9 choices, the right one once, no other spelling of the sound, look-alikes first", () => {
    for (const choices of [4, 6, 9])
      for (const item of taught) {
        const shown = choicesFor(item, { pool: taught, choices }, 5);
        const { grapheme, sound } = splitGpc(item);
        expect(shown).toHaveLength(choices);
        expect(shown.filter((one) => one === grapheme)).toHaveLength(1);
        const same = spellingsOfSound(sound).map((entry) => entry.grapheme);
        expect(shown.filter((one) => same.includes(one))).toEqual([grapheme]);
      }
    expect(choicesFor("b=b", { pool: taught, choices: 4 }, 5)).toContain("d");
  });
  test("tells which spelling was pointed to", () => {
    expect(tell(answer("find", "b=b", "wrong", { heard: "d" })).mixed).toEqual([
      { asked: "b", given: "d", of: "spelling" },
    ]);
  });
});

describe("reading words", () => {
  test("has only taught spellings, in the shapes asked for, real and made up by the setting", () => {
    const { items } = plan("words", { blocks: blockIds, most: 6 });
    const words = items.map(readWordItem);
    for (const { units } of words)
      for (const { gpc, sound } of units)
        if (sound !== "") expect(known.has(gpc) || /^(ed|es|s|d)=/.test(gpc), gpc).toBe(true);
    expect(words.some((word) => word.madeUp)).toBe(true);
    expect(words.filter((word) => word.madeUp).every((word) => lexicon.find(word.text).length === 0)).toBe(true);
    const real = plan("words", { blocks: blockIds }, { settings: { ...defaultSettings, madeUp: false } });
    expect(real.items.some((item) => item.startsWith("?"))).toBe(false);
    const two = plan("words", { blocks: ["two"] }).items.map(readWordItem);
    expect(two.every(({ units }) => units.length === 2)).toBe(true);
  });
  test("names the unit that failed, the first of a cluster that fell away, and what was taken for what", () => {
    const said = (item: string, heard: string) => tell(answer("words", item, "wrong", { heard }));
    expect(said("s t o p", "/t o p/")).toMatchObject({ failed: [0] });
    expect(said("s t o p", "/t o p/").says.join(" ")).toContain("first sound of a cluster");
    expect(said("ch u n k", "shunk").mixed).toEqual([{ asked: "ch", given: "sh", of: "sound" }]);
    expect(said("s t o p", "stup").failed).toEqual([2]);
    expect(said("m a p s", "/m a p z/").failed).toEqual([3]);
  });
  test("every likely misread fails in exactly the unit that it names", () => {
    for (const item of plan("words", { blocks: ["three", "fourEnd", "fourStart", "five"], most: 12 }).items)
      for (const { heard, shows } of kinds.words.likely(item, plainSetup("words"), 1))
        expect(tell(answer("words", item, "wrong", { heard })).failed, `${item} as ${shows}`).toHaveLength(1);
  });
  test("a person overrules the engine, and right sounds with a wrong blend are told apart", () => {
    const overruled = tell(answer("words", "ch u n k", "wrong", { heard: "shunk", units: [3] }));
    expect(overruled.failed).toEqual([3]);
    expect(overruled.says[0]).toMatch(/^k \/k\/ failed, as the adult heard it \(said “shunk”\)\.$/);
    expect(tell(answer("words", "c a t", "blend")).says).toEqual(["The sounds were right, the word was not."]);
  });
});

describe("writing", () => {
  test("a sound: another right spelling is right, a mirror letter is seen, a wrong spelling is a pair", () => {
    expect(tell(answer("write", "ai=ai", "other", { heard: "ay" })).says[0]).toContain("spells the sound too");
    expect(tell(answer("write", "b=b", "reversed")).says).toEqual(["b was turned round."]);
    expect(tell(answer("write", "sh=sh", "wrong", { heard: "ch" })).mixed).toHaveLength(1);
  });
  test.each([
    ["train", "train", "right"],
    ["train", "trane", "other"],
    ["train", "tan", "wrong"],
    ["train", "  ", "none"],
    ["The cat sat.", "The cat sat.", "right"],
    ["The cat sat.", "the cat sat", "wrong"],
  ] as const)("%s written as “%s” is %s", (item, written, outcome) => {
    expect(outcomeOfWriting(item, written, { lexicon })).toBe(outcome);
  });
  test("dictation ends with a sentence that these children can read and shows how many words it has", () => {
    const { items } = plan("dictation", { scope: "all", most: 5 });
    const sentence = items.at(-1) ?? "";
    expect(items.slice(0, -1).every((word) => !word.includes(" "))).toBe(true);
    expect(kinds.dictation.prompt(sentence, defaultSettings, plainSetup("dictation")).expects).toBe(
      `${sentence.split(" ").length} words`,
    );
    const wholes = new Set(base.exceptionWords);
    expect(decodability(sentence, known, new Set(), { lexicon, wholes }).shareOfRunning).toBe(1);
    const told = tell(answer("dictation", "train", "wrong", { heard: "tain" }));
    expect(told.failed).toEqual([1]);
    expect(tell(answer("dictation", "train", "none")).says).toEqual(["Nothing was written."]);
  });
});

describe("exception words", () => {
  test("as wholes the spelling is a part of its own; sounded, it is a mark", () => {
    const wholes = { ...defaultSettings, exceptionWay: "wholes" } as const;
    expect(kinds.exception.tags(wholes)).toHaveLength(1);
    expect(kinds.exception.pad(defaultSettings).map((place) => place.outcome)).toContain("sounded");
    expect(kinds.exception.pad(wholes).map((place) => place.outcome)).not.toContain("sounded");
    expect(tell(answer("exception", "was", "wrong", { heard: "woz" })).says.length).toBeGreaterThan(0);
    expect(plan("exception", { scope: "recent" }).items).toEqual(["come"]);
  });
});

describe("listening", () => {
  test("every task draws, and where a sound stands is asked at all three places evenly", () => {
    const { items } = plan("listen", { tasks, most: 6 });
    expect(new Set(items.map(taskOf))).toEqual(new Set(tasks));
    const places = items
      .filter((item) => taskOf(item) === "where")
      .map(
        (item) =>
          /(start|middle|end)$/.exec(kinds.listen.prompt(item, defaultSettings, plainSetup("listen")).expects)?.[1],
      );
    for (const place of ["start", "middle", "end"]) expect(places.filter((one) => one === place)).toHaveLength(2);
  });
  test("same and different are as many, in no fixed order", () => {
    const orders = [1, 2, 3, 4, 5].map((seed) =>
      plan("listen", { tasks: ["alike"], most: 8 }, { seed }).items.map(
        (item) => kinds.listen.prompt(item, defaultSettings, plainSetup("listen")).expects,
      ),
    );
    for (const order of orders) expect(order.filter((one) => one === "the same")).toHaveLength(4);
    expect(new Set(orders.map(String)).size).toBeGreaterThan(2);
  });
  test("joined sounds are said as the sounds that they are, and an answer is told with its question", () => {
    expect(kinds.listen.prompt("apart b o x", defaultSettings, plainSetup("listen")).expects).toBe(
      "4 sounds: b – o – k – s",
    );
    expect(kinds.listen.prompt("where igh|n igh t", defaultSettings, plainSetup("listen")).expects).toBe(
      "/aɪ/ in the middle",
    );
    expect(tell(answer("listen", "apart s t o p", "wrong", { heard: "3 sounds" })).says[0]).toContain(
      "it is 4 sounds",
    );
  });
});

describe("on paper", () => {
  const { items, setup: made } = plan("paper", { scope: "due", most: 10 });
  const setup = asSheet(made);
  test("four choices an item, one right, every wrong one differing in exactly one sound", () => {
    expect(items.length).toBe(10);
    for (const item of items) {
      const choices = setup.sheet[item] ?? [];
      expect(choices).toHaveLength(4);
      expect(choices.filter((choice) => choice.from === undefined).map((choice) => choice.text)).toEqual([
        readWordItem(item).text,
      ]);
      for (const { text, from } of choices) {
        if (!from) continue;
        const [spoken, other] = [readWordItem(item).units, split(text, { lexicon })[0]?.units ?? []];
        expect(other).toHaveLength(spoken.length);
        expect(spoken.filter((unit, at) => unit.sound !== other[at]?.sound)).toHaveLength(1);
      }
    }
  });
  test("the right one stands at every place about as often", () => {
    const sheet = plan("paper", { scope: "all", most: 12 });
    const places = sheet.items.map((item) =>
      (asSheet(sheet.setup).sheet[item] ?? []).findIndex((choice) => choice.from === undefined),
    );
    for (const place of [0, 1, 2, 3]) expect(places.filter((one) => one === place)).toHaveLength(3);
  });
  test("A and B have the same choices in another order", () => {
    for (const item of items) {
      const [a, b] = (["A", "B"] as const).map((version) =>
        choicesOnSheet(item, { ...setup, version }).map((choice) => choice.text),
      );
      expect(b).not.toEqual(a);
      expect([...(b ?? [])].sort()).toEqual([...(a ?? [])].sort());
    }
  });
  test("the choice tells the confusion; blank and doubled are told as such", () => {
    const [item = ""] = items;
    const wrong = (setup.sheet[item] ?? []).find((choice) => choice.from);
    const told = tell(answer("paper", item, "wrong", { heard: wrong?.text ?? "" }), setup);
    expect(told.mixed).toEqual([
      { asked: splitGpc(wrong?.from ?? "").sound, given: splitGpc(wrong?.to ?? "").sound, of: "sound" },
    ]);
    expect(told.failed).toHaveLength(1);
    expect(tell(answer("paper", item, "none"), setup).says[0]).toMatch(/left blank/);
    expect(tell(answer("paper", item, "wrong", { tags: ["doubled"] }), setup).says[0]).toMatch(/two were ringed/);
  });
});

test("letter names: small, capital or both; a letter named as its look-alike is a pair", () => {
  expect(plan("names", { cases: "both" }).items).toHaveLength(52);
  expect(plan("names", { cases: "capital" }).items[0]).toBe("A");
  expect(tell(answer("names", "b", "wrong", { heard: "d" })).mixed).toHaveLength(1);
  expect(heardIn(answer("names", "b", "right"))).toBeNull();
});
