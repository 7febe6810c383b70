import { asSheet, type Dice, isSentence, kindAsked, kinds, outcomeOfWriting, type Setup } from "#core/checks";
import type { KindId, Tag } from "#core/ledger";
import { type Gpc, spellingsOfSound } from "#core/phonics";
import { type Lexicon, readWordItem, split, type Unit } from "#core/words";
import { answerCard, type Reply, reversible } from "./readers.ts";
import type { Temper } from "./temper.ts";

/** A simulated child: its temper and how well each correspondence sits. */
export interface Reader {
  readonly temper: Temper;
  /** 0 (never met) to 1. */
  readonly learned: (gpc: Gpc) => number;
  /** Weeks since it was last practised. */
  readonly weeksAway: (gpc: Gpc) => number;
  readonly lexicon: Lexicon;
}

/** What a simulated child gives to an item, in the form of an answer. */
export interface ItemReply extends Omit<Reply, "ms"> {
  /** Null where a sheet is filled in afterwards. */
  readonly ms: number | null;
  readonly tags: readonly Tag[];
}

interface Asked {
  readonly item: string;
  readonly reader: Reader;
  readonly setup: Setup;
  readonly seed: number;
  readonly from: Dice;
}

/** How a simulated child answers an item of any kind of check. The same dice give the same answer. */
export function answerItem(kind: KindId, asked: Asked): ItemReply {
  // A kind that no reader has practised is answered as what is said at sight.
  return (reply[kindAsked(kind, asked.item)] ?? atSight)(asked);
}

const plain = (outcome: "right" | "slow" | "ownWay" | "none" | "sounded" | "reversed", ms: number): ItemReply => ({
  outcome,
  heard: null,
  ms,
  tags: [],
});

function kept(gpc: Gpc, { temper, learned, weeksAway }: Reader): number {
  return learned(gpc) * (1 - temper.forgets) ** Math.max(0, weeksAway(gpc));
}

function knows(gpc: Gpc, reader: Reader, from: Dice): boolean {
  const { sure, luck } = reader.temper;
  return from.share() < luck + (sure - luck) * kept(gpc, reader);
}

/** One of the likely other answers of the kind, the first ones most; nothing when the child rather stays quiet. */
function missed(kind: KindId, { item, reader, setup, seed, from }: Asked): ItemReply {
  const wrong = kinds[kind].likely(item, setup, seed).filter((one) => one.outcome === "wrong");
  const pick = wrong[Math.min(from.pick(Math.max(1, wrong.length)), from.pick(Math.max(1, wrong.length)))];
  if (!pick || from.share() >= reader.temper.guesses) return plain("none", 5000 + from.pick(4000));
  return { outcome: "wrong", heard: pick.heard, ms: 1300 + from.pick(2600), tags: [] };
}

function said(reader: Reader, from: Dice, base: number): ItemReply {
  if (from.share() < reader.temper.slow) return plain("slow", 3200 + from.pick(4000));
  return plain(from.share() < reader.temper.ownWay ? "ownWay" : "right", base + from.pick(1500));
}

function readUnits(asked: Asked, units: readonly Unit[], kind: "words" | "exception"): ItemReply {
  const { reader, from } = asked;
  if (!units.every((unit) => unit.sound === "" || knows(unit.gpc, reader, from))) return missed(kind, asked);
  const joins = Math.max(0, units.length - 2);
  if (from.share() > reader.temper.blends ** joins)
    return { outcome: kind === "words" ? "blend" : "wrong", heard: null, ms: 4000 + from.pick(3000), tags: [] };
  if (from.share() < reader.temper.sounds) return plain("sounded", 2800 + from.pick(4200));
  return said(reader, from, 800);
}

/** A word as the child would spell it: a unit that is not known gets another spelling of its sound, or goes missing. */
function spelled(units: readonly Unit[], reader: Reader, from: Dice): string {
  const closing: string[] = [];
  const letters = units.map((unit) => {
    const [opening = "", late] = unit.grapheme.split("_");
    if (unit.sound === "" || knows(unit.gpc, reader, from)) {
      if (late) closing.push(late);
      return opening;
    }
    const others = spellingsOfSound(unit.sound).filter((entry) => !entry.grapheme.includes("_"));
    return others[from.pick(Math.max(1, Math.min(others.length, 3)))]?.grapheme ?? "";
  });
  return letters.join("") + closing.join("");
}

