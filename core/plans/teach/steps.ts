import { dice, shuffled } from "#core/words";
import { kindsOfPart } from "../kinds.ts";
import type { SessionPart } from "../plan.ts";
import { heapsIn } from "./boards.ts";

/** How a child did with an item while a session runs: at once, with help, or not yet. */
export const teachOutcomes = ["got", "help", "notYet"] as const;
export type TeachOutcome = (typeof teachOutcomes)[number];

/** What the adult did while a session ran: a log, from which everything else follows. */
export type TeachStep = { readonly id: string /** Milliseconds since 1970. */; readonly at: number } & (
  | { readonly do: "begin" | "pause" | "go" | "next" | "back" | "end" }
  /** A child came late or left. */
  | { readonly do: "here"; readonly childId: string; readonly here: boolean }
  /** Another part, by its place. */
  | { readonly do: "part"; readonly part: number }
  /** One more word for the part that runs. */
  | { readonly do: "more"; readonly item: string; readonly easier: boolean }
  | {
      readonly do: "mark";
      readonly childId: string;
      readonly outcome: TeachOutcome;
      /** What was said instead, where someone noted it. */
      readonly said: string | null;
      /** Marks stood under the sounds. */
      readonly marks: boolean;
      /** The whole group answered at once. */
      readonly together: boolean;
    }
  /** What was said in place of an item, noted later: the mark stands anew under the id of this step. */
  | { readonly do: "said"; readonly of: string; readonly said: string }
  /** A smaller or a harder step was offered, and taken or not. */
  | { readonly do: "offer"; readonly offer: "smaller" | "harder"; readonly taken: boolean }
  | { readonly do: "undo"; readonly of: string }
);

/** One item for one child, or for all of them. */
export interface Turn {
  readonly item: string;
  readonly childId: string | null;
}

/** A mark that stands. */
export interface TeachMark {
  readonly id: string;
  readonly at: number;
  readonly part: number;
  readonly turn: number;
  readonly item: string;
  readonly childId: string;
  readonly outcome: TeachOutcome;
  readonly said: string | null;
  readonly marks: boolean;
  readonly together: boolean;
}

/** A session as it stands. */
export interface TeachState {
  readonly begun: boolean;
  readonly ended: boolean;
  /** Children who are there now, in the order of the session; and who was there at some time. */
  readonly here: readonly string[];
  readonly came: readonly string[];
  /** Of those who are here, who is asked in the part that runs. */
  readonly asked: readonly string[];
  readonly part: number;
  /** What the part that runs asks, one after the other; and which of it is asked now, as many as there are when all is done. */
  readonly turns: readonly Turn[];
  readonly turn: number;
  readonly marks: readonly TeachMark[];
  /** Milliseconds of each part, without pauses, until `since`. */
  readonly spent: readonly number[];
  /** The clock of the part runs since then; null while it stands still. */
  readonly since: number | null;
  /** Parts that were left, as they stood: gone back to, they go on from there. */
  readonly left: ReadonlyMap<number, { readonly turns: readonly Turn[]; readonly turn: number }>;
  /** Parts in which a smaller or a harder step was offered. */
  readonly offered: readonly number[];
}

/** What a session is taught from. */
export interface TeachWanted {
  readonly parts: readonly SessionPart[];
  /** Children who have a place, and of them those who were said to be absent. */
  readonly members: readonly {
    readonly id: string;
    readonly absent: boolean;
    /** It says at sight what is taught, and is asked its cards alone. */
    readonly cardsOnly?: boolean;
  }[];
  readonly seed: number;
}

/** A card that was missed comes back behind so many others, at most so often. */
const BACK_AFTER = 3;
const MOST_BACK = 3;

/** Parts that are piles of cards: what is missed goes back into the pile until it is firm. */
function isPile(kind: SessionPart["kind"]): boolean {
  return kind === "revisit" || kind === "lastLook";
}

/** Parts in which everyone does the same, each on a sheet or boxes of its own. */
const onOwnSheet: ReadonlySet<SessionPart["kind"]> = new Set(["writeWords", "sentence", "build"]);

/** Whether the whole group answers at once in a part, so that no one is heard alone. */
export function isTogether({ kind, who = kindsOfPart[kind].who }: Pick<SessionPart, "kind" | "who">): boolean {
  return who !== "child" && !onOwnSheet.has(kind);
}

