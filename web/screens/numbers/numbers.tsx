import { getNumbers, type Numbers } from "#contract";
import { shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";

type Row = Numbers["rows"][number];

/** A count of children as it is told: in fives, and nothing under five. */
const told = (count: number | null) => (count === null ? "fewer than 5" : `about ${count}`);

interface Column {
  readonly name: string;
  readonly about?: (since: string) => string;
  readonly show: (row: Row) => string;
}

const columns: readonly Column[] = [
  { name: "Children", show: ({ children }) => told(children) },
  { name: "Checked", about: (since) => `since ${since}`, show: ({ checked }) => told(checked) },
  { name: "In a group", about: () => "now", show: ({ inGroup }) => told(inGroup) },
  {
    name: "Half or more secure",
    about: () => "of what they were taught",
    show: ({ mostSecure }) => told(mostSecure),
  },
  { name: "Five gaps or more", about: () => "in what they were taught", show: ({ manyGaps }) => told(manyGaps) },
  {
    name: "Sessions held",
    about: (since) => `since ${since}, for their groups`,
    show: ({ sessions }) => String(sessions),
  },
];

/** The school in numbers without names. */
export function Screen() {
  const { data, error } = useAsk(getNumbers, {});
  return (
    <Page
      place="Numbers"
      title="Numbers"
      about="The school and its classes without names. Children are counted in fives, so that no number tells of a few."
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {data && <Table data={data} />}
    </Page>
  );
}

function Table({ data: { rows, today, since } }: { data: Numbers }) {
  return (
    <Panel title="Today">
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-line align-bottom text-sm text-soft">
              <th scope="col" className="py-1.5 pr-4 font-semibold">
                Class
              </th>
              {columns.map(({ name, about }) => (
                <th key={name} scope="col" className="py-1.5 pr-4 font-semibold">
                  {name}
                  {about && <span className="block font-normal">{about(shortDay(since, today))}</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.className ?? ""} className="border-b border-line last:border-b-0">
                <th scope="row" className={`py-2 pr-4 ${row.className === null ? "font-semibold" : "font-normal"}`}>
                  {row.className ?? "The whole school"}
                </th>
                {columns.map(({ name, show }) => (
                  <td key={name} className="py-2 pr-4 tabular-nums">
                    {show(row)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3 text-sm text-soft">
        Numbers of children are to the nearest five, and nothing is told of fewer than five. A class of fewer than
        five is counted with the school alone.
      </p>
    </Panel>
  );
}
