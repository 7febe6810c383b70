import { inventory, rareInventory } from "./inventory.ts";
import { isOwnUnit, offeredUnits, ownUnitOf, partsOf, plainLetters, whyNoUnit } from "./own-units.ts";
import { findSound, ipa } from "./sounds.ts";

/** A grapheme–phoneme correspondence as text, `grapheme=sound`: `ea=e`, `a_e=ai`; or a unit of a school's own, `n+k=ng+k`. */
export type Gpc = string;

export interface Correspondence {
  readonly gpc: Gpc;
  /** Letters as written; a split digraph is `V_e`. */
  readonly grapheme: string;
  /** A key of `sounds`; of a unit of a school's own several, joined: `ng+k`. */
  readonly sound: string;
  /** A word in which the spelling makes this sound; empty for a unit of a school's own of which no one knows any. */
  readonly keyword: string;
}

function readInventory(text: string): readonly Correspondence[] {
  return text
    .trim()
    .split("\n")
    .flatMap((row) => {
      const [sound = "", pairs = ""] = row.split(": ");
      return pairs.split(", ").map((pair) => {
        const [grapheme = "", keyword = ""] = pair.split(" ");
        return { gpc: `${grapheme}=${sound}`, grapheme, sound, keyword };
      });
    });
}

/** The correspondences that are taught, grouped by sound. */
export const correspondences: readonly Correspondence[] = readInventory(inventory);

const taught = new Set(correspondences.map((entry) => entry.gpc));

/** Correspondences of a handful of words each: the engine knows them, no list to choose from shows them. */
export const rareCorrespondences: readonly Correspondence[] = readInventory(rareInventory).filter(
  (entry) => !taught.has(entry.gpc),
);

/** Those that are taught, and the spellings of a handful of words each. */
export const everyCorrespondence: readonly Correspondence[] = [...correspondences, ...rareCorrespondences];
const byGpc = new Map(everyCorrespondence.map((entry) => [entry.gpc, entry]));
const byGrapheme = new Map<string, Correspondence[]>();
for (const entry of everyCorrespondence) {
  const list = byGrapheme.get(entry.grapheme);
  if (list) list.push(entry);
  else byGrapheme.set(entry.grapheme, [entry]);
}

/** The correspondence written `grapheme=sound`, or undefined when the tool does not know it; a unit of a school's own when it knows its parts. */
export function findCorrespondence(gpc: Gpc): Correspondence | undefined {
  return byGpc.get(gpc) ?? (isOwnUnit(gpc) ? findOwnUnit(gpc) : undefined);
}

let keywords: ReadonlyMap<Gpc, string> | undefined;
function keywordOfUnit(gpc: Gpc): string {
  keywords ??= new Map(offeredUnits.map(({ typed, keyword }) => [ownUnitOf(readParts(typed) ?? []), keyword]));
  return keywords.get(gpc) ?? "";
}

const ownUnits = new Map<Gpc, Correspondence>();
const MOST_OWN_UNITS = 2000;

function findOwnUnit(gpc: Gpc): Correspondence | undefined {
  const known = ownUnits.get(gpc);
  if (known) return known;
  const parts = partsOf(gpc);
  if (whyNoUnit(parts) || ownUnitOf(parts) !== gpc || !parts.every((part) => byGpc.has(part))) return undefined;
  const { grapheme, sound } = splitGpc(gpc);
  const entry = { gpc, grapheme, sound, keyword: keywordOfUnit(gpc) };
  // What anyone may write is not kept for good.
  if (ownUnits.size >= MOST_OWN_UNITS) ownUnits.clear();
  ownUnits.set(gpc, entry);
  return entry;
}

/** The words *as in* and a word that has the spelling, after a blank; empty where no word is known. */
export function asIn(gpc: Gpc): string {
  const keyword = findCorrespondence(gpc)?.keyword;
  return keyword ? ` as in ${keyword}` : "";
}

