import { type OtherNeedKind, otherNeedName, readSkill } from "#core/mastery";
import { type Gpc, spellingsOfSound, splitGpc, usualGpc } from "#core/phonics";
import { listed } from "#core/saying";
import { findWords, type Lexicon, minimalPairs, type Word } from "#core/words";
import { type Focus, kindOfFocus } from "./focus-kind.ts";
import type { SchoolWays } from "./how-to.ts";
import { kindsOfPart } from "./kinds.ts";
import type { PartKind } from "./part-kinds.ts";
import { bringIn, type Routine } from "./routine.ts";

/**
 * What a teacher would call it, each name once.
 * @example focusName(["read said", "read was"]) // "the words “said” and “was”"
 */
export function focusName(focus: Focus): string {
  const words = focus.filter((id) => id.startsWith("read "));
  if (words.length > 1 && words.length === focus.length)
    return `the words ${listed(words.map((id) => `“${readSkill(id).thing}”`))}`;
  return listed([...new Set(focus.map(otherNeedName))]);
}

/** The two of a pair that is mixed up, and whether it is sounds or spellings; undefined for everything else. */
function pairOf(
  id: string | undefined,
): { readonly of: "sound" | "spelling"; readonly pair: [string, string] } | undefined {
  if (!id?.startsWith("contrast ")) return undefined;
  const [of, pair = ""] = readSkill(id).thing.split(" ");
  const [one = "", other = ""] = pair.split("/");
  return { of: of === "sound" ? "sound" : "spelling", pair: [one, other] };
}

/** Two sounds that are to be told apart; undefined where it is about something else. */
export function soundsOfFocus(focus: Focus): readonly [string, string] | undefined {
  const found = pairOf(focus[0]);
  if (!found) return undefined;
  if (found.of === "sound") return found.pair;
  const [one = "", other = ""] = found.pair.map((grapheme) => splitGpc(usualGpc(grapheme) ?? "").sound);
  return one && other && one !== other ? [one, other] : undefined;
}

/**
 * The spellings that it is about, two at most: those of a contrast, of the spellings of a sound the usual one that was taught; those
 * that are to be written. None where it is about shapes of words or whole words.
 */
export function spellingsOfFocus(focus: Focus, taught: ReadonlySet<Gpc>): readonly Gpc[] {
  const found = pairOf(focus[0]);
  if (!found) return focus.flatMap((id) => (id.startsWith("spell ") ? readSkill(id).thing : [])).slice(0, 2);
  return found.pair.flatMap((one) => {
    if (found.of === "spelling")
      return [...taught].find((gpc) => splitGpc(gpc).grapheme === one) ?? usualGpc(one) ?? [];
    const spellings = spellingsOfSound(one).map(({ gpc }) => gpc);
    return spellings.find((gpc) => taught.has(gpc)) ?? spellings[0] ?? [];
  });
}

/** Exception words that it is about. */
export function wordsOfFocus(focus: Focus): readonly string[] {
  return focus.flatMap((id) => (/^(read|write) /.test(id) ? readSkill(id).thing : []));
}

/** Shapes that are called alike: a session about one of them has words of all. */
function shapesLike(shape: string): readonly string[] {
  const [starts, ends] = [shape.startsWith("CC"), shape.endsWith("CC")];
  if (starts && ends) return ["CCVCC", "CCCVCC", "CCVCCC"];
  if (starts) return ["CCV", "CCVC", "CCCV", "CCCVC"];
  if (ends) return ["VCC", "CVCC", "CVCCC"];
  return shape.length < 3 ? ["VC", "CV"] : ["CVC"];
}

/** Words of the shapes that it is about, easy ones first; undefined where it is not about blending. */
export function shapedWords(
  focus: Focus,
  from: { readonly lexicon: Lexicon; readonly known: ReadonlySet<Gpc>; readonly seed: number },
): readonly Word[] | undefined {
  if (kindOfFocus(focus) !== "blending") return undefined;
  const shapes = focus.map((id) => readSkill(id).thing);
  const [long, short] = [shapes.filter((one) => one.includes(".")), shapes.filter((one) => !one.includes("."))];
  return [
    ...(short.length > 0 ? findWords({ ...from, shape: [...new Set(short.flatMap(shapesLike))] }) : []),
    ...(long.length > 0 ? findWords({ ...from, syllables: [2, 3] }) : []),
  ];
}

/** Words, or pairs of words, without which it cannot be practised. */
const [ENOUGH_WORDS, ENOUGH_PAIRS] = [8, 2];

