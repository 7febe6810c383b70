import { findSound, isVowel } from "./sounds.ts";

/**
 * What an accent tells apart. Sounds that fall together are one and the same answer: a child who says *pull* and
 * *pool* alike has read both right.
 */
export interface Accent {
  readonly id: AccentId;
  readonly name: string;
  /** True when the r of *car* and *fern* is heard. */
  readonly rhotic: boolean;
  /** Whether the vowel of *bath* is that of *trap* (`a`) or of *start* (`ar`). */
  readonly bath: "a" | "ar";
  /** Groups of sound keys that are said alike. */
  readonly alike: readonly (readonly string[])[];
}

export type AccentId = "neutral" | "long-bath" | "short-bath-one-u" | "rhotic" | "rhotic-one-o" | "rhotic-one-oo";

/**
 * The accents that ship, described by what they do, not by place. `neutral` keeps every sound apart and takes
 * either vowel in *bath*; a school that is unsure is well served by it.
 */
export const accents: readonly Accent[] = [
  { id: "neutral", name: "All sounds told apart", rhotic: false, bath: "a", alike: [] },
  {
    id: "long-bath",
    name: "No r in car; bath as in start",
    rhotic: false,
    bath: "ar",
    alike: [["or", "ure"]],
  },
  {
    id: "short-bath-one-u",
    name: "No r in car; bath as in trap; put and cut alike",
    rhotic: false,
    bath: "a",
    alike: [
      ["u", "uu"],
      ["or", "ure"],
    ],
  },
  { id: "rhotic", name: "r heard in car; lot and thought apart", rhotic: true, bath: "a", alike: [["yoo", "oo"]] },
  {
    id: "rhotic-one-o",
    name: "r heard in car; lot and thought alike",
    rhotic: true,
    bath: "a",
    alike: [
      ["o", "or"],
      ["yoo", "oo"],
    ],
  },
  {
    id: "rhotic-one-oo",
    name: "r heard in car; foot and goose alike",
    rhotic: true,
    bath: "a",
    alike: [["uu", "oo"]],
  },
];

export function accentOf(id: string | undefined): Accent {
  return accents.find((accent) => accent.id === id) ?? (accents[0] as Accent);
}

/** A sound as it is spelled: `grapheme` tells whether an r stands after the vowel. */
export interface SpelledSound {
  readonly sound: string;
  readonly grapheme?: string | undefined;
  /** The vowel of *bath*. */
  readonly bath?: boolean | undefined;
}

/** Vowels that have only ever stood without an r, so that an r in the spelling is no difference of sound. */
const weak = new Set(["schwa", "er"]);

/**
 * True when two sounds are one and the same in the accent. Weak vowels count as equal to the vowel their letter has
 * elsewhere (*kitten* with e is right), because careful and quick speech differ within every accent.
 */
export function saidAlike(accent: Accent, one: SpelledSound, other: SpelledSound): boolean {
  if (one.bath || other.bath) {
    const vowels = new Set(["a", "ar"]);
    if (vowels.has(one.sound) && vowels.has(other.sound)) return true;
  }
  const same =
    one.sound === other.sound || accent.alike.some((set) => set.includes(one.sound) && set.includes(other.sound));
  if (!same) return false;
  if (!accent.rhotic || !isVowel(one.sound) || weak.has(one.sound)) return true;
  if (one.grapheme === undefined || other.grapheme === undefined) return true;
  return hasR(one) === hasR(other);
}

function hasR({ sound, grapheme }: SpelledSound): boolean {
  return findSound(sound) !== undefined && (grapheme ?? "").includes("r");
}
