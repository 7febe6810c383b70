import type { LibraryText, TextContent, TextQuestion } from "./library.ts";

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
  const { head, title, body, sections } = inParts(source);
  const paragraphs = body.split(/\n{2,}/);
  const [first = "", ...rest] = paragraphs;
  const isTitle = title === "" && rest.length > 0 && first.length <= 80 && !/[\n.!?…]/.test(first.trim());
  return {
    title: plain(title || head.get("title") || (isTitle ? first : fallback)).slice(0, 120),
    exceptions: (head.get("exceptions") ?? "").split(/, */).filter(Boolean),
    body: (isTitle ? rest : paragraphs)
      .map((paragraph) => paragraph.split("\n").map(plain).filter(Boolean).join("\n"))
      .filter(Boolean)
      .join("\n\n"),
    questions: (sections.get("Questions") ?? []).flatMap((line) => readQuestion(line) ?? []),
    words: (sections.get("Words") ?? []).flatMap((line) => readMeaning(line) ?? []),
  };
}

/** A text as Markdown that `readPastedText` reads as the same text. */
export function writeText({ title, exceptions, body, questions, words }: TextContent): string {
  const head = exceptions.length > 0 ? `---\nexceptions: ${exceptions.join(", ")}\n---\n\n` : "";
  const asked = questions.map(
    ({ kind, depth, ask, answers, where }) =>
      `- ${kind}, ${depth}: ${ask} | ${answers.join("; ")}${where ? ` @ ${where}` : ""}`,
  );
  const meant = words.map(({ word, means }) => `- ${word}: ${means}`);
  const section = (name: string, lines: readonly string[]) =>
    lines.length > 0 ? `\n## ${name}\n\n${lines.join("\n")}\n` : "";
  return `${head}# ${title}\n\n${body}\n${section("Questions", asked)}${section("Words", meant)}`;
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
  return { head, title: title.trim(), body: story.slice(heading.length).trim(), sections };
}

/** A line without the signs of Markdown. */
function plain(line: string): string {
  return line
    .replace(/^\s*(?:#{1,6} +|> ?|[-*+] +|\d{1,3}[.)] +)/, "")
    .replace(/!?\[([^\]\n]*)\]\([^)\n]*\)/g, "$1")
    .replace(/(\*\*|__)(?=\S)(.+?)(?<=\S)\1/g, "$2")
    .replace(/(?<![\p{L}\p{N}])([*_])(?=\S)(.+?)(?<=\S)\1(?![\p{L}\p{N}])/gu, "$2")
    .replace(/\s+/g, " ")
    .trim();
}
