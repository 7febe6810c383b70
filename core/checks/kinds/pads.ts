import { asIn, type Gpc, ipa, likelyConfusions, plainSound, splitGpc } from "#core/phonics";
import type { Likely, Pad } from "./kind.ts";

/** The pad of everything that is said at sight: the same five places. */
export const saidPad: Pad = [
  { outcome: "right", name: "Right at once" },
  { outcome: "slow", name: "Right, slow" },
  { outcome: "ownWay", name: "In their own way", hint: "counts as right" },
  {
    outcome: "wrong",
    name: "Something else",
    hint: "type it",
    typed: true,
    held: { outcome: "wrong", name: "Just wrong" },
  },
  { outcome: "none", name: "No answer" },
];

/** The sounds that are likely instead of the right one. */
export function likelySounds(gpc: Gpc): readonly Likely[] {
  return likelyConfusions(gpc).map(({ sound }) => ({
    heard: sound,
    shows: plainSound(sound),
    hint: ipa(sound),
    outcome: "wrong",
  }));
}

/** What an adult says of a spelling that is not seen: its sound, with a word that has it. @example said("ea=ee") // "ee, as in leaf" */
export function said(gpc: Gpc): string {
  const word = asIn(gpc);
  return `${plainSound(splitGpc(gpc).sound)}${word && `,${word}`}`;
}
