import { heardIn, kindNames } from "#core/ledger";
import { ipa, isVowel, plainSound } from "#core/phonics";
import {
  dice,
  type FindWanted,
  findWords,
  isWordItem,
  Kept,
  type Lexicon,
  minimalPairs,
  type Pair,
  type Place,
  placeOf,
  places,
  readWordItem,
  shuffled,
  syllableStarts,
  syllablesOf,
  type Unit,
  type Word,
  wordItem,
} from "#core/words";
import type { CommonSection, Task } from "../section.ts";
import type { AskOf, Kind, Likely, Prompt } from "./kind.ts";
import { nothingTold } from "./kind.ts";
import { saidPad } from "./pads.ts";

/** Task names as they are read. */
export const taskNames: Readonly<Record<Task, string>> = {
  compound: "Two words in one",
  syllables: "Syllables together",
  rest: "First sound and rest",
  sounds: "Sounds together",
  apart: "A word into its sounds",
  where: "Where a sound stands",
  alike: "Same or different",
};

interface Listening {
  readonly task: Task;
  /** Parts for `compound` and `syllables`; words in units for the others, two of them for `alike`. */
  readonly parts: readonly string[];
  /** The sound to listen for (`where`). */
  readonly sound: string;
}

/** Reads an item: `syllables rab+bit`, `sounds sh i p`, `where i|sh i p`, `alike p i n / p e n`. */
function readItem(item: string): Listening | undefined {
  const [, task = "", rest = ""] = /^(\w+) (.+)$/.exec(item) ?? [];
  switch (task) {
    case "compound":
    case "syllables": {
      const parts = rest.split("+");
      return parts.length > 1 && parts.every((part) => /^[\p{L}']+$/u.test(part))
        ? { task, parts, sound: "" }
        : undefined;
    }
    case "rest":
    case "sounds":
    case "apart":
      return isWordItem(rest) ? { task, parts: [rest], sound: "" } : undefined;
    case "where": {
      const [sound = "", entry = ""] = rest.split("|");
      return isWordItem(entry) && readWordItem(entry).units.some((unit) => unit.sound === sound)
        ? { task, parts: [entry], sound }
        : undefined;
    }
    case "alike": {
      const parts = rest.split(" / ");
      return parts.length === 2 && parts.every(isWordItem) ? { task, parts, sound: "" } : undefined;
    }
    default:
      return undefined;
  }
}

/** The sounds of a word, joints such as x taken as the two sounds that they are. */
function soundsOf(units: readonly Unit[]): readonly string[] {
  const joints: Record<string, readonly string[]> = {
    ks: ["k", "s"],
    gz: ["g", "z"],
    kw: ["k", "w"],
    ts: ["t", "s"],
    wu: ["w", "u"],
    id: ["i", "d"],
    iz: ["i", "z"],
  };
  return units.flatMap((unit) => (unit.sound === "" ? [] : (joints[unit.sound] ?? [unit.sound])));
}

function placeIn(units: readonly Unit[], sound: string): Place {
  const at = units.findIndex((unit) => unit.sound === sound);
  return at === 0 ? "start" : at === units.length - 1 ? "end" : "middle";
}

interface ListenSection {
  readonly tasks: readonly Task[];
}
type ListenAsk = AskOf<CommonSection & ListenSection>;

const whereWords: Readonly<Record<Place, string>> = {
  start: "at the start",
  middle: "in the middle",
  end: "at the end",
};

const slowly = (sounds: readonly string[]) => sounds.map(plainSound).join(" – ");

function promptOf(item: string): Prompt {
  const read = readItem(item);
  if (!read) return { say: item, expects: "" };
  const { task, parts, sound } = read;
  if (task === "compound" || task === "syllables")
    return { say: `What word is ${parts.join(" – ")}?`, expects: parts.join("") };
  const [first, second] = parts.map(readWordItem);
  const units = first?.units ?? [];
  const text = first?.text ?? "";
  switch (task) {
    case "rest": {
      const rest = text.slice((units[0]?.grapheme ?? "").length);
      return { say: `What word is ${plainSound(units[0]?.sound ?? "")} – ${rest}?`, expects: text };
    }
    case "sounds":
      return { say: `What word is ${slowly(soundsOf(units))}?`, expects: text };
    case "apart": {
      const all = soundsOf(units);
      return { say: `Which sounds are in ${text}?`, expects: `${all.length} sounds: ${slowly(all)}` };
    }
    case "where":
      return {
        say: `Where is ${plainSound(sound)} in ${text}: at the start, in the middle or at the end?`,
        expects: `${ipa(sound)} ${whereWords[placeIn(units, sound)]}`,
      };
    default: {
      const same = text === second?.text;
      return {
        say: `${text}, ${second?.text ?? ""}: the same or different?`,
        expects: same ? "the same" : "different",
      };
    }
  }
}

function likelyOf(item: string): readonly Likely[] {
  const read = readItem(item);
  const wrong = (heard: string, hint = ""): Likely => ({ heard, shows: heard, hint, outcome: "wrong" });
  if (!read) return [];
  const { task, parts, sound } = read;
  if (task === "compound" || task === "syllables") return parts.map((part) => wrong(part, "one part"));
  const units = readWordItem(parts[0] ?? "").units;
  if (task === "where")
    return places.filter((place) => place !== placeIn(units, sound)).map((place) => wrong(whereWords[place], "said"));
  if (task === "alike") return [wrong(parts[0] === parts[1] ? "different" : "the same", "said")];
  if (task === "apart") {
    const count = soundsOf(units).length;
    return [count - 2, count - 1, count + 1].filter((one) => one > 1).map((one) => wrong(`${one} sounds`, "counted"));
  }
  return [wrong("the sounds, no word", "not blended")];
}

const MOST_POOLS = 100;
const pools = new WeakMap<Lexicon, Kept<string, readonly Word[]>>();

/** Common words that are spoken only, so that which spellings are taught does not matter; the easiest first. */
function pool(lexicon: Lexicon, what: Pick<FindWanted, "shape" | "syllables">): readonly Word[] {
  const here = pools.get(lexicon) ?? new Kept<string, readonly Word[]>(MOST_POOLS);
  pools.set(lexicon, here);
  return here.of(JSON.stringify(what), () =>
    findWords({ lexicon, known: everyCommon(lexicon), band: 2, seed: 1, ...what }),
  );
}

function everyCommon(lexicon: Lexicon): ReadonlySet<string> {
  return new Set(lexicon.words.flatMap((word) => (word.band <= 2 ? word.units.map((unit) => unit.gpc) : [])));
}

/** Short common words of these shapes, shuffled. */
function spoken(ask: ListenAsk, shapes: readonly string[]): readonly Word[] {
  const found = pool(ask.lexicon, { shape: shapes, syllables: 1 });
  const plain = found.filter((word) => word.joints.length === 0 && word.units.every((unit) => unit.sound !== ""));
  return shuffled(plain.slice(0, 240), dice(ask.seed));
}

/** Words for `where`: start, middle and end in turn, each sound once, consonants and vowels alike. */
function placed(words: readonly Word[], most: number): readonly string[] {
  const found: string[] = [];
  const used = new Set<string>();
  for (let turn = 0; found.length < most && turn < most * 3; turn++) {
    const wanted = places[turn % places.length];
    for (const word of words) {
      const unit = word.units.find(
        (one) =>
          placeOf(word.units, one.gpc) === wanted &&
          word.units.filter((other) => other.sound === one.sound).length === 1,
      );
      if (!unit || used.has(unit.sound) || used.has(word.text) || (wanted === "middle" && !isVowel(unit.sound)))
        continue;
      used.add(unit.sound).add(word.text);
      found.push(`where ${unit.sound}|${wordItem(word)}`);
      break;
    }
  }
  return found;
}

const drawTask: Record<Task, (ask: ListenAsk) => readonly string[]> = {
  compound: ({ compounds, seed, section }) =>
    shuffled(compounds, dice(seed))
      .slice(0, section.most)
      .map((pair) => `compound ${pair.replace(" ", "+")}`),
  syllables: ({ lexicon, seed, section }) => {
    const some = (count: number) =>
      shuffled(pool(lexicon, { syllables: count }).slice(0, 120), dice(seed)).flatMap((word) => {
        const parts = syllablesOf(word.text, word.units, syllableStarts(word.units, word.stressed, word.joints));
        return parts.length === count && parts.every((part) => part.length > 1)
          ? [`syllables ${parts.join("+")}`]
          : [];
      });
    const [two, three] = [some(2), some(3)];
    const half = Math.ceil(section.most / 2);
    return [...two.slice(0, half), ...three.slice(0, section.most - half)];
  },
  rest: (ask) => {
    const open = spoken(ask, ["CVC", "CVCC"]).filter(
      (word) =>
        word.text.startsWith(word.units[0]?.grapheme ?? "?") && !word.text.includes("e", word.text.length - 1),
    );
    return open.slice(0, ask.section.most).map((word) => `rest ${wordItem(word)}`);
  },
  sounds: (ask) => grown(ask, "sounds"),
  apart: (ask) => grown(ask, "apart"),
  where: (ask) => placed(spoken(ask, ["CVC", "CVCC", "CCVC"]), ask.section.most),
  alike: ({ lexicon, seed, section }) => {
    const sets: [string, string][] = [
      ["p", "b"],
      ["t", "d"],
      ["k", "g"],
      ["f", "th"],
      ["m", "n"],
      ["s", "z"],
      ["e", "i"],
      ["a", "u"],
      ["sh", "ch"],
      ["v", "b"],
    ];
    const from = dice(seed);
    const pairs = shuffled(sets, from)
      .slice(0, section.most)
      .flatMap((sounds) => pairFor(lexicon, sounds));
    const differ = shuffled([...pairs.keys()], from).slice(0, Math.ceil(pairs.length / 2));
    return pairs.map(({ one, other }, at) => {
      const [first, second] = [wordItem(one), wordItem(other)];
      return differ.includes(at) ? `alike ${first} / ${second}` : `alike ${first} / ${first}`;
    });
  },
};

const MOST_PAIRS = 500;
const pairs = new WeakMap<Lexicon, Kept<string, readonly Pair[]>>();

/** The easiest pair of common words that these two sounds tell apart; none when there is none. */
function pairFor(lexicon: Lexicon, sounds: readonly [string, string]): readonly Pair[] {
  const here = pairs.get(lexicon) ?? new Kept<string, readonly Pair[]>(MOST_PAIRS);
  pairs.set(lexicon, here);
  return here.of(sounds.join(), () =>
    minimalPairs({ lexicon, known: everyCommon(lexicon), band: 2, sounds, count: 1 }),
  );
}

/** Words of three sounds first, then of four, half each. */
function grown(ask: ListenAsk, task: "sounds" | "apart"): readonly string[] {
  const half = Math.ceil(ask.section.most / 2);
  const simple = (word: Word) => word.units.every((unit) => soundsOf([unit]).length === 1);
  const three = spoken(ask, ["CVC"])
    .filter(simple)
    .slice(task === "apart" ? half : 0);
  const four = spoken(ask, ["CVCC", "CCVC"])
    .filter(simple)
    .slice(task === "apart" ? half : 0);
  return [...three.slice(0, half), ...four.slice(0, ask.section.most - half)].map(
    (word) => `${task} ${wordItem(word)}`,
  );
}

/** Listening without letters. Items name their task first. */
export const listen: Kind<"listen", ListenSection> = {
  id: "listen",
  name: kindNames.listen,
  about: "Nothing to read: the child blends spoken parts, takes words apart, hears where a sound stands.",
  begins: { scope: "all", most: 4, strategy: "inOrder", stopAfter: 4, tasks: ["sounds", "apart", "where"] },
  picks: null,
  piles: {
    title: "By task",
    of: (item) => {
      const task = taskOf(item);
      return task && taskNames[task];
    },
  },
  way: "cards",
  seconds: 10,
  order: "inOrder",
  fits: (item) => readItem(item) !== undefined,
  draw: (ask) => ({
    items:
      ask.section.scope === "picked"
        ? [...new Set(ask.section.picked)]
        : ask.section.tasks.flatMap((task) => drawTask[task](ask)),
  }),
  face: () => ({ show: "nothing" }),
  prompt: promptOf,
  pad: () => saidPad,
  likely: likelyOf,
  tags: () => [],
  show: (item) => {
    const read = readItem(item);
    if (!read) return item;
    const { task, parts, sound } = read;
    if (task === "compound" || task === "syllables") return parts.join("–");
    const texts = parts.map((part) => readWordItem(part).text);
    return task === "where" ? `${plainSound(sound)} in ${texts[0]}` : texts.join(", ");
  },
  showHeard: (heard) => heard,
  tell: (answer) => {
    const heard = heardIn(answer);
    const read = readItem(answer.item);
    if (!read) return nothingTold;
    const { say, expects } = promptOf(answer.item);
    if (answer.outcome === "none")
      return { ...nothingTold, says: [`${taskNames[read.task]}: no answer to “${say}”`] };
    if (!heard) return nothingTold;
    return { ...nothingTold, says: [`${taskNames[read.task]}: “${say}” ${heard}; it is ${expects}.`] };
  },
};

/** The task of an item, or undefined. */
export function taskOf(item: string): Task | undefined {
  return readItem(item)?.task;
}