/** Whether there is enough for a session about it, with what these children can read. */
export function focusFits(
  focus: Focus,
  from: {
    readonly lexicon: Lexicon;
    readonly known: ReadonlySet<Gpc>;
    readonly taught: ReadonlySet<Gpc>;
    readonly wholes: ReadonlySet<string>;
  },
): boolean {
  const { lexicon, known, taught, wholes } = from;
  const kind = kindOfFocus(focus);
  if (kind === undefined) return false;
  // A text is looked for when the session is filled; without one a sentence says so.
  if (kind === "rate") return true;
  const shaped = shapedWords(focus, { lexicon, known, seed: 0 });
  if (shaped) return shaped.length >= ENOUGH_WORDS;
  const spellings = spellingsOfFocus(focus, taught);
  const readable = new Set([...known, ...spellings]);
  const has = (target: Gpc) => findWords({ lexicon, known: readable, target }).length >= ENOUGH_WORDS;
  if (kind === "contrast") {
    const sounds = soundsOfFocus(focus);
    if (!spellings.every(has)) return false;
    return (
      !sounds || minimalPairs({ lexicon, known: readable, sounds, count: ENOUGH_PAIRS, seed: 0, band: 4 }).length > 0
    );
  }
  return spellings.length > 0 ? spellings.every(has) : wordsOfFocus(focus).some((word) => wholes.has(word));
}

const hows = {
  contrast:
    "Show the two side by side. Children say what is different to see, and what the mouth does for each. Then say one of the two; they point to it, in mixed order.",
  blending:
    "Lay one sound card after the other, the first two close together. Children slide a finger under them and say the word. If the first sound is lost, cover the rest and begin again.",
  word: "Read the word, say its sounds, find the part that is not as expected. Cover it: each child says which letters stand there.",
  writing:
    "Say the sound; children write the spelling and say it while they write. Then it goes into a word, each sound in a box.",
  rate: "Read the text to them once, with the voice of someone who tells it. Then they read it together, then each child alone: as fast as it can be told, no faster.",
} as const satisfies Record<OtherNeedKind, string>;

/** What the adult does to teach a need of this kind, in a sentence or two. */
export function saysOfFocus(kind: OtherNeedKind, way: SchoolWays["exceptionWay"] = "sounded"): string {
  return kind === "word" && way === "wholes"
    ? "Read the word, spell it with the names of its letters. Cover it: each child spells it and writes it."
    : hows[kind];
}

/**
 * A routine as a session about this has it, as long as before: what teaches a spelling teaches this, and one part is changed for
 * another that practises it.
 */
export function routineAbout(routine: Routine, focus: Focus, way: SchoolWays["exceptionWay"] = "sounded"): Routine {
  const kind = kindOfFocus(focus);
  if (kind === undefined) return routine;
  const how = saysOfFocus(kind, way);
  const instead = (to: PartKind): Routine => {
    const at = routine.parts.findIndex((part) => part.kind === "teach");
    const before = routine.parts[at];
    // Review alone has none that teaches: its first part after the cards gives way.
    const place = at >= 0 ? at : Math.min(1, routine.parts.length - 1);
    const minutes = before?.minutes ?? routine.parts[place]?.minutes ?? kindsOfPart[to].minutes;
    const parts = routine.parts.map((part, where) =>
      where === place ? { kind: to, minutes, who: kindsOfPart[to].who, how } : part,
    );
    return { ...routine, parts };
  };
  if (kind === "blending") return instead("blend");
  if (kind === "rate") {
    const made = routine.parts.some((part) => part.kind === "text") ? onItsText(routine, how) : instead("text");
    return bringIn(made, { brings: ["readAgain"], instead: ["chain", "madeUp", "build", "exceptionWords"] });
  }
  if (kind === "word" || (kind === "writing" && wordsOfFocus(focus).length > 0)) {
    const made = instead("exceptionWords");
    // The same words once more at the end of it are a look back.
    return bringIn(made, { brings: ["readSentence"], instead: ["chain", "madeUp", "build"] });
  }
  const taught = instead("teach");
  if (kind === "writing") return bringIn(taught, { brings: ["build"], instead: ["readWords", "chain", "readAgain"] });
  return soundsOfFocus(focus)
    ? bringIn(taught, { brings: ["pairs"], instead: ["exceptionWords", "readAgain", "madeUp", "sentence"] })
    : bringIn(taught, { brings: ["sort"], instead: ["exceptionWords", "readAgain", "madeUp", "chain"] });
}

/** A routine whose text has the time in which a spelling would be taught. */
function onItsText(routine: Routine, how: string): Routine {
  const teach = routine.parts.find((part) => part.kind === "teach");
  const text = routine.parts.find((part) => part.kind === "text");
  const parts = routine.parts.flatMap((part) => {
    if (part === teach) return [];
    return [part === text ? { ...part, how, minutes: part.minutes + (teach?.minutes ?? 0) } : part];
  });
  return { ...routine, parts };
}
