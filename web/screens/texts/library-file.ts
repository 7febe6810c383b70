import { libraryEntry, libraryFile, type TextContentBody, type TextView, textContent } from "#contract";
import { libraryFormat, problemsOf, readPastedText } from "#core/reading";

/** What a file has: texts that can be taken, and what is wrong with the others. */
export interface FileRead {
  readonly texts: readonly (TextContentBody & { readonly id?: string | undefined })[];
  readonly refused: readonly { readonly title: string; readonly says: string }[];
}

/** More than this is no library of ours. */
const MOST_FILE = 8_000_000;

/**
 * Reads a file of texts: a library as JSON (docs/texts.md), or one text as plain text or Markdown. A text that is not as
 * it should be is told by its title or its number, and stops no other. Any file is taken.
 */
export function readLibraryFile(name: string, content: string): FileRead {
  if (content.length > MOST_FILE)
    return refuse(
      name,
      `The file has ${content.length.toLocaleString("en-GB")} characters, which is too much for texts.`,
    );
  return /\.json$/i.test(name) ? readJson(name, content) : readOne(name, content);
}

function refuse(title: string, says: string): FileRead {
  return { texts: [], refused: [{ title, says }] };
}

function readOne(name: string, content: string): FileRead {
  const read = textContent.safeParse(readPastedText(content, name.replace(/\.[^.]*$/, "")));
  if (!read.success) return refuse(name, firstOf(read.error.issues));
  const problem = problemsOf(read.data).find((one) => one.stops);
  return problem ? refuse(name, problem.says) : { texts: [read.data], refused: [] };
}

function readJson(name: string, content: string): FileRead {
  let value: unknown;
  try {
    value = JSON.parse(content);
  } catch {
    return refuse(name, "This is not readable as JSON.");
  }
  const file = libraryFile.safeParse(value);
  if (!file.success)
    return refuse(name, `This is no library of texts: “format” must be “${libraryFormat}”, “texts” a list of texts.`);
  const texts: FileRead["texts"][number][] = [];
  const refused: FileRead["refused"][number][] = [];
  for (const [at, one] of file.data.texts.entries()) {
    const read = libraryEntry.safeParse(one);
    const problem = read.success
      ? problemsOf(read.data).find((other) => other.stops)?.says
      : firstOf(read.error.issues);
    if (read.success && problem === undefined) texts.push(read.data);
    else refused.push({ title: titleOf(one) ?? `Text ${at + 1}`, says: problem ?? "" });
  }
  return { texts, refused };
}

function firstOf(issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]): string {
  const [first] = issues;
  return first ? `${first.path.map(String).join(", ")}: ${first.message}` : "It is not as expected.";
}

function titleOf(value: unknown): string | undefined {
  const { title } = (typeof value === "object" && value !== null ? value : {}) as { title?: unknown };
  return typeof title === "string" && title.trim() ? title.slice(0, 80) : undefined;
}

/** The whole library as a file that `readLibraryFile` takes. */
export function writeLibrary(texts: readonly TextView[]): string {
  return JSON.stringify(
    { format: libraryFormat, texts: texts.map(({ own: _, version: __, ...text }) => text) },
    null,
    1,
  );
}
