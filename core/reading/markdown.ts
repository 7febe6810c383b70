import type { LibraryText, TextContent, TextQuestion } from "./library.ts";
import { plainText } from "./pasted.ts";

const QUESTION = /^- (who|what|where|when|why|how), (found|between): (.+?) \| (.+?)(?: @ (.+))?$/;

/**
 * Reads a text of the library from Markdown: a head between `---` lines (`step`, `exceptions`), a title, paragraphs,
 * `## Questions` (`- who, found: Who …? | one answer; another @ where it stands`) and `## Words` (`- word: meaning`).
 * Throws with the line when something of it is not so, or when the place of an answer is not in the text.
 */
export function readLibraryText(markdown: string): LibraryText {
  const { head, title, body, sections } = inParts(markdown);
  const step = head.get("step") ?? "";
  if (!title || !body || !step) throw new Error("A text needs a step, a title and at least one paragraph.");
  const lines = (name: string) => sections.get(name) ?? [];
  return {
    title,
    step,
    exceptions: (head.get("exceptions") ?? "").split(/, */).filter(Boolean),
    body,
    questions: lines("Questions").map((line) => {
      const question = readQuestion(line);
      if (!question?.where) throw new Error(`Not a question with its answers and its place: ${line}`);
      if (!body.includes(question.where)) throw new Error(`“${question.where}” does not stand in “${title}”.`);
      return question;
    }),
    words: lines("Words").map((line) => {
      const word = readMeaning(line);
      if (!word) throw new Error(`Not a word with its meaning: ${line}`);
      return word;
    }),
  };
}

/**
 * Reads a text as people paste or keep it: plain, or Markdown. Title and paragraphs are kept: the title is a heading,
 * or a short first line that no full stop ends and an empty line follows, or else `fallback`. Lines within a paragraph
 * stay lines. Markdown's own signs (emphasis, links, lists, quotes) fall away, words stay; other markup is text like
 * any other. Questions and words are taken where they are written as ours are; lines that are not so are left out.
 * Any text is taken.
 */
export function readPastedText(source: string, fallback = ""): TextContent {
  const { head, story, sections } = inParts(source);
  const { title, paragraphs } = plainText(story);
  const [first = "", ...rest] = paragraphs;
  const isTitle = title === "" && rest.length > 0 && first.length <= 80 && !/[\n.!?…]/.test(first);
  return {
    title: (title || head.get("title") || (isTitle ? first : fallback)).trim().slice(0, 120),
    exceptions: (head.get("exceptions") ?? "").split(/, */).filter(Boolean),
    body: (isTitle ? rest : paragraphs).join("\n\n"),
    questions: (sections.get("Questions") ?? []).flatMap((line) => readQuestion(line) ?? []),
    words: (sections.get("Words") ?? []).flatMap((line) => readMeaning(line) ?? []),
  };
}

function readQuestion(line: string): TextQuestion | undefined {
  const [, kind, depth, ask = "", answers = "", where = ""] = QUESTION.exec(line) ?? [];
  if (!kind || !depth) return undefined;
  return {
    kind: kind as TextQuestion["kind"],
    depth: depth as TextQuestion["depth"],
    ask,
    answers: answers.split(/; */).filter(Boolean),
    where,
  };
}

function readMeaning(line: string): { word: string; means: string } | undefined {
  const [, word, means] = /^- ([^:]+): (.+)$/.exec(line) ?? [];
  return word && means ? { word, means } : undefined;
}

function inParts(source: string) {
  const text = source.replace(/\r\n?/g, "\n").replace(/^\uFEFF/, "");
  const [whole = "", top = ""] = /^---\n([\s\S]*?)\n---\n/.exec(text) ?? [];
  const head = new Map(
    top.split("\n").flatMap((line): [string, string][] => {
      const [, name, value] = /^(\w+): *(.*)$/.exec(line) ?? [];
      return name ? [[name, value?.trim() ?? ""]] : [];
    }),
  );
  const [story = "", ...rest] = text.slice(whole.length).split(/^(?=## (?:Questions|Words)\s*$)/m);
  const sections = new Map(
    rest.map((section): [string, string[]] => {
      const [name = "", ...lines] = section.split("\n");
      return [name.replace("## ", "").trim(), lines.filter((line) => line.startsWith("- "))];
    }),
  );
  const [heading = "", title = ""] = /^\s*#{1,6} +(.+)(?:\n|$)/.exec(story) ?? [];
  return { head, story, title: title.trim(), body: story.slice(heading.length).trim(), sections };
}
