/** A question about a text, for the adult to ask. */
export interface TextQuestion {
  readonly kind: "who" | "what" | "where" | "when" | "why" | "how";
  /** `found`: the answer stands in the text; `between`: it stands between the lines. */
  readonly depth: "found" | "between";
  readonly ask: string;
  /** Answers that are right, the fullest first. */
  readonly answers: readonly string[];
  /** Where in the text the answer stands, word for word. */
  readonly where: string;
}

export interface WordMeaning {
  readonly word: string;
  readonly means: string;
}

/** A text with what belongs to it. */
export interface TextContent {
  readonly title: string;
  /** Words that are to be read as wholes here, beyond those that a teaching order has taught by then. */
  readonly exceptions: readonly string[];
  /** Paragraphs, with an empty line between two. */
  readonly body: string;
  readonly questions: readonly TextQuestion[];
  readonly words: readonly WordMeaning[];
}

/** A text that ships. */
export interface LibraryText extends TextContent {
  /** The step of the first teaching order from which it can be read. */
  readonly step: string;
}

export const MOST_LETTERS = 20_000;
const LONGEST_WORD = 40;

/** What a text is wanting: with `stops` it cannot be kept. */
export interface TextProblem {
  readonly stops: boolean;
  readonly says: string;
}

/**
 * What stands against keeping a text, and what its writer should know: too long, no word, an endless word, letters
 * that are not of the Latin alphabet, questions whose answer does not stand where they say. Any text is taken.
 */
export function problemsOf({
  title,
  body,
  questions,
}: Pick<TextContent, "title" | "body" | "questions">): readonly TextProblem[] {
  const problems: TextProblem[] = [];
  const add = (stops: boolean, says: string) => problems.push({ stops, says });
  if (!title.trim()) add(true, "Give it a title.");
  if (body.length > MOST_LETTERS)
    add(
      true,
      `It has ${body.length.toLocaleString("en-GB")} characters; a text has at most ${MOST_LETTERS.toLocaleString("en-GB")}. Divide it into parts.`,
    );
  const letters = body.match(/\p{L}/gu)?.length ?? 0;
  const latin = body.match(/\p{Script=Latin}/gu)?.length ?? 0;
  if (latin === 0)
    add(true, letters === 0 ? "Write or paste at least one sentence." : "It has no word in Latin letters.");
  else if (latin < letters)
    add(
      false,
      `${letters - latin} of its letters are not of the Latin alphabet; the words that have them cannot be checked.`,
    );
  const endless = /[\p{L}\p{M}\p{N}]{41,}/u.exec(body)?.[0];
  if (endless)
    add(true, `“${endless.slice(0, 20)}…” is a word of more than ${LONGEST_WORD} letters. Put spaces into it.`);
  for (const { ask, where } of questions)
    if (where && !body.includes(where)) add(false, `“${where}” does not stand in the text any more: “${ask}”`);
  return problems;
}

/** The name of the exchange format of a library; docs/texts.md describes it. */
export const libraryFormat = "keen-sapling texts 1";

/** A text as it is kept here: with its name in an address. */
export interface KeptText extends TextContent {
  readonly id: string;
}

/** What becomes of a text of an imported library. `id` is where it goes; null where it is here already. */
export interface Arrival {
  readonly content: TextContent;
  readonly does: "new" | "new version" | "here already";
  readonly id: string | null;
}

/**
 * Where the texts of an imported library go. One that is here word for word stays as it is, whatever its id; one that
 * has the id of an own text with other words becomes its next version; every other one is new, so that a text that
 * ships is never changed. Importing the same file twice changes nothing. `newId` makes an id.
 */
export function sortArrivals(
  arriving: readonly (TextContent & { readonly id?: string | undefined })[],
  here: readonly (KeptText & { readonly own: boolean })[],
  newId: () => string,
): readonly Arrival[] {
  const own = new Set(here.filter((text) => text.own).map((text) => text.id));
  const known = new Set(here.map(sameness));
  return arriving.map(({ id, ...content }): Arrival => {
    if (known.has(sameness(content))) return { content, does: "here already", id: null };
    known.add(sameness(content));
    return id !== undefined && own.has(id)
      ? { content, does: "new version", id }
      : { content, does: "new", id: newId() };
  });
}

function sameness({ title, body, exceptions, questions, words }: TextContent): string {
  return JSON.stringify([
    title,
    body,
    exceptions,
    questions.map(({ kind, depth, ask, answers, where }) => [kind, depth, ask, answers, where]),
    words.map(({ word, means }) => [word, means]),
  ]);
}
