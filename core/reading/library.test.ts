import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { everyCorrespondence } from "#core/phonics";
import { decodability, keyOf, readLexicon, wordsOf } from "#core/words";
import { byFit, fitOf, type LibraryText, prepareText, readLibraryText } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const files = readdirSync("data/texts").sort();
const texts = files.map((file) => readLibraryText(readFileSync(`data/texts/${file}`, "utf8")));
const at = (step: string) => ({
  lexicon,
  known: new Set(taughtUpTo(order, step)),
  wholes: new Set(exceptionWordsUpTo(order, step).map(keyOf)),
});
const prepared = (text: LibraryText) => prepareText(text, { lexicon });
const stepNumber = (text: LibraryText) => order.steps.findIndex((step) => step.id === text.step) + 1;

describe("the texts that ship", () => {
  test("are 36 and more, climb with the first teaching order, and have 20 to 250 words", () => {
    expect(texts.length).toBeGreaterThanOrEqual(36);
    const numbers = texts.map(stepNumber);
    expect(numbers).toEqual([...numbers].sort((one, other) => one - other));
    expect(numbers[0]).toBeLessThanOrEqual(2);
    expect(numbers.at(-1)).toBe(order.steps.length);
    for (const { title, body } of texts) {
      const words = wordsOf(body).length;
      expect(words, title).toBeGreaterThanOrEqual(20);
      expect(words, title).toBeLessThanOrEqual(250);
    }
    expect(new Set(texts.map((text) => text.title)).size).toBe(texts.length);
  });
  test.each(texts.map((text) => [text.title, text] as const))("%s: every word can be read at its step", (_, text) => {
    const { known, wholes } = at(text.step);
    const told = decodability(`${text.title}.\n${text.body}`, known, new Set(), {
      lexicon,
      wholes: new Set([...wholes, ...text.exceptions.map(keyOf)]),
    });
    expect(told.words.filter((word) => word.verdict === "not yet").map((word) => word.text)).toEqual([]);
    expect(text.exceptions.length).toBeLessThanOrEqual(3);
    const needed = text.exceptions.filter((word) => told.exceptionWords.includes(keyOf(word)));
    expect(needed).toEqual(text.exceptions);
  });
  test.each(texts.map((text) => [text.title, text] as const))(
    "%s: three to five questions of both depths, and words worth explaining",
    (_, text) => {
      expect(text.questions.length).toBeGreaterThanOrEqual(3);
      expect(text.questions.length).toBeLessThanOrEqual(5);
      expect(new Set(text.questions.map((question) => question.depth)).size).toBe(2);
      for (const { ask, answers } of text.questions) {
        expect(ask).toMatch(/\?$/);
        expect(answers.every((answer) => answer.length > 0)).toBe(true);
      }
      expect(text.words.length).toBeGreaterThanOrEqual(1);
      for (const { word } of text.words)
        expect(text.body.toLowerCase(), word).toContain(word.toLowerCase().replace(/e$/, ""));
    },
  );
});

describe("reading a text from Markdown", () => {
  const good =
    "---\nstep: s2\nexceptions: new, put\n---\n\n# One\r\n\r\nTom sat.\n\n## Questions\n\n- who, found: Who sat? | Tom; a boy @ Tom sat.\n\n## Words\n\n- mop: to dry\n";
  test("takes head, title, paragraphs, questions and words", () => {
    expect(readLibraryText(good)).toEqual({
      title: "One",
      step: "s2",
      exceptions: ["new", "put"],
      body: "Tom sat.",
      questions: [{ kind: "who", depth: "found", ask: "Who sat?", answers: ["Tom", "a boy"], where: "Tom sat." }],
      words: [{ word: "mop", means: "to dry" }],
    });
  });
  test.each([
    ["no head", "# One\n\nTom sat."],
    ["no paragraph", "---\nstep: s2\n---\n# One\n"],
    ["an answer that stands nowhere", good.replace("@ Tom sat.", "@ Tim sat.")],
    ["a question without answers", good.replace(" | Tom; a boy", "")],
    ["a word without a meaning", good.replace(": to dry", "")],
  ])("refuses %s", (_, bad) => {
    expect(() => readLibraryText(bad)).toThrow();
  });
});

