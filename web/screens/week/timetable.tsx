import { proxy } from "comlink";
import { Lock, LockOpen } from "lucide-react";
import { useMemo, useState } from "react";
import { setTimetable, setWeek, type Week } from "#contract";
import {
  type Conflict,
  type Cost,
  costOf,
  dayLater,
  gridOf,
  mondayOf,
  type Placed,
  placedFrom,
  placementsFrom,
  spotOf,
  type WeekWanted,
} from "#core/groups";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { useKeys } from "#web/device/keys.tsx";
import { useIsAtLeast } from "#web/device/me.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import type { Made } from "#web/workers/week.worker.ts";
import { type BoardItem, WeekBoard } from "./board.tsx";
import { useWeek, useWeekOffPage } from "./use-week.ts";
import { WhyNot } from "./why-not.tsx";
import { Wishes, wishesInWords } from "./wishes.tsx";

/** The timetable of every week: made, changed by hand, and put into use from a day on. */
export function Screen() {
  const { view, adults, school, wantedWith, error } = useWeek();
  const wanted = useMemo(() => wantedWith(), [wantedWith]);
  const lead = useIsAtLeast("lead");
  return (
    <Page
      place="Timetable"
      title="Timetable"
      about="When each group meets in every week: with whom, and where. Nothing is in use until you say from when."
      actions={
        <>
          <ButtonLink to="/week">The week</ButtonLink>
          <ButtonLink to="/week/hours">Hours and rooms</ButtonLink>
        </>
      }
    >
      {error && !wanted ? (
        <Trouble error={error} />
      ) : !view || !wanted || !adults || !school ? (
        <Waiting rows={9} />
      ) : !lead ? (
        <Empty action={<ButtonLink to="/week">The week</ButtonLink>}>
          The lead of the school makes the timetable: it needs the hours of all children.
        </Empty>
      ) : wanted.slots.length === 0 ? (
        <Empty
          action={
            <ButtonLink to="/week/hours" shape="main">
              Set up the day
            </ButtonLink>
          }
        >
          A timetable needs the times at which sessions can be held. They are set once, for the whole school.
        </Empty>
      ) : adults.length === 0 ? (
        <Empty
          action={
            <ButtonLink to="/groups/new" shape="main">
              Say who takes groups
            </ButtonLink>
          }
        >
          No adult takes groups yet, so that no session can be held. Adults are named where groups are made.
        </Empty>
      ) : wanted.groups.length === 0 ? (
        <Empty
          action={
            <ButtonLink to="/groups/new" shape="main">
              Make groups
            </ButtonLink>
          }
        >
          There is no group with children in it yet.
        </Empty>
      ) : (
        <Desk {...{ wanted, today: school.today }} view={view} />
      )}
    </Page>
  );
}

interface DeskWanted {
  readonly wanted: WeekWanted;
  readonly view: NonNullable<ReturnType<typeof useWeek>["view"]>;
  readonly today: string;
}

/** A session of the timetable that is being made, with a key that stays with it. */
interface Session {
  readonly key: string;
  readonly placed: Placed;
  readonly fixed: boolean;
}
let keys = 0;
const keyed = (placed: readonly Placed[], fixed: (one: Placed) => boolean): Session[] =>
  placed.map((one) => ({ key: `s${++keys}`, placed: one, fixed: fixed(one) }));
const same = (one: Placed, other: Placed) => one.groupId === other.groupId && one.slotId === other.slotId;