/** Whether each item is for all of them. */
const isForAll = (part: SessionPart): boolean => isTogether(part) || onOwnSheet.has(part.kind);

/** Of a sort its words, mixed; of any other part its items as they are. */
function itemsOf({ kind, items }: SessionPart, seed: number): readonly string[] {
  const heaps = kind === "sort" ? heapsIn(items) : [];
  return heaps.length < 2
    ? items
    : shuffled(
        heaps.flatMap(({ words }) => words),
        dice(seed),
      );
}

/** What a part asks at first: each child's own cards in turn, an item a child, or an item for all. */
function turnsOf(part: SessionPart, here: readonly string[], seed: number): readonly Turn[] {
  const { each = [] } = part;
  const own = each.filter(({ childId }) => here.includes(childId));
  if (own.length > 0) {
    const piles = own.map(({ childId, items }) => ({ childId, items: shuffled(items, dice(seed)) }));
    const longest = Math.max(...piles.map(({ items }) => items.length));
    return Array.from({ length: longest }, (_, at) =>
      piles.flatMap(({ childId, items }) => (items[at] === undefined ? [] : [{ childId, item: items[at] }])),
    ).flat();
  }
  const items = isPile(part.kind) ? shuffled(part.items, dice(seed)) : itemsOf(part, seed);
  if (isForAll(part) || here.length === 0) return items.map((item) => ({ item, childId: null }));
  // Fewer items than children: each has a turn all the same.
  const count = items.length === 0 ? 0 : Math.max(items.length, here.length);
  return Array.from({ length: count }, (_, at) => ({
    item: items[at % items.length] ?? "",
    childId: here[at % here.length] ?? null,
  }));
}

/**
 * A session as it stands after these steps, in the order in which they were done; what was undone never was. Sent twice a step counts
 * once, and one that makes no sense (a part that there is not, a mark before the beginning) changes nothing.
 */
export function teachState(wanted: TeachWanted, steps: readonly TeachStep[]): TeachState {
  const undone = new Set(steps.flatMap((step) => (step.do === "undo" ? [step.of] : [])));
  const seen = new Set<string>();
  let state = atFirst(wanted);
  for (const step of steps) {
    if (seen.has(step.id) || undone.has(step.id)) continue;
    seen.add(step.id);
    state = after(state, step, wanted);
  }
  return { ...state, asked: askedIn(wanted, state.here, wanted.parts[state.part]) };
}

/** Whoever comes for the cards alone is asked in piles of cards, unless no one else is here. */
function askedIn(
  { members }: TeachWanted,
  here: readonly string[],
  part: SessionPart | undefined,
): readonly string[] {
  if (!part || isPile(part.kind)) return here;
  const asked = here.filter((id) => !members.find((one) => one.id === id)?.cardsOnly);
  return asked.length > 0 ? asked : here;
}

function atFirst({ parts, members }: TeachWanted): TeachState {
  return {
    ...{ begun: false, ended: false, part: 0, turns: [], turn: 0, marks: [], since: null, offered: [], asked: [] },
    left: new Map(),
    here: members.flatMap(({ id, absent }) => (absent ? [] : [id])),
    came: [],
    spent: parts.map(() => 0),
  };
}

