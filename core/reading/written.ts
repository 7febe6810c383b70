import type { TextContent } from "./library.ts";

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
