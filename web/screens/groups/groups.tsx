import { useState } from "react";
import { Link } from "react-router";
import { type GroupView, listGroups } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { useAsk } from "#web/device/api.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Spellings } from "#web/parts/marks.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { has, SearchField } from "#web/parts/search.tsx";

/** The groups of the school. */
export function Screen() {
  const { data, error } = useAsk(listGroups, {});
  const [closed, setClosed] = useState(false);
  const [wanted, setWanted] = useState("");
  const here = data?.filter((group) => group.closed === closed) ?? [];
  const shown = here.filter((group) =>
    has(
      wanted,
      group.name,
      ...group.members.map((member) => member.name),
      ...group.targets.map((gpc) => showGrapheme(splitGpc(gpc).grapheme)),
    ),
  );
  const others = data?.filter((group) => group.closed).length ?? 0;
  return (
    <Page
      printsTitle
      place="Groups"
      title="Groups"
      about="Children who need the same few things next."
      actions={
        <ButtonLink to="/groups/new" shape="main">
          Make groups
        </ButtonLink>
      }
    >
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Waiting />}
      {data && here.length === 0 && (
        <Empty
          action={
            <ButtonLink to="/groups/new" shape="main">
              Make groups
            </ButtonLink>
          }
        >
          {closed
            ? "No group is closed."
            : "A group is a few children with the same gaps, and up to four spellings to teach them. The tool proposes; you decide."}
        </Empty>
      )}
      {here.length > 0 && (
        <SearchField
          label="Search the groups"
          placeholder="A group, a child, a spelling"
          value={wanted}
          onChange={setWanted}
          found={shown.length}
        />
      )}
      <ul className="grid gap-3 md:grid-cols-2">
        {shown.map((group) => (
          <GroupCard key={group.id} group={group} />
        ))}
      </ul>
      {(others > 0 || closed) && (
        <Button shape="quiet" className="mt-3" onClick={() => setClosed(!closed)}>
          {closed ? "Show the open groups" : `Show ${others} closed`}
        </Button>
      )}
    </Page>
  );
}

function GroupCard({ group }: { group: GroupView }) {
  return (
    <li className="rounded-lg border border-line bg-sheet p-4">
      <h2>
        <Link
          to={`/groups/${group.id}`}
          className="underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          {group.name}
        </Link>
      </h2>
      <p className="mt-0.5">
        {group.members.map((member) => member.name).join(", ") || <span className="text-soft">no one yet</span>}
      </p>
      <p className="mt-2">
        <Spellings gpcs={group.targets} none="no target yet" />
      </p>
      <div className="mt-3 flex gap-2">
        <ButtonLink to={`/groups/${group.id}`}>Open</ButtonLink>
        {!group.closed && <ButtonLink to={`/groups/${group.id}?plan=1`}>Plan a session</ButtonLink>}
      </div>
    </li>
  );
}