function after(state: TeachState, step: TeachStep, wanted: TeachWanted): TeachState {
  const { parts, members, seed } = wanted;
  const open = (one: TeachState, at: number): TeachState => {
    const part = parts[at];
    const left = new Map(one.left).set(one.part, { turns: one.turns, turn: one.turn });
    const before = one.begun && one.turns.length > 0 ? left : one.left;
    const again = before.get(at);
    if (again) {
      const back = { ...one, ...again, part: at, left: before };
      return { ...back, turns: dealtAnew(back, askedIn(wanted, one.here, part), part, seed + at) };
    }
    return {
      ...one,
      part: at,
      left: before,
      turn: 0,
      turns: part ? turnsOf(part, askedIn(wanted, one.here, part), seed + at) : [],
    };
  };
  if (step.do === "here") {
    const here = members.flatMap(({ id }) =>
      (id === step.childId ? step.here : state.here.includes(id)) ? [id] : [],
    );
    const changed = { ...state, here, came: state.begun ? union(state.came, here) : state.came };
    // Who is gone is asked nothing more, who has come has a turn: what is still to come of the part is dealt anew.
    return state.begun
      ? { ...changed, turns: dealtAnew(state, askedIn(wanted, here, parts[state.part]), parts[state.part], seed) }
      : changed;
  }
  if (step.do === "begin")
    return state.begun ? state : open({ ...state, begun: true, came: state.here, since: step.at }, 0);
  if (step.do === "said") {
    const { id, of, said } = step;
    return { ...state, marks: state.marks.map((mark) => (mark.id === of ? { ...mark, id, said } : mark)) };
  }
  if (!state.begun || state.ended) return state;
  switch (step.do) {
    case "pause":
      return { ...counted(state, step.at), since: null };
    case "go":
      return { ...state, since: state.since ?? step.at };
    case "end":
      return { ...counted(state, step.at), since: null, ended: true };
    case "part":
      if (!parts[step.part]) return state;
      return open(counted(state, step.at), step.part);
    case "next":
      return { ...state, turn: Math.min(state.turns.length, state.turn + 1) };
    case "back":
      return { ...state, turn: Math.max(0, state.turn - 1) };
    case "more":
      return {
        ...state,
        turns: state.turns.toSpliced(state.turn + 1, 0, {
          item: step.item,
          childId: state.turns[state.turn]?.childId ?? null,
        }),
      };
    case "offer":
      return { ...state, offered: [...state.offered, state.part] };
    case "mark":
      if (!members.some(({ id }) => id === step.childId)) return state;
      return marked(state, step, parts[state.part]);
    case "undo":
      return state;
  }
}

type Mark = Extract<TeachStep, { do: "mark" }>;

/** With a mark on the item that is asked; what was missed of a pile comes back behind others. */
function marked(state: TeachState, step: Mark, part: SessionPart | undefined): TeachState {
  const turn = state.turns[state.turn];
  if (!turn || !part) return state;
  const { id, at, childId, outcome, said, marks, together } = step;
  const mark = {
    id,
    at,
    childId,
    outcome,
    said,
    marks,
    together,
    part: state.part,
    turn: state.turn,
    item: turn.item,
  };
  // A child has one mark on an item: a later one takes its place.
  const others = state.marks.filter(
    (one) => !(one.part === state.part && one.turn === state.turn && one.childId === childId),
  );
  const was = others.length < state.marks.length;
  const back = isPile(part.kind) && outcome !== "got" && !was;
  const same = (one: Turn) => one.item === turn.item && one.childId === (turn.childId ?? one.childId);
  const turns =
    back && state.turns.filter(same).length <= MOST_BACK
      ? state.turns.toSpliced(Math.min(state.turns.length, state.turn + 1 + BACK_AFTER), 0, turn)
      : state.turns;
  return { ...state, turns, marks: [...others, mark] };
}

/** What is asked from now on of those who are there; what was asked stays. */
function dealtAnew(
  { turns, turn }: TeachState,
  here: readonly string[],
  part: SessionPart | undefined,
  seed: number,
): readonly Turn[] {
  if (!part) return turns;
  const done = turns.slice(0, turn);
  const left = turns.slice(turn);
  if (part.each?.length) {
    const known = new Set(turns.map(({ childId }) => childId));
    const fresh = here.filter((id) => !known.has(id));
    const own = turnsOf({ ...part, each: part.each.filter(({ childId }) => fresh.includes(childId)) }, fresh, seed);
    return [
      ...done,
      ...left.filter(({ childId }) => childId === null || here.includes(childId)),
      ...(fresh.length > 0 && own.every(({ childId }) => childId !== null) ? own : []),
    ];
  }
  if (isForAll(part) || here.length === 0) return turns;
  return [...done, ...left.map(({ item }, at) => ({ item, childId: here[at % here.length] ?? null }))];
}

/** With the time until then given to its part. */
function counted(state: TeachState, at: number): TeachState {
  if (state.since === null) return state;
  const more = Math.max(0, at - state.since);
  return { ...state, since: at, spent: state.spent.map((ms, part) => (part === state.part ? ms + more : ms)) };
}

/** Milliseconds of each part by now. */
export function spentBy(state: TeachState, now: number): readonly number[] {
  return counted(state, now).spent;
}

const union = (one: readonly string[], other: readonly string[]): readonly string[] => [
  ...new Set([...one, ...other]),
];
