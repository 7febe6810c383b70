import type { KnownBy } from "#core/words";

/** What the file of ages says of a word. */
export interface AgeMark {
  readonly knownBy: KnownBy;
  readonly drawn: boolean;
}

const ages: Readonly<Record<string, KnownBy>> = { "5": 5, "7": 7, "9": 9, later: 12 };

/** Reads `data/lexicon/ages.txt`: lines as `7: able acorn*`, remarks with `#`. Throws on a line of another form and on a word that stands twice. */
export function readAges(text: string): ReadonlyMap<string, AgeMark> {
  const found = new Map<string, AgeMark>();
  for (const line of text.split("\n")) {
    if (line === "" || line.startsWith("#")) continue;
    const [name = "", words = ""] = line.split(": ");
    const knownBy = ages[name];
    if (!knownBy) throw new Error(`"${line.slice(0, 40)}" begins with no age`);
    for (const marked of words.split(" ")) {
      const word = marked.replace("*", "");
      if (found.has(word)) throw new Error(`"${word}" has two ages`);
      found.set(word, { knownBy, drawn: marked.endsWith("*") });
    }
  }
  return found;
}
