import { useSearchParams } from "react-router";
import { type AnswerOf, type Did, deeds, listPeople, readTrail } from "#contract";
import { plural, shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";

/** Who saw and did what, for the lead. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const people = useAsk(listPeople, {});
  const said = Object.fromEntries([...search].filter(([, value]) => value !== ""));
  const { data, error } = useAsk(readTrail, { query: said });
  const set = (key: string, value: string) =>
    setSearch({ ...said, [key]: value }, { replace: true, preventScrollReset: true });
  return (
    <Page
      place="Who saw and did what"
      title="Who saw and did what"
      about="No one can change it, and what could not be written here was not done. Pages of children, exports, changes of people and settings, links and sign-ins."
    >
      <Panel>
        <div className="mb-3 flex flex-wrap items-end gap-3">
          <Choice
            label="Person"
            value={said.memberId ?? ""}
            onChange={(event) => set("memberId", event.target.value)}
          >
            <option value="">everyone</option>
            {people.data?.people.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Choice>
          <Choice label="What" value={said.did ?? ""} onChange={(event) => set("did", event.target.value)}>
            <option value="">anything</option>
            {(Object.keys(deeds) as Did[]).map((did) => (
              <option key={did} value={did}>
                {deeds[did]}
              </option>
            ))}
          </Choice>
          <TextField
            label="From"
            type="date"
            value={said.from ?? ""}
            onChange={(event) => set("from", event.target.value)}
          />
          <TextField
            label="To"
            type="date"
            value={said.to ?? ""}
            onChange={(event) => set("to", event.target.value)}
          />
          {Object.keys(said).length > 0 && (
            <Button onClick={() => setSearch({}, { replace: true })}>Show everything</Button>
          )}
        </div>
        {error && !data && <Trouble error={error} />}
        {!data && !error && <Waiting />}
        {data && data.rows.length === 0 && <p>Nothing of the kind was done.</p>}
        {data && data.rows.length > 0 && (
          <Table
            label="Who saw and did what, the newest first"
            rows={data.rows}
            rowKey={(row) => row.id}
            columns={[
              {
                title: "When",
                show: (row) =>
                  `${shortDay(dayOfInstant(row.at), todayHere())}, ${new Date(row.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}`,
              },
              { title: "Who", names: true, show: (row) => row.by },
              { title: "What", show: (row) => deeds[row.did] },
              { title: "About", show: (row) => <About row={row} onChoose={(id) => set("about", id)} /> },
            ]}
          />
        )}
        {data?.more && <p className="mt-2 text-soft">There is more. Narrow it by person, kind or days.</p>}
      </Panel>
    </Page>
  );
}

type Row = AnswerOf<typeof readTrail>["rows"][number];

function About({ row, onChoose }: { row: Row; onChoose: (id: string) => void }) {
  if (row.name)
    return (
      <button type="button" className="underline underline-offset-4" onClick={() => onChoose(row.about)}>
        {row.name}
      </button>
    );
  if (row.count > 1) return plural(row.count, "child", "children");
  return row.about ? "one that has no name here (any more)" : "";
}
