import { type Gpc, isOwnUnit, partsOf, spellingsOfSound, splitGpc, usualGpc } from "#core/phonics";
import type { Parameters } from "./parameters.ts";

/**
 * What a child can do, as text: `say ai=ai` (sees the spelling, says the sound), `spell ai=ai` (hears the sound, writes the
 * spelling), `read said` and `write said` (an exception word), `blend CCVC` (sounds into a word, by its shape), `name b`
 * (a letter's name), `hear sounds` (a listening task).
 */
export type Skill = `${Verb} ${string}`;
const verbs = ["say", "spell", "read", "write", "blend", "name", "hear"] as const;
export type Verb = (typeof verbs)[number];

/** A skill in its two parts. */
export function readSkill(skill: string): { readonly verb: Verb; readonly thing: string } {
  const at = skill.indexOf(" ");
  return { verb: skill.slice(0, at) as Verb, thing: skill.slice(at + 1) };
}

/** What a child brings to many skills at once. */
export const traits = ["ability", "fading", "spelling", "blending"] as const;
export type Trait = (typeof traits)[number];

/** The skill for each part of a unit of the school's own; none where the thing is none. */
export function skillsOfParts(verb: Verb, thing: string): readonly Skill[] {
  return isOwnUnit(thing) ? [...new Set(partsOf(thing))].map((part): Skill => `${verb} ${part}`) : [];
}

/** How a skill begins: its mean, the traits and the skill that it leans on, and what it has of its own. */
export interface Origin {
  readonly verb: Verb;
  readonly thing: string;
  readonly mean: number;
  readonly own: number;
  readonly leansOn: readonly Trait[];
  readonly kin: { readonly skill: Skill; readonly share: number } | null;
}

/** How much harder than the easiest a spelling is, in logits, by its letters and its place among those of its sound; a unit of the school's own as its hardest part. */
function hardnessOf(gpc: Gpc, p: Parameters): number {
  if (isOwnUnit(gpc)) return hardnessOf(hardestPart(gpc, p), p);
  const { grapheme, sound } = splitGpc(gpc);
  const letters = Math.min(4, grapheme.replace("_", "").length) - 1;
  const place = spellingsOfSound(sound).findIndex((one) => one.gpc === gpc);
  return p.letters * letters + p.laterSpelling * Math.min(4, place < 0 ? 4 : place);
}

function hardestPart(gpc: Gpc, p: Parameters): Gpc {
  return partsOf(gpc).reduce((one, other) => (hardnessOf(other, p) > hardnessOf(one, p) ? other : one));
}

/** The one it is learned from: a double from its single letter, another sound of a spelling from its first, a unit of the school's own from its hardest part. */
function kinOf(gpc: Gpc, p: Parameters): Gpc | null {
  if (isOwnUnit(gpc)) return hardestPart(gpc, p);
  const { grapheme, sound } = splitGpc(gpc);
  if (/^(.)\1$/.test(grapheme)) return `${grapheme.charAt(0)}=${sound}`;
  const usual = usualGpc(grapheme);
  return usual === undefined || usual === gpc ? null : usual;
}

const SOUNDS_WITHOUT_JOIN = 3;

const origins = new WeakMap<Parameters, Map<Skill, Origin>>();

/** How a skill begins by a set of parameters, before anything is known of the child. */
export function originOf(skill: Skill, p: Parameters): Origin {
  const known = origins.get(p) ?? new Map<Skill, Origin>();
  origins.set(p, known);
  const before = known.get(skill);
  if (before) return before;
  const origin = beginningOf(skill, p);
  known.set(skill, origin);
  return origin;
}

function beginningOf(skill: Skill, p: Parameters): Origin {
  const { verb, thing } = readSkill(skill);
  return { verb, thing, ...leaningOf(verb, thing, p) };
}

function leaningOf(verb: Verb, thing: string, p: Parameters): Omit<Origin, "verb" | "thing"> {
  switch (verb) {
    case "say": {
      const kin = kinOf(thing, p);
      return {
        mean: p.start - hardnessOf(thing, p),
        own: p.ownSpread ** 2,
        leansOn: ["ability"],
        kin: kin ? { skill: `say ${kin}`, share: p.related } : null,
      };
    }
    case "spell":
      return {
        mean: p.start - hardnessOf(thing, p) + p.spellStart,
        own: p.spellOwn ** 2,
        leansOn: ["ability", "spelling"],
        kin: { skill: `say ${thing}`, share: p.spellLink },
      };
    case "read":
      return { mean: p.wordStart, own: p.ownSpread ** 2, leansOn: ["ability"], kin: null };
    case "write":
      return {
        mean: p.wordStart + p.spellStart,
        own: p.spellOwn ** 2,
        leansOn: ["ability", "spelling"],
        kin: { skill: `read ${thing}`, share: p.spellLink },
      };
    case "blend": {
      const joins = Math.max(0, thing.length - SOUNDS_WITHOUT_JOIN);
      return { mean: p.blendStart - p.blendJoin * joins, own: p.blendOwn ** 2, leansOn: ["blending"], kin: null };
    }
    case "name":
    case "hear":
      return { mean: p.start, own: p.ownSpread ** 2, leansOn: [], kin: null };
  }
}
