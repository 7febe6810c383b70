import type { Gpc } from "#core/phonics";
import type { SeveralSounds } from "../settings.ts";

/** How the cards of a check ask a spelling that was taught with several sounds. */
export interface Faces {
  readonly way: SeveralSounds;
  /** By item, the other taught sounds of its spelling, as correspondences. */
  readonly also: Readonly<Record<Gpc, readonly Gpc[]>>;
  /** By item, the word that shows which sound is meant, in its units. */
  readonly inWord: Readonly<Record<Gpc, string>>;
}

export const noFaces: Faces = { way: "word", also: {}, inWord: {} };

/** Letters of a word of which one spelling is asked; a split one is opened and closed, with what stands between under it. */
export interface AskedLetters {
  readonly text: string;
  readonly as: "asked" | "open" | "under" | "close" | "other";
}
