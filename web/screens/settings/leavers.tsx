import { useState } from "react";
import { eraseLeavers, listLeavers, MOST_ERASED, type School, setKeeping } from "#contract";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { forgetAnswers } from "#web/device/pages.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { WholeField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Panel, Trouble } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Children who left: when each is to be erased by the school's rule, and the erasing of those who are due. */
export function LeaversPanel({ school }: { school: School }) {
  const { data, error } = useAsk(listLeavers, {});
  const [erasing, setErasing] = useState(false);
  const due = data?.leavers.filter((one) => one.due) ?? [];
  const waiting = data?.leavers.filter((one) => !one.due) ?? [];
  return (
    <Panel title="Children who left">
      <p className="mb-3 text-sm text-soft">
        Who leaves is archived, and stays here until someone erases it. Say how long your school keeps records and
        backups; nothing is erased by itself.
      </p>
      <KeepingForm key={Object.values(school.keeping).join(" ")} school={school} />
      {error && !data && <Trouble error={error} />}
      {data?.inBackupsUntil && (
        <p className="mb-2">
          Backups from before the last erasing still hold who was erased, until{" "}
          <strong>{shortDay(data.inBackupsUntil, school.today)}</strong> as your school keeps them. See that they go
          by then.
        </p>
      )}
      {data && data.leavers.length === 0 && <p>No child has left.</p>}
      {due.length > 0 && (
        <>
          <h3 className="font-semibold">Due to be erased</h3>
          <Names of={due} today={school.today} />
          <Button shape="warn" onClick={() => setErasing(true)}>
            Erase {plural(Math.min(due.length, MOST_ERASED), "child", "children")} …
          </Button>
        </>
      )}
      {waiting.length > 0 && (
        <details className="mt-3">
          <summary className="cursor-pointer">
            {plural(waiting.length, "child", "children")} who left, not due yet
          </summary>
          <Names of={waiting} today={school.today} />
        </details>
      )}
      {erasing && (
        <EraseSheet
          ids={due.slice(0, MOST_ERASED).map((one) => one.id)}
          weeks={school.keeping.backupWeeks}
          onClose={() => setErasing(false)}
        />
      )}
    </Panel>
  );
}

interface Leaver {
  readonly id: string;
  readonly name: string;
  readonly className: string;
  readonly leftOn: string;
  readonly dueOn: string;
}

function Names({ of, today }: { of: readonly Leaver[]; today: string }) {
  return (
    <ul className="my-2 flex max-h-72 flex-col gap-1 overflow-y-auto">
      {of.map((one) => (
        <li key={one.id}>
          {one.name} <span className="text-soft">of {one.className}</span>, left {shortDay(one.leftOn, today)},{" "}
          {one.dueOn <= today ? "due since" : "due"} {shortDay(one.dueOn, today)}
        </li>
      ))}
    </ul>
  );
}

function KeepingForm({ school }: { school: School }) {
  const [months, setMonths] = useState(school.keeping.leaversMonths);
  const [weeks, setWeeks] = useState(school.keeping.backupWeeks);
  const [trail, setTrail] = useState(school.keeping.trailMonths);
  const [problem, setProblem] = useState<string>();
  const wanted = { leaversMonths: months, backupWeeks: weeks, trailMonths: trail };
  const changed = Object.entries(wanted).some(([key, value]) => value !== school.keeping[key as keyof typeof wanted]);
  const saved = useUnsaved(changed);
  const save = async () => {
    setProblem(undefined);
    try {
      const done = await saveOver({
        content: wanted,
        onto: school.version,
        send: (content, version) => call(setKeeping, { body: { ...content, version } }),
        says: (content) => ({
          "Months for children who left": String(content.leaversMonths),
          "Weeks for backups": String(content.backupWeeks),
          "Months for who saw and did what": String(content.trailMonths),
        }),
      });
      saved();
      await refreshAll();
      if (done) toast("Saved.");
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <form
      className="mb-3 flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <WholeField label="Months after leaving" least={1} most={120} value={months} onSet={setMonths} />
      <WholeField label="Weeks a backup is kept" least={1} most={520} value={weeks} onSet={setWeeks} />
      <WholeField label="Months of who saw and did what" least={1} most={120} value={trail} onSet={setTrail} />
      <Button type="submit" disabled={!changed}>
        Save
      </Button>
      <Fault className="w-full">{problem}</Fault>
    </form>
  );
}

function EraseSheet({ ids, weeks, onClose }: { ids: readonly string[]; weeks: number; onClose: () => void }) {
  const [sure, setSure] = useState(false);
  const [busy, setBusy] = useState(false);
  const erase = async () => {
    setBusy(true);
    try {
      const { erased } = await call(eraseLeavers, { body: { ids: [...ids] } });
      await forgetAnswers();
      await refreshAll();
      toast(`${plural(erased, "child is", "children are")} erased. Nothing about them is left here.`);
      onClose();
    } catch (error) {
      toast.error(wordsOfError(error));
      setBusy(false);
    }
  };
  return (
    <Sheet open onClose={onClose} title={`Erase ${plural(ids.length, "child", "children")} who left`}>
      <p className="mb-2">
        Everything about them goes for good: checks, answers, readings, places in groups and sessions. It cannot be
        taken back.
      </p>
      <p className="mb-3">
        Backups that were made before still hold them. Your school keeps a backup for {plural(weeks, "week")}; see
        that older ones are deleted.
      </p>
      <label className="mb-4 flex items-center gap-2">
        <input type="checkbox" checked={sure} onChange={(event) => setSure(event.target.checked)} />
        Yes, erase everything about {ids.length === 1 ? "this child" : "these children"}
      </label>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button shape="warn" disabled={!sure || busy} onClick={erase}>
          Erase
        </Button>
      </div>
    </Sheet>
  );
}
