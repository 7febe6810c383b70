import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Arrival, problemsOf, readPastedText, sortArrivals, type TextContent, writeText } from "./index.ts";

const content = (change: Partial<TextContent> = {}): TextContent => ({
  title: "The wet step",
  exceptions: [],
  body: "The step is wet.\n\nTess slips.",
  questions: [{ kind: "who", depth: "found", ask: "Who slips?", answers: ["Tess"], where: "Tess slips." }],
  words: [{ word: "slips", means: "slides and nearly falls" }],
  ...change,
});

describe("a pasted text", () => {
  test.each<[string, string, Partial<TextContent>]>([
    [
      "a heading is the title",
      "# The wet step\n\nThe step is wet.\n\nTess slips.",
      { title: "The wet step", body: "The step is wet.\n\nTess slips." },
    ],
    [
      "so is a short first line alone",
      "The wet step\n\nThe step is wet.\r\n\r\n\r\nTess slips.",
      { title: "The wet step", body: "The step is wet.\n\nTess slips." },
    ],
    [
      "a first sentence is none",
      "The step is wet.\n\nTess slips.",
      { title: "notes", body: "The step is wet.\n\nTess slips." },
    ],
    [
      "a heading further down is text",
      "The step is wet.\n\n## Later\n\nTess slips.",
      { title: "notes", body: "The step is wet.\n\nLater\n\nTess slips." },
    ],
    [
      "lines of a paragraph stay lines",
      "# A rhyme\n\nDuck on the bank,\nfrog on the plank.",
      { title: "A rhyme", body: "Duck on the bank,\nfrog on the plank." },
    ],
    [
      "signs of Markdown fall away, words stay",
      "# **Wet**\n\n> The _step_ is **wet**.\n- See [Tess](http://x.y)",
      { title: "Wet", body: "The step is wet.\nSee Tess" },
    ],
    [
      "other markup is text",
      "# Wet\n\n<script>alert(1)</script> <b>Tess</b> slips.",
      { title: "Wet", body: "<script>alert(1)</script> <b>Tess</b> slips." },
    ],
    [
      "stars and lines that mark nothing stay",
      "# Wet\n\n2 * 3 * 4, a_b_c, * alone",
      { title: "Wet", body: "2 * 3 * 4, a_b_c, * alone" },
    ],
    ["an empty paste is an empty text", "  \n ", { title: "notes", body: "" }],
  ])("%s", (_, source, wanted) => {
    expect(readPastedText(source, "notes")).toMatchObject(wanted);
  });
  test("questions and words written as ours are taken, other lines of them left out", () => {
    const source = `${writeText(content())}- not a meaning\n`;
    expect(readPastedText(source)).toEqual(content());
    expect(readPastedText(source.replace(" @ Tess slips.", "")).questions[0]?.where).toBe("");
  });
  test("what is written as Markdown is read as the same text", () => {
    const word = fc.stringMatching(/^[a-z]{1,8}$/);
    const sentence = fc.array(word, { minLength: 1, maxLength: 8 }).map((words) => `${words.join(" ")}.`);
    const body = fc.array(sentence, { minLength: 1, maxLength: 5 }).map((all) => all.join("\n\n"));
    fc.assert(
      fc.property(body, word, fc.array(word, { maxLength: 3 }), (text, title, exceptions) => {
        const kept = content({ title, body: text, exceptions, questions: [], words: [] });
        expect(readPastedText(writeText(kept))).toEqual(kept);
      }),
    );
  });
  test("a page of brackets is read at once, and so is a book of them", () => {
    for (const source of ["[".repeat(80_000), "[a](".repeat(20_000), "> ".repeat(40_000), "*_".repeat(12_000)]) {
      const began = performance.now();
      expect(readPastedText(source, "x").title).toBe("x");
      // Sixteen seconds before; a generous bound that only a fault of that kind can pass.
      expect(performance.now() - began).toBeLessThan(6_000);
    }
  });
  test("any text is taken", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 400 }), (source) => {
        const read = readPastedText(source, "x");
        expect(read.title.length).toBeLessThanOrEqual(120);
        problemsOf(read);
      }),
    );
  });
});

describe("what stands against a text", () => {
  test.each<[string, Partial<TextContent>, boolean, RegExp]>([
    ["no word", { body: " … 12 🙂" }, true, /at least one sentence/],
    ["another script alone", { body: "Это дом." }, true, /no word in Latin letters/],
    ["another script among it", { body: "Tess sees дом." }, false, /3 of its letters/],
    ["an endless word", { body: `A ${"ab".repeat(40)} c` }, true, /more than 40 letters/],
    ["far too much", { body: "a cat ".repeat(350_000) }, true, /2,100,000 characters; a text has at most 20,000/],
    ["no title", { title: " " }, true, /title/],
    ["an answer that stands nowhere any more", { body: "The step is dry." }, false, /“Tess slips.” does not stand/],
  ])("%s", (_, change, stops, says) => {
    const problems = problemsOf(
      content({
        ...(change.body ? { questions: change.body.includes("dry") ? content().questions : [] } : {}),
        ...change,
      }),
    );
    expect(problems).toHaveLength(1);
    expect(problems[0]).toMatchObject({ stops, says: expect.stringMatching(says) });
  });
  test("a good text has no problem, with emoji and accents too", () => {
    expect(problemsOf(content({ body: "Tess slips. 🦆 Zoë sees it.", questions: [] }))).toEqual([]);
  });
});

describe("an imported library", () => {
  const here = [
    { ...content(), id: "wet-step", own: false },
    { ...content({ title: "Mud" }), id: "own-1", own: true },
  ];
  let made = 0;
  const sort = (...arriving: (TextContent & { id?: string })[]) =>
    sortArrivals(arriving, here, () => `new-${++made}`);
  const does = (list: readonly Arrival[]) => list.map((one) => one.does);
  test("what is here word for word stays, whatever its id", () => {
    expect(does(sort({ ...content(), id: "wet-step" }, { ...content({ title: "Mud" }), id: "other" }))).toEqual([
      "here already",
      "here already",
    ]);
  });
  test("other words under an own id are its next version; under the id of a text that ships they are a new text", () => {
    const [own, shipped] = sort(
      { ...content({ title: "Mud two" }), id: "own-1" },
      { ...content({ title: "Dry" }), id: "wet-step" },
    );
    expect(own).toMatchObject({ does: "new version", id: "own-1" });
    expect(shipped?.does).toBe("new");
    expect(shipped?.id).toMatch(/^new-/);
  });
  test("a text that stands twice in the file comes in once", () => {
    expect(does(sort(content({ title: "Dry" }), content({ title: "Dry" })))).toEqual(["new", "here already"]);
  });
});
