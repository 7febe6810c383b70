const linesOf = (text: string) =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "" && !line.startsWith("#"));
/** Between a question and its answer. */
const BAR = " | ";

/** The sentences of a file: one a line, remarks with `#` and empty lines left out, as are the answers behind a bar. */
export function readSentences(text: string): readonly string[] {
  return linesOf(text).map((line) => line.split(BAR)[0]?.trim() ?? "");
}

/**
 * The answers of a file to its questions, with the reason.
 * @example readAnswers("Can a duck sip tea? | no: it has no cup").get("Can a duck sip tea?") // "no: it has no cup"
 */
export function readAnswers(text: string): ReadonlyMap<string, string> {
  return new Map(
    linesOf(text).flatMap((line) => {
      const [question = "", answer] = line.split(BAR);
      return answer ? [[question.trim(), answer.trim()] as const] : [];
    }),
  );
}

/** The phrases of a file, each with the word whose picture it tells of; with an empty one where there is no picture. */
export function readPhrases(text: string): ReadonlyMap<string, string> {
  return new Map(
    linesOf(text).map((line) => {
      const [phrase = "", picture = ""] = line.split(BAR);
      return [phrase.trim(), picture.trim()] as const;
    }),
  );
}

export type SentenceKind = "statement" | "question";

/** A sentence that ends with a question mark wants an answer. */
export function kindOfSentence(sentence: string): SentenceKind {
  return sentence.trimEnd().endsWith("?") ? "question" : "statement";
}
