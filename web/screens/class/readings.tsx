import { Link } from "react-router";
import { getSchool, listReadings, type ReadingView, type School } from "#contract";
import { aimOn, scoreReading } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { shortDay } from "#web/parts/dates.ts";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";

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
        <table className="w-full border-collapse text-left">
          <thead>
            <tr className="text-sm text-soft">
              <th scope="col" className="font-semibold">
                Text
              </th>
              <th scope="col" className="font-semibold">
                Day
              </th>
              <th scope="col" className="text-right font-semibold">
                Correct per minute
              </th>
              <th scope="col" className="text-right font-semibold">
                Accuracy
              </th>
              <th scope="col" className="text-right font-semibold" title="Share of the words that could be read then">
                Text's fit
              </th>
              <th scope="col" className="pl-4 font-semibold">
                Note
              </th>
            </tr>
          </thead>
          <tbody>
            {data.slice(0, SHOWN).map((reading) => (
              <Row key={reading.id} reading={reading} />
            ))}
          </tbody>
        </table>
      )}
      {data && data.length > SHOWN && (
        <p className="mt-1 text-sm text-soft">
          The newest {SHOWN} of {data.length}. The export of this child has them all.
        </p>
      )}
    </Panel>
  );
}

function Row({ reading }: { reading: ReadingView }) {
  const score = scoreReading(reading);
  const together = reading.how === "together";
  return (
    <tr className="border-t border-line/60 align-baseline">
      <th scope="row" className="font-normal">
        {together ? (
          reading.title
        ) : (
          <Link
            to={`/texts/${reading.textId}/read?child=${reading.childId}&reading=${reading.id}`}
            className="inline-block py-1 underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {reading.title}
          </Link>
        )}
      </th>
      <td className="whitespace-nowrap">{shortDay(reading.day)}</td>
      {together ? (
        <td colSpan={2} className="text-right text-soft">
          together
        </td>
      ) : (
        <>
          <td className="text-right">{said(score.correctPerMinute)}</td>
          <td className="text-right">{said(score.accuracy, "%")}</td>
        </>
      )}
      <td className="text-right">{said(reading.fit === null ? null : Math.floor(reading.fit * 100), "%")}</td>
      <td className="max-w-64 truncate pl-4 text-sm" title={reading.note}>
        {reading.note}
      </td>
    </tr>
  );
}

/** Rate, accuracy and fit over time, oldest first; the same figures stand in the table below. */
function Over({ readings, school, classId }: { readings: readonly ReadingView[]; school: School; classId: string }) {
  const oldest = [...readings].reverse();
  const scores = oldest.map(scoreReading);
  const yearGroup = school.classes.find((one) => one.id === classId)?.yearGroup ?? "";
  const aims = oldest.map(({ day }) => aimOn(day, yearGroup, school.reading) ?? null);
  return (
    <Chart
      label={`Words correct per minute and accuracy of ${readings.length} readings; the figures are in the table.`}
      places={oldest.map((reading) => shortDay(reading.day))}
      notes={oldest.map(({ title, note }) => (note ? `${title}: ${note}` : title))}
      series={[
        {
          name: "Correct per minute",
          axis: "left",
          as: "line",
          values: scores.map((score) => whole(score.correctPerMinute)),
        },
        { name: "Accuracy", axis: "right", as: "dashes", values: scores.map((score) => whole(score.accuracy)) },
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