/** A correspondence in words, for a list to choose from: `ea  /iː/  leaf`. What is not known stays as it is written. */
export function spellingInWords(gpc: Gpc): string {
  const entry = findCorrespondence(gpc);
  return entry ? `${showGrapheme(entry.grapheme)}  ${ipa(entry.sound)}  ${entry.keyword}` : gpc;
}

/** All correspondences of one spelling (`ea` → ee, e, ai). */
export function soundsOfGrapheme(grapheme: string): readonly Correspondence[] {
  return byGrapheme.get(grapheme) ?? [];
}

/** All spellings of one sound. */
export function spellingsOfSound(sound: string): readonly Correspondence[] {
  return correspondences.filter((entry) => entry.sound === sound);
}

/** `ea=e` → its two halves. The text need not be a known correspondence. */
export function splitGpc(gpc: Gpc): { grapheme: string; sound: string } {
  const at = gpc.indexOf("=");
  return at < 0 ? { grapheme: gpc, sound: "" } : { grapheme: gpc.slice(0, at), sound: gpc.slice(at + 1) };
}

/** A split digraph as a child sees it: `a_e` → `a–e`; a unit of a school's own by its letters, `n+k` → `nk`. Other graphemes as they are. */
export function showGrapheme(grapheme: string): string {
  return isOwnUnit(grapheme) ? plainLetters(grapheme) : grapheme.replace("_", "–");
}

/** Before these an n is the sound of *sink*. */
const BACK_OF_THE_MOUTH: ReadonlySet<string> = new Set(["k", "ck", "c", "x", "qu"]);

/** The parts of a unit as typed, `n+k` or `i=igh+n+d`, each with its usual sound where none is given; undefined when one is not known. */
function readParts(typed: string): readonly Gpc[] | undefined {
  const pieces = typed.split("+");
  const parts = pieces.map((piece, at) => {
    if (piece.includes("=")) return piece;
    const next = pieces[at + 1]?.split("=")[0] ?? "";
    return piece === "n" && BACK_OF_THE_MOUTH.has(next) ? "n=ng" : usualGpc(piece);
  });
  return parts.every((part) => part !== undefined && byGpc.has(part)) ? (parts as Gpc[]) : undefined;
}

/** Reads a unit of a school's own: its parts, or the letters of one that is taught so in many schools. Undefined for anything else. */
function readOwnUnit(text: string): { ok: true; entry: Correspondence } | { ok: false; problem: string } | undefined {
  if (!isOwnUnit(text)) {
    const offer = offeredUnits.find(({ typed }) => plainLetters(splitOffer(typed)) === text);
    return offer && readOwnUnit(offer.typed);
  }
  const whole = findCorrespondence(text);
  if (whole) return { ok: true, entry: whole };
  const parts = readParts(text);
  if (!parts)
    return {
      ok: false,
      problem: `A unit of your own is made of spellings that this tool knows, for example n+k, i+ng or i=igh+n+d.`,
    };
  const problem = whyNoUnit(parts);
  const entry = findCorrespondence(ownUnitOf(parts));
  return entry && !problem ? { ok: true, entry } : { ok: false, problem: problem ?? "This is no unit." };
}

/** The graphemes of what is typed: `i=igh+n+d` → `i+n+d`. */
const splitOffer = (typed: string) =>
  typed
    .split("+")
    .map((piece) => splitGpc(piece).grapheme)
    .join("+");

/**
 * Reads what a person typed as a correspondence.
 * `EA = ee` and `a-e=ai` are understood, and letters to be taught as one, `n+k`; the answer is either the correspondence or a
 * sentence that says what to change.
 */
