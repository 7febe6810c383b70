import { kindsOfPart } from "./kinds.ts";
import type { PartKind } from "./part-kinds.ts";
import type { Routine, RoutinePart, ShippedId } from "./routine.ts";

const part = (kind: PartKind, minutes = kindsOfPart[kind].minutes): RoutinePart => ({
  ...{ kind, minutes, who: kindsOfPart[kind].who, how: "" },
});

/** Routines that ship, by ids that stay. The first is what a group has that no one has chosen one for. */
export const shippedRoutines: Readonly<Record<ShippedId, Routine>> = {
  usual: {
    name: "A new spelling, 15 minutes",
    about: "Revisit, teach one thing, read and write words with it, a sentence.",
    parts: [
      ...[part("revisit"), part("teach"), part("readWords"), part("exceptionWords")],
      ...[part("writeWords"), part("sentence"), part("lastLook")],
    ],
  },
  short: {
    name: "Short, 10 minutes",
    about: "What must not be left out when there is little time.",
    parts: [part("revisit", 2), part("teach", 2), part("readWords", 3), part("writeWords", 2), part("lastLook", 1)],
  },
  review: {
    name: "Review only, 15 minutes",
    about: "No new spelling: what is fading, words and a text with it.",
    parts: [
      ...[part("revisit", 4), part("readWords", 3), part("exceptionWords", 2)],
      ...[part("writeWords", 3), part("readSentence", 2), part("lastLook", 1)],
    ],
  },
  hearing: {
    name: "By ear first, 20 minutes",
    about: "The sound is heard before its spelling is seen; words are built before they are written.",
    parts: [
      ...[part("revisit", 2), part("hear", 2), part("teach", 3), part("blend", 2), part("build", 3)],
      ...[part("readWords", 3), part("sentence", 3), part("lastLook", 2)],
    ],
  },
  changing: {
    name: "One change at a time, 20 minutes",
    about: "Chains and pairs, for children who mix up sounds or lose one in a cluster.",
    parts: [
      ...[part("revisit", 2), part("teach", 3), part("chain", 4), part("pairs", 2), part("readWords", 3)],
      ...[part("readAgain", 1), part("writeWords", 3), part("lastLook", 2)],
    ],
  },
  sorting: {
    name: "Sort the spellings, 20 minutes",
    about: "For a sound with several spellings: words are sorted, read at speed and used.",
    parts: [
      ...[part("revisit", 2), part("teach", 3), part("readWords", 3), part("sort", 4), part("readAgain", 2)],
      ...[part("sentence", 3), part("yesNo", 1), part("lastLook", 2)],
    ],
  },
  reading: {
    name: "Towards a text, 30 minutes",
    about: "Words and sentences lead to a text that is read alone.",
    parts: [
      ...[part("revisit", 3), part("teach", 4), part("blend", 2), part("readWords", 4), part("exceptionWords", 2)],
      ...[part("readSentence", 2), part("phrase", 1), part("text", 7), part("writeWords", 3), part("lastLook", 2)],
    ],
  },
  mixed: {
    name: "A bit of all, 30 minutes",
    about: "Hearing, blending, made-up words, a chain, writing and questions.",
    parts: [
      ...[part("revisit", 2), part("hear", 2), part("teach", 4), part("blend", 2), part("readWords", 4)],
      ...[part("madeUp", 2), part("chain", 4), part("writeWords", 4), part("yesNo", 2), part("sentence", 3)],
      part("lastLook", 1),
    ],
  },
};

/** The routine that ships under an id, or undefined. */
export function shippedRoutine(id: string): Routine | undefined {
  return (shippedRoutines as Readonly<Record<string, Routine>>)[id];
}
