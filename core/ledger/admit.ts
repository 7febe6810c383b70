import { type Answer, isGiven, type StopEntry } from "./answers.ts";
import { type KindId, kindNames, marksIn } from "./kinds.ts";

/** What the school has of the checks, readings and sessions that marks speak of. */
export interface KnownCheck {
  readonly childId: string;
  readonly kind: KindId;
  readonly items: ReadonlySet<string>;
  readonly startedAt: string;
}

/** What the ledger must know of a school before it can say which marks may enter; keyed by id. */
export interface Stored {
  readonly children: ReadonlySet<string>;
  readonly checks: ReadonlyMap<string, KnownCheck>;
  /** The child of each reading. */
  readonly readings: ReadonlyMap<string, string>;
  /** The children who have a place in each session. */
  readonly sessions: ReadonlyMap<string, ReadonlySet<string>>;
  /** Entries that are there under the ids of these marks, and those that they take back. */
  readonly entries: ReadonlyMap<string, Answer>;
  /** Which of those are taken back already. */
  readonly takenBack: ReadonlySet<string>;
  /** Checks that have an end which stands. */
  readonly ended: ReadonlySet<string>;
}

/**
 * What becomes of a mark: it is new and enters as `entry`; it is there already, or says what is there; or it is refused,
 * with the reason in words for the adult.
 */
export type Fate =
  | { readonly fate: "kept"; readonly entry: Answer }
  | { readonly fate: "there" }
  | { readonly fate: "refused"; readonly says: string };

export interface AdmitWanted {
  /** The day at the school on which an instant falls; what a device took it for does not count. */
  readonly dayOf: (instant: string) => string;
  /** True for an instant that lies ahead of the server's clock. */
  readonly isFuture: (instant: string) => boolean;
}

/** A device's clock may run this far behind the one that a check was begun by. */
const BEHIND_MS = 1000;

/**
 * Which marks may enter the ledger, one by one and in their order: a bad one never refuses its neighbours. The same id with
 * the same content is there already, with other content refused, also within one batch. Of two ends of one check the one
 * that came first counts.
 * @returns a fate for each mark, in their order
 * @example admit([mark, mark], stored, clock).map(({ fate }) => fate) // ["kept", "there"]
 */
export function admit(marks: readonly Answer[], stored: Stored, { dayOf, isFuture }: AdmitWanted): readonly Fate[] {
  const entries = new Map(stored.entries);
  const takenBack = new Set(stored.takenBack);
  const ended = new Set(stored.ended);
  return marks.map((mark): Fate => {
    const before = entries.get(mark.id);
    if (before) return isSame(before, mark) ? { fate: "there" } : refused("Another mark has this id.");
    if (!stored.children.has(mark.childId)) return refused("This child is not here any more.");
    if (isFuture(mark.markedAt)) return refused("The time lies ahead of the server's clock.");
    if (mark.outcome === "void") {
      const target = entries.get(mark.voids);
      if (!target || target.outcome === "void") return refused("The mark to take back is not in the log.");
      if (target.childId !== mark.childId) return refused("The mark to take back is another child's.");
      if (takenBack.has(mark.voids)) return refused("This mark has been taken back already.");
      takenBack.add(mark.voids);
      if (target.outcome === "stop") ended.delete(target.source.checkId);
    } else {
      const says = problemWith(mark, stored);
      if (says) return refused(says);
      if (mark.outcome === "stop") {
        if (ended.has(mark.source.checkId)) return { fate: "there" };
        ended.add(mark.source.checkId);
      }
    }
    const entry = { ...mark, day: dayOf(mark.markedAt) };
    entries.set(entry.id, entry);
    return { fate: "kept", entry };
  });
}

const refused = (says: string): Fate => ({ fate: "refused", says });

/** Why an answer, a note or an end may not enter, or undefined. */
function problemWith(mark: Exclude<Answer, { outcome: "void" }>, stored: Stored): string | undefined {
  const { source, childId } = mark;
  if (source.kind === "reading") {
    const reader = stored.readings.get(source.readingId);
    if (reader === undefined) return "The reading is not here any more.";
    return reader === childId ? undefined : "The reading is another child's.";
  }
  if (source.kind === "session") {
    const members = stored.sessions.get(source.sessionId ?? "");
    if (!members) return "The session is not here any more.";
    return members.has(childId) ? undefined : "This child has no place in the session.";
  }
  if (source.kind === "judgement") {
    const isOne = isGiven(mark) && mark.kind === "card" && (mark.outcome === "right" || mark.outcome === "none");
    return isOne ? undefined : "What a teacher knows is of a spelling: that it is known, or that it is not.";
  }
  const check = stored.checks.get(source.checkId);
  if (!check) return "The check is not here any more.";
  if (check.childId !== childId) return "The check is another child's.";
  if (Date.parse(mark.markedAt) < Date.parse(check.startedAt) - BEHIND_MS)
    return "The time is before the check began.";
  if (mark.outcome === "reading") return "A reading belongs to no check.";
  if (mark.outcome === "stop") return undefined;
  if (mark.item !== null && !check.items.has(mark.item)) return "This item is not in the check.";
  if (isGiven(mark) && !marksIn(check.kind).includes(mark.kind))
    return `The check is one of another kind: ${kindNames[check.kind]}.`;
  return undefined;
}

/** True when two entries say the same; the day is the server's to say. */
function isSame(one: Answer, other: Answer): boolean {
  return sayingOf(one) === sayingOf(other);
}

function sayingOf({ day: _, ...entry }: Answer): string {
  return JSON.stringify(ordered({ ...entry, markedAt: new Date(entry.markedAt).toISOString() }));
}

/** The same content in one order, whatever order it was written in. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (typeof value !== "object" || value === null) return value;
  return Object.entries(value)
    .filter(([, one]) => one !== undefined)
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .map(([key, one]) => [key, ordered(one)]);
}

/** The ends of checks among these entries, and the checks whose end one of them takes back, as far as `entries` knows. */
export function endsIn(
  added: readonly Answer[],
  entries: ReadonlyMap<string, Answer>,
): ReadonlyMap<string, StopEntry | null> {
  const ends = new Map<string, StopEntry | null>();
  const known = new Map([...entries, ...added.map((entry) => [entry.id, entry] as const)]);
  for (const entry of added) {
    if (entry.outcome === "stop") ends.set(entry.source.checkId, entry);
    const target = entry.outcome === "void" ? known.get(entry.voids) : undefined;
    if (target?.outcome === "stop") ends.set(target.source.checkId, null);
  }
  return ends;
}
