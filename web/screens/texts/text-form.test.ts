import "fake-indexeddb/auto";
import { expect, test } from "vitest";
import { emptyQuestion, formOf, judgeForm, type TextForm } from "./text-form.ts";

const form = (change: Partial<TextForm> = {}): TextForm => ({
  version: 0,
  title: "Mud",
  body: "Mud on a mat.\r\n\r\n\r\n\r\nA tin.  ",
  exceptions: [],
  questions: [],
  words: [],
  ...change,
});

test("a form is kept as it is written, without what is empty in it", () => {
  const { content, problems } = judgeForm(
    form({
      questions: [
        { ...emptyQuestion, ask: "What is on the mat?", answers: "mud; ; wet mud ", where: " Mud on a mat. " },
        emptyQuestion,
      ],
      words: [
        { word: "mud", means: "wet earth" },
        { word: "", means: " " },
      ],
    }),
  );
  expect(problems).toEqual([]);
  expect(content).toEqual({
    title: "Mud",
    exceptions: [],
    body: "Mud on a mat.\n\nA tin.",
    questions: [
      {
        kind: "who",
        depth: "found",
        ask: "What is on the mat?",
        answers: ["mud", "wet mud"],
        where: "Mud on a mat.",
      },
    ],
    words: [{ word: "mud", means: "wet earth" }],
  });
});

test("what was kept comes back into the form, and is kept as the same again", () => {
  const { content } = judgeForm(form({ questions: [{ ...emptyQuestion, ask: "Who?", answers: "a; b" }] }));
  if (!content) throw new Error("not kept");
  const again = formOf(content, 3);
  expect(again.version).toBe(3);
  expect(again.questions[0]?.answers).toBe("a; b");
  expect(judgeForm(again).content).toEqual(content);
});

test.each<[string, Partial<TextForm>, RegExp]>([
  ["no text", { body: " " }, /at least one sentence/],
  ["no title", { title: "  " }, /title/i],
  [
    "a question without words",
    { questions: [{ ...emptyQuestion, answers: "mud" }] },
    /^Question 1, ask: Please fill this in/,
  ],
  ["a meaning without a word", { words: [{ word: "", means: "wet" }] }, /^Meaning 1, word: Please fill this in/],
  [
    "a question that is too long",
    { questions: [{ ...emptyQuestion, ask: "a".repeat(201) }] },
    /^Question 1, ask: At most 200/,
  ],
])("%s keeps it from being kept, in words", (_, change, says) => {
  const { content, problems } = judgeForm(form(change));
  expect(content).toBeUndefined();
  expect(
    problems
      .filter((one) => one.stops)
      .map((one) => one.says)
      .join(" "),
  ).toMatch(says);
});

test("an answer that stands nowhere is told and stops nothing", () => {
  const { content, problems } = judgeForm(
    form({ questions: [{ ...emptyQuestion, ask: "Who?", answers: "Tom", where: "Tom sat." }] }),
  );
  expect(content).toBeDefined();
  expect(problems).toEqual([{ stops: false, says: "“Tom sat.” does not stand in the text any more: “Who?”" }]);
});
