import { Link } from "react-router";
import { getSchool, listSessions } from "#contract";
import { useAsk } from "#web/app/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { nearDay } from "#web/parts/dates.ts";
import { Spelling } from "#web/parts/marks.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";

/** All sessions: to come first, then those that were held. */
export function Screen() {
  const { data, error } = useAsk(listSessions, { query: {} });
  const school = useAsk(getSchool, {});
  const today = school.data?.today ?? "";
  const planned = (data ?? []).filter((one) => one.state === "planned").reverse();
  const held = (data ?? []).filter((one) => one.state === "held");
  return (
    <Page
      place="Sessions"
      title="Sessions"
      about="Fifteen minutes for a group, on one card."
      actions={<ButtonLink to="/groups">Plan from a group</ButtonLink>}
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {data?.length === 0 && (
        <Empty
          action={
            <ButtonLink to="/groups" shape="main">
              Go to Groups
            </ButtonLink>
          }
        >
          A session is planned from a group: revisit, teach one spelling, read and write words with it, a sentence, a
          last look.
        </Empty>
      )}
      {planned.length > 0 && <List title="To come" rows={planned} today={today} />}
      {held.length > 0 && <List title="Held" rows={held} today={today} />}
    </Page>
  );
}

type Row = (typeof listSessions.answer)["_output"][number];

function List({ title, rows, today }: { title: string; rows: readonly Row[]; today: string }) {
  return (
    <section className="mb-6">
      <h2 className="mb-1">{title}</h2>
      <table className="w-full table-fixed border-collapse">
        <thead>
          <tr className="border-b border-line text-left text-sm text-soft">
            <th scope="col" className="w-40 py-1.5 font-semibold">
              Day
            </th>
            <th scope="col" className="font-semibold">
              Group
            </th>
            <th scope="col" className="font-semibold">
              Teaches
            </th>
            <th scope="col" className="font-semibold">
              Shared
            </th>
            <th scope="col" className="text-right font-semibold">
              Handed back
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id} className="h-9 border-b border-line/60 hover:bg-leaf-pale/40">
              <th scope="row" className="text-left font-normal">
                <Link
                  to={`/sessions/${row.id}`}
                  className="underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {nearDay(row.heldOn, today)}
                </Link>
              </th>
              <td>{row.groupName}</td>
              <td>
                <Spelling gpc={row.target} />
              </td>
              <td className="text-soft">{row.shared ? "link is on" : ""}</td>
              <td className="text-right">{row.reports || ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
