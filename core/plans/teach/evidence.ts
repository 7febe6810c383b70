import { type GivenAnswer, inSession, type KindId } from "#core/ledger";
import { findCorrespondence } from "#core/phonics";
import { type Lexicon, wordItem } from "#core/words";
import type { PartKind } from "../part-kinds.ts";
import { readOf } from "../plan.ts";
import type { TeachMark } from "./steps.ts";

/** What a mark in a part is evidence of. */
type Evidence = Pick<GivenAnswer, "kind" | "item"> | null;

const cards: ReadonlySet<PartKind> = new Set(["revisit", "teach", "lastLook"]);
const read: ReadonlySet<PartKind> = new Set(["blend", "readWords", "readAgain"]);
const written: ReadonlySet<PartKind> = new Set(["chain", "build", "writeWords"]);

/**
 * What an item of a part asks, as a check would: a card, a word read, an exception word, a word written. Null for what is no answer of
 * a child by itself: words that are only heard, lines, texts, and words that the list does not have.
 * @example askedIn("readWords", "ship", lexicon) // { kind: "words", item: "sh i p" }
 */
export function askedIn(kind: PartKind, item: string, lexicon: Lexicon): Evidence {
  if (cards.has(kind)) return findCorrespondence(item) ? { kind: "card", item } : null;
  const said = readOf(kind, item);
  if (kind === "exceptionWords")
    return /^[A-Za-z][a-z']{0,20}$/.test(said) ? { kind: "exception", item: said } : null;
  if (written.has(kind)) return lexicon.find(said).length > 0 ? { kind: "dictation", item: said } : null;
  const word = read.has(kind) ? lexicon.find(said)[0] : undefined;
  return word ? { kind: "words", item: wordItem(word) } : null;
}

/**
 * A mark of a session as an answer in the ledger: with help it counts less, among others hardly, and marks under the sounds are help.
 * Null for what is no answer by itself.
 */
export function answerOf(
  mark: TeachMark,
  from: {
    readonly kind: PartKind;
    readonly lexicon: Lexicon;
    readonly sessionId: string;
    readonly day: string;
    readonly markedBy: string;
  },
): GivenAnswer | null {
  const { kind, lexicon, sessionId, day, markedBy } = from;
  const asked = askedIn(kind, mark.item, lexicon);
  if (!asked) return null;
  const base = {
    ...{ id: mark.id, childId: mark.childId, day, markedBy, item: asked.item, ms: null, pass: 1, tags: [] },
    ...inSession(asked.kind as KindId, sessionId, null),
    markedAt: new Date(mark.at).toISOString(),
    help: mark.together ? "together" : mark.outcome === "help" || mark.marks ? "hint" : "none",
  } as const;
  if (mark.outcome !== "notYet") return { ...base, outcome: "right" } as GivenAnswer;
  return { ...base, outcome: "wrong", heard: mark.said, units: null } as GivenAnswer;
}
