import { useEffect, useState } from "react";
import { nameSchool, setTimeZone } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { zoneOfBrowser } from "#web/device/clock.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Empty } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Until the school has said in which time zone it is, this device proposes its own. */
export function ZoneNote({ version }: { version: number }) {
  // To ask a browser for its zone the first time takes long: it does not hold up the page.
  const [zone, setZone] = useState("");
  useEffect(() => setZone(zoneOfBrowser()), []);
  const take = async () => {
    try {
      await call(setTimeZone, { body: { timeZone: zone, version } });
      await refreshAll();
      toast(`Days of marks go by ${zone}. Settings has it.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <section
      hidden={!zone}
      aria-label="Time zone"
      className="mb-4 flex flex-wrap items-center justify-between gap-2 rounded-md bg-leaf-pale px-4 py-2"
    >
      <p>
        This device is set to the time of <strong>{zone}</strong>. Is the school there too? A mark belongs to the day
        that it is at the school.
      </p>
      <span className="flex gap-2">
        <Button onClick={take}>Yes, it is</Button>
        <ButtonLink to="/settings">Choose another</ButtonLink>
      </span>
    </section>
  );
}

/** A school without a class: what comes first. */
export function FirstRun({ named, version }: { named: boolean; version: number }) {
  return (
    <>
      {!named && <NameSchool version={version} />}
      <Empty
        action={
          <ButtonLink to="/class" shape="main">
            Set up the first class
          </ButtonLink>
        }
      >
        This page shows what waits for you and the next step for each group. It begins with a class: its name, the
        teaching order it follows, and the children in it.
      </Empty>
    </>
  );
}

/** A school begins with its name, which stands on what is printed and shared. */
function NameSchool({ version }: { version: number }) {
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<string>();
  const save = async () => {
    if (name.trim() === "") return setProblem("Write the name of the school.");
    try {
      await call(nameSchool, { body: { name: name.trim(), version } });
      await refreshAll();
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <form
      className="mb-4 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div className="w-80 max-w-full">
        <TextField
          label="What is the school called?"
          maxLength={80}
          value={name}
          problem={problem}
          onChange={(event) => setName(event.target.value)}
        />
      </div>
      <Button type="submit">Save the name</Button>
    </form>
  );
}
