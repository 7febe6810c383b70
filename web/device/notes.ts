import { useEffect, useRef } from "react";
import { listNotes, type NoteAbout, type NoteView, readNotes, takeNoteAway, writeNote } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "./api.ts";
import { dayOfInstant } from "./clock.ts";
import { useIsAtLeast } from "./me.ts";
import { newId, useMarker } from "./settings.ts";

/** What is said of a note when it is written. */
interface NoteWritten extends Pick<NoteView, "text" | "forWhom" | "until"> {
  /** The same for each try, so that a note that was sent twice is one. */
  readonly id: string;
}

/** The notes on one child, group or session, and what can be done with them. */
export interface NotesDesk {
  readonly notes: readonly NoteView[];
  readonly colleagues: readonly { readonly id: string; readonly name: string }[];
  /** May take away also what others wrote for all. */
  readonly isLead: boolean;
  readonly newId: () => string;
  readonly dayOf: (instant: string) => string;
  readonly wordsOf: (error: unknown) => string;
  readonly write: (note: NoteWritten) => Promise<void>;
  /** @returns what brings it back, where whoever asks wrote it */
  readonly takeAway: (note: NoteView) => Promise<(() => Promise<void>) | undefined>;
}

/** @returns undefined until they are here; then those that were not read count as read */
export function useNotes(about: NoteAbout): NotesDesk | undefined {
  const { data } = useAsk(listNotes, { query: about });
  const told = useRef(new Set<string>());
  useEffect(() => {
    const ids = (data?.notes ?? []).flatMap((one) => (one.isRead || told.current.has(one.id) ? [] : [one.id]));
    if (ids.length === 0) return;
    for (const id of ids) told.current.add(id);
    // Without a line they stay unread, and are told of again.
    call(readNotes, { body: { ids } }).catch(() => {
      for (const id of ids) told.current.delete(id);
    });
  }, [data]);
  const isLead = useIsAtLeast("lead");
  const [marker] = useMarker();
  if (!data) return undefined;
  const write = async ({ id, text, forWhom, until }: NoteWritten) => {
    await call(writeNote, {
      params: { id },
      query: about,
      body: { text, forWhom, until, by: marker.trim() || "Teacher" },
    });
    await refreshAll();
  };
  return {
    ...data,
    ...{ isLead, newId, dayOf: dayOfInstant, wordsOf: wordsOfError },
    write,
    takeAway: async (note) => {
      await call(takeNoteAway, { params: { id: note.id } });
      await refreshAll();
      return note.isMine ? () => write(note) : undefined;
    },
  };
}
