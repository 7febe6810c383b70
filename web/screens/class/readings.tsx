import { listReadings, type ReadingView } from "#contract";
import { scoreReading } from "#core/reading";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Chart } from "#web/parts/chart.tsx";
import { shortDay } from "#web/parts/dates.ts";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";

/** The texts a child has read, the newest first: how fast and how exactly. */
export function Readings({ childId }: { childId: string }) {
  const { data, error } = useAsk(listReadings, { params: { id: childId } });
  const round = (value: number | null) => (value === null ? "–" : Math.round(value));
  return (
    <Panel title="Texts read" actions={<ButtonLink to={`/texts?for=child:${childId}`}>Choose a text</ButtonLink>}>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting rows={2} />}
      {data?.length === 0 && <p className="text-soft">No text was read yet.</p>}
      {data && data.length > 1 && <Over readings={data} />}
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
            </tr>
          </thead>
          <tbody>
            {data.slice(0, 12).map((reading) => {
              const score = scoreReading(reading);
              return (
                <tr key={reading.id} className="border-t border-line/60">
                  <th scope="row" className="font-normal">
                    {reading.title}
                  </th>
                  <td>{shortDay(reading.day)}</td>
                  <td className="text-right">{round(score.correctPerMinute)}</td>
                  <td className="text-right">{round(score.accuracy)}%</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </Panel>
  );
}

/** Rate and accuracy over time, oldest first; the same figures stand in the table below. */
function Over({ readings }: { readings: readonly ReadingView[] }) {
  const oldest = [...readings].reverse();
  const scores = oldest.map(scoreReading);
  const whole = (value: number | null) => (value === null ? null : Math.round(value));
  return (
    <Chart
      label={`Words correct per minute and accuracy of ${readings.length} readings; the figures are in the table.`}
      places={oldest.map((reading) => shortDay(reading.day))}
      lines={[
        { name: "Correct per minute", axis: "left", values: scores.map((score) => whole(score.correctPerMinute)) },
        { name: "Accuracy", axis: "right", values: scores.map((score) => whole(score.accuracy)) },
      ]}
    />
  );
}
