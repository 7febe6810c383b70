import { type FormEvent, useState } from "react";
import { endDevice, getSchool, letDeviceIn, listDevices, setLock } from "#contract";
import { nearDay, plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField, WholeField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Devices that several people use, for the lead: letting this one in, ending others, when they lock. */
export function SharedDevices() {
  const { data } = useAsk(listDevices, {});
  const [id] = useState(newId);
  const [name, setName] = useState("");
  const doing = async (work: () => Promise<unknown>, says: string) => {
    try {
      await work();
      await refreshAll();
      toast(says);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const letIn = (event: FormEvent) => {
    event.preventDefault();
    void doing(
      () => call(letDeviceIn, { body: { id, name } }),
      "This device is let in. Each person sets a code on it in My sign-in.",
    );
  };
  if (!data) return null;
  return (
    <Panel title="Shared devices">
      <p className="mb-2 text-sm text-soft">
        On a tablet that several people use, each comes in by a short code. A code is worth nothing on any other
        device.
      </p>
      <ul className="flex flex-col divide-y divide-line">
        {data.devices.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="flex-1">
              <span className="font-semibold">{one.name}</span>{" "}
              <span className="text-sm text-soft">
                {one.here && "this device, "}
                {plural(one.people, "code")},{" "}
                {one.usedAt ? `last used ${nearDay(dayOfInstant(one.usedAt), todayHere())}` : "not used yet"}
              </span>
            </span>
            <Button
              aria-label={`End ${one.name}`}
              onClick={() => doing(() => call(endDevice, { params: { id: one.id } }), `${one.name} is ended.`)}
            >
              End
            </Button>
          </li>
        ))}
      </ul>
      {!data.devices.some((one) => one.here) && (
        <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={letIn}>
          <TextField
            label="What this device is called"
            value={name}
            maxLength={60}
            required
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit">Let this device in</Button>
        </form>
      )}
      {data.devices.length > 0 && <LockForm key={data.lockMinutes} minutes={data.lockMinutes} />}
    </Panel>
  );
}

function LockForm({ minutes: before }: { minutes: number }) {
  const school = useAsk(getSchool, {});
  const [minutes, setMinutes] = useState(before);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (!school.data) return;
    try {
      const done = await saveOver({
        content: { lockMinutes: minutes },
        onto: school.data.version,
        send: (content, version) => call(setLock, { body: { ...content, version } }),
        says: (content) => ({ "Locks after": plural(content.lockMinutes, "minute") }),
      });
      await refreshAll();
      if (done) toast("Saved.");
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <form className="mt-3 flex flex-wrap items-end gap-3" onSubmit={save}>
      <WholeField
        label="Locks after minutes without a touch"
        least={1}
        most={240}
        value={minutes}
        onSet={setMinutes}
      />
      <Button type="submit" disabled={minutes === before || !school.data}>
        Save
      </Button>
    </form>
  );
}
