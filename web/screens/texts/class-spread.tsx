import { useState } from "react";
import { Link } from "react-router";
import { getSchool, type ReadingFigures, readingFigures } from "#contract";
import { aimOn, hardness } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { Button } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { nearDay } from "#web/parts/dates.ts";
import { download } from "#web/parts/download.ts";
import { Table } from "#web/parts/table.tsx";
import { readingsCsv } from "./readings-csv.ts";

const said = (value: number | null, unit = "") => (value === null ? "–" : `${Math.round(value)}${unit}`);

/** How the newest reading of each child of a class or a group went, the slowest first, against the aim. */
export function ClassSpread({ forKey }: { forKey: string }) {
  const [open, setOpen] = useState(false);
  const [kind, id = ""] = forKey.split(":");
  const figures = useAsk(readingFigures, { query: kind === "class" ? { classId: id } : { groupId: id } });
  const school = useAsk(getSchool, {});
  if (!figures.data || !school.data) return null;
  const all = figures.data;
  const newest = new Map<string, ReadingFigures>();
  for (const one of figures.data)
    if (one.correctPerMinute !== null && !newest.has(one.childId)) newest.set(one.childId, one);
  const rows = [...newest.values()].sort((one, other) => (one.correctPerMinute ?? 0) - (other.correctPerMinute ?? 0));
  if (rows.length < 2) return null;
  const { today, classes, reading } = school.data;
  const yearGroup = classes.find((one) => one.id === id)?.yearGroup ?? "";
  const aim = aimOn(today, yearGroup, reading);
  const below = aim === undefined ? 0 : rows.filter((one) => (one.correctPerMinute ?? 0) < aim).length;
  return (
    <details
      className="rounded-lg border border-line bg-sheet px-4 py-2.5"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer">
        <span className="font-semibold">The newest reading of each child</span>{" "}
        <span className="text-sm text-soft">
          {aim === undefined
            ? `${rows.length} children, ${said(rows[0]?.correctPerMinute ?? null)} to ${said(rows.at(-1)?.correctPerMinute ?? null)} words correct per minute`
            : `${below} of ${rows.length} are below the school's aim for ${yearGroup} at this time of year`}
        </span>
      </summary>
      {open && (
        <Chart
          label={`Words correct per minute of ${rows.length} children, the slowest first; the figures are in the table.`}
          places={rows.map((one) => one.name)}
          notes={rows.map((one) => `${one.title}, ${nearDay(one.day, today)}`)}
          series={[
            {
              name: "Correct per minute",
              axis: "left",
              as: "bar",
              values: rows.map((one) => Math.round(one.correctPerMinute ?? 0)),
            },
          ]}
          aim={aim === undefined ? undefined : { name: `aim now: ${aim}`, value: aim }}
        />
      )}
      <p className="mt-1 flex flex-wrap items-center justify-between gap-2 text-sm text-soft">
        <span>
          Texts differ: look at accuracy and fit before speed. Aims stand in{" "}
          <Link to="/settings" className="underline">
            Settings
          </Link>
          .
        </span>
        <Button onClick={() => download("readings.csv", "text/csv", readingsCsv(all))}>
          All {all.length} readings as CSV
        </Button>
      </p>
      <section tabIndex={0} aria-label="The figures" className="mt-2 max-h-72 overflow-y-auto">
        <Table
          className=""
          rows={rows}
          rowKey={(one) => one.id}
          columns={[
            {
              title: "Child",
              names: true,
              show: (one) => (
                <Link
                  to={`/child/${one.childId}`}
                  className="inline-block py-1 underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {one.name}
                </Link>
              ),
            },
            { title: "Correct per minute", figures: true, show: (one) => said(one.correctPerMinute) },
            { title: "Accuracy", figures: true, show: (one) => said(one.accuracy, "%") },
            {
              title: "Text's fit",
              figures: true,
              show: (one) => said(one.fit === null ? null : Math.floor(one.fit * 100), "%"),
            },
            {
              title: "Text",
              show: (one) => (
                <>
                  {one.title}
                  <span className="text-sm text-soft">
                    , {nearDay(one.day, today)}
                    {hardness(one.accuracy, reading) === "too hard" ? ", was too hard" : ""}
                  </span>
                </>
              ),
            },
          ]}
        />
      </section>
    </details>
  );
}
