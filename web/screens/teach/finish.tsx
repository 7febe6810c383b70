import { useEffect, useMemo, useState } from "react";
import type { ReportBody } from "#contract";
import { kindsOfPart, toldOf } from "#core/plans";
import { plural } from "#core/saying";
import { wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { TextArea, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import type { Teaching } from "./use-teach.ts";

interface FinishWanted {
  readonly teaching: Teaching;
  readonly nameOf: (id: string) => string;
  /** Who says it; null where that is asked. */
  readonly by: string | null;
  /** Marks that are not sent yet. */
  readonly unsent: number;
  /** Sends it, and says how to go on from here; throws where it was not taken. */
  readonly onSend: (report: ReportBody) => Promise<() => void>;
}

/** The report, written already from what was marked: read, finished with a sentence, and sent. */
export function Finish({ teaching, nameOf, by, unsent, onSend }: FinishWanted) {
  const { state, parts, reportId, goOn } = teaching;
  const told = useMemo(() => toldOf(state, { parts, nameOf }), [state, parts, nameOf]);
  const [note, setNote] = useState(told.note);
  const [name, setName] = useState("");
  const [at] = useState(stampNow);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [goesOn, setGoesOn] = useState<() => void>();
  useUnsaved(goesOn === undefined);
  // Only once nothing holds this page any more.
  useEffect(() => {
    goesOn?.();
  }, [goesOn]);
  const send = async () => {
    setBusy(true);
    setTrouble(null);
    try {
      const said = { came: [...told.came], reached: told.reached, marks: [], note: note.trim() };
      const after = await onSend({ id: reportId, by: by ?? name.trim(), at, ...said });
      setGoesOn(() => after);
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
        {by === null && (
          <TextField
            label="Your name"
            required
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        )}
        <TextArea
          label="For whoever plans the next"
          rows={5}
          maxLength={1000}
          value={note}
          hint="Written from the marks. Add what they do not say; leave out what is private."
          onChange={(event) => setNote(event.target.value)}
        />
        <Fault>{trouble}</Fault>
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
