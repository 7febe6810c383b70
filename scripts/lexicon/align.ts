import { type Correspondence, correspondences, rareCorrespondences } from "#core/phonics";

/** How a sound of ours may stand in the open pronunciation data: phones with the cost of taking it so. */
type Heard = readonly (readonly [phones: string, cost: number])[];

const consonants: Record<string, string> = {
  b: "B",
  d: "D",
  f: "F",
  g: "G",
  h: "HH",
  j: "JH",
  k: "K",
  m: "M",
  n: "N",
  ng: "NG",
  p: "P",
  r: "R",
  s: "S",
  t: "T",
  v: "V",
  w: "W",
  y: "Y",
  z: "Z",
  sh: "SH",
  zh: "ZH",
  ch: "CH",
  th: "TH",
  dh: "DH",
};
const weak = ["AH0", "IH0"];
const cheap = (...phones: string[]): Heard => phones.map((phone) => [phone, 0] as const);
const dear = (cost: number, ...phones: string[]): Heard => phones.map((phone) => [phone, cost] as const);
const stressed = (vowel: string) => [`${vowel}1`, `${vowel}2`];
const any = (vowel: string) => [`${vowel}1`, `${vowel}2`, `${vowel}0`];

function vowelHeard(grapheme: string, sound: string): Heard {
  const single = grapheme.length === 1;
  switch (sound) {
    case "a":
      return [...cheap(...any("AE")), ...(grapheme === "a" ? dear(1, ...stressed("EH"), "AA1") : [])];
    case "e":
      return [...cheap(...any("EH")), ...(grapheme === "e" ? dear(0.6, ...weak) : dear(2, "IH1", "AE1"))];
    case "i":
      return [
        ...cheap(...any("IH")),
        ...dear(0.4, "AH0"),
        ...(grapheme === "i" ? dear(2.5, "IY0", "IY1", "IY2") : []),
      ];
    case "o":
      return [...cheap(...any("AA"), ...any("AO")), ...dear(2, "AH1", "AH2")];
    case "u":
      return [...cheap(...stressed("AH")), ...dear(2, "AO1", "AA1")];
    case "uu":
      return [...cheap(...any("UH")), ...dear(0.5, "AH1", "AH0", "AH2"), ...dear(2, "UW1")];
    case "ai":
      return [...cheap(...any("EY")), ...dear(2, "IY0")];
    case "ee":
      return [...cheap(...any("IY")), ...(grapheme === "e" || grapheme === "i" ? dear(0.8, "IH0", "AH0") : [])];
    case "igh":
      return cheap(...any("AY"));
    case "oa":
      return [...cheap(...any("OW")), ...(grapheme === "o" ? dear(2, "AO1", "AH0") : [])];
    case "oo":
      return [...cheap(...any("UW")), ...dear(1.5, "UH1")];
    case "yoo":
      return [
        ...["UW1", "UW2", "UW0", "UH1", "UH2", "UH0", "AH0"].map((phone) => [`Y ${phone}`, 0] as const),
        ...dear(0.3, ...any("UW")),
      ];
    case "ar":
      return [
        ...(/r/.test(grapheme) ? cheap(...any("AA").map((phone) => `${phone} R`)) : cheap(...any("AA"))),
        ...(/r/.test(grapheme) ? [] : dear(1.5, "AE1", "AO1")),
      ];
    case "or":
      return /r/.test(grapheme)
        ? [...cheap(...any("AO").map((phone) => `${phone} R`)), ...dear(1, "UH1 R", "OW1 R")]
        : [...cheap(...any("AO")), ...dear(0.5, ...any("AA"))];
    case "er":
      return [...cheap("ER1", "ER2"), ...dear(1, "ER0")];
    case "ow":
      return cheap(...any("AW"));
    case "oi":
      return cheap(...any("OY"));
    case "ear":
      return [...cheap("IH1 R", "IY1 R", "IH2 R", "IH0 R", "IY2 R"), ...dear(2, "IY1 AH0")];
    case "air":
      return [...cheap("EH1 R", "EH2 R"), ...dear(1, "EH0 R", "AE1 R")];
    case "ure":
      return [
        ...cheap("Y UH1 R", "Y UH2 R", "Y UH0 R", "UH1 R", "UH2 R", "UH0 R"),
        ...dear(0.5, "ER1", "Y ER1", "AO1 R", "Y ER0"),
      ];
    case "schwa":
      if (/r/.test(grapheme))
        return [...cheap("ER0"), ...dear(0.3, "Y ER0"), ...dear(1.5, "AO0 R", "AA0 R", "ER2", "AO2 R", "AA2 R")];
      return [
        ...(single ? dear(grapheme === "i" || grapheme === "y" ? 0.8 : 0.2, "AH0") : cheap("AH0")),
        ...dear(grapheme === "a" || grapheme === "o" || !single ? 0.6 : 1.2, "IH0", "UH0"),
      ];
    case "ks":
      return [...cheap("K S"), ...dear(1, "K SH", "G Z")];
    case "gz":
      return [...cheap("G Z"), ...dear(1, "K S")];
    case "kw":
      return cheap("K W");
    case "wu":
      return cheap("W AH1");
    case "id":
      return cheap("IH0 D", "AH0 D");
    case "ts":
      return cheap("T S");
    case "iz":
      return cheap("IH0 Z", "AH0 Z");
    default:
      return [];
  }
}

