import { type ParameterName, type Parameters, shipped } from "./parameters.ts";

/** The numbers of which answers to cards can say something; the others keep what ships. */
export const refittable = [
  "start",
  "abilitySpread",
  "ownSpread",
  "letters",
  "laterSpelling",
  "halfLife",
  "grows",
  "shrinks",
  "drift",
  "lesson",
  "session",
  "revisit",
  "slip",
  "guess",
  "slowWeak",
  "unitGuess",
  "context",
] as const satisfies readonly ParameterName[];
export type Refittable = (typeof refittable)[number];

/** Values that a school has of its own. */
export type OwnValues = Readonly<Partial<Record<Refittable, number>>>;

/** So many answers to cards it takes at least. */
export const LEAST_TO_REFIT = 2000;
const known = new Map<string, Parameters>();

/** What ships with a school's own values laid over it. The same values give the same object. */
export function parametersWith(own: OwnValues | null | undefined): Parameters {
  if (!own || Object.keys(own).length === 0) return shipped;
  const key = JSON.stringify(Object.entries(own).sort(([one], [other]) => (one < other ? -1 : 1)));
  const before = known.get(key);
  if (before) return before;
  const made = { ...shipped, ...own };
  known.set(key, made);
  return made;
}
