import { useState } from "react";
import { useNavigate } from "react-router";
import { editSession, getSession, listSessions } from "#contract";
import { shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice } from "#web/parts/field.tsx";
import { Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** What a part of a plan holds at most. */
const MOST_ITEMS = 40;

const parts = {
  readWords: "Read words",
  writeWords: "Write words",
  sentence: "Write a sentence",
} as const;
type Part = keyof typeof parts;

/** Adds a list to a part of a planned session; what stands there already stays. */
export function IntoSession({
  words,
  kind,
  onClose,
}: {
  words: readonly string[];
  kind?: Part;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const { data, error } = useAsk(listSessions, {});
  const [id, setId] = useState("");
  const [part, setPart] = useState<Part>(kind ?? "readWords");
  const planned = (data ?? []).filter((session) => session.state === "planned");
  const chosen = id || planned[0]?.id || "";
  const put = async () => {
    try {
      const session = await call(getSession, { params: { id: chosen } });
      const plan = {
        ...session.plan,
        parts: session.plan.parts.map((one) =>
          one.kind === part ? { ...one, items: [...new Set([...one.items, ...words])].slice(0, MOST_ITEMS) } : one,
        ),
      };
      await call(editSession, { params: { id: chosen }, body: { version: session.version, plan } });
      await refreshAll();
      toast("The words are in the session.");
      navigate(`/sessions/${chosen}`);
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Sheet open onClose={onClose} title="Put into a session">
      {error && !data ? (
        <Trouble error={error} />
      ) : !data ? (
        <Waiting rows={3} />
      ) : planned.length === 0 ? (
        <p>No session is planned. Plan one from a group first; this list stays here meanwhile.</p>
      ) : (
        <div className="flex flex-col gap-4">
          <Choice label="Session" value={chosen} onChange={(event) => setId(event.target.value)}>
            {planned.map((session) => (
              <option key={session.id} value={session.id}>
                {session.groupName}, {shortDay(session.heldOn, todayHere())}
              </option>
            ))}
          </Choice>
          {!kind && (
            <Choice label="Part" value={part} onChange={(event) => setPart(event.target.value as Part)}>
              <option value="readWords">{parts.readWords}</option>
              <option value="writeWords">{parts.writeWords}</option>
            </Choice>
          )}
          <p className="text-sm text-soft">They are added behind what is there; at most {MOST_ITEMS} fit.</p>
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Leave it</Button>
            <Button shape="main" onClick={() => void put()}>
              Add to the session
            </Button>
          </div>
        </div>
      )}
    </Sheet>
  );
}