export function readGpc(typed: string): { ok: true; entry: Correspondence } | { ok: false; problem: string } {
  const text = typed
    .trim()
    .toLowerCase()
    .replace(/\s+/g, "")
    .replace(/[-–](?==|e=|e$|e\+)/, "_");
  if (isOwnUnit(text)) return readOwnUnit(text) as Exclude<ReturnType<typeof readOwnUnit>, undefined>;
  const { grapheme, sound } = splitGpc(text);
  if (!grapheme) return { ok: false, problem: "Write a spelling and its sound, for example ea=ee." };
  if (!sound) {
    const options = soundsOfGrapheme(grapheme);
    if (options.length === 1 && options[0]) return { ok: true, entry: options[0] };
    const list = options.map((option) => option.gpc).join(", ");
    const unit = options.length === 0 ? readOwnUnit(grapheme) : undefined;
    if (unit) return unit;
    return {
      ok: false,
      problem: list
        ? `Say which sound ${showGrapheme(grapheme)} makes: ${list}.`
        : `${showGrapheme(grapheme)} is not a spelling this tool knows. Write it as spelling=sound, for example ea=ee, or letters to be taught as one with a plus, for example s+t.`,
    };
  }
  const entry = byGpc.get(`${grapheme}=${sound}`);
  if (entry) return { ok: true, entry };
  if (!findSound(sound)) {
    return { ok: false, problem: `${sound} is not a sound key. Keys are listed in Help, for example ee, igh, sh.` };
  }
  const others = soundsOfGrapheme(grapheme).map((option) => option.gpc);
  return {
    ok: false,
    problem: others.length
      ? `${showGrapheme(grapheme)} does not spell that sound in any word this tool knows. It has ${others.join(", ")}.`
      : `${showGrapheme(grapheme)} is not a spelling this tool knows.`,
  };
}

/** Where the first entry of the inventory is not the usual sound of a spelling. */
const usual: Record<string, string> = {
  o: "o",
  i: "i",
  u: "u",
  y: "ee",
  i_e: "igh",
  ea: "ee",
  ow: "ow",
  oo: "oo",
  or: "or",
  ou: "ow",
  ie: "igh",
  ew: "yoo",
  ear: "ear",
  er: "er",
  ed: "d",
  ch: "ch",
  al: "or",
  le: "l",
  are: "air",
  ere: "ear",
  oor: "or",
  ough: "or",
  ue: "oo",
  u_e: "oo",
  o_e: "oa",
  s: "s",
  se: "s",
  wh: "w",
  ay: "ai",
  ey: "ee",
  oe: "oa",
  ai: "ai",
  ei: "ee",
  our: "or",
  ure: "ure",
  gu: "g",
  st: "s",
  oul: "uu",
};

/** The commonest correspondence of a spelling, or undefined for letters that are no spelling. */
export function usualGpc(grapheme: string): Gpc | undefined {
  const sound = usual[grapheme] ?? byGrapheme.get(grapheme)?.[0]?.sound;
  return sound === undefined ? undefined : `${grapheme}=${sound}`;
}

/**
 * Correspondences that need no lesson of their own: who can read all those of one row on the right reads the left one.
 * The ending of *liked* is that of *jumped*, the ending of *boxes* is the s of *dogs* with a vowel before it.
 */
const implied: Record<Gpc, readonly (readonly Gpc[])[]> = {
  "ed=id": [["ed=d"], ["ed=t"]],
  "d=id": [["ed=d"], ["ed=t"], ["ed=id"]],
  "d=t": [["ed=t"]],
  "es=iz": [["s=z"]],
  "s=iz": [["s=z"]],
  "y_e=igh": [["i_e=igh", "y=igh"]],
  "irr=er": [["ir=er"]],
  "urr=er": [["ur=er"]],
  "err=er": [["er=er"]],
  "oor=ure": [["oor=or"]],
};

/** Everything that can be read by who knows `known`: the same set, and what it brings with it. */
export function withImplied(known: Iterable<Gpc>): ReadonlySet<Gpc> {
  const all = new Set(known);
  for (const [gpc, rows] of Object.entries(implied))
    if (rows.some((row) => row.every((one) => all.has(one)))) all.add(gpc);
  return all;
}
