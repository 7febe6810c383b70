import { findCorrespondence, type Gpc, isOwnUnit, likelyConfusions, showGrapheme, splitGpc } from "#core/phonics";
import { dice, shuffled, type Unit } from "#core/words";

/** Where each tile of a board lies: the place by its number from 0, or null beside the board. */
export type Laid = readonly (number | null)[];

/** A board on which children lay tiles: a box for each sound of a word, or a column for each spelling of a sort. */
export interface Board {
  readonly look: "boxes" | "columns";
  /** Boxes have no name. What lies in a column for good came before. */
  readonly places: readonly { readonly name: string; readonly has: readonly string[] }[];
  /** Spellings as `a_e`, or a word. */
  readonly tiles: readonly string[];
  /** Tiles that each place takes; of an empty list none belongs there. */
  readonly wants: readonly (readonly string[])[];
  /** How the tiles lie before anyone has touched them. */
  readonly first: Laid;
}

/** Tiles beside the board that do not belong. */
const OTHERS = 2;
const MOST_SPOTTED = 6;

/**
 * How many units two words have in common at their start and, behind those, at their end.
 * @example commonEnds(["s", "o", "p"], ["s", "t", "o", "p"]) // { start: 1, end: 2 }
 */
export function commonEnds(
  before: readonly Gpc[],
  now: readonly Gpc[],
): { readonly start: number; readonly end: number } {
  const short = Math.min(before.length, now.length);
  let start = 0;
  while (start < short && before[start] === now[start]) start++;
  let end = 0;
  while (end < short - start && before.at(-1 - end) === now.at(-1 - end)) end++;
  return { start, end };
}

/** Known spellings that could be taken for those of a word: of the same sound first, then of a sound that is mixed up with it. */
function mistakable(units: readonly Unit[], known: readonly Gpc[], seed: number): readonly string[] {
  const has = new Set(units.map(({ grapheme }) => grapheme));
  const others = shuffled(
    known.filter((gpc) => !isOwnUnit(gpc) && !has.has(splitGpc(gpc).grapheme)),
    dice(seed),
  );
  const sounds = new Set(units.map(({ sound }) => sound));
  const near = new Set(units.flatMap(({ gpc }) => likelyConfusions(gpc, 3).map(({ sound }) => sound)));
  const nearness = (gpc: Gpc) => {
    const { sound } = splitGpc(gpc);
    return sounds.has(sound) ? 0 : near.has(sound) ? 1 : 2;
  };
  const sorted = others.toSorted((one, other) => nearness(one) - nearness(other));
  return [...new Set(sorted.map((gpc) => splitGpc(gpc).grapheme))];
}

/**
 * A box for each sound of a word, and tiles to lay: its spellings and two that do not belong, which these children know. After another
 * word of a chain its tiles lie there, and what changes is theirs to find; a sound that is taken away leaves its box.
 */
export function boxesFor(wanted: {
  readonly units: readonly Unit[];
  /** The word before it in a chain. */
  readonly before?: readonly Unit[] | undefined;
  readonly known: readonly Gpc[];
  readonly seed: number;
}): Board {
  const { units, before, known, seed } = wanted;
  const spelled = units.map(({ grapheme }) => grapheme);
  const others = mistakable(units, known, seed).slice(0, OTHERS);
  if (!before) {
    const tiles = shuffled([...spelled, ...others], dice(seed));
    return board(
      "boxes",
      spelled.map((one) => [one]),
      tiles,
      tiles.map(() => null),
    );
  }
  const gpcsOf = (list: readonly Unit[]) => list.map(({ gpc }) => gpc);
  const { start, end } = commonEnds(gpcsOf(before), gpcsOf(units));
  const changed = spelled.slice(start, spelled.length - end);
  const gone = before.length - start - end;
  const boxes = start + Math.max(gone, changed.length) + end;
  const wants = Array.from({ length: boxes }, (_, at): readonly string[] => {
    const one =
      at < boxes - end ? (at < start ? spelled[at] : changed[at - start]) : spelled[at - boxes + spelled.length];
    return one === undefined ? [] : [one];
  });
  const there = before.map(({ grapheme }, at) => ({
    grapheme,
    at: at >= before.length - end ? at + boxes - before.length : at,
  }));
  const leaving = new Set(there.slice(start, start + gone).map(({ grapheme }) => grapheme));
  const beside = shuffled([...changed, ...others.filter((one) => !leaving.has(one))], dice(seed));
  return board(
    "boxes",
    wants,
    [...there.map(({ grapheme }) => grapheme), ...beside],
    [...there.map(({ at }) => at), ...beside.map(() => null)],
  );
}

