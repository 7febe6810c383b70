import { kinds, type TellWanted } from "#core/checks";
import { type GivenAnswer, heardIn } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { failedUnits, Kept, readWordItem } from "#core/words";
import { type Standing, type State, standingOf, type TextMiss } from "./state.ts";

export interface MapChild {
  readonly id: string;
  readonly taught: ReadonlySet<Gpc>;
  readonly answers: readonly GivenAnswer[];
  /** By spelling, the words of texts in which it failed. */
  readonly inTexts?: ReadonlyMap<Gpc, readonly TextMiss[]> | undefined;
}

/** The spellings that fail when a word is read as something, worked out once for a lexicon and an accent. */
const MOST_SAYINGS = 20_000;
const failed = new WeakMap<object, Kept<string, readonly Gpc[]>>();

function failedFor({ lexicon }: Pick<TellWanted, "lexicon">): Kept<string, readonly Gpc[]> {
  const known = failed.get(lexicon) ?? new Kept<string, readonly Gpc[]>(MOST_SAYINGS);
  failed.set(lexicon, known);
  return known;
}

/** Which spellings failed in the words of texts that a child misread and did not put right, from its standing answers. */
export function missedInTexts(
  answers: readonly GivenAnswer[],
  words: Pick<TellWanted, "lexicon" | "accent">,
): ReadonlyMap<Gpc, readonly TextMiss[]> {
  const known = failedFor(words);
  const found = new Map<Gpc, TextMiss[]>();
  for (const answer of answers) {
    const heard = heardIn(answer);
    if (answer.source.kind !== "reading" || heard === null || answer.tags.includes("putRight")) continue;
    const saying = `${words.accent?.id}\t${answer.item}\t${heard}`;
    const gpcs = known.of(saying, () => failedOf(answer.item, heard, words));
    for (const gpc of gpcs)
      found.set(gpc, [...(found.get(gpc) ?? []), { day: answer.day, word: kinds.words.show(answer.item) }]);
  }
  return found;
}

function failedOf(item: string, heard: string, words: Pick<TellWanted, "lexicon" | "accent">): readonly Gpc[] {
  const { units } = readWordItem(item);
  return failedUnits(units, heard, words).flatMap((at) => {
    const unit = units[at];
    return unit && unit.sound !== "" ? [unit.gpc] : [];
  });
}

/**
 * The standing of one child for every column, from its answers to spellings seen and said, and from what failed in
 * texts: what was written, found or read in words of a check is told by the checks themselves. A gap or more found
 * before teaching still shows.
 */
export function childRow(child: MapChild, columns: readonly Gpc[], today: string): readonly Standing[] {
  const byItem = new Map<Gpc, GivenAnswer[]>();
  for (const answer of child.answers) {
    if (answer.kind !== "card") continue;
    const list = byItem.get(answer.item);
    if (list) list.push(answer);
    else byItem.set(answer.item, [answer]);
  }
  return columns.map((gpc) => {
    const standing = standingOf(byItem.get(gpc) ?? [], today, child.inTexts?.get(gpc));
    return standing.state === "not checked" && !child.taught.has(gpc)
      ? { ...standing, state: "not taught" }
      : standing;
  });
}

/** How far a state is from having nothing to teach; whole numbers, so that rows compare fast. */
const depth: Record<State, number> = { "not taught": 0, "not checked": 1, secure: 0, unsteady: 4, gap: 6 };

/** City-block distances between all rows, as one square table. */
function distances(rows: readonly (readonly State[])[]): Int32Array {
  const depths = rows.map((row) => Uint8Array.from(row, (state) => depth[state]));
  const table = new Int32Array(rows.length * rows.length);
  for (const [at, one] of depths.entries()) {
    for (let to = at + 1; to < depths.length; to++) {
      const other = depths[to] as Uint8Array;
      let sum = 0;
      for (let column = 0; column < one.length; column++)
        sum += Math.abs((one[column] as number) - (other[column] as number));
      table[at * rows.length + to] = sum;
      table[to * rows.length + at] = sum;
    }
  }
  return table;
}

/**
 * An order of the rows in which like stands beside like: starts at the child with most gaps and goes on to
 * the nearest child left (city-block distance of states), then mends crossings (2-opt) for up to 200 rows.
 * Gives row numbers. O(rows² · columns).
 */
export function alikeOrder(rows: readonly (readonly State[])[]): readonly number[] {
  if (rows.length === 0) return [];
  const need = rows.map((row) => row.reduce((sum, state) => sum + depth[state], 0));
  const between = distances(rows);
  const gap = (from: number, to: number) => between[from * rows.length + to] ?? 0;
  const left = new Set(rows.keys());
  let current = need.indexOf(Math.max(...need));
  const path: number[] = [];
  while (left.size > 0) {
    left.delete(current);
    path.push(current);
    let next = -1;
    for (const candidate of left) if (next < 0 || gap(current, candidate) < gap(current, next)) next = candidate;
    current = next;
  }
  return rows.length <= 200 ? uncrossed(path, gap) : path;
}

function uncrossed(path: number[], gap: (from: number, to: number) => number): number[] {
  const at = (index: number) => path[index] ?? 0;
  const cost = (from: number, to: number) => (to < path.length ? gap(at(from), at(to)) : 0);
  for (let round = 0; round < 20; round++) {
    let better = false;
    for (let from = 0; from < path.length - 2; from++) {
      for (let to = from + 1; to < path.length; to++) {
        const now = cost(from, from + 1) + cost(to, to + 1);
        const then = gap(at(from), at(to)) + (to + 1 < path.length ? gap(at(from + 1), at(to + 1)) : 0);
        if (then < now - 1e-9) {
          path.splice(from + 1, to - from, ...path.slice(from + 1, to + 1).reverse());
          better = true;
        }
      }
    }
    if (!better) break;
  }
  return path;
}
