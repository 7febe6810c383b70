import { Link } from "react-router";
import { getOverview, type Overview } from "#contract";
import { nearDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";

const HOUR = 60;

/** Of what was taught and is read today, so much for each hour of sessions; one figure behind the point. */
function anHour({ read, minutes }: Overview["groups"][number]): number | null {
  return minutes > 0 ? Math.round((10 * read * HOUR) / minutes) / 10 : null;
}

/** The groups of the whole school in counts, for the lead: who is in one, what was held and missed, what came of it. */
export function Screen() {
  const { data, error } = useAsk(getOverview, {});
  return (
    <Page
      printsTitle
      place="Whole school"
      title="Groups of the whole school"
      about={
        data &&
        `Since ${nearDay(data.from, todayHere())}. Counts alone: no child is named, and the order is that of the groups.`
      }
      actions={<ButtonLink to="/groups">Back to the groups</ButtonLink>}
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting rows={8} />}
      {data && (
        <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[3fr_1fr]">
          {data.groups.length === 0 ? (
            <Empty
              action={
                <ButtonLink to="/groups/new" shape="main">
                  Make groups
                </ButtonLink>
              }
            >
              No group runs in this school yet.
            </Empty>
          ) : (
            <Table
              label="Groups of the school"
              room="sheet"
              rows={data.groups}
              rowKey={(group) => group.id}
              columns={[
                {
                  title: "Group",
                  names: true,
                  show: (group) => (
                    <Link
                      to={`/groups/${group.id}`}
                      className="font-semibold underline decoration-line underline-offset-4"
                    >
                      {group.name}
                    </Link>
                  ),
                },
                { title: "Children", className: "text-right tabular-nums", show: (group) => group.children },
                { title: "Sessions held", className: "text-right tabular-nums", show: (group) => group.held },
                { title: "Missed", className: "text-right tabular-nums", show: (group) => group.missed },
                {
                  title: "Hours",
                  className: "text-right tabular-nums",
                  show: (group) => (group.minutes / HOUR).toFixed(1),
                },
                {
                  title: "Taught and read today",
                  className: "text-right tabular-nums",
                  show: (group) => `${group.read} of ${group.taught}`,
                },
                {
                  title: "An hour",
                  className: "text-right tabular-nums",
                  show: (group) => anHour(group)?.toFixed(1) ?? <span className="text-soft">none yet</span>,
                },
              ]}
            />
          )}
          <Panel title="Who is in a group">
            <ul className="flex flex-col gap-1">
              {data.classes.map((one) => (
                <li key={one.id} className="flex justify-between gap-3">
                  <Link to={`/class/${one.id}`} className="underline decoration-line underline-offset-4">
                    {one.name}
                  </Link>
                  <span className="tabular-nums">
                    {one.inGroup} of {one.children}
                  </span>
                </li>
              ))}
            </ul>
            <p className="mt-2 text-sm text-soft">
              “Taught and read today” counts each spelling once for each child who came when it was taught. Some would
              have learned it anyway.
            </p>
          </Panel>
        </div>
      )}
    </Page>
  );
}
