import { Link } from "react-router";
import { getSchool, listReadings, type ReadingView, type School } from "#contract";
import { aimOn, type ReadingScore, scoreReading, wholeAccuracy } from "#core/reading";
import { plural, shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { type Column, Table } from "#web/parts/table.tsx";

const SHOWN = 12;
const whole = (value: number | null) => (value === null ? null : Math.round(value));
const said = (value: number | null, unit = "") => (value === null ? "–" : `${Math.round(value)}${unit}`);

/** The texts a child has read, the newest first: how fast and how exactly. */
export function Readings({ childId, classId }: { childId: string; classId: string }) {
  const { data, error } = useAsk(listReadings, { params: { id: childId } });
  const school = useAsk(getSchool, {});
  const alone = data?.filter((one) => one.how === "alone") ?? [];
  return (
    <Panel title="Texts read" actions={<ButtonLink to={`/texts?for=child:${childId}`}>Choose a text</ButtonLink>}>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting rows={2} />}
      {data?.length === 0 && <p className="text-soft">No text was read yet.</p>}
      {alone.length > 1 && school.data && <Over readings={alone} school={school.data} classId={classId} />}
      {data && data.length > 0 && (
        <Table
          label="What was read"
          rows={data.slice(0, SHOWN).map(rowOf)}
          rowKey={({ reading }) => reading.id}
          columns={columns}
        />
      )}
      {data && data.length > SHOWN && (
        <p className="mt-1 text-sm text-soft">
          The newest {SHOWN} of {data.length}. The export of this child has them all.
        </p>
      )}
    </Panel>
  );
}

interface Row {
  readonly reading: ReadingView;
  readonly score: ReadingScore;
  readonly together: boolean;
}

function rowOf(reading: ReadingView): Row {
  return { reading, score: scoreReading(reading), together: reading.how === "together" };
}

const columns: readonly Column<Row>[] = [
  {
    title: "Text",
    names: true,
    sortBy: ({ reading }) => reading.title,
    show: ({ reading, together }) =>
      together ? (
        reading.title
      ) : (
        <Link
          to={`/texts/${reading.textId}/read?child=${reading.childId}&reading=${reading.id}`}
          className="inline-block py-1 underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          {reading.title}
        </Link>
      ),
  },
  {
    title: "Day",
    className: "whitespace-nowrap",
    sortBy: ({ reading }) => reading.day,
    show: ({ reading }) => shortDay(reading.day, todayHere()),
  },
  {
    title: "Correct per minute",
    figures: true,
    sortBy: ({ score }) => score.correctPerMinute,
    show: ({ score, together }) => (together ? "together" : said(score.correctPerMinute)),
  },
  {
    title: "Accuracy",
    figures: true,
    sortBy: ({ score }) => score.accuracy,
    show: ({ score, together }) => (together ? "" : said(wholeAccuracy(score.accuracy), "%")),
  },
  {
    title: "Text's fit",
    hint: "Share of the words that could be read then",
    figures: true,
    sortBy: ({ reading }) => reading.fit,
    show: ({ reading: { fit } }) => said(fit === null ? null : Math.floor(fit * 100), "%"),
  },
  {
    title: "Note",
    className: "max-w-64 truncate text-sm",
    show: ({ reading }) => <span title={reading.note}>{reading.note}</span>,
  },
];

/** Rate, accuracy and fit over time, oldest first; the same figures stand in the table below. */
function Over({ readings, school, classId }: { readings: readonly ReadingView[]; school: School; classId: string }) {
  const oldest = [...readings].reverse();
  const scores = oldest.map(scoreReading);
  const yearGroup = school.classes.find((one) => one.id === classId)?.yearGroup ?? "";
  const aims = oldest.map(({ day }) => aimOn(day, yearGroup, school.reading) ?? null);
  return (
    <Chart
      label={`Words correct per minute and accuracy of ${plural(readings.length, "reading")}; the figures are in the table.`}
      places={oldest.map((reading) => shortDay(reading.day, todayHere()))}
      notes={oldest.map(({ title, note }) => (note ? `${title}: ${note}` : title))}
      series={[
        {
          name: "Correct per minute",
          axis: "left",
          as: "line",
          values: scores.map((score) => whole(score.correctPerMinute)),
        },
        {
          name: "Accuracy",
          axis: "right",
          as: "dashes",
          values: scores.map((score) => wholeAccuracy(score.accuracy)),
        },
        ...(aims.some((aim) => aim !== null)
          ? [{ name: `Aim for ${yearGroup}`, axis: "left" as const, as: "dots" as const, values: aims }]
          : []),
        {
          name: "Text's fit",
          axis: "right",
          as: "marks",
          values: oldest.map(({ fit }) => (fit === null ? null : Math.floor(fit * 100))),
        },
      ]}
    />
  );
}
