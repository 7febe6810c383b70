import { useState } from "react";
import { plural } from "#core/saying";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField, WholeField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { copyDay, FREE, freeAt, NOT_FREE, paintFree, withRoom } from "./hours-kinds.ts";
import { PaintedWeek } from "./paint.tsx";
import { Brushes, NoTimes, Picked } from "./picked.tsx";
import type { PartOfWeek } from "./use-week.ts";

const OPEN = "open";
const CLOSED = "closed";

/** Rooms for sessions: how many they fit, and when they are open. */
export function TheRooms({ week, change }: PartOfWeek) {
  const [picked, setPicked] = useState<string>();
  const [name, setName] = useState("");
  const [brush, setBrush] = useState(CLOSED);
  const room = week.rooms.find(({ id }) => id === picked) ?? week.rooms[0];
  const taken = week.rooms.some((one) => one.name.toLowerCase() === name.trim().toLowerCase());
  const add = () => {
    if (name.trim() === "" || taken) return;
    const id = newId();
    void change((now) => ({ ...now, rooms: [...now.rooms, { id, name: name.trim(), fits: 6, closed: [] }] }));
    setPicked(id);
    setName("");
  };
  const adding = (
    <form
      className="mt-2 flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <TextField
        label="Add a room"
        maxLength={40}
        value={name}
        problem={taken ? "A room has this name already." : undefined}
        onChange={(event) => setName(event.target.value)}
      />
      <Button type="submit">Add</Button>
    </form>
  );
  return (
    <Picked
      label="Rooms"
      list={week.rooms.map(({ id, name: called, fits }) => ({
        id,
        name: called,
        about: `fits ${plural(fits, "child", "children")}`,
      }))}
      chosen={room?.id}
      onChoose={setPicked}
      below={adding}
    >
      {!room ? (
        <p className="text-soft">No room is named. A timetable then leaves open where each group meets.</p>
      ) : (
        <Panel
          title={room.name}
          actions={
            <Button
              shape="quiet"
              onClick={() => change((now) => ({ ...now, rooms: now.rooms.filter(({ id }) => id !== room.id) }))}
            >
              Remove
            </Button>
          }
        >
          <div className="mb-3 w-36">
            <WholeField
              label="Children it fits"
              least={1}
              most={99}
              value={room.fits}
              onSet={(fits) => void change((now) => withRoom(now, { ...room, fits }))}
            />
          </div>
          {week.slots.length === 0 ? (
            <NoTimes />
          ) : (
            <>
              <Brushes values={[CLOSED, OPEN]} brush={brush} onChoose={setBrush} />
              <PaintedWeek
                label={`Hours of ${room.name}`}
                slots={week.slots}
                valueAt={(slot) => (freeAt(room.closed, slot) === FREE ? CLOSED : OPEN)}
                toneOf={(value) => (value === OPEN ? "on" : "off")}
                brush={brush}
                cleared={brush === OPEN ? CLOSED : OPEN}
                onPaint={(slots, value) =>
                  change((now) => {
                    const here = now.rooms.find(({ id }) => id === room.id) ?? room;
                    const closed = paintFree(here.closed, slots, value === CLOSED ? FREE : NOT_FREE);
                    return withRoom(now, { ...here, closed });
                  })
                }
                onCopyDay={(from, to) =>
                  change((now) => {
                    const here = now.rooms.find(({ id }) => id === room.id) ?? room;
                    return withRoom(now, { ...here, closed: copyDay(here.closed, from, to) });
                  })
                }
              />
            </>
          )}
        </Panel>
      )}
    </Picked>
  );
}
