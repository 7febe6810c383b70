import { useState } from "react";
import { Link } from "react-router";
import { getSchool, type ReadingFigures, readingFigures } from "#contract";
import { aimOn, hardness, wholeAccuracy } from "#core/reading";
import { nearDay, plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { downloadCsv } from "#web/parts/download-csv.ts";
import { Table } from "#web/parts/table.tsx";
import { readingsRows } from "./readings-csv.ts";

const said = (value: number | null, unit = "") => (value === null ? "–" : `${Math.round(value)}${unit}`);

/** How the newest reading of each child of a class or a group went, by name, against the aim. */
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
  const rows = [...newest.values()].sort((one, other) => one.name.localeCompare(other.name));
  const rates = rows.map((one) => one.correctPerMinute ?? 0);
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
            ? `${plural(rows.length, "child", "children")}, ${said(Math.min(...rates))} to ${said(Math.max(...rates))} words correct per minute`
            : `${below} of ${rows.length} are below the school's aim for ${yearGroup} at this time of year`}
        </span>
      </summary>
      {open && (
        <Chart
          label={`Words correct per minute of ${plural(rows.length, "child", "children")} by name; the figures are in the table.`}
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
        <Button onClick={() => downloadCsv("readings.csv", readingsRows(all))}>
          All readings as CSV ({all.length})
        </Button>
      </p>
      <Table
        label="The figures"
        height="mt-2 max-h-72"
        className=""
        rows={rows}
        rowKey={(one) => one.id}
        columns={[
          {
            title: "Child",
            names: true,
            sortBy: (one) => one.name,
            show: (one) => (
              <Link
                to={`/child/${one.childId}`}
                className="inline-block py-1 underline decoration-line underline-offset-4 hover:decoration-ink"
              >
                {one.name}
              </Link>
            ),
          },
          {
            title: "Correct per minute",
            figures: true,
            sortBy: (one) => one.correctPerMinute,
            show: (one) => said(one.correctPerMinute),
          },
          {
            title: "Accuracy",
            figures: true,
            sortBy: (one) => one.accuracy,
            show: (one) => said(wholeAccuracy(one.accuracy), "%"),
          },
          {
            title: "Text's fit",
            figures: true,
            sortBy: (one) => one.fit,
            show: (one) => said(one.fit === null ? null : Math.floor(one.fit * 100), "%"),
          },
          {
            title: "Text",
            sortBy: (one) => one.title,
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
    </details>
  );
}