function heard({ grapheme, sound }: Correspondence): Heard {
  if (grapheme === "le" && sound === "l") return cheap("AH0 L");
  if (sound === "l") return cheap("L");
  if (sound === "r") return [...cheap("R"), ...(grapheme === "r" ? dear(1.2, "ER0") : [])];
  if (sound === "w" && grapheme === "wh") return [...cheap("W"), ...cheap("HH W")];
  const phone = consonants[sound];
  if (phone === undefined) return vowelHeard(grapheme, sound);
  if (sound === "z" && grapheme === "s") return [...cheap("Z"), ...dear(0.5, "S")].slice(0, 1);
  return cheap(phone);
}

/** Correspondences that stand at certain places only. */
const places: Record<string, RegExp> = {
  "le=l": /[^aeiou]le$/,
  "d=id": /$^/,
  "d=t": /$^/,
  "s=iz": /$^/,
  "ed=d": /$^/,
  "ed=t": /$^/,
  "ed=id": /$^/,
  "es=iz": /$^/,
};

interface Piece {
  readonly grapheme: string;
  readonly gpc: string;
  readonly phones: readonly string[];
  readonly cost: number;
}

interface AlignedUnit {
  /** `grapheme=sound` */
  readonly gpc: string;
  /** What the open data has there. */
  readonly phones: readonly string[];
}

export interface Aligned {
  /** Left to right. */
  readonly units: readonly AlignedUnit[];
  /** Small when every letter has a usual sound; above `stranger` when a silent letter was joined to a neighbour. */
  readonly cost: number;
}

const rare = new Set([
  "h=w",
  "lk=k",
  "u=w",
  "al=l",
  "el=l",
  "il=l",
  "a=e",
  "u=i",
  "o=i",
  "u=e",
  "ie=e",
  "ai=a",
  "oa=or",
]);

function pieces(): Map<string, Piece[]> {
  const found = new Map<string, Piece[]>();
  const add = (piece: Piece) => {
    const list = found.get(piece.grapheme) ?? [];
    list.push(piece);
    found.set(piece.grapheme, list);
  };
  const seldom = new Set(rareCorrespondences);
  for (const entry of [...correspondences, ...rareCorrespondences]) {
    if (["al=l", "el=l", "il=l"].includes(entry.gpc)) continue;
    for (const [phones, cost] of heard(entry)) {
      const extra =
        entry.gpc === "st=s" || entry.gpc === "e=i" ? 3 : seldom.has(entry) ? 2 : rare.has(entry.gpc) ? 1.5 : 0;
      add({ grapheme: entry.grapheme, gpc: entry.gpc, phones: phones.split(" "), cost: cost + extra });
    }
  }
  return found;
}

const table = pieces();
const longest = Math.max(...[...table.keys()].map((grapheme) => grapheme.length));
const stranger = 7;

/** Candidates for the letters from `at`: known spellings, and a known spelling with one silent letter beside it. */
function candidates(letters: string, at: number): Piece[] {
  const found: Piece[] = [];
  for (let size = 1; size <= longest + 1; size++) {
    const grapheme = letters.slice(at, at + size);
    if (grapheme.length < size) break;
    for (const piece of table.get(grapheme) ?? []) {
      const place = places[piece.gpc];
      if (place && !(place.test(letters) && at + size === letters.length)) continue;
      found.push(piece);
    }
    if (size > 1 && !table.has(grapheme) && !/^[aeiou]rr?$/.test(grapheme)) {
      for (const core of [grapheme.slice(0, -1), grapheme.slice(1)])
        for (const piece of table.get(core) ?? []) {
          if (/=(id|iz|wu|ts)$/.test(piece.gpc)) continue;
          const sound = piece.gpc.slice(piece.gpc.indexOf("=") + 1);
          found.push({ ...piece, grapheme, gpc: `${grapheme}=${sound}`, cost: piece.cost + stranger });
        }
    }
  }
  return found;
}

