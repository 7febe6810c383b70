import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { reportSession, type SessionView, saveReading, type TextView } from "#contract";
import { kindsOfPart, toldOf } from "#core/plans";
import { plural } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { freshReading } from "#web/device/reading-body.ts";
import { useMarker } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { TextArea } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import type { Teaching, TextMarks } from "./use-teach.ts";

interface FinishWanted {
  readonly session: SessionView;
  readonly teaching: Teaching;
  readonly nameOf: (id: string) => string;
  readonly texts: readonly TextView[];
  /** The second screen is let go. */
  readonly onLeave: () => Promise<void>;
}

/** Texts that were read: those of which words were marked, and those that someone got without one. */
function readingsOf({ readings, state, parts }: Teaching, texts: readonly TextView[]): readonly TextMarks[] {
  const got = state.marks.filter(
    ({ part, turn, outcome, together }) =>
      parts[part]?.kind === "text" && outcome === "got" && !together && !readings[`${part} ${turn}`],
  );
  return [
    ...Object.values(readings).filter(({ marks }) => marks.length > 0),
    ...got.flatMap(({ id, childId, item }): TextMarks[] => {
      const text = texts.find(({ title }) => title === item);
      return text ? [{ readingId: id, childId, text, marks: [] }] : [];
    }),
  ];
}

/** The report, written already from what was marked: read, finished with a sentence, and sent. */
export function Finish({ session, teaching, nameOf, texts, onLeave }: FinishWanted) {
  const { state, parts, reportId, forget, goOn } = teaching;
  const navigate = useNavigate();
  const [marker] = useMarker();
  const { waiting } = useOutbox();
  const readings = readingsOf(teaching, texts);
  const told = useMemo(() => toldOf(state, { parts, nameOf }), [state, parts, nameOf]);
  const [note, setNote] = useState(told.note);
  const [at] = useState(stampNow);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState(false);
  useUnsaved(!sent);
  const unsent = waiting.filter((one) => "source" in one && one.source.kind === "session").length;
  const send = async () => {
    setBusy(true);
    setTrouble(null);
    try {
      const by = marker.trim() || "Teacher";
      for (const { readingId, childId, text, marks } of readings) {
        const body = { ...freshReading({ text, childId, how: "alone", fit: null, markedBy: by }), marks: [...marks] };
        await call(saveReading, { params: { id: readingId }, body });
      }
      await call(reportSession, {
        params: { id: session.id },
        body: { id: reportId, by, at, came: [...told.came], reached: told.reached, marks: [], note: note.trim() },
      });
      setSent(true);
      await onLeave();
      await forget();
      await refreshAll();
      toast("Sent. What was marked is in the answers of each child.");
      navigate(`/sessions/${session.id}`);
    } catch (error) {
      setTrouble(`${wordsOfError(error)} What was marked and written is kept on this device.`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Panel title="What happened">
      <p>
        {told.came.length === 0
          ? "No one came;"
          : `${plural(told.came.length, "child", "children")} came: ${told.came.map(nameOf).join(", ")};`}{" "}
        {told.reached && `it came to ${kindsOfPart[told.reached].title};`} {plural(state.marks.length, "mark")}
        {unsent > 0 ? `, ${unsent} still to be sent.` : "."}
      </p>
      <form
        className="mt-3 flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <TextArea
          label="For whoever plans the next"
          rows={5}
          maxLength={1000}
          value={note}
          hint="Written from the marks. Add what they do not say; leave out what is private."
          onChange={(event) => setNote(event.target.value)}
        />
        {trouble && (
          <p role="alert" className="text-damson">
            {trouble}
          </p>
        )}
        <div className="flex gap-2">
          <Button type="submit" shape="main" className="min-h-11" working={busy}>
            Send what happened
          </Button>
          <Button className="min-h-11" onClick={() => goOn?.()}>
            Go on with the session
          </Button>
        </div>
      </form>
    </Panel>
  );
}
