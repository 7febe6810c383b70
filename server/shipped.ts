import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { type OrderContent, readOrder } from "#core/order";
import { type LibraryText, readLibraryText } from "#core/reading";
import {
  carriersFrom,
  type Lexicon,
  type MadeUp,
  readAnswers,
  readLexicon,
  readMadeUp,
  readPhrases,
  readPictures,
  readSaidOfWords,
  readSentences,
} from "#core/words";

/** What ships in `data/`, read once at start. */
export interface Shipped {
  readonly lexicon: Lexicon;
  /** Another for another lexicon: what was worked out by one and stored holds no more with the next. */
  readonly lexiconVersion: string;
  /** The lexicon and the made-up words as they stand in their files, to be handed on. */
  readonly lexiconText: string;
  readonly madeUpText: string;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  /** The answers to those of them that are questions. */
  readonly answers: ReadonlyMap<string, string>;
  /** Phrases, each with the word whose picture it tells of. */
  readonly phrases: ReadonlyMap<string, string>;
  /** A sentence for each word that has one, to say it in when it is dictated. */
  readonly carriers: ReadonlyMap<string, string>;
  /** Those of them that were written for a word. */
  readonly written: ReadonlyMap<string, string>;
  /** What words mean that children know late. */
  readonly meanings: ReadonlyMap<string, string>;
  /** Pictures of words, as signs of the picture font. */
  readonly pictures: ReadonlyMap<string, string>;
  /** Compound words in their two parts, `tow path`. */
  readonly compounds: readonly string[];
  /** The texts of the library, each with its name in an address, in the order in which they climb. */
  readonly texts: readonly (LibraryText & { readonly id: string })[];
  readonly orders: readonly { readonly id: string; readonly content: OrderContent }[];
}

/**
 * Ids of the orders that ship: fixed, so that every start finds the same rows. An order whose first steps get other
 * letters gets another id, since a class is marked by its step: 1001 and 1003 were such.
 */
const orderIds: Record<string, string> = {
  "words-first": "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1004",
  "letters-first": "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1002",
  "held-first": "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1005",
};

/** Reads the lexicon, sentences, texts and teaching orders from the folder. Throws when one of them is not well written. */
export function readShipped(folder: string): Shipped {
  const text = (file: string) => readFileSync(join(folder, file), "utf8");
  const shipped = readdirSync(join(folder, "orders")).map((file) => file.replace(/\.txt$/, ""));
  const orders = Object.entries(orderIds)
    .filter(([name]) => shipped.includes(name))
    .map(([name, id]) => ({ id, content: readOrder(text(`orders/${name}.txt`)) }));
  const lexiconText = text("lexicon/lexicon.txt");
  const madeUpText = text("lexicon/made-up.txt");
  const sentences = readSentences(text("sentences.txt"));
  const written = readSaidOfWords(text("carriers.txt"));
  return {
    lexicon: readLexicon(lexiconText),
    lexiconText,
    lexiconVersion: createHash("sha256").update(lexiconText).digest("base64url").slice(0, 8),
    madeUpText,
    madeUp: readMadeUp(madeUpText),
    sentences,
    carriers: carriersFrom(sentences, written),
    written,
    pictures: readPictures(text("lexicon/pictures.txt")),
    meanings: readSaidOfWords(text("lexicon/meanings.txt")),
    answers: readAnswers(text("sentences.txt")),
    phrases: readPhrases(text("phrases.txt")),
    compounds: readSentences(text("compounds.txt")),
    texts: readdirSync(join(folder, "texts"))
      .filter((file) => file.endsWith(".md"))
      .sort()
      .map((file) => ({ id: file.replace(/^\d+[a-z]?-|\.md$/g, ""), ...readLibraryText(text(`texts/${file}`)) })),
    orders,
  };
}
