import { addDays, lightFormat, parseISO } from "date-fns";
import { useState } from "react";
import { type SessionView, shareSession, unshareSession } from "#contract";
import { nearDay, shortDay } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Fault } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

const WEEK = 7;

/** Makes the link for a colleague, and switches it off. */
export function SharePanel({
  session,
  today,
  onClose,
}: {
  session: SessionView;
  today: string;
  onClose: () => void;
}) {
  const later = session.heldOn > today ? session.heldOn : today;
  const [endsOn, setEndsOn] = useState(lightFormat(addDays(parseISO(later), WEEK), "yyyy-MM-dd"));
  const [link, setLink] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const make = async () => {
    try {
      const { token } = await call(shareSession, { params: { id: session.id }, body: { endsOn } });
      setLink(`${location.origin}/shared/${token}`);
      setTrouble(null);
      await refreshAll();
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  const off = async () => {
    try {
      await call(unshareSession, { params: { id: session.id } });
      setLink(null);
      await refreshAll();
      toast("The link is switched off.");
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  const copy = async () => {
    if (!link) return;
    try {
      await navigator.clipboard.writeText(link);
      toast("The link is copied.");
    } catch {
      toast("Select the link and copy it by hand.");
    }
  };
  return (
    <Sheet open onClose={onClose} title="Share with a colleague">
      <div className="flex flex-col gap-3">
        <p>
          Whoever has the link sees this one card with first names and initials, can teach from it, and can say what
          happened. It leads nowhere else.
        </p>
        <TextField
          label="Works until"
          type="date"
          min={today}
          value={endsOn}
          onChange={(event) => setEndsOn(event.target.value)}
        />
        <Fault>{trouble}</Fault>
        {link && (
          <div className="flex items-end gap-2">
            <div className="flex-1">
              <TextField
                label="The link, shown this once"
                readOnly
                value={link}
                onFocus={(event) => event.target.select()}
              />
            </div>
            <Button onClick={copy}>Copy</Button>
          </div>
        )}
        {session.share && !link && (
          <p className="text-soft">
            A link is on until {shortDay(session.share.endsOn, todayHere())};{" "}
            {session.share.openedAt
              ? `it was opened last ${nearDay(dayOfInstant(session.share.openedAt), todayHere())}`
              : "no one has opened it yet"}
            . For safety it is not kept here; a new one replaces it.
          </p>
        )}
        <div className="flex flex-wrap justify-end gap-2">
          {session.share && <Button onClick={off}>Switch the link off</Button>}
          <Button shape="main" disabled={!endsOn} onClick={make}>
            {session.share ? "Make a new link" : "Make a link"}
          </Button>
        </div>
        {/^(?:.+\.)?localhost$|^127\./.test(location.hostname) && (
          <p className="text-sm text-soft">
            Keen Sapling answers on this machine only, so the link opens on this machine. Whoever runs it can let it
            answer on the school's network.
          </p>
        )}
      </div>
    </Sheet>
  );
}
