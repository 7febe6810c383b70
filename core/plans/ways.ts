import type { PartKind } from "./part-kinds.ts";
import { bringIn, type Routine } from "./routine.ts";
import type { Way } from "./way-names.ts";

/** What each way does, in a line for the adult. Other words come with all of them. */
export const waysSay: Readonly<Record<Way, string>> = {
  "another practice": "Other words, and a chain in place of a list: one sound changes from word to word.",
  "a contrast": "Other words, beside those with the sound that is taken for it.",
  "a smaller step": "By ear first: hear it, then blend it from cards, before any word is read.",
};

/** Kinds of part that a way brings in, and what they can take the place of, the first that there is. */
const changes: Readonly<Record<Way, { readonly brings: readonly PartKind[]; readonly for: readonly PartKind[] }>> = {
  "another practice": { brings: ["chain"], for: ["readWords", "writeWords", "build"] },
  "a contrast": { brings: ["pairs"], for: ["exceptionWords", "readAgain", "readWords"] },
  "a smaller step": { brings: ["hear", "blend"], for: ["readWords", "exceptionWords", "sentence"] },
};

/** A routine as a way of teaching again has it: as long as before, one part in another's place. What has them already stays as it is. */
export function routineIn(routine: Routine, way: Way | null): Routine {
  if (way === null) return routine;
  const { brings, for: instead } = changes[way];
  return bringIn(routine, { brings, instead });
}
