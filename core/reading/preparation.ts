import type { Gpc } from "#core/phonics";
import { holds, holdsAny, keyOf, ownUnitsIn, type TextVerdict, type WordVerdict } from "#core/words";
import type { TextContent, WordMeaning } from "./library.ts";
import { textWords } from "./marks.ts";

/** What to look at with readers before they read a text; made by the engine, changed by the adult. */
export interface Preparation {
  /** Spellings in focus. */
  readonly focus: readonly Gpc[];
  /** Words of the text to read first, with their brackets. */
  readonly first: readonly string[];
  /** Longer words, to take by syllables, or by base and ending. */
  readonly longer: readonly string[];
  /** Exception words. */
  readonly wholes: readonly string[];
  readonly meanings: readonly WordMeaning[];
  /** What to watch in the punctuation, a sentence each. */
  readonly watch: readonly string[];
  readonly note: string;
}

/** How many of each the engine proposes; an adult may keep more. */
const most = { focus: 6, first: 10, longer: 8, wholes: 10 };

/**
 * Proposes the preparation of a text for readers. `verdict` judges title and body against what they know before it;
 * `targets` are the spellings that they are to practise. Words in the way come first, then those that practise. What the
 * text wants read as a whole is taught as one, new words before those that were taught.
 */
export function prepareReading(text: TextContent, verdict: TextVerdict, targets: ReadonlySet<Gpc>): Preparation {
  const counts = new Map<Gpc, number>();
  const own = ownUnitsIn(targets);
  for (const word of verdict.words)
    for (const gpc of [
      ...word.reading.units.map((unit) => unit.gpc),
      ...own.filter((unit) => holds(word.reading.units, unit)),
    ])
      if (targets.has(gpc)) counts.set(gpc, (counts.get(gpc) ?? 0) + 1);
  const practised = [...counts].sort((one, other) => other[1] - one[1]).map(([gpc]) => gpc);
  const practises = (word: WordVerdict) => holdsAny(word.reading.units, targets);
  const asWholes = new Set(text.exceptions.map(keyOf));
  const notYet = verdict.words.filter((word) => word.verdict === "not yet");
  const inTheWay = notYet.filter((word) => !asWholes.has(keyOf(word.text)));
  const newWholes = notYet.filter((word) => asWholes.has(keyOf(word.text)));
  const training = verdict.words.filter(
    (word) => word.verdict !== "not yet" && word.verdict !== "exception" && word.text.length > 2 && practises(word),
  );
  const names = namesIn(text.body);
  const longer = verdict.longWords.filter((word) => word.reading.syllables.length > 1);
  return {
    focus: (practised.length > 0 ? practised : verdict.inTheWay.map((one) => one.gpc)).slice(0, most.focus),
    first: once([...inTheWay, ...training], names).slice(0, most.first),
    longer: once(longer, names).slice(0, most.longer),
    wholes: [...new Set([...once(newWholes, names), ...verdict.exceptionWords])].slice(0, most.wholes),
    meanings: text.words,
    watch: watchIn(text.body),
    note: "",
  };
}

/** Each word once, in small letters but for names. */
function once(words: readonly WordVerdict[], names: ReadonlyMap<string, string>): readonly string[] {
  return [...new Set(words.map((word) => names.get(keyOf(word.text)) ?? keyOf(word.text)))];
}

/** Words that have a capital letter where no sentence and no speech begins, and nowhere a small one, as they are written. */
function namesIn(text: string): ReadonlyMap<string, string> {
  const small = new Set<string>();
  const capital = new Map<string, string>();
  let sentence = -1;
  for (const word of textWords(text)) {
    const begins = word.sentence !== sentence || /["“‘']\s*$/.test(text.slice(0, word.at));
    sentence = word.sentence;
    if (!/^\p{Lu}/u.test(word.text)) small.add(keyOf(word.text));
    else if (!begins) capital.set(keyOf(word.text), word.text);
  }
  const names = new Map([...capital].filter(([key]) => !small.has(key)));
  // What is someone's: Cole's, where Cole is a name.
  for (const { text: word } of textWords(text)) {
    const owner = /^(.+)['’ʼ]s$/.exec(word)?.[1];
    if (owner && names.has(keyOf(owner))) names.set(keyOf(word), word);
  }
  return names;
}

/** What the marks of a text ask of the voice. */
function watchIn(body: string): readonly string[] {
  const count = (pattern: RegExp) => body.match(pattern)?.length ?? 0;
  const times = (number: number) => (number === 1 ? "once" : `${number} times`);
  const speech = count(/[“][^”]+[”]|(?<!\p{L})"[^"]+"/gu);
  const questions = count(/\?/g);
  const calls = count(/!/g);
  const commas = count(/,(?!["”])/g);
  const halts = count(/…|\.\.\.| [–—-] /g);
  return [
    ...(speech > 0 ? [`Someone speaks ${times(speech)}: who is it, and how do they say it?`] : []),
    ...(questions > 0 ? [`A question mark stands ${times(questions)}: hear how the voice asks.`] : []),
    ...(calls > 0 ? [`An exclamation mark stands ${times(calls)}: say it as it is meant.`] : []),
    ...(halts > 0 ? [`A dash or dots stand ${times(halts)}: halt, then go on.`] : []),
    ...(commas > 2 ? [`A comma stands ${times(commas)}: a short stop, and the sentence goes on.`] : []),
  ];
}
