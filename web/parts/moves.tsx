import { type KeyboardEvent, type ReactNode, useState } from "react";
import { Link } from "react-router";
import type { LookView, MoveView } from "#contract";
import { targetsIn } from "#core/groups";
import { plural, shortDay } from "#core/saying";
import { Button, ButtonLink } from "./button.tsx";
import { Spellings } from "./marks.tsx";
import { Panel } from "./page.tsx";
import { neighbourOf, useRefocus } from "./refocus.ts";
import { TargetMarks } from "./target-marks.tsx";
import { toast } from "./toast.tsx";

const AT_FIRST = 5;

const idOf = ({ kind, childId }: Pick<MoveView, "kind" | "childId">) => `move-${kind}-${childId}`;

interface MovesWanted {
  readonly moves: readonly MoveView[];
  readonly looks: readonly LookView[];
  readonly today: string;
  /** The first few alone, with a link to the others. */
  readonly shortly?: boolean;
  readonly accept: (move: MoveView) => Promise<void>;
  readonly putOff: (move: MoveView) => Promise<string>;
  /** An error in words. */
  readonly wordsOf: (error: unknown) => string;
}

/**
 * Changes of groups that today's answers speak for, and looks that are due at children who left: each with its reason, to be
 * accepted or put off. Nothing is shown where nothing is proposed.
 */
export function Moves({ moves: list, looks, today, shortly = false, accept, putOff, wordsOf }: MovesWanted) {
  const refocus = useRefocus();
  const [all, setAll] = useState(false);
  if (list.length + looks.length === 0) return null;
  const shown = list.slice(0, all ? undefined : shortly ? 3 : AT_FIRST);
  const run = async (move: MoveView, work: () => Promise<string>) => {
    const other = neighbourOf(shown, move);
    refocus(other && idOf(other));
    try {
      toast(await work());
    } catch (error) {
      toast.error(wordsOf(error));
    }
  };
  const take = (move: MoveView) =>
    run(move, async () => {
      await accept(move);
      return `${move.name}: ${done(move)}.`;
    });
  /** One key for each: Enter does what is proposed, N puts it off; the next one has the focus then. */
  const keys = (move: MoveView) => ({
    "aria-keyshortcuts": "n",
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== "n" || event.ctrlKey || event.metaKey || event.altKey) return;
      event.stopPropagation();
      void wait(move);
    },
  });
  const wait = (move: MoveView) => run(move, async () => `Put off until ${shortDay(await putOff(move), today)}.`);
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
              <ButtonLink id={idOf(move)} to="/groups/new" {...keys(move)}>
                Make groups
              </ButtonLink>
            ) : (
              <Button
                id={idOf(move)}
                aria-label={`${verbs[move.kind]}: ${move.name}`}
                onClick={() => take(move)}
                {...keys(move)}
              >
                {verbs[move.kind]}
              </Button>
            )}
            <Button shape="quiet" aria-label={`Not now: ${move.name}`} onClick={() => wait(move)}>
              Not now <kbd className="text-xs text-soft">N</kbd>
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
  const { groupName, toName, count } = move;
  const about = targetsIn({ targets: move.gpcs, besides: move.besides });
  if (move.kind === "leave")
    return (
      <>
        no longer needs {groupName}: none of its {count} targets <TargetMarks targets={about} /> is missing.
      </>
    );
  if (move.kind === "move")
    return (
      <>
        would gain more in {toName}, which has room: needs <TargetMarks targets={about} /> there, {count} of the
        targets here.
      </>
    );
  if (move.kind === "join")
    return (
      <>
        is in no group; {toName} has room and works on <TargetMarks targets={about} />.
      </>
    );
  return (
    <>
      left {groupName}, and <TargetMarks targets={about} /> {about.length === 1 ? "is" : "are"} going again.
    </>
  );
}
