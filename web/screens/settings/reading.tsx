import { X } from "lucide-react";
import { useState } from "react";
import { type ReadingSettingsBody, readingSettings, type School, setReadingSettings } from "#contract";
import { aimOn } from "#core/reading";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

const months = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];
const times = ["start", "middle", "end"] as const;

/** What readings are measured against: limits, the wait before a word is told, and the school's own aims for rate. */
export function ReadingAims({ school }: { school: School }) {
  const [form, setForm] = useState<ReadingSettingsBody>(school.reading);
  const [problem, setProblem] = useState<string>();
  const changed = JSON.stringify(form) !== JSON.stringify(school.reading);
  useUnsaved(changed);
  const put = (change: Partial<ReadingSettingsBody>) => {
    setProblem(undefined);
    setForm({ ...form, ...change });
  };
  const putAim = (at: number, change: Partial<ReadingSettingsBody["aims"][number]>) =>
    put({ aims: form.aims.map((one, i) => (i === at ? { ...one, ...change } : one)) });
  const save = async () => {
    const read = readingSettings.safeParse(form);
    if (!read.success) return setProblem(read.error.issues[0]?.message ?? "Something is missing.");
    try {
      const saved = await saveOver({
        content: { reading: read.data },
        onto: school.version,
        send: (content, version) => call(setReadingSettings, { body: { ...content, version } }),
        says: ({ reading: one }) => ({
          "Right for teaching": `${one.teaching}%`,
          Easy: `${one.easy}%`,
          "Wait before a word is told": `${one.wait} seconds`,
          "The year begins in": String(one.yearBegins),
          Aims: one.aims
            .map(({ yearGroup, start, middle, end }) => `${yearGroup}: ${start}, ${middle}, ${end}`)
            .join("\n"),
        }),
      });
      await refreshAll();
      if (!saved) return setForm(school.reading);
      toast("Saved. All readings follow it, also those of before.");
    } catch (error) {
      setProblem(wordsOfError(error));
    }
  };
  const missing = school.classes
    .filter((one) => !one.archived && one.yearGroup.trim() && aimOn(school.today, one.yearGroup, form) === undefined)
    .map((one) => one.yearGroup);
  return (
    <Panel
      title="Reading texts"
      actions={
        <Button shape="main" disabled={!changed} onClick={save}>
          Save
        </Button>
      }
    >
      <div className="flex flex-col gap-5">
        <section className="flex flex-wrap gap-4">
          <Figure
            label="Right for teaching from, %"
            value={form.teaching}
            onChange={(teaching) => put({ teaching })}
          />
          <Figure label="Easy from, %" value={form.easy} onChange={(easy) => put({ easy })} />
          <Figure label="Wait before telling, seconds" value={form.wait} onChange={(wait) => put({ wait })} />
        </section>
        <section>
          <h3 className="font-semibold">Aims for rate, in words correct per minute</h3>
          <p className="mb-2 text-sm text-soft">
            Aims differ from place to place. Those that ship are round figures to begin from, without a study behind
            them: put your school's own here. Between the three times an aim rises evenly.
          </p>
          <div className="mb-3 w-56">
            <Choice
              label="The school year begins in"
              value={form.yearBegins}
              onChange={(event) => put({ yearBegins: Number(event.target.value) })}
            >
              {months.map((month, at) => (
                <option key={month} value={at + 1}>
                  {month}
                </option>
              ))}
            </Choice>
          </div>
          <table className="border-collapse text-left">
            <thead>
              <tr className="text-sm text-soft">
                <th scope="col" className="pr-3 font-semibold">
                  Year group
                </th>
                {times.map((time) => (
                  <th key={time} scope="col" className="pr-3 font-semibold">
                    {time}
                  </th>
                ))}
                <th scope="col" className="pr-3 font-semibold">
                  now
                </th>
                <th scope="col">
                  <span className="sr-only">Take out</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {form.aims.map((aim, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the table
                <tr key={at}>
                  <td className="w-36 py-1 pr-3">
                    <TextField
                      bare
                      label={`Year group ${at + 1}`}
                      maxLength={30}
                      value={aim.yearGroup}
                      onChange={(event) => putAim(at, { yearGroup: event.target.value })}
                    />
                  </td>
                  {times.map((time) => (
                    <td key={time} className="w-20 py-1 pr-3">
                      <TextField
                        bare
                        label={`${aim.yearGroup}, ${time}`}
                        type="number"
                        min={0}
                        max={400}
                        value={aim[time]}
                        onChange={(event) => putAim(at, { [time]: Number(event.target.value) })}
                      />
                    </td>
                  ))}
                  <td className="py-1 pr-3 text-right">{aimOn(school.today, aim.yearGroup, form) ?? ""}</td>
                  <td>
                    <Button
                      shape="quiet"
                      aria-label={`Take ${aim.yearGroup} out`}
                      onClick={() => put({ aims: form.aims.filter((_, i) => i !== at) })}
                    >
                      <X size={16} aria-hidden />
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button
            className="mt-2"
            disabled={form.aims.length >= 20}
            onClick={() =>
              put({ aims: [...form.aims, { yearGroup: missing[0] ?? "", start: 0, middle: 0, end: 0 }] })
            }
          >
            Add a year group
          </Button>
          {missing.length > 0 && (
            <p className="mt-2 text-sm text-soft">No aim yet for: {[...new Set(missing)].join(", ")}.</p>
          )}
        </section>
        <Fault>{problem}</Fault>
      </div>
    </Panel>
  );
}

function Figure({ label, value, onChange }: { label: string; value: number; onChange: (value: number) => void }) {
  return (
    <div className="w-52">
      <TextField
        label={label}
        type="number"
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      />
    </div>
  );
}
