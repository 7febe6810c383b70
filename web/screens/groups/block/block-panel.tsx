import { useState } from "react";
import {
  type BlockSessionView,
  type BlockView,
  fixBlockDays,
  type GroupView,
  getBlock,
  getOtherNeeds,
  planNewSession,
  removeSession,
  setBlockWeeks,
} from "#contract";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { newId, newSeed } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { sharedNeeds } from "#web/parts/other-needs.ts";
import { Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { type About, aboutOf } from "#web/parts/teaches.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { ChosenSession } from "./chosen-session.tsx";
import { WeekLine } from "./week-line.tsx";

/** Sessions that are filled with words at once. */
const AHEAD = 2;
type Fixed = { on: string; gpcs: string[] | null; focus?: string[] | null };

/** What a day is said to be now, to say it again. */
const saidOf = (session: BlockSessionView): Fixed =>
  session.by === "teacher" ? { on: session.on, ...taughtOn(session) } : { on: session.on, gpcs: null };

/** What a session teaches, to say so of a day. */
const taughtOn = ({ points, focus }: BlockSessionView) => ({
  gpcs: points.map(({ gpc }) => gpc),
  focus: focus?.ids ?? null,
});

/** The sessions of a group over the next weeks: what was, what comes and why, changed where a teacher knows better. */
export function BlockPanel({ group, today }: { group: GroupView; today: string }) {
  const asked = useAsk(getBlock, { params: { id: group.id } });
  const [chosen, setChosen] = useState<string>();
  /** Something is being kept or filled: what comes next is done with what comes of it. */
  const [busy, setBusy] = useState(false);
  const others = useAskSliced(getOtherNeeds, { query: {} });
  const childIds = new Set(group.members.map(({ childId }) => childId));
  const abouts = others.data ? aboutOf(sharedNeeds(others.data, childIds)) : [];
  const block = asked.data;
  const nameOf = (id: string) => group.members.find(({ childId }) => childId === id)?.name;
  const send = async (days: Fixed[], says: string) => {
    if (!block) return;
    const before = block.sessions.filter(({ on }) => days.some((one) => one.on === on)).map(saidOf);
    const put = async (all: Fixed[]) => {
      setBusy(true);
      try {
        await call(fixBlockDays, { params: { id: group.id }, body: { days: all } });
        await refreshAll();
        return true;
      } catch (error) {
        toast.error(wordsOfError(error));
        return false;
      } finally {
        setBusy(false);
      }
    };
    if (await put(days)) toastWithUndo(says, async () => void (await put(before)));
  };
  const swap = (one: string, other: string) => {
    const [from, to] = [one, other].map((day) => block?.sessions.find(({ on }) => on === day));
    if (!from || !to) return;
    setChosen(other);
    void send(
      [
        { on: to.on, ...taughtOn(from) },
        { on: from.on, ...taughtOn(to) },
      ],
      `${shortDay(from.on, today)} and ${shortDay(to.on, today)} have changed places.`,
    );
  };
  const fill = async (sessions: readonly BlockSessionView[]) => {
    setBusy(true);
    const made: string[] = [];
    try {
      for (const { on, points, focus } of sessions) {
        const id = newId();
        const [first, second] = points;
        await call(planNewSession, {
          body: {
            ...{ id, groupId: group.id, heldOn: on, target: first?.gpc ?? null, second: second?.gpc ?? null },
            ...{ focus: focus?.ids ?? null, way: first?.way ?? null, seed: newSeed() },
            // Where nothing new is worth its time, it is review alone.
            ...(points.length === 0 && !focus ? { routine: "review" } : {}),
          },
        });
        made.push(id);
      }
    } catch (error) {
      toast.error(wordsOfError(error));
    }
    await refreshAll();
    setBusy(false);
    if (made.length > 0)
      toastWithUndo(`${plural(made.length, "session")} filled.`, async () => {
        for (const id of made) await call(removeSession, { params: { id } }).catch(() => undefined);
        await refreshAll();
      });
  };
  return (
    <Panel title="The next weeks" actions={block && <Weeks {...{ block, groupId: group.id }} />}>
      {asked.error && !block && <Trouble error={asked.error} />}
      {!block && !asked.error && <Waiting rows={4} />}
      {block && (
        <>
          {block.remarks.map((one) => (
            <p key={one} className="mb-2 text-soft">
              {one}
            </p>
          ))}
          {block.sessions.length > 0 && !block.inTheWeek && (
            <p className="mb-2 text-sm text-soft">
              This group has no time in the week yet; these days are a guess from how often groups meet.
            </p>
          )}
          <WeekLine {...{ block, today, chosen }} onChoose={setChosen} onSwap={swap} />
          <Ahead {...{ block, busy }} onFill={(sessions) => void fill(sessions)} />
          {block.sessions
            .filter(({ on }) => on === chosen)
            .map((session) => (
              <ChosenSession
                key={session.on}
                {...{ session, today, nameOf, busy }}
                gpcs={[...new Set([...group.targets, ...pointsOf(block)])]}
                abouts={aboutsFor(session, abouts)}
                onFix={(gpcs, focus) =>
                  void send(
                    [{ on: session.on, gpcs, focus: focus ? [...focus] : null }],
                    gpcs
                      ? `${shortDay(session.on, today)} is fixed.`
                      : `${shortDay(session.on, today)} is worked out.`,
                  )
                }
                onPlan={() => void fill([session])}
              />
            ))}
        </>
      )}
    </Panel>
  );
}

/** What is no spelling that a session could be about, with what it is about now. */
function aboutsFor({ focus }: BlockSessionView, abouts: readonly About[]): readonly About[] {
  if (!focus || abouts.some(({ ids }) => ids.join() === focus.ids.join())) return abouts;
  return [focus, ...abouts];
}

const pointsOf = ({ sessions }: BlockView) => sessions.flatMap(({ points }) => points.map(({ gpc }) => gpc));

/** The next sessions get their words. */
function Ahead({
  block,
  busy,
  onFill,
}: {
  block: BlockView;
  busy: boolean;
  onFill: (sessions: readonly BlockSessionView[]) => void;
}) {
  const next = block.sessions.slice(0, AHEAD).filter(({ sessionId }) => sessionId === null);
  if (block.sessions.length === 0) return null;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      {next.length > 0 && (
        <Button working={busy} onClick={() => onFill(next)}>
          {next.length === 1 ? "Fill the next session" : "Fill the next two sessions"}
        </Button>
      )}
      <p className="text-sm text-soft">
        Press a session to see why. Drag it, or Alt and an arrow, to change its day.
      </p>
    </div>
  );
}

function Weeks({ block, groupId }: { block: BlockView; groupId: string }) {
  return (
    <div className="w-32">
      <Choice
        bare
        label="Weeks ahead"
        value={block.weeks}
        onChange={async (event) => {
          try {
            await call(setBlockWeeks, { params: { id: groupId }, body: { weeks: Number(event.target.value) } });
            await refreshAll();
          } catch (error) {
            toast.error(wordsOfError(error));
          }
        }}
      >
        {[2, 3, 4, 5, 6, 7, 8].map((weeks) => (
          <option key={weeks} value={weeks}>
            {weeks} weeks
          </option>
        ))}
      </Choice>
    </div>
  );
}