function Desk({ wanted, view, today }: DeskWanted) {
  const offPage = useWeekOffPage();
  const running = useMemo(() => placedFrom(wanted, view.placements), [wanted, view.placements]);
  const [sessions, setSessions] = useState<readonly Session[]>(() =>
    keyed(running.placed, (one) => running.fixed.includes(one)),
  );
  const [before, setBefore] = useState<readonly (readonly Session[])[]>([]);
  const [made, setMade] = useState<Made>();
  const [working, setWorking] = useState(false);
  const [conflict, setConflict] = useState<Conflict | "looking" | "unknown">();
  const [from, setFrom] = useState(() => (view.placements.length > 0 ? dayLater(mondayOf(today), 7) : today));
  const fixed = useMemo(() => sessions.filter((one) => one.fixed).map(({ placed }) => placed), [sessions]);
  const grid = useMemo(() => gridOf({ ...wanted, fixed }), [wanted, fixed]);
  const cost = useMemo(
    () =>
      costOf(
        grid,
        sessions.flatMap(({ placed }) => spotOf(grid, placed) ?? []),
      ),
    [grid, sessions],
  );
  const unplaced = useMemo(() => {
    const left = new Map<string, number>();
    for (const { id, sessions: count } of wanted.groups) {
      const missing = count - sessions.filter(({ placed }) => placed.groupId === id).length;
      if (missing > 0) left.set(id, missing);
    }
    return left;
  }, [wanted.groups, sessions]);
  const gap = made && cost.all === made.cost.all ? made.gap : undefined;

  const put = (next: readonly Session[]) => {
    setBefore((list) => [...list.slice(-30), sessions]);
    setSessions(next);
  };
  const askWhy = async () => {
    setConflict("looking");
    try {
      setConflict((await offPage.ask((worker) => worker.conflict({ ...wanted, fixed }))) ?? "unknown");
    } catch (error) {
      setConflict(undefined);
      toast.error(wordsOfError(error));
    }
  };
  const make = async () => {
    setWorking(true);
    setConflict(undefined);
    const was = sessions;
    let isFirst = true;
    const show = (found: Made) => {
      // Where nothing is found there is nothing to undo.
      if (isFirst) setBefore((list) => [...list.slice(-30), was]);
      isFirst = false;
      setMade(found);
      setSessions(keyed(found.placed, (one) => fixed.some((other) => same(one, other))));
    };
    try {
      const found = await offPage.ask((worker) =>
        worker.make(
          { ...wanted, fixed },
          was.map(({ placed }) => placed),
          proxy(show),
        ),
      );
      show(found);
      if (found.cost.unplaced > 0) await askWhy();
    } catch (error) {
      toast.error(wordsOfError(error));
    } finally {
      setWorking(false);
    }
  };
  const use = async () => {
    const placements = placementsFrom(
      wanted,
      sessions.map(({ placed }) => placed),
      (one) => sessions.some(({ placed, fixed: stays }) => stays && same(placed, one)),
    );
    try {
      const { added, changed } = await call(setTimetable, { body: { version: view.version, from, placements } });
      await refreshAll();
      toast(`In use from ${shortDay(from, today)}: ${plural(added + changed, "session")} on their days.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const undo = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore(before.slice(0, -1));
    setSessions(last);
  };
  useKeys([
    { key: "m", does: "make the timetable", run: () => void make() },
    { key: "z", does: "take the last change back", run: undo },
  ]);
  const changed =
    sessions.length !== running.placed.length ||
    sessions.some(({ placed, fixed: stays }) => {
      const was = running.placed.find((one) => same(one, placed));
      return (
        !was ||
        was.adultId !== placed.adultId ||
        was.roomId !== placed.roomId ||
        running.fixed.includes(was) !== stays
      );
    });
  const items: BoardItem[] = sessions.map(({ key, placed, fixed: stays }) => ({ key, placed, fixed: stays }));
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-3">
        <Button shape={sessions.length === 0 || !changed ? "main" : "plain"} onClick={make} working={working}>
          {sessions.length === 0 ? "Make the timetable" : "Make it anew"}
        </Button>
        <Button onClick={undo} disabled={before.length === 0}>
          Undo
        </Button>
        <div className="ml-auto flex items-end gap-2">
          <div className="w-40">
            <TextField
              label="In use from"
              type="date"
              min={today}
              value={from}
              onChange={(event) => setFrom(event.target.value)}
            />
          </div>
          <Button shape={changed ? "main" : "plain"} disabled={sessions.length === 0 && !changed} onClick={use}>
            Use this timetable
          </Button>
        </div>
      </div>
      <Told {...{ cost, gap, working, grid }} count={sessions.length} lost={running.lost.length} />
      {cost.unplaced > 0 && <WhyNot conflict={conflict} onAsk={askWhy} />}
      <Panel>
        <WeekBoard
          label="Timetable"
          grid={grid}
          items={items}
          unplaced={unplaced}
          onPut={(item, placed, against) =>
            put(
              item
                ? sessions.map((one) =>
                    one.key === item.key ? { ...one, placed, fixed: one.fixed || against } : one,
                  )
                : [...sessions, ...keyed([placed], () => false)],
            )
          }
          actions={(item) => (
            <button
              type="button"
              className="no-print flex size-6 shrink-0 items-center justify-center text-soft hover:text-ink"
              aria-pressed={item.fixed}
              aria-label={item.fixed ? "It stays here. Let it move" : "Keep it here when the timetable is made anew"}
              onClick={() => put(sessions.map((one) => (one.key === item.key ? { ...one, fixed: !one.fixed } : one)))}
            >
              {item.fixed ? <LockOpen size={14} aria-hidden /> : <Lock size={14} aria-hidden />}
            </button>
          )}
        />
      </Panel>
      <Wishes
        weights={view.week.weights}
        times={cost.times}
        onSet={async (weights) => {
          const week: Week = { ...view.week, weights };
          try {
            await call(setWeek, { body: { version: view.version, week } });
            await refreshAll();
          } catch (error) {
            toast.error(wordsOfError(error));
          }
        }}
      />
    </div>
  );
}

/** How good it is: what has a place, which wishes are kept, and whether it can be better. */
function Told({
  cost,
  gap,
  working,
  grid,
  count,
  lost,
}: {
  cost: Cost;
  gap: number | null | undefined;
  working: boolean;
  grid: ReturnType<typeof gridOf>;
  count: number;
  lost: number;
}) {
  const all = grid.groups.reduce((sum, { sessions }) => sum + sessions, 0);
  const proof =
    gap === undefined
      ? ""
      : gap === null
        ? working
          ? " Looking for a better one."
          : ""
        : gap < 1e-6
          ? " No timetable keeps more of the wishes."
          : ` Another could keep wishes for ${Math.ceil(gap)} points more at most.`;
  return (
    <div role="status" className="min-h-12">
      <p>
        <strong>
          {count} of {plural(all, "session")}
        </strong>{" "}
        {count === 1 ? "has" : "have"} a place. {count > 0 && wishesInWords(cost.times)}
        {proof}
      </p>
      {lost > 0 && (
        <p className="text-sm text-damson">
          {plural(lost, "session")} of the timetable in use {lost === 1 ? "stands" : "stand"} at a time that is no
          slot any more. Make it anew, or bring the slot back.
        </p>
      )}
    </div>
  );
}