function write(asked: Asked): ItemReply {
  const { item, reader, from } = asked;
  const { lexicon } = reader;
  const text = isSentence(item)
    ? item
        .split(" ")
        .filter(() => from.share() > 0.02)
        .map((word) => {
          const mark = /[.,?!]+$/.exec(word)?.[0] ?? "";
          const bare = word.slice(0, word.length - mark.length);
          const units = split(bare, { lexicon })[0]?.units;
          const small = units ? spelled(units, reader, from) : bare;
          const capital = /^\p{Lu}/u.test(bare) && from.share() < reader.temper.sure - 0.1;
          return (capital ? small.slice(0, 1).toUpperCase() + small.slice(1) : small) + mark;
        })
        .join(" ")
    : spelled(split(item, { lexicon })[0]?.units ?? [], reader, from);
  const outcome = outcomeOfWriting(item, text, { lexicon });
  if (outcome === "right" || outcome === "none") return { ...plain(outcome, 0), ms: null };
  return { outcome, heard: text, ms: null, tags: [] };
}

const atSight = (asked: Asked): ItemReply =>
  asked.from.share() < asked.reader.temper.sure ? said(asked.reader, asked.from, 700) : plain("none", 5000);

const reply: { readonly [K in KindId]?: (asked: Asked) => ItemReply } = {
  card: ({ item, reader, from }) => ({
    ...answerCard(reader.temper, item, reader.learned(item), Math.max(0, reader.weeksAway(item)), from),
    tags: [],
  }),
  names: (asked) => (asked.from.share() < 0.88 ? said(asked.reader, asked.from, 700) : missed("names", asked)),
  find: (asked) =>
    knows(asked.item, asked.reader, asked.from) && asked.from.share() > asked.reader.temper.mixes / 3
      ? said(asked.reader, asked.from, 900)
      : missed("find", asked),
  choose: (asked) =>
    knows(asked.item, asked.reader, asked.from)
      ? { ...plain("right", 0), ms: null }
      : { ...missed("choose", asked), ms: null },
  write: (asked) => {
    const { item, reader, from } = asked;
    if (!knows(item, reader, from)) return { ...missed("write", asked), ms: null };
    if (reversible.has(item) && from.share() < reader.temper.mixes) return { ...plain("reversed", 0), ms: null };
    return { ...plain("right", 0), ms: null };
  },
  words: (asked) => readUnits(asked, readWordItem(asked.item).units, "words"),
  exception: (asked) => {
    const units = split(asked.item, { lexicon: asked.reader.lexicon })[0]?.units ?? [];
    const met = asked.from.share() < asked.reader.temper.sure - 0.2 + asked.reader.temper.luck;
    if (met) return said(asked.reader, asked.from, 700);
    const told = readUnits(asked, units, "exception");
    return told.outcome === "wrong" && told.heard !== null ? { ...told, heard: null } : told;
  },
  dictation: write,
  listen: (asked) =>
    asked.from.share() < asked.reader.temper.blends ** 1.5
      ? said({ ...asked.reader, temper: { ...asked.reader.temper, slow: 0.1 } }, asked.from, 1500)
      : missed("listen", asked),
  paper: (asked) => {
    const { item, setup, reader, from } = asked;
    const { units } = readWordItem(item);
    if (units.every((unit) => unit.sound === "" || knows(unit.gpc, reader, from)))
      return { ...plain("right", 0), ms: null };
    const wrong = (asSheet(setup).sheet[item] ?? []).filter((choice) => choice.from !== undefined);
    const pick = wrong[from.pick(Math.max(1, wrong.length))];
    if (!pick || from.share() > 0.9) return { ...plain("none", 0), ms: null };
    return { outcome: "wrong", heard: pick.text, ms: null, tags: [] };
  },
};
