import { useState } from "react";
import { nameSchool, type School, setTimeZone } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { rememberZone, zoneOfBrowser } from "#web/device/clock.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextField, ZoneField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** The school's name, and the time zone by which its days are reckoned. */
export function SchoolPanel({ school }: { school: School }) {
  const proposed = school.zoneChosen ? school.timeZone : zoneOfBrowser();
  const [name, setName] = useState(school.name);
  const [zone, setZone] = useState(proposed);
  const [problem, setProblem] = useState<string>();
  const changed = name.trim() !== school.name || zone.trim() !== school.timeZone || !school.zoneChosen;
  useUnsaved(name.trim() !== school.name);
  const save = async () => {
    setProblem(undefined);
    try {
      let { version } = school;
      if (name.trim() !== "" && name.trim() !== school.name) {
        const saved = await saveOver({
          content: { name: name.trim() },
          onto: version,
          send: (content, onto) => call(nameSchool, { body: { ...content, version: onto } }),
          says: (content) => ({ Name: content.name }),
        });
        version = saved?.version ?? version;
      }
      await saveOver({
        content: { timeZone: zone.trim() },
        onto: version,
        send: (content, onto) => call(setTimeZone, { body: { ...content, version: onto } }),
        says: (content) => ({ "Time zone": content.timeZone }),
      });
      rememberZone(zone.trim());
      await refreshAll();
      toast("Saved. Marks from now on take their day by it; days that are stored stay as they are.");
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  return (
    <Panel title="The school">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <TextField
          label="Name"
          value={name}
          maxLength={80}
          placeholder="Your school"
          onChange={(event) => setName(event.target.value)}
        />
        <ZoneField
          value={zone}
          onSet={setZone}
          problem={problem}
          hint={
            school.zoneChosen
              ? "A mark belongs to the day that it is at the school, whatever a device's clock says."
              : `Proposed by this device. Until you save it, days go by ${school.timeZone}, as the server is set.`
          }
        />
        <div className="flex flex-wrap justify-between gap-2">
          <ButtonLink to="/settings/year">New school year …</ButtonLink>
          <Button type="submit" shape="main" disabled={!changed}>
            Save
          </Button>
        </div>
      </form>
    </Panel>
  );
}
