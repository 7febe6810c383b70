import { type FormEvent, useState } from "react";
import type { NoteView } from "#contract";
import { nearDay, shortDay } from "#core/saying";
import { Button } from "./button.tsx";
import { Choice, TextArea, TextField } from "./field.tsx";
import { Fault, Panel } from "./page.tsx";
import { toast } from "./toast.tsx";
import { toastWithUndo } from "./undo.ts";

interface Written extends Pick<NoteView, "text" | "forWhom" | "until"> {
  readonly id: string;
}

interface NotesWanted {
  readonly notes: readonly NoteView[];
  readonly colleagues: readonly { readonly id: string; readonly name: string }[];
  /** They stand on the child's own page: no name is said. */
  readonly isChild?: boolean;
  /** Who reads what is for all: "everyone who teaches Ada M.". */
  readonly all: string;
  readonly today: string;
  /** May take away also what others wrote for all. */
  readonly isLead: boolean;
  readonly newId: () => string;
  readonly write: (note: Written) => Promise<void>;
  readonly takeAway: (note: NoteView) => Promise<(() => Promise<void>) | undefined>;
  readonly dayOf: (instant: string) => string;
  /** An error in words. */
  readonly wordsOf: (error: unknown) => string;
}

/** Notes on a child, a group or a session: those that are there, and a place to write one. */
export function Notes({
  notes,
  colleagues,
  isChild = false,
  all,
  today,
  isLead,
  newId,
  write,
  takeAway,
  dayOf,
  wordsOf,
}: NotesWanted) {
  const [id, setId] = useState<string>();
  const take = async (note: NoteView) => {
    try {
      const undo = await takeAway(note);
      if (undo) toastWithUndo("The note is taken away.", () => undo().catch((error) => toast.error(wordsOf(error))));
      else toast("The note is taken away.");
    } catch (error) {
      toast.error(wordsOf(error));
    }
  };
  return (
    <Panel
      title="Notes"
      // On paper there is nothing to say where there is none.
      className={notes.length === 0 ? "no-print" : ""}
      actions={id === undefined && <Button onClick={() => setId(newId())}>Write a note</Button>}
    >
      {notes.length === 0 && id === undefined && <p className="text-soft">No note is here.</p>}
      {notes.length > 0 && (
        <ul aria-label="Notes" className="flex flex-col divide-y divide-line">
          {notes.map((note) => (
            <li key={note.id} className="flex items-start justify-between gap-3 py-2">
              <div className="min-w-0">
                <p className="whitespace-pre-line break-words">
                  {note.childId !== null && !isChild && <strong>{note.aboutName}: </strong>}
                  {note.text}
                </p>
                <p className="text-sm text-soft">
                  {!note.isRead && <span className="font-semibold text-ink">new · </span>}
                  {[note.by, nearDay(dayOf(note.at), today), whoReads(note), untilOf(note, today)]
                    .filter(Boolean)
                    .join(" · ")}
                </p>
              </div>
              {(note.isMine || (isLead && note.forWhom.who === "all")) && (
                <Button
                  shape="quiet"
                  className="shrink-0 whitespace-nowrap"
                  aria-label={`Take away the note of ${note.by}`}
                  onClick={() => void take(note)}
                >
                  Take away
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {id !== undefined && (
        <NoteForm
          {...{ id, colleagues, all, today, wordsOf }}
          onWrite={async (note) => {
            await write(note);
            setId(undefined);
          }}
          onCancel={() => setId(undefined)}
        />
      )}
    </Panel>
  );
}

/** Who reads a note that is not for all. */
function whoReads({ forWhom, forName, isMine }: NoteView): string {
  if (forWhom.who === "me") return "for you alone";
  return forWhom.who === "all" ? "" : isMine ? `for ${forName}` : "for you";
}

const untilOf = ({ until }: NoteView, today: string): string => (until ? `until ${shortDay(until, today)}` : "");

interface FormWanted extends Pick<NotesWanted, "colleagues" | "all" | "today" | "wordsOf"> {
  readonly id: string;
  readonly onWrite: (note: Written) => Promise<void>;
  readonly onCancel: () => void;
}

function NoteForm({ id, colleagues, all, today, wordsOf, onWrite, onCancel }: FormWanted) {
  const [text, setText] = useState("");
  const [who, setWho] = useState("all");
  const [until, setUntil] = useState("");
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setTrouble(null);
    try {
      const forWhom = who === "all" || who === "me" ? ({ who } as const) : ({ who: "one", memberId: who } as const);
      await onWrite({ id, text: text.trim(), forWhom, until: until || null });
    } catch (error) {
      setTrouble(`${wordsOf(error)} What you wrote stands here still.`);
      setBusy(false);
    }
  };
  return (
    <form onSubmit={keep} className="mt-2 flex flex-col gap-3 border-t border-line pt-3">
      <TextArea
        label="Note"
        rows={3}
        maxLength={500}
        required
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <Choice label="For" value={who} onChange={(event) => setWho(event.target.value)}>
          <option value="all">{all}</option>
          <option value="me">me alone</option>
          {colleagues.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Choice>
        <TextField
          label="Until"
          type="date"
          min={today}
          hint="Left empty, it stays until it is taken away."
          value={until}
          onChange={(event) => setUntil(event.target.value)}
        />
      </div>
      <Fault>{trouble}</Fault>
      <div className="flex gap-2">
        <Button type="submit" shape="main" disabled={busy || text.trim() === ""}>
          Keep the note
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </form>
  );
}
