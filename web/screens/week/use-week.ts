import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { getGrouping, getSchool, getWeek, listGroups, setWeek, type Week } from "#contract";
import { type Placed, type WeekWanted, weekWanted } from "#core/groups";
import { call, Refused, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { type OffPage, offPage } from "#web/device/off-page.ts";
import { toast } from "#web/parts/toast.tsx";
import type { WeekWorker } from "#web/workers/week.worker.ts";

/** All that the week is made of, as it stands; `wanted` once all of it is here. */
export function useWeek() {
  const view = useAsk(getWeek, {});
  const grouping = useAsk(getGrouping, {});
  const groups = useAsk(listGroups, {});
  const school = useAsk(getSchool, {});
  const open = useMemo(() => groups.data?.filter(({ closed }) => !closed), [groups.data]);
  const wantedWith = useCallback(
    (fixed: readonly Placed[] = []): WeekWanted | undefined => {
      if (!view.data || !grouping.data || !open) return undefined;
      const { adults, sessionsAWeek } = grouping.data.grouping;
      return weekWanted({
        ...{ week: view.data.week, adults, sessionsAWeek, fixed },
        groups: open.map(({ id, name, members }) => ({ id, name, members: members.map(({ childId }) => childId) })),
        children: open.flatMap(({ members }) =>
          members.map(({ childId, name, classId }) => ({ id: childId, name, classId })),
        ),
        own: new Map(view.data.children.map((one) => [one.id, one])),
      });
    },
    [view.data, grouping.data, open],
  );
  return {
    view: view.data,
    adults: grouping.data?.grouping.adults,
    groups: open,
    school: school.data,
    wantedWith,
    error: view.error ?? grouping.error ?? groups.error ?? school.error,
  };
}

/** Timetables are worked out off the page. */
export function useWeekOffPage(): OffPage<WeekWorker> {
  const [off] = useState(() =>
    offPage<WeekWorker>(
      () => new Worker(new URL("../../workers/week.worker.ts", import.meta.url), { type: "module" }),
    ),
  );
  useEffect(() => off.end, [off]);
  return off;
}

/** The week as it is to be, and what is kept of it under which version. */
interface Latest {
  readonly week: Week | undefined;
  readonly version: number;
  readonly kept: Week | undefined;
}

/**
 * Saves over what is kept. The school's other settings count under the same version: when only they were changed meanwhile it is
 * saved over them.
 * @returns the version now
 */
async function keep(week: Week, { version, kept }: Latest): Promise<number> {
  try {
    return (await call(setWeek, { body: { version, week } })).version;
  } catch (error) {
    const both = error instanceof Refused ? error.problem.both : undefined;
    const theirs = (both?.theirs as { week?: Week } | undefined)?.week;
    if (!both || JSON.stringify(theirs) !== JSON.stringify(kept)) throw error;
    return (await call(setWeek, { body: { version: both.version, week } })).version;
  }
}

/** States that can be gone back to. */
const MOST_BACK = 50;

/**
 * The week as it is being edited: each change shows at once and is saved behind it, one after the other; what could not be saved
 * is told, and the screen shows what is kept. `undo` goes back over what was changed here.
 */
export function useEditedWeek() {
  const { data } = useAsk(getWeek, {});
  /** What was drawn here, with the version under which it is kept once it is. */
  const [mine, setMine] = useState<{ week: Week; version: number | null } | null>(null);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const waiting = useRef(0);
  const back = useRef<Week[]>([]);
  const isMine = mine !== null && (mine.version === null || (data?.version ?? 0) < mine.version);
  const week = isMine ? mine.week : data?.week;
  // What comes next is made of this, also before it has been drawn.
  const latest = useRef<Latest>({ week: undefined, version: 0, kept: undefined });
  if (waiting.current === 0)
    latest.current = { week, version: isMine ? (mine.version ?? 0) : (data?.version ?? 0), kept: week };

  const save = useCallback((next: Week) => {
    latest.current = { ...latest.current, week: next };
    setMine({ week: next, version: null });
    waiting.current++;
    queue.current = queue.current.then(async () => {
      // Of several that wait, the last holds the others.
      waiting.current--;
      if (waiting.current > 0) return;
      waiting.current++;
      try {
        const version = await keep(next, latest.current);
        latest.current = { ...latest.current, version, kept: next };
        if (waiting.current === 1) setMine({ week: next, version });
      } catch (error) {
        toast.error(wordsOfError(error));
        back.current = [];
        latest.current = { week: undefined, version: 0, kept: undefined };
        setMine(null);
      }
      waiting.current--;
      if (waiting.current === 0) await refreshAll();
    });
    return queue.current;
  }, []);
  const change = useCallback(
    (how: (week: Week) => Week) => {
      const now = latest.current.week;
      if (!now) return Promise.resolve();
      back.current = [...back.current.slice(-MOST_BACK), now];
      return save(how(now));
    },
    [save],
  );
  const undo = useCallback(() => {
    const before = back.current.pop();
    if (before) void save(before);
  }, [save]);
  return { week, change, undo };
}
/** What each part of the hours is given. */
export interface PartOfWeek {
  readonly week: Week;
  readonly change: ReturnType<typeof useEditedWeek>["change"];
}
