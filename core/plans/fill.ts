import { type Gpc, likelyConfusions, plainSound, spellingsOfSound, splitGpc, WEAK } from "#core/phonics";
import {
  chain,
  type Dice,
  dice,
  findMadeUp,
  findWords,
  heaps,
  judgeText,
  type KnownBy,
  kindOfSentence,
  type Lexicon,
  type MadeUp,
  minimalPairs,
  shuffled,
  type TaughtReader,
  type Word,
} from "#core/words";
import { inTurn, type Judged, judgeSentences, textsOf, wordsByPlace, wordsFor } from "./fill-words.ts";
import { shapedWords } from "./focus.ts";
import type { Focus } from "./focus-kind.ts";
import { shown } from "./how-to.ts";
import type { PartKind } from "./part-kinds.ts";

/** A child of a group as a session looks at it. */
export interface SessionChild {
  readonly id: string;
  /** The chance of each spelling that it was taught, 0 to 1. */
  readonly chances: ReadonlyMap<Gpc, number>;
  /** Cards that a block of weeks has for it on that day: they come first. */
  readonly cards?: readonly Gpc[];
}

/** A text of the shelf: its words as they stand. */
export interface ShelfEntry {
  readonly title: string;
  readonly body: string;
  readonly exceptions: readonly string[];
}

/** What the parts of one session are filled from. */
export interface Filling {
  readonly known: ReadonlySet<Gpc>;
  readonly target: Gpc;
  /** Taught beside it, where there is room for two. */
  readonly second: Gpc | undefined;
  /** What it is about in place of a new spelling; empty where it is not. */
  readonly focus: Focus;
  readonly revisit: readonly Gpc[];
  readonly children: readonly SessionChild[];
  readonly lexicon: Lexicon;
  readonly age: KnownBy;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  readonly answers: ReadonlyMap<string, string>;
  /** Phrases, each with the word whose picture it tells of; with an empty one where there is no picture. */
  readonly phrases: ReadonlyMap<string, string>;
  readonly texts: readonly ShelfEntry[];
  readonly exceptionWords: readonly string[];
  /** Words that these children had in the last days. */
  readonly hadLately: readonly string[];
  /** Exception words that they miss, and sounds that they take for one another, what is missing most first. */
  readonly missedWords: readonly string[];
  readonly mixedSounds: readonly (readonly [string, string])[];
  readonly seed: number;
}

/** What a part holds, and what of it could not be had. */
export interface Filled {
  readonly items: readonly string[];
  /** Cards of single children, where each has its own. */
  readonly each?: readonly { readonly childId: string; readonly items: readonly string[] }[];
  readonly remark?: string;
}

const hasCard = (gpc: Gpc) => splitGpc(gpc).sound !== WEAK;
const CARDS_A_MINUTE = 3;
/** A chance below which a spelling is to be taught and not revisited, and above which it is not in doubt. */
const [LOST, SURE] = [0.25, 0.9];
/** Words that must fit before those of the last days are left out. */
const ENOUGH = 40;
const PLACES = { start: "at the start", middle: "in the middle", end: "at the end" } as const;

/** Fills the parts of one session one after the other, no word twice while there are others. */
export class Filler {
  private readonly from: Dice;
  private readonly words: Word[];
  private readonly all: readonly Word[];
  private readonly targets: readonly Gpc[];
  /** What is known, and what is taught. */
  private readonly readable: ReadonlySet<Gpc>;
  private readonly given: string[] = [];
  private readonly judged: readonly Judged[];
  readonly reader: TaughtReader;
  /** How much of what parts wish for there is, 1 at most. */
  private readonly share: number;

  /** @param parts what will be asked for, with minutes: few words are shared out among them */
  constructor(
    private readonly by: Filling,
    parts: readonly { readonly kind: PartKind; readonly minutes: number }[],
  ) {
    const { lexicon, hadLately, exceptionWords, sentences, seed, age, known } = by;
    this.from = dice(seed);
    this.targets = by.second ? [by.target, by.second] : [by.target];
    this.readable = new Set([...known, ...this.targets]);
    const shaped = shapedWords(by.focus, { lexicon, known, seed });
    this.all =
      shaped ??
      inTurn(
        this.targets.map((target) => {
          const others = this.targets.filter((gpc) => gpc !== target);
          return findWords({ lexicon, known: new Set([...known, ...others]), target, place: "balanced", seed });
        }),
      );
    const had = new Set(hadLately.map((word) => word.toLowerCase()));
    const fresh = this.all.filter(({ text }) => !had.has(text.toLowerCase()));
    this.words = [...(this.all.length >= ENOUGH && fresh.length >= 12 ? fresh : this.all)];
    const wished = parts.reduce((sum, { kind, minutes }) => sum + wordsFor(kind, Math.max(1, minutes)), 0);
    this.share = wished > 0 ? Math.min(1, this.words.length / wished) : 1;
    const wholes = new Set(exceptionWords.map((word) => word.toLowerCase()));
    this.reader = { known, teaching: new Set(this.targets), wholes, lexicon };
    this.judged = judgeSentences(sentences, this.reader, age);
  }

