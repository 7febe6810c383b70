import { judgeText, type KnownBy, type Lexicon, type TaughtReader, type Unit, type Word } from "#core/words";
import type { PartKind } from "./part-kinds.ts";

/** Lists of words as one, one of each in turn, none twice. */
export function inTurn(lists: readonly (readonly Word[])[]): readonly Word[] {
  const [only] = lists;
  if (only && lists.length === 1) return only;
  const found = new Map<string, Word>();
  const longest = Math.max(0, ...lists.map((list) => list.length));
  for (let at = 0; at < longest; at++)
    for (const list of lists) {
      const word = list[at];
      if (word && !found.has(word.text)) found.set(word.text, word);
    }
  return [...found.values()];
}

/** Words of the list that a part wishes for in so many minutes. */
export function wordsFor(kind: PartKind, minutes: number): number {
  if (kind === "readWords") return minutes * 3;
  if (kind === "blend") return minutes + 2;
  return kind === "build" || kind === "writeWords" ? minutes + 1 : 0;
}

/** A sentence that can be read, and whether it practises what is taught. */
export interface Judged {
  readonly text: string;
  readonly practises: boolean;
}

/** Sentences of which every word is known or taught as a whole, and of their age. All are judged in one go. */
export function judgeSentences(sentences: readonly string[], reader: TaughtReader, age: KnownBy): Judged[] {
  const readable: Judged[] = [];
  const words = judgeText(sentences.join("\n"), reader);
  let at = 0;
  let next = 0;
  for (const text of sentences) {
    const end = at + text.length;
    let fits = true;
    let practises = false;
    for (let word = words[next]; word && word.at < end; word = words[++next]) {
      if (word.verdict === "not yet" || word.source === "rules") fits = false;
      if ((reader.lexicon.find(word.text)[0]?.knownBy ?? 0) > age) fits = false;
      if (word.verdict === "target") practises = true;
    }
    if (fits) readable.push({ text, practises });
    at = end + 1;
  }
  return readable;
}

/** As they are written. */
export function textsOf(words: readonly Word[]): string[] {
  return words.map(({ text }) => text);
}

/** Words that are known when they are heard, by where in them a sound stands that they have once; several sounds, joined, follow one another. */
export function wordsByPlace(
  sound: string,
  { lexicon, age }: { readonly lexicon: Lexicon; readonly age: KnownBy },
): Readonly<Record<"start" | "middle" | "end" | "without", readonly Word[]>> {
  const sounds = sound.split("+");
  const placesOf = (units: readonly Unit[]) =>
    units.flatMap((_, where) => (sounds.every((one, at) => units[where + at]?.sound === one) ? where : []));
  const known = lexicon.words.filter(
    ({ knownBy, band, units }) => knownBy <= Math.min(age, 7) && band <= 2 && units.length <= 4,
  );
  const at = (place: "start" | "middle" | "end") =>
    known.filter(({ units }) => {
      const places = placesOf(units);
      const [only] = places;
      if (places.length !== 1 || only === undefined) return false;
      return place === (only === 0 ? "start" : only === units.length - sounds.length ? "end" : "middle");
    });
  const without = known.filter(({ units }) => placesOf(units).length === 0);
  return { start: at("start"), middle: at("middle"), end: at("end"), without };
}