describe("fit", () => {
  const rain = texts.find((text) => text.title === "The Lane Is a Lake") as LibraryText;
  test("says what share can be read, what is in the way, and what is practised", () => {
    const all = fitOf(prepared(rain), { ...at("s16"), targets: new Set(["ai=ai", "ay=ai"]) });
    expect(all.share).toBe(1);
    expect(all.why).toMatch(/^Every word can be read\. It practises a(i|y) \d+ times and a(i|y) \d+ times\.$/);
    const before = fitOf(prepared(rain), at("s15"));
    expect(before.share).toBeLessThan(0.95);
    expect(before.inTheWay.map((one) => one.gpc)).toEqual(expect.arrayContaining(["a_e=ai", "ai=ai", "ay=ai"]));
    expect(before.why).toMatch(/words cannot be read yet: /);
  });
  test("has the same figures as the engine gives word by word, for every text at every third step", () => {
    for (const text of texts) {
      const once = prepared(text);
      for (let step = 1; step <= order.steps.length; step += 3) {
        const { known, wholes } = at(`s${step}`);
        const targets = new Set(["ai=ai", "ee=ee", "ar=ar"]);
        const fit = fitOf(once, { known, wholes, targets });
        const judge = (taught: ReadonlySet<string>) =>
          decodability(`${text.title}.\n${text.body}`, known, new Set(), { lexicon, wholes: taught });
        const told = judge(new Set([...wholes, ...text.exceptions.map(keyOf)]));
        expect(fit.share).toBeCloseTo(judge(wholes).shareOfRunning, 12);
        expect(fit.words).toBe(told.running);
        const counts = (list: readonly { gpc: string; count: number }[]) =>
          Object.fromEntries(list.map(({ gpc, count }) => [gpc, count]));
        expect(counts(fit.inTheWay)).toEqual(counts(told.inTheWay));
        const asked = told.words.flatMap((word) =>
          word.verdict === "sign" ? [] : [...new Set(word.reading.units.map((unit) => unit.gpc))],
        );
        for (const gpc of targets)
          expect(fit.practised.find((one) => one.gpc === gpc)?.count ?? 0).toBe(
            asked.filter((one) => one === gpc).length,
          );
      }
    }
  });
  test("a reader that knows every spelling can read every text, also *of*", () => {
    const known = new Set(everyCorrespondence.map((entry) => entry.gpc));
    for (const text of texts)
      expect(fitOf(prepared(text), { known }).why, text.title).toBe("Every word can be read.");
    expect(texts.filter((text) => /\bof\b/.test(text.body)).length).toBeGreaterThan(20);
  });
  test("a text's own exception words are read by those who were taught them, and named to the others", () => {
    const text = texts.find((one) => one.exceptions.includes("anything")) as LibraryText;
    const { known, wholes } = at(text.step);
    const before = fitOf(prepared(text), { known, wholes });
    expect(before.untaught).toContain("anything");
    expect(before.why).toMatch(/ of \d+ words cannot be read yet: the exception words? .*anything/);
    const taught = new Set([...wholes, ...text.exceptions.map(keyOf)]);
    expect(fitOf(prepared(text), { known, wholes: taught })).toMatchObject({ share: 1, untaught: [] });
  });
  test("what should be practised is counted, and is in the way until it is known", () => {
    const target = new Set(["ai=ai"]);
    const before = fitOf(prepared(rain), { ...at("s15"), targets: target });
    expect(before.inTheWay.map((one) => one.gpc)).toContain("ai=ai");
    expect(before.practised[0]?.gpc).toBe("ai=ai");
  });
  test("the shelf has what can be read alone first, the farthest on top, then the nearest of the rest", () => {
    const shelf = byFit(
      texts.map((text) => ({
        title: text.title,
        step: stepNumber(text),
        fit: fitOf(prepared(text), at("s16")),
      })),
    );
    expect(shelf[0]?.step).toBe(16);
    expect(shelf[0]?.fit.share).toBe(1);
    const rest = shelf.filter((one) => one.fit.share < 0.9).map((one) => one.fit.share);
    expect(rest).toEqual([...rest].sort((one, other) => other - one));
    expect(shelf).toHaveLength(texts.length);
  });
});