  /** How many words there are for this session at all. */
  get count(): number {
    return this.all.length;
  }

  fill(kind: PartKind, minutes: number): Filled {
    return this.kinds[kind](Math.max(1, minutes));
  }

  /** Words that were not given yet, fewer where there are not enough for all parts; when they are over, some again. */
  private take(wished: number): Word[] {
    const count = Math.max(1, Math.floor(wished * this.share));
    const some = this.words.splice(0, count);
    if (some.length < count) {
      const again = this.all.filter((word) => !some.includes(word));
      some.push(...shuffled(again, this.from).slice(0, count - some.length));
    }
    this.given.push(...some.map(({ text }) => text));
    return some;
  }

  private readonly kinds: Readonly<Record<PartKind, (minutes: number) => Filled>> = {
    revisit: (minutes) => this.cards(minutes * CARDS_A_MINUTE),
    hear: (minutes) => this.heard(3 + minutes * 2),
    teach: () => ({ items: this.targets }),
    blend: (minutes) => ({ items: textsOf(this.take(wordsFor("blend", minutes))) }),
    readWords: (minutes) => ({ items: textsOf(shuffled(this.take(wordsFor("readWords", minutes)), this.from)) }),
    readAgain: () => {
      const last = this.given.slice(-12);
      return { items: shuffled(last.length > 0 ? [...new Set(last)] : textsOf(this.take(6)), this.from) };
    },
    madeUp: (minutes) => this.sounded(2 + minutes * 2),
    chain: (minutes) => this.chained(Math.min(12, 5 + minutes)),
    sort: (minutes) => this.sorted(2 + minutes),
    pairs: (minutes) => this.paired(2 + minutes),
    build: (minutes) => ({ items: textsOf(this.take(wordsFor("build", minutes))) }),
    writeWords: (minutes) => ({ items: textsOf(this.take(wordsFor("writeWords", minutes))) }),
    exceptionWords: (minutes) => ({ items: this.exceptions().slice(0, 3 + minutes) }),
    readSentence: (minutes) => this.sentencesOf(minutes, "readSentence"),
    sentence: () => this.sentencesOf(1, "sentence"),
    yesNo: (minutes) => this.questions(minutes),
    phrase: (minutes) => this.phrases(2 + minutes * 2),
    text: () => this.text(),
    lastLook: (minutes) => this.looked(3 + minutes),
  };

  /** Those that were missed first, then those taught last. */
  private exceptions(): readonly string[] {
    const taught = [...this.by.exceptionWords].reverse();
    const missed = this.by.missedWords.flatMap((word) => taught.find((one) => one.toLowerCase() === word) ?? []);
    return [...new Set([...missed, ...taught])];
  }

  /** What is taught, and a few others: each child's own, where they are known. */
  private looked(most: number): Filled {
    const { each = [] } = this.cards(most);
    const own = each.map(({ childId, items }) => ({
      childId,
      items: [...this.targets, ...items].slice(0, Math.max(this.targets.length, most)),
    }));
    const items = [...new Set([...this.targets, ...this.by.revisit.filter(hasCard)])].slice(0, most);
    return own.length > 0 ? { items, each: own } : { items };
  }

