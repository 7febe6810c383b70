import { useState } from "react";
import { Link } from "react-router";
import { getSchool, listSessions } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { nearDay, plural } from "#core/saying";
import { useAsk, useAskSliced } from "#web/device/api.ts";
import { useWhose } from "#web/device/given.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { has, SearchField } from "#web/parts/search.tsx";
import { type Column, Table } from "#web/parts/table.tsx";
import { Teaches } from "#web/parts/teaches.tsx";

/** All sessions: to come first, then those that were held. */
export function Screen() {
  const { data, error } = useAskSliced(listSessions, { query: {} });
  const school = useAsk(getSchool, {});
  const today = school.data?.today ?? "";
  const [wanted, setWanted] = useState("");
  const found = (data ?? []).filter((one) =>
    has(
      wanted,
      ...[one.groupName, nearDay(one.heldOn, today), one.heldOn, one.givenTo?.name ?? ""],
      one.about ?? showGrapheme(splitGpc(one.target).grapheme),
    ),
  );
  const planned = found.filter((one) => one.state === "planned").reverse();
  const held = found.filter((one) => one.state === "held");
  return (
    <Page
      printsTitle
      place="Sessions"
      title="Sessions"
      about="A few minutes for a group, on one card."
      actions={
        <>
          <ButtonLink to="/sessions/routines">Routines</ButtonLink>
          <ButtonLink to="/groups">Plan from a group</ButtonLink>
        </>
      }
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
      {data && data.length > 0 && (
        <SearchField
          label="Search the sessions"
          placeholder="A group, a day, a spelling, a person"
          value={wanted}
          onChange={setWanted}
          found={found.length}
        />
      )}
      {planned.length > 0 && <List title="To come" rows={planned} today={today} />}
      {held.length > 0 && <List title="Held" rows={held} today={today} />}
    </Page>
  );
}

type Row = (typeof listSessions.answer)["_output"][number];

const told: Column<Row> = {
  title: "What happened",
  figures: true,
  className: "w-36",
  sortBy: (row) => row.reports,
  show: (row) => (row.reports > 0 ? plural(row.reports, "report") : ""),
};

function List({ title, rows, today }: { title: string; rows: readonly Row[]; today: string }) {
  const whose = useWhose();
  return (
    <section className="mb-6">
      <h2 className="mb-1">{title}</h2>
      <Table
        label={title}
        room="sheet"
        className="w-full table-fixed"
        rows={rows}
        rowKey={(row) => row.id}
        columns={[
          {
            title: "Day",
            names: true,
            className: "w-40",
            sortBy: (row) => row.heldOn,
            show: (row) => (
              <Link
                to={`/sessions/${row.id}`}
                className="inline-block py-1 underline decoration-line underline-offset-4 hover:decoration-ink"
              >
                {nearDay(row.heldOn, today)}
              </Link>
            ),
          },
          { title: "Group", sortBy: (row) => row.groupName, show: (row) => row.groupName },
          {
            title: "Teaches",
            sortBy: (row) => row.about ?? row.target,
            show: (row) => (
              <>
                <Teaches {...row} />
                {row.point && !row.about && <span className="ml-1 text-sm text-soft">of “{row.point}”</span>}
              </>
            ),
          },
          {
            title: "Given to",
            sortBy: (row) => row.givenTo?.name ?? "",
            show: (row) => (
              <>
                {row.givenTo && (whose(row.givenTo) === "mine" ? "you" : row.givenTo.name)}
                {row.shared && (
                  <span className="text-soft">{row.givenTo ? ", and a link is on" : "a link is on"}</span>
                )}
              </>
            ),
          },
          ...(rows.some((row) => row.reports > 0) ? [told] : []),
        ]}
      />
    </section>
  );
}
