import { useState } from "react";
import { getGrouping, getSchool } from "#contract";
import { plural } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Tick, WholeField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { adultIn, copyDay, FREE, freeAt, NOT_FREE, paintFree, withAdult } from "./hours-kinds.ts";
import { PaintedWeek } from "./paint.tsx";
import { Brushes, NoTimes, Picked } from "./picked.tsx";
import { ReadHours } from "./read-hours.tsx";
import type { PartOfWeek } from "./use-week.ts";

/** When those who take groups are free, how many they take, where, and whom. */
export function TheAdults({ week, change }: PartOfWeek) {
  const grouping = useAsk(getGrouping, {});
  const school = useAsk(getSchool, {});
  const adults = grouping.data?.grouping.adults ?? [];
  const [picked, setPicked] = useState<string>();
  const [brush, setBrush] = useState(NOT_FREE);
  const one = adults.find(({ id }) => id === picked) ?? adults[0];
  if (!one)
    return (
      <p className="text-soft">
        No adult takes groups yet. They are named where groups are made.{" "}
        <ButtonLink to="/groups/new">Make groups</ButtonLink>
      </p>
    );
  const adult = adultIn(week, one.id);
  const put = (how: (now: typeof adult) => typeof adult) =>
    change((now) => withAdult(now, how(adultIn(now, one.id))));
  const ticked = (list: readonly string[], id: string, on: boolean) =>
    on ? [...list, id] : list.filter((other) => other !== id);
  return (
    <Picked
      label="Adults"
      list={adults.map(({ id, name, sessions }) => ({ id, name, about: `${plural(sessions, "session")} a week` }))}
      chosen={one.id}
      onChoose={setPicked}
      below={
        <p className="mt-2 text-sm text-soft">
          Who takes groups, and how many sessions a week, is said where groups are made. Which person of the school
          they are is said in Settings, under People: sessions are theirs then, also those in which they stand in.
        </p>
      }
    >
      <Panel title={`When ${one.name} is free`}>
        {week.slots.length === 0 ? (
          <NoTimes />
        ) : (
          <>
            <Brushes values={[NOT_FREE, FREE]} brush={brush} onChoose={setBrush} />
            <PaintedWeek
              label={`Hours of ${one.name}`}
              slots={week.slots}
              valueAt={(slot) => freeAt(adult.hours, slot)}
              toneOf={(value) => (value === FREE ? "on" : "off")}
              brush={brush}
              cleared={brush === FREE ? NOT_FREE : FREE}
              onPaint={(slots, value) => put((now) => ({ ...now, hours: paintFree(now.hours, slots, value) }))}
              onCopyDay={(from, to) => put((now) => ({ ...now, hours: copyDay(now.hours, from, to) }))}
            />
            <ReadHours
              what="A calendar of what they have already"
              onRead={(lessons) =>
                put((now) => ({
                  ...now,
                  hours: lessons.reduce(
                    (hours, lesson) => paintFree(hours, [{ ...lesson, id: "" }], NOT_FREE),
                    now.hours,
                  ),
                }))
              }
            />
          </>
        )}
      </Panel>
      <div className="mt-4 grid grid-cols-1 gap-4 sm:grid-cols-3">
        <Panel title="A day">
          <WholeField
            label="Sessions a day at most"
            least={0}
            most={20}
            value={adult.mostADay}
            onSet={(mostADay) => void put((now) => ({ ...now, mostADay }))}
          />
        </Panel>
        <Panel title="Rooms">
          {week.rooms.length === 0 && <p className="text-soft">No room is named.</p>}
          {week.rooms.map(({ id, name }) => (
            <Tick
              key={id}
              checked={adult.rooms.length === 0 || adult.rooms.includes(id)}
              onChange={(on) =>
                void put((now) => {
                  const here = now.rooms.length === 0 ? week.rooms.map((room) => room.id) : now.rooms;
                  const rooms = ticked(here, id, on);
                  return { ...now, rooms: rooms.length === week.rooms.length ? [] : rooms };
                })
              }
            >
              {name}
            </Tick>
          ))}
        </Panel>
        <Panel title="Children of">
          {(school.data?.classes ?? [])
            .filter(({ archived }) => !archived)
            .map(({ id, name }, _, all) => (
              <Tick
                key={id}
                checked={adult.classes.length === 0 || adult.classes.includes(id)}
                onChange={(on) =>
                  void put((now) => {
                    const here = now.classes.length === 0 ? all.map((each) => each.id) : now.classes;
                    const classes = ticked(here, id, on);
                    return { ...now, classes: classes.length === all.length ? [] : classes };
                  })
                }
              >
                {name}
              </Tick>
            ))}
        </Panel>
      </div>
    </Picked>
  );
}