  /** Each child's own cards: those that a block of weeks has for it, else what is in doubt first, and what all of the group revisits behind. */
  private cards(most: number): Filled {
    const { revisit, children } = this.by;
    const isTarget = (gpc: Gpc) => this.targets.includes(gpc);
    const doubt = (chance: number) => chance * (1 - chance);
    const own = children.map(({ id, chances, cards }) => {
      const planned = (cards ?? []).filter((gpc) => !isTarget(gpc));
      const doubtful = [...chances]
        .filter(([gpc, chance]) => !isTarget(gpc) && hasCard(gpc) && chance >= LOST && chance < SURE)
        .sort((one, other) => doubt(other[1]) - doubt(one[1]))
        .map(([gpc]) => gpc);
      const sure = (gpc: Gpc) => (chances.get(gpc) ?? 0) >= SURE;
      const shared = revisit.filter((gpc) => hasCard(gpc) && !isTarget(gpc) && !sure(gpc));
      return {
        childId: id,
        items: [...new Set([...planned, ...shared.slice(0, 2), ...doubtful, ...shared])].slice(0, Math.min(6, most)),
      };
    });
    const counts = new Map<Gpc, number>();
    for (const { items } of own) for (const gpc of items) counts.set(gpc, (counts.get(gpc) ?? 0) + 1);
    const usual = [...new Set(revisit)].filter((gpc) => hasCard(gpc) && !isTarget(gpc)).slice(0, Math.min(6, most));
    const items =
      counts.size > 0
        ? [...counts]
            .sort((one, other) => other[1] - one[1])
            .map(([gpc]) => gpc)
            .slice(0, Math.max(6, most * 2))
        : usual;
    const each = own.filter((one) => one.items.length > 0);
    return each.length > 0 ? { items, each } : { items };
  }

  /** Words to be heard: with the sound at the start, in the middle, at the end, and without it, as often as words allow. */
  private heard(count: number): Filled {
    const parts = this.targets.map((target) => this.heardOf(target, Math.ceil(count / this.targets.length)));
    return { items: [...new Set(parts.flat())] };
  }

  private heardOf(target: Gpc, count: number): readonly string[] {
    const { lexicon, age } = this.by;
    const { sound } = splitGpc(target);
    // Of two sounds it is said which is listened for.
    const which = this.targets.length > 1 ? `“${plainSound(sound)}” ` : "";
    const words = wordsByPlace(sound, { lexicon, age });
    const some = (list: readonly Word[]) => shuffled(list, this.from).slice(0, Math.max(1, Math.floor(count / 4)));
    const items = [
      ...(["start", "middle", "end"] as const).flatMap((place) =>
        some(words[place]).map(({ text }) => `${text} (${which}${PLACES[place]})`),
      ),
      ...some(words.without).map(({ text }) => `${text} (${which}not there)`),
    ];
    return shuffled(items, this.from);
  }

  private sounded(count: number): Filled {
    const { madeUp, target, seed } = this.by;
    const share = Math.ceil(count / this.targets.length);
    const found = this.targets.flatMap((one) =>
      findMadeUp({ madeUp, known: this.readable, target: one, count: share, seed }),
    );
    if (found.length > 0) return { items: found.map(({ text }) => text) };
    return { items: [], remark: `No made-up word has ${shown(target)} and otherwise only what they can read.` };
  }

  private chained(steps: number): Filled {
    const { lexicon, target, seed } = this.by;
    for (const length of [steps, 6])
      for (const one of this.targets) {
        const made = chain({ lexicon, known: this.readable, target: one, steps: length, band: 4, seed });
        if (made.ok) return { items: made.links.map(({ word }) => word.text) };
      }
    return {
      items: textsOf(this.take(5)),
      remark: `No chain of words turns on ${shown(target)}; these are single words.`,
    };
  }

  /** The spellings of the sound that are known beside the target; with none, another spelling that is. */
  private sorted(count: number): Filled {
    const { lexicon, known, target, seed } = this.by;
    const others = spellingsOfSound(splitGpc(target).sound)
      .map(({ gpc }) => gpc)
      .filter((gpc) => gpc !== target && known.has(gpc));
    const gpcs = [...new Set([...this.targets, ...others])].slice(0, 3);
    if (gpcs.length < 2)
      return {
        items: textsOf(this.take(count)),
        remark: `No other spelling of the sound of ${shown(target)} is known yet; there is nothing to sort.`,
      };
    const made = heaps(gpcs, { lexicon, known: this.readable, count, seed, band: 4 });
    return { items: made.map(({ gpc, words }) => `${shown(gpc)}: ${textsOf(words).join(", ")}`) };
  }

