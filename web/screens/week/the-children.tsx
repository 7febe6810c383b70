import { useRef, useState } from "react";
import { getWeek, type OwnHours, setOwnHours } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { has, SearchField } from "#web/parts/search.tsx";
import { toast } from "#web/parts/toast.tsx";
import { AS_CLASS, AWAY, childAt, copyDay, lessonNames, lessonsIn, NOTHING, paintChild } from "./hours-kinds.ts";
import { PaintedWeek } from "./paint.tsx";
import { Brushes, NoTimes, Picked } from "./picked.tsx";
import type { PartOfWeek } from "./use-week.ts";
import { useWeek } from "./use-week.ts";

const none: OwnHours = { lessons: [], away: [] };

/** Children of the groups who are not always as their class is. */
export function TheChildren({ week }: PartOfWeek) {
  const { groups = [] } = useWeek();
  const { data } = useAsk(getWeek, {});
  const [search, setSearch] = useState("");
  const [picked, setPicked] = useState<string>();
  const [brush, setBrush] = useState(AWAY);
  const members = new Map(groups.flatMap((group) => group.members.map((one) => [one.childId, one] as const)));
  const children = [...members.values()].sort((one, other) => one.name.localeCompare(other.name));
  const shown = children.filter(({ name }) => has(search, name));
  const one = shown.find(({ childId }) => childId === picked) ?? shown[0];
  const own = (id: string) => data?.children.find((each) => each.id === id);
  const latest = useRef(new Map<string, { version: number; hours: OwnHours | null }>());
  const queue = useRef<Promise<void>>(Promise.resolve());
  if (children.length === 0) return <p className="text-soft">No child is in a group yet.</p>;
  const now = one && own(one.childId);
  const mine: OwnHours = now ? { lessons: now.lessons, away: now.away } : none;
  const ofClass = one ? lessonsIn(week, one.classId) : [];
  const put = (how: (before: OwnHours) => OwnHours | null) => {
    if (!one) return;
    const { childId } = one;
    queue.current = queue.current.then(async () => {
      const kept = latest.current.get(childId) ?? {
        version: own(childId)?.version ?? 0,
        hours: own(childId) ?? null,
      };
      const made = how(kept.hours ? { lessons: kept.hours.lessons, away: kept.hours.away } : none);
      const hours = made && made.lessons.length + made.away.length > 0 ? made : null;
      try {
        const { version } = await call(setOwnHours, {
          params: { id: childId },
          body: { version: kept.version, hours },
        });
        latest.current.set(childId, { version, hours });
        await refreshAll();
        latest.current.delete(childId);
      } catch (error) {
        latest.current.delete(childId);
        toast.error(wordsOfError(error));
      }
    });
  };
  return (
    <Picked
      label="Children"
      list={shown.map(({ childId, name }) => ({
        id: childId,
        name,
        ...(own(childId) ? { about: "hours of its own" } : {}),
      }))}
      chosen={one?.childId}
      onChoose={setPicked}
      below={
        <SearchField
          label="Search the children"
          placeholder="A child"
          value={search}
          onChange={setSearch}
          found={shown.length}
        />
      }
    >
      {one && (
        <Panel
          title={`When ${one.name} is free`}
          actions={
            now && (
              <Button shape="quiet" onClick={() => put(() => null)}>
                As its class again
              </Button>
            )
          }
        >
          {week.slots.length === 0 ? (
            <NoTimes />
          ) : (
            <>
              <Brushes values={[AWAY, ...lessonNames(week), NOTHING, AS_CLASS]} brush={brush} onChoose={setBrush} />
              <PaintedWeek
                label={`Hours of ${one.name}`}
                slots={week.slots}
                valueAt={(slot) => childAt(mine, ofClass, slot)}
                toneOf={(value) => (value === AWAY ? "off" : value === "" ? "plain" : "on")}
                brush={brush}
                cleared={AS_CLASS}
                onPaint={(slots, value) => put((before) => paintChild(before, slots, value))}
                onCopyDay={(from, to) =>
                  put(({ lessons, away }) => ({ lessons: copyDay(lessons, from, to), away: copyDay(away, from, to) }))
                }
              />
            </>
          )}
        </Panel>
      )}
    </Picked>
  );
}
