import { useState } from "react";
import { listPasskeys, removePasskey } from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { knowsPasskeys, makePasskey } from "#web/device/passkeys.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { Asking } from "./asking.tsx";

const dayOf = (instant: string) => nearDay(dayOfInstant(instant), todayHere());

/** Passkeys: what a device holds, and shows when its owner unlocks it. */
export function Passkeys() {
  const { data, error } = useAsk(listPasskeys, {});
  const [name, setName] = useState("");
  const [passphrase, setPassphrase] = useState("");
  const remove = async (id: string) => {
    try {
      await call(removePasskey, { params: { id } });
      await refreshAll();
      toast("Taken away. It opens nothing any more.");
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };
  return (
    <Panel title="Passkeys" className="lg:col-span-2">
      <p className="mb-3">
        A device of your own lets you in when you unlock it, by finger, face or its code: nothing is typed that
        someone could read over your shoulder. Your passphrase works as well.
      </p>
      {error && !data && <p>{wordsOfError(error)}</p>}
      <ul className="mb-3 flex flex-col divide-y divide-line empty:hidden">
        {data?.map((one) => (
          <li key={one.id} className="flex items-center gap-3 py-2">
            <span className="flex-1">
              {one.name}{" "}
              <span className="text-sm text-soft">
                made {dayOf(one.madeAt)}, {one.usedAt ? `last used ${dayOf(one.usedAt)}` : "not used yet"}
              </span>
            </span>
            <Button aria-label={`Take the passkey ${one.name} away`} onClick={() => void remove(one.id)}>
              Take away
            </Button>
          </li>
        ))}
      </ul>
      {knowsPasskeys() ? (
        <Asking
          action="Make one on this device"
          send={async () => {
            await makePasskey(name, passphrase);
            setName("");
            setPassphrase("");
            return "Made. On this device you come in by it from now on.";
          }}
        >
          {(problems) => (
            <div className="grid gap-3 sm:grid-cols-2">
              <TextField
                label="What to call it"
                hint="For example: my phone."
                required
                maxLength={60}
                value={name}
                problem={problems.name}
                onChange={(event) => setName(event.target.value)}
              />
              <TextField
                label="Your passphrase"
                type="password"
                autoComplete="current-password"
                required
                value={passphrase}
                problem={problems.passphrase}
                onChange={(event) => setPassphrase(event.target.value)}
              />
            </div>
          )}
        </Asking>
      ) : (
        <p className="text-soft">This browser makes none, or Keen Sapling is not open under a name here.</p>
      )}
    </Panel>
  );
}
