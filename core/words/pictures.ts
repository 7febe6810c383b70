import { keyOf } from "./lexicon.ts";

/** Reads the pictures of words: a sign of the picture font and its words a line, remarks with `#`. */
export function readPictures(text: string): ReadonlyMap<string, string> {
  return new Map(
    text
      .split("\n")
      .filter((line) => line !== "" && !line.startsWith("#"))
      .flatMap((line) => {
        const [sign = "", ...words] = line.split(" ");
        return words.map((word) => [keyOf(word), sign] as const);
      }),
  );
}
