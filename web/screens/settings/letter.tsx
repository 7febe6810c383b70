import { useId, useState } from "react";
import { listOutbox, mailInvitation, type PersonView, removeLetter } from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Sends a link to whoever it is for, by e-mail. */
export function SendLink({ of, token }: { of: PersonView; token: string }) {
  const [to, setTo] = useState("");
  const [id, setId] = useState(newId);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const [done, setDone] = useState("");
  const says = useId();
  const here = /(^|\.)localhost$|^127\./.test(location.hostname);
  const send = async () => {
    setBusy(true);
    setTrouble(undefined);
    try {
      const { by } = await call(mailInvitation, { params: { id: of.id }, body: { id, token, to: to.trim() } });
      setDone(
        by === "mail"
          ? `Sent to ${to.trim()}.`
          : "No mail server is set up here: the letter lies in the outbox below, to be handed over.",
      );
      setId(newId());
      await refreshAll();
    } catch (error) {
      setTrouble(wordsOfError(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <div className="flex items-end gap-2">
        <div className="flex-1">
          <TextField
            label="Or send it by e-mail to"
            type="email"
            autoComplete="off"
            maxLength={200}
            value={to}
            aria-describedby={says}
            onChange={(event) => setTo(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={busy || to.trim() === ""}>
          Send
        </Button>
      </div>
      <p id={says} role="status" className="text-sm text-soft">
        {done ||
          (here
            ? "This server answers on this machine only, and so does the link: a letter with it is of use here alone."
            : "The address is used for this letter alone, and not kept.")}
      </p>
      <Fault>{trouble}</Fault>
    </form>
  );
}

/** Letters that no mail server sends: to be handed over from a mail program, or by copying. */
export function Outbox() {
  const { data } = useAsk(listOutbox, {});
  const today = todayHere();
  if (!data || data.length === 0) return null;
  const takeOut = async (id: string) => {
    try {
      await call(removeLetter, { params: { id } });
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <Panel title="Outbox">
      <p className="mb-2 text-sm text-soft">
        No mail server is set up here. These letters wait to be sent by hand, until their links are used or end.
      </p>
      <ul className="flex flex-col divide-y divide-line" aria-label="Outbox">
        {data.map(({ id, to, name, subject, text, madeAt }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2.5">
            <p className="min-w-0 flex-1 basis-64">
              {name} <span className="text-soft">{to}</span>{" "}
              <span className="text-sm text-soft">written {nearDay(dayOfInstant(madeAt), today)}</span>
            </p>
            <div className="flex flex-wrap gap-1.5">
              <ButtonLink
                aria-label={`Open the letter to ${name} in a mail program`}
                to={`mailto:${encodeURIComponent(to)}?${new URLSearchParams({ subject, body: text }).toString().replaceAll("+", "%20")}`}
              >
                Open in mail
              </ButtonLink>
              <Button
                aria-label={`Copy the letter to ${name}`}
                onClick={async () => {
                  await navigator.clipboard.writeText(text);
                  toast("Copied.");
                }}
              >
                Copy
              </Button>
              <Button shape="quiet" aria-label={`Take the letter to ${name} out`} onClick={() => takeOut(id)}>
                Take out
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