interface Cell {
  readonly cost: number;
  readonly from?: { readonly cell: Cell; readonly piece: Piece };
}

/** A split digraph that must begin at a letter; its e has been taken out of the letters. */
interface Forced {
  readonly at: number;
  readonly grapheme: string;
}

/** The cheapest way to cover letters and phones together: cells by letters and phones done, filled from the left. */
function run(letters: string, phones: readonly string[], forced?: Forced): Aligned | undefined {
  const cells = new Map<number, Cell>();
  const width = phones.length + 1;
  cells.set(0, { cost: 0 });
  for (let i = 0; i < letters.length; i++) {
    const options = forced?.at === i ? (table.get(forced.grapheme) ?? []) : candidates(letters, i);
    for (let j = 0; j <= phones.length; j++) {
      const here = cells.get(i * width + j);
      if (!here) continue;
      for (const piece of options) {
        const size = forced?.at === i ? 1 : piece.grapheme.length;
        if (!goesHere(piece, size, { i, j, letters, phones, forced })) continue;
        const to = (i + size) * width + j + piece.phones.length;
        const cost = here.cost + piece.cost + STEP;
        const there = cells.get(to);
        if (!there || cost < there.cost) cells.set(to, { cost, from: { cell: here, piece } });
      }
    }
  }
  const end = cells.get(letters.length * width + phones.length);
  if (!end) return undefined;
  const units: AlignedUnit[] = [];
  for (let cell = end; cell.from; cell = cell.from.cell)
    units.push({ gpc: cell.from.piece.gpc, phones: cell.from.piece.phones });
  return { units: units.reverse(), cost: end.cost };
}

/** A little for each unit, so that of two equal ways the one with fewer units is taken. */
const STEP = 0.05;

interface Spot {
  readonly i: number;
  readonly j: number;
  readonly letters: string;
  readonly phones: readonly string[];
  readonly forced: Forced | undefined;
}

function goesHere(piece: Piece, size: number, { i, j, letters, phones, forced }: Spot): boolean {
  if (piece.phones.some((phone, k) => phones[j + k] !== phone)) return false;
  if (!forced) return true;
  if (i < forced.at && i + size > forced.at) return false;
  // One consonant unit stands between the vowel and its e.
  return i !== forced.at + 1 || i + size === letters.length;
}

const splitEnd = /^(.*?)([aeiouy])(b|c|d|f|g|h|j|k|l|m|n|p|r|s|t|v|w|x|z|th|ch|sh|ph|st|gn|sc)e$/;
const longVowels = new Set(["ai", "ee", "igh", "oa", "oo", "yoo"]);

/**
 * Lays the letters of a word against its phones: the cheapest way to cover both with known spellings.
 * A final split digraph is tried first and taken where the vowel is long (or o before m, n).
 * Source of the phones: the open pronunciation data, stress digits kept. Undefined when they cannot be matched.
 */
export function align(letters: string, phones: readonly string[]): Aligned | undefined {
  const options: Aligned[] = [];
  for (const variant of variants(phones)) {
    const plain = run(letters, variant);
    if (plain) options.push(plain);
    const split = splitEnd.exec(letters);
    if (!split) continue;
    const [, before = "", vowel = "", consonant = ""] = split;
    const grapheme = `${vowel}_e`;
    if (consonant === "r" && !/[iy]/.test(vowel)) continue;
    if (!table.has(grapheme) || (/[aeiou]$/.test(before) && !/qu$|gu$/.test(before))) continue;
    const found = run(letters.slice(0, -1), variant, { at: before.length, grapheme });
    const sound = found?.units.find((unit) => unit.gpc.includes("_"))?.gpc.split("=")[1] ?? "";
    if (found && (longVowels.has(sound) || ((sound === "u" || sound === "o") && /^[mn]$/.test(consonant))))
      options.push({ ...found, cost: found.cost - 1.5 });
  }
  return options.sort((one, other) => one.cost - other.cost)[0];
}

/** The r of *hurry* is told apart from its vowel in our notation, not in the data. */
function variants(phones: readonly string[]): (readonly string[])[] {
  const found: (readonly string[])[] = [phones];
  const glided = phones.join(" ").replace(/(AH0|UW0) W (?=AH0)/, "UW0 ");
  if (glided !== phones.join(" ")) found.push(glided.split(" "));
  phones.forEach((phone, at) => {
    const next = phones[at + 1] ?? "";
    if (!/^ER\d$/.test(phone) || !/\d$/.test(next)) return;
    const apart = [...phones.slice(0, at), phone.replace("ER", "AH"), "R", ...phones.slice(at + 1)];
    if (phone !== "ER0") found.splice(0, 1, apart);
    else found.push(apart);
  });
  return found;
}
