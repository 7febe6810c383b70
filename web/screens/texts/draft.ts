import { type ReadingBody, type ReadingView, readingView } from "#contract";
import { useBoxDraft } from "#web/device/box-draft.ts";
import { freshReading } from "#web/device/reading-body.ts";
import { newId } from "#web/device/settings.ts";

/** A child of a group that reads together. */
export interface Came {
  readonly childId: string;
  readonly name: string;
  readonly readingId: string;
  readonly came: boolean;
}

/** A reading on its way: what is marked so far, kept on the device at every change. */
export interface Draft {
  readonly id: string;
  readonly body: ReadingBody;
  /** Milliseconds read when the clock last stood still. */
  readonly ms: number;
  /** What the running clock said a moment ago, for a page that is loaded again while it runs. */
  readonly tick: number;
  /** The clock ends after a minute. */
  readonly limited: boolean;
  readonly finished: boolean;
  /** Reading has stopped, and the last word that was read is asked for. */
  readonly asksLast: boolean;
  /** Who is there, when a group reads together; empty when a child reads alone. */
  readonly group: readonly Came[];
  /** Under which another device shows the text. */
  readonly faceCode: string | null;
}

interface Begin {
  readonly text: { readonly id: string; readonly title: string; readonly body: string };
  readonly childId: string;
  readonly group: readonly Came[];
  readonly fit: number | null;
  readonly markedBy: string;
}

/** A reading that has not begun. Of a group's, each child's own is made from it when it is kept. */
export function freshDraft({ text, childId, group, fit, markedBy }: Begin): Draft {
  return {
    id: newId(),
    ms: 0,
    tick: 0,
    limited: true,
    finished: false,
    asksLast: false,
    group,
    faceCode: null,
    body: freshReading({ text, childId, how: group.length > 0 ? "together" : "alone", fit, markedBy }),
  };
}

/** A reading that was kept, opened again: what was said can still be typed in. */
export function draftOf({ id, ...body }: ReadingView): Draft {
  const ms = body.ms ?? 0;
  return { id, body, ms, tick: ms, limited: true, finished: true, asksLast: false, group: [], faceCode: null };
}

/** What the device kept, also from a version that knew less of a reading; undefined when it cannot be read. */
export function readDraft(kept: unknown, fresh: Draft): Draft | undefined {
  const draft = kept as Partial<Draft>;
  const read = readingView.safeParse({ ...fresh.body, ...draft.body, id: draft.id });
  if (!read.success) return undefined;
  const { id, ...body } = read.data;
  const known = { ...fresh, ...draft, id, body };
  // Loaded again while the clock ran: it stands at what it said last.
  return { ...known, ms: known.finished ? known.ms : Math.max(known.ms, known.tick) };
}

/** The draft at an address: found again after a reload, else made anew. */
export function useDraft(address: string, make: () => Draft) {
  return useBoxDraft<Draft>(address, { make, read: (kept) => readDraft(kept, make()) });
}
