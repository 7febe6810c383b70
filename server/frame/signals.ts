import type { DeskEvent, FaceBody } from "#contract";

/** Short messages between the processes of one database; each hears those of the others, not its own. */
export interface Signals {
  /** Stands in every message of this process, so that it does not hear itself; null where there is no one to tell. */
  readonly me: string | null;
  /** Tells the others now. A message that belongs to a transaction is told in it: see `Inside.signal`. */
  tell(message: object): void;
  /**
   * @param heard gets each message
   * @param missed is called when the line was lost and stands again: what was told meanwhile is not known
   */
  listen(heard: (message: unknown) => void, missed: () => void): void;
}

/** What a process tells the others of the same database, so that who listens there hears it too. */
export type LiveSignal =
  /** New marks, by sitting: the number of the first new entry of each child. Without sittings there were too many to name. */
  | {
      readonly kind: "marks";
      readonly schoolId: string;
      readonly sittings?: Readonly<Record<string, Readonly<Record<string, number>>>>;
    }
  | { readonly kind: "desk"; readonly deskId: string; readonly event: DeskEvent }
  | { readonly kind: "show"; readonly deskId: string; readonly face: FaceBody }
  | { readonly kind: "end"; readonly deskId: string }
  | PeopleSignal;

/** Who may come in, or what they may, has changed: what is known of it is looked up anew. */
interface PeopleSignal {
  readonly kind: "people";
}

/**
 * Tells the other processes that who may come in has changed, and is told so by them.
 * @param forget what is known here; also called when it is not known whether something was told
 * @returns what forgets here and elsewhere
 */
export function forgettingPeople({ tell, listen }: Signals, forget: () => void): () => void {
  listen((message) => (message as LiveSignal).kind === "people" && forget(), forget);
  return () => {
    forget();
    tell({ kind: "people" } satisfies PeopleSignal);
  };
}

/** The database refuses a message of 8,000 bytes. */
const MOST_LETTERS = 7000;

/** The signal of a batch of marks: small, since whoever hears it reads the marks itself. */
export function marksSignal(
  schoolId: string,
  bySitting: ReadonlyMap<string, readonly { readonly childId: string }[]>,
  from: ReadonlyMap<string, number>,
): LiveSignal {
  const sittings = Object.fromEntries(
    [...bySitting].map(([id, entries]) => [
      id,
      Object.fromEntries(entries.map(({ childId }) => [childId, from.get(childId) ?? 0])),
    ]),
  );
  const signal: LiveSignal = { kind: "marks", schoolId, sittings };
  return JSON.stringify(signal).length > MOST_LETTERS ? { kind: "marks", schoolId } : signal;
}