  /** Two words for two sounds that these children mix up, those with the target first; else for what it is likely mixed up with. */
  private paired(count: number): Filled {
    const { lexicon, target, mixedSounds, seed } = this.by;
    const { sound } = splitGpc(target);
    const mixed = [
      ...mixedSounds.filter((pair) => pair.includes(sound)),
      ...mixedSounds.filter((pair) => !pair.includes(sound)),
    ];
    const likely = likelyConfusions(target, 6).map(({ sound: other }) => [sound, other] as const);
    for (const sounds of [...mixed, ...likely]) {
      const made = minimalPairs({ lexicon, known: this.readable, sounds, count, seed, band: 4 });
      if (made.length > 0) return { items: made.map((pair) => `${pair.one.text} / ${pair.other.text}`) };
    }
    return {
      items: [],
      remark: `No two words differ only in the sound of ${shown(target)} and one that is mixed up with it.`,
    };
  }

  private sentencesOf(count: number, kind: "sentence" | "readSentence"): Filled {
    const free = this.judged.filter(({ text }) => kindOfSentence(text) === "statement" && !this.given.includes(text));
    const practising = free.filter(({ practises }) => practises);
    const choice = practising.length > 0 ? practising : free.slice(-12);
    const items = shuffled(choice, this.from)
      .slice(0, count)
      .map(({ text }) => text);
    if (items.length === 0) return this.insteadOfSentences(count);
    this.given.push(...items);
    const target = shown(this.by.target);
    if (practising.length > 0 || kind === "readSentence") return { items };
    return {
      items,
      remark: `No sentence in the list practises ${target} with what all of these children know; this one revisits other spellings.`,
    };
  }

  /** In the first steps of an order phrases can be read before any sentence. */
  private insteadOfSentences(count: number): Filled {
    const items = this.readablePhrases()
      .slice(0, count)
      .map(({ text }) => text);
    this.given.push(...items);
    const none = "No sentence in the list can be read with what all of these children know";
    return items.length > 0
      ? { items, remark: `${none}; ${items.length === 1 ? "this is a phrase" : "these are phrases"}.` }
      : { items, remark: `${none}. Write your own below.` };
  }

  private questions(count: number): Filled {
    const { answers } = this.by;
    const free = this.judged.filter(({ text }) => answers.has(text));
    const first = [...free.filter(({ practises }) => practises), ...free.filter(({ practises }) => !practises)];
    const items = first.slice(0, 12);
    const some = shuffled(items.slice(0, Math.max(count, 4)), this.from).slice(0, count);
    if (some.length === 0)
      return { items: [], remark: "No question in the list can be read by all of these children yet." };
    return { items: some.map(({ text }) => `${text} (${answers.get(text)})`) };
  }

  /** Phrases that can be read, those with the target first, each for another picture. */
  private phrases(count: number): Filled {
    const found = new Map<string, string>();
    for (const { text } of this.readablePhrases()) {
      const picture = this.by.phrases.get(text);
      if (picture && found.size < count && !found.has(picture)) found.set(picture, text);
    }
    this.given.push(...found.values());
    const items = [...found].map(([picture, text]) => `${text} (${picture})`);
    if (items.length > 0) return { items };
    return { items, remark: "No phrase in the list can be read by all of these children yet." };
  }

  /** Phrases that can be read and were not given yet, those that practise what is taught first. */
  private readablePhrases(): readonly Judged[] {
    const { phrases, age } = this.by;
    const judged = judgeSentences([...phrases.keys()], this.reader, age).filter(
      ({ text }) => !this.given.includes(text),
    );
    const some = (practising: boolean) =>
      shuffled(
        judged.filter(({ practises }) => practises === practising),
        this.from,
      );
    return [...some(true), ...some(false)];
  }

  /** The text of the shelf that all can read with most of the target in it. */
  private text(): Filled {
    const { texts, age } = this.by;
    let best: { title: string; hits: number } | undefined;
    for (const { title, body, exceptions } of texts) {
      const wholes = new Set([...(this.reader.wholes ?? []), ...exceptions.map((word) => word.toLowerCase())]);
      const words = judgeText(body, { ...this.reader, wholes });
      // Names are told beforehand.
      const isName = (text: string) => /^[A-Z]/.test(text) && this.reader.lexicon.find(text).length === 0;
      const hard = words
        .filter(({ text }) => !isName(text))
        .filter(
          ({ verdict, source, text }) =>
            verdict === "not yet" || source === "rules" || (this.reader.lexicon.find(text)[0]?.knownBy ?? 0) > age,
        );
      if (hard.length > 0) continue;
      const hits = words.filter(({ verdict }) => verdict === "target").length;
      if (!best || hits > best.hits) best = { title, hits };
    }
    if (!best) return { items: [], remark: "No text of the shelf can be read by all of these children yet." };
    return { items: [best.title] };
  }
}
