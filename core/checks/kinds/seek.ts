import { kindNames } from "#core/ledger";
import { wordItem } from "#core/words";
import { type BlockId, type SeekMix, seekMixes } from "../section.ts";
import { wordsOfBlock } from "./blocks.ts";
import { card } from "./card.ts";
import { drawSpellings } from "./draw.ts";
import { exception } from "./exception.ts";
import { type Faces, noFaces } from "./faces.ts";
import type { AskOf, Kind, KindOf } from "./kind.ts";
import { withFaces } from "./sounds.ts";
import { words } from "./words.ts";

/** What is mixed, in words of which shapes, made up or not, and after how many minutes it ends. */
interface SeekSection {
  readonly mix: readonly SeekMix[];
  readonly blocks: readonly BlockId[];
  readonly madeUp: boolean;
  /** Of the child's time, at most. */
  readonly minutes: number;
}

const asked = { card, words, exception } satisfies Record<SeekMix, unknown>;
interface SeekSetup {
  readonly minutes: number;
  readonly faces: Faces;
}

/** How many exception words may be asked, the latest taught. */
const MOST_EXCEPTIONS = 30;

/** A card has an equals sign, a word its units with spaces between; an exception word neither. */
const kindOf = (item: string): SeekMix => (item.includes("=") ? "card" : item.includes(" ") ? "words" : "exception");
const its = (item: string): Pick<KindOf<SeekMix, never, never>, "fits" | "show"> => asked[kindOf(item)];

/** A part as one of another kind, with what both have. */
function asPart<K extends SeekMix>(ask: AskOf<Parameters<typeof seek.draw>[0]["section"]>, kind: K) {
  return { ...ask, section: { ...ask.section, kind } };
}

/**
 * Cards and words, of which only some are asked: which comes next, and when the rest is clear, follows from what is known of
 * the child (`core/mastery/ask`). Its items are all that may be asked.
 */
export const seek: Kind<"seek", SeekSection, SeekSetup> = {
  id: "seek",
  name: kindNames.seek,
  about: "Cards and words one at a time: the tool chooses what tells most, and ends when the rest is clear.",
  begins: {
    scope: "all",
    most: 12,
    stopAfter: 4,
    mix: [...seekMixes],
    blocks: ["three", "fourEnd", "fourStart", "five"],
    madeUp: false,
    minutes: 5,
  },
  keeps: (drawn) => ({ minutes: drawn?.section.minutes ?? 5, faces: drawn?.faces ?? noFaces }),
  picks: "spellings",
  way: "cards",
  seconds: 5,
  order: "shuffled",
  kindOf,
  fits: (item) => its(item).fits(item),
  draw: (ask) => {
    const { mix, blocks, scope } = ask.section;
    // Each sound is asked by itself, in a word where its spelling has others.
    const { lexicon, taught } = ask;
    const { items, faces } = withFaces(drawSpellings(asPart(ask, "card")).items, { way: "word", taught, lexicon });
    const cards = mix.includes("card") ? items : [];
    const list =
      mix.includes("exception") && scope !== "picked" ? exception.draw(asPart(ask, "exception")).items : [];
    const real = mix.includes("words")
      ? blocks.flatMap((id) => {
          const found = wordsOfBlock(id, asPart(scope === "picked" ? withPicked(ask) : ask, "words"));
          return [...found.real.map((word) => wordItem(word)), ...found.madeUp.map((word) => wordItem(word, true))];
        })
      : [];
    // A word of one unit is written as an exception word is.
    const inUnits = real.filter((item) => item.includes(" "));
    return { items: [...new Set([...cards, ...list.slice(-MOST_EXCEPTIONS), ...inUnits])], faces };
  },
  face: (item, setup, seed) => {
    switch (kindOf(item)) {
      case "card":
        return card.face(item, { ...setup, kind: "card" }, seed);
      case "words":
        return words.face(item, { ...setup, kind: "words" }, seed);
      case "exception":
        return exception.face(item, { ...setup, kind: "exception" }, seed);
    }
  },
  prompt: (item, settings, setup) => {
    switch (kindOf(item)) {
      case "card":
        return card.prompt(item, settings, { ...setup, kind: "card" });
      case "words":
        return words.prompt(item, settings, { ...setup, kind: "words" });
      case "exception":
        return exception.prompt(item, settings, { ...setup, kind: "exception" });
    }
  },
  pad: card.pad,
  likely: () => [],
  tags: card.tags,
  show: (item) => its(item).show(item),
  showHeard: card.showHeard,
  tell: (answer, { setup, ...wanted }) => {
    switch (kindOf(answer.item)) {
      case "card":
        return card.tell(answer, { ...wanted, setup: { ...setup, kind: "card" } });
      case "words":
        return words.tell(answer, { ...wanted, setup: { ...setup, kind: "words" } });
      case "exception":
        return exception.tell(answer, { ...wanted, setup: { ...setup, kind: "exception" } });
    }
  },
};

/** Words that have what was picked come first. */
function withPicked<A extends AskOf<Parameters<typeof seek.draw>[0]["section"]>>(ask: A): A {
  return { ...ask, recent: ask.section.picked, section: { ...ask.section, scope: "recent" } };
}
