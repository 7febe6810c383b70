/** The sentences of a file: one a line, remarks with `#` and empty lines left out. */
export function readSentences(text: string): readonly string[] {
  return text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "" && !line.startsWith("#"));
}

export type SentenceKind = "statement" | "question";

/** A sentence that ends with a question mark wants an answer. */
export function kindOfSentence(sentence: string): SentenceKind {
  return sentence.trimEnd().endsWith("?") ? "question" : "statement";
}
