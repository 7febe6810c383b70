import { addWeeks, formatISO, parseISO } from "date-fns";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import { closeGroup, type GroupView, getMoves, listGroups, type MoveView, putMoveOff, saveGroup } from "#contract";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { Button, ButtonLink } from "./button.tsx";
import { Spellings } from "./marks.tsx";
import { Panel } from "./page.tsx";
import { neighbourOf, useRefocus } from "./refocus.ts";
import { toast } from "./toast.tsx";

/** Weeks for which a proposed move is put off. */
const OFF_WEEKS = 2;
const AT_FIRST = 5;

const idOf = ({ kind, childId }: Pick<MoveView, "kind" | "childId">) => `move-${kind}-${childId}`;

/**
 * Changes of groups that today's answers speak for, and looks that are due at children who left: each with its reason, to be
 * accepted or put off. Nothing is shown where nothing is proposed.
 */
export function Moves({ today, shortly = false }: { today: string; shortly?: boolean }) {
  const moves = useAsk(getMoves, {});
  const groups = useAsk(listGroups, {});
  const refocus = useRefocus();
  const [all, setAll] = useState(false);
  if (!moves.data || !groups.data) return null;
  const { moves: list, looks } = moves.data;
  if (list.length + looks.length === 0) return null;
  const shown = list.slice(0, all ? undefined : shortly ? 3 : AT_FIRST);
  const next = (move: MoveView) => {
    const other = neighbourOf(shown, move);
    refocus(other && idOf(other));
  };
  const run = async (move: MoveView, work: () => Promise<unknown>, said: string) => {
    next(move);
    try {
      await work();
      await refreshAll();
      toast(said);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const accept = (move: MoveView) =>
    run(move, () => moveChild(move, groups.data ?? []), `${move.name}: ${done(move)}.`);
  const until = formatISO(addWeeks(parseISO(today), OFF_WEEKS), { representation: "date" });
  const putOff = (move: MoveView) =>
    run(
      move,
      () => call(putMoveOff, { params: { id: move.childId }, body: { kind: move.kind, until } }),
      `Put off until ${shortDay(until, today)}.`,
    );
  return (
    <Panel title="Changes that the answers speak for">
      <ul className="flex flex-col divide-y divide-line">
        {shown.map((move) => (
          <li key={idOf(move)} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
            <p className="min-w-52 flex-1">
              <Link
                to={`/child/${move.childId}`}
                className="font-semibold underline decoration-line underline-offset-4"
              >
                {move.name}
              </Link>{" "}
              {reason(move)}
            </p>
            {move.kind === "again" ? (
              <ButtonLink id={idOf(move)} to="/groups/new">
                Make groups
              </ButtonLink>
            ) : (
              <Button id={idOf(move)} aria-label={`${verbs[move.kind]}: ${move.name}`} onClick={() => accept(move)}>
                {verbs[move.kind]}
              </Button>
            )}
            <Button shape="quiet" aria-label={`Not now: ${move.name}`} onClick={() => putOff(move)}>
              Not now
            </Button>
          </li>
        ))}
        {looks.map((look) => (
          <li key={`look-${look.childId}`} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
            <p className="min-w-52 flex-1">
              <Link
                to={`/child/${look.childId}`}
                className="font-semibold underline decoration-line underline-offset-4"
              >
                {look.name}
              </Link>{" "}
              left {look.groupName || "a group"} {plural(look.weeks, "week")} ago: does it hold?{" "}
              <Spellings gpcs={look.gpcs} />
            </p>
            <ButtonLink
              to={`/check?${new URLSearchParams([["child", look.childId], ...look.gpcs.map((gpc) => ["card", gpc])])}`}
              aria-label={`Look again: ${look.name}`}
            >
              Look again
            </ButtonLink>
          </li>
        ))}
      </ul>
      {list.length > shown.length &&
        (shortly ? (
          <Link to="/groups" className="text-sm underline underline-offset-4">
            {list.length - shown.length} more under Groups
          </Link>
        ) : (
          <Button shape="quiet" className="-ml-3" onClick={() => setAll(true)}>
            {list.length - shown.length} more
          </Button>
        ))}
    </Panel>
  );
}

const verbs = { leave: "Leaves", move: "Moves", join: "Joins", again: "Comes back" } as const;

function done({ kind, groupName, toName }: MoveView): string {
  if (kind === "leave") return `out of ${groupName}; looked at again in two weeks`;
  return kind === "move" ? `from ${groupName} to ${toName}` : `in ${toName}`;
}

function reason(move: MoveView): ReactNode {
  const { groupName, toName, gpcs, count } = move;
  if (move.kind === "leave")
    return (
      <>
        no longer needs {groupName}: none of its {count} targets <Spellings gpcs={gpcs} /> is missing.
      </>
    );
  if (move.kind === "move")
    return (
      <>
        would gain more in {toName}, which has room: needs <Spellings gpcs={gpcs} /> there, {count} of the targets
        here.
      </>
    );
  if (move.kind === "join")
    return (
      <>
        is in no group; {toName} has room and works on <Spellings gpcs={gpcs} />.
      </>
    );
  return (
    <>
      left {groupName}, and <Spellings gpcs={gpcs} /> {gpcs.length === 1 ? "is" : "are"} going again.
    </>
  );
}

/** Takes a child out of its group and puts it where it is to go; a group that no one is left in is closed. */
async function moveChild(move: MoveView, groups: readonly GroupView[]): Promise<void> {
  const save = (group: GroupView, members: GroupView["members"], why: string) =>
    call(saveGroup, {
      params: { id: group.id },
      body: {
        ...{
          versionId: newId(),
          version: group.version,
          name: group.name,
          targets: group.targets,
          at: stampNow(),
          why,
        },
        members: members.map(({ childId, locked }) => ({ childId, locked })),
      },
    });
  const to = groups.find(({ id }) => id === move.toId);
  // First in, then out: if the second fails the child is in two groups for a moment and in none never.
  if (to) {
    const newcomer = { childId: move.childId, locked: false, name: move.name, classId: "" };
    await save(
      to,
      [...to.members.filter(({ childId }) => childId !== move.childId), newcomer],
      `${move.name} came in.`,
    );
  }
  const from = move.kind === "join" ? undefined : groups.find(({ id }) => id === move.groupId);
  if (!from) return;
  const left = from.members.filter(({ childId }) => childId !== move.childId);
  const why = move.kind === "leave" ? `${move.name} needs it no longer.` : `${move.name} went to ${move.toName}.`;
  await save(from, left, why);
  if (left.length === 0) await call(closeGroup, { params: { id: from.id }, body: { closed: true } });
}
