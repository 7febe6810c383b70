import { useState } from "react";
import { Link } from "react-router";
import { type GroupView, getMoves, getSchool, listGroups } from "#contract";
import { targetsIn } from "#core/groups";
import { shortDay } from "#core/saying";
import { isOnItsWay, useAsk, wordsOfError } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useMoves } from "#web/device/moves.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Moves } from "#web/parts/moves.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { has, SearchField } from "#web/parts/search.tsx";
import { TargetMarks, targetInWords } from "#web/parts/target-marks.tsx";
import { GroupsThen } from "./then.tsx";

/** The groups of the school. */
export function Screen() {
  const listed = useAsk(listGroups, {});
  const school = useAsk(getSchool, {});
  const today = school.data?.today ?? "";
  const teaches = useIsAtLeast("teacher");
  const lead = useIsAtLeast("lead");
  // They stand above the groups: nothing is to move down under a finger when they come.
  const moves = useAsk(getMoves, teaches ? {} : null);
  const isWhole = !isOnItsWay(listed) && !(teaches && isOnItsWay(moves));
  const data = isWhole ? listed.data : undefined;
  const { error } = listed;
  const [looking, setLooking] = useState(false);
  const [then, setThen] = useState("");
  const [closed, setClosed] = useState(false);
  const [wanted, setWanted] = useState("");
  const here = data?.filter((group) => group.closed === closed) ?? [];
  const shown = here.filter((group) =>
    has(wanted, group.name, ...group.members.map((member) => member.name), ...targetsIn(group).map(targetInWords)),
  );
  const others = data?.filter((group) => group.closed).length ?? 0;
  return (
    <Page
      printsTitle
      place="Groups"
      title="Groups"
      about="Children who need the same few things next."
      actions={
        <>
          {teaches && !looking && <Button onClick={() => setLooking(true)}>As they were on …</Button>}
          {teaches && looking && (
            <div className="w-40">
              <TextField
                bare
                label="As they were on"
                title="As they were on"
                type="date"
                autoFocus
                max={today}
                value={then}
                onChange={(event) => setThen(event.target.value)}
              />
            </div>
          )}
          {lead && <ButtonLink to="/groups/school">Whole school</ButtonLink>}
          <ButtonLink to="/groups/new" shape="main">
            Make groups
          </ButtonLink>
        </>
      }
    >
      {then && (
        <section className="mb-4 flex flex-col gap-3">
          <p className="flex items-center gap-3">
            As they were on {shortDay(then, today)}.
            <Button
              onClick={() => {
                setThen("");
                setLooking(false);
              }}
            >
              As they are now
            </Button>
          </p>
          <GroupsThen day={then} today={today} />
        </section>
      )}
      {!then && data && teaches && today && (
        <div className="mb-4">
          <TheMoves today={today} />
        </div>
      )}
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
      {!then && here.length > 0 && (
        <SearchField
          label="Search the groups"
          placeholder="A group, a child, a spelling"
          value={wanted}
          onChange={setWanted}
          found={shown.length}
        />
      )}
      <ul className="grid gap-3 md:grid-cols-2" hidden={then !== ""}>
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
        <TargetMarks targets={targetsIn(group)} none="no target yet" />
      </p>
      <div className="mt-3 flex gap-2">
        <ButtonLink to={`/groups/${group.id}`}>Open</ButtonLink>
        {!group.closed && <ButtonLink to={`/groups/${group.id}?plan=1`}>Plan a session</ButtonLink>}
      </div>
    </li>
  );
}

/** Changes of groups that the answers speak for, as they stand. */
function TheMoves({ today }: { today: string }) {
  const desk = useMoves(today);
  return desk ? <Moves {...desk} today={today} wordsOf={wordsOfError} /> : null;
}