function board(look: "boxes", wants: Board["wants"], tiles: readonly string[], first: Laid): Board {
  return { look, wants, tiles, first, places: wants.map(() => ({ name: "", has: [] })) };
}

/** A heap of a sort: its spelling and its words. */
interface Heap {
  readonly name: string;
  readonly words: readonly string[];
}

/** @example heapsIn(["ai: rain, tail", "ay: day"]) // [{ name: "ai", words: ["rain", "tail"] }, { name: "ay", words: ["day"] }] */
export function heapsIn(lines: readonly string[]): readonly Heap[] {
  return lines.flatMap((line) => {
    const found = /^([^:]{1,40}):\s*(.+)$/.exec(line);
    const words = found?.[2]?.split(/,\s*/).map((word) => word.trim()) ?? [];
    return found?.[1] && words.some(Boolean) ? [{ name: found[1].trim(), words: words.filter(Boolean) }] : [];
  });
}

/** A column for each heap, the words of before in theirs, and one word to put where it belongs; undefined for a word of no heap. */
export function columnsFor(
  heaps: readonly Heap[],
  { word, before }: { readonly word: string; readonly before: readonly string[] },
): Board | undefined {
  if (heaps.length < 2 || !heaps.some(({ words }) => words.includes(word))) return undefined;
  return {
    look: "columns",
    places: heaps.map(({ name, words }) => ({
      name,
      has: words.filter((one) => before.includes(one) && one !== word),
    })),
    wants: heaps.map(({ words }) => words),
    tiles: [word],
    first: [null],
  };
}

/** What was laid, as far as it can be: another number of tiles, a place that there is not, two tiles in one box are as at first. */
export function laidOn({ look, tiles, places, first }: Board, laid: Laid | undefined): Laid {
  if (laid?.length !== tiles.length) return first;
  const taken = laid.filter((at) => at !== null);
  const isThere = taken.every((at) => at >= 0 && at < places.length);
  return isThere && (look === "columns" || new Set(taken).size === taken.length) ? laid : first;
}

/** Of each tile whether it lies right; null of one that lies beside the board. */
export function verdicts({ tiles, wants }: Board, laid: Laid): readonly ("right" | "wrong" | null)[] {
  return tiles.map((tile, at) => {
    const place = laid[at] ?? null;
    return place === null ? null : wants[place]?.includes(tile) ? "right" : "wrong";
  });
}

/** Whether all that belongs on the board lies there, and lies right. */
export function isLaidRight(board: Board, laid: Laid): boolean {
  if (verdicts(board, laid).includes("wrong")) return false;
  return board.look === "columns"
    ? laid.every((at) => at !== null)
    : board.wants.every((wants, place) => wants.length === 0 || laid.includes(place));
}

/**
 * The word that stands on boxes, from the left; of a split spelling its second half comes behind the next tile.
 * @example m | a_e | k // "make"
 */
export function wordOn({ tiles, places }: Board, laid: Laid): string {
  let [word, closing] = ["", ""];
  for (const [place] of places.entries()) {
    const tile = tiles[laid.indexOf(place)];
    if (tile === undefined) continue;
    const [opening = "", late = ""] = tile.split("_");
    word += opening + closing;
    closing = late;
  }
  return word + closing;
}

/**
 * The new spelling among old ones, each looking another way, in an order that the seed decides: to be found again where it hides.
 * @returns spellings as they are shown, six at most; only the new one where nothing else is known
 */
export function spotAmong(gpc: Gpc, known: readonly Gpc[], seed: number): readonly string[] {
  const from = dice(seed);
  const shown = (one: Gpc) => showGrapheme(splitGpc(one).grapheme);
  const others = [...new Set(known.filter((one) => findCorrespondence(one)).map(shown))].filter(
    (one) => one !== shown(gpc),
  );
  // Those as long as it hide it best.
  const length = shown(gpc).length;
  const near = shuffled(others, from).toSorted(
    (one, other) => Math.abs(one.length - length) - Math.abs(other.length - length),
  );
  return shuffled([shown(gpc), ...near.slice(0, MOST_SPOTTED - 1)], from);
}

/** Where a sound can be heard in a word, as a child shows it. */
export const heardAt = ["at the start", "in the middle", "at the end", "not there"] as const;

/**
 * Where the sound of a word that is heard is.
 * @example heardIn("ship (at the start)") // "at the start"
 */
export function heardIn(item: string): (typeof heardAt)[number] | null {
  const said = /\(([^)]*)\)$/.exec(item)?.[1] ?? "";
  return heardAt.find((one) => said.endsWith(one)) ?? null;
}
