import {
  DndContext,
  type DragEndEvent,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { CalendarCheck, Pin } from "lucide-react";
import { type KeyboardEvent, useRef } from "react";
import { Link } from "react-router";
import type { BlockSessionView, BlockView } from "#contract";
import { mondayOf } from "#core/groups";
import { shortDay, timeInWords } from "#core/saying";
import { Spelling } from "#web/parts/marks.tsx";
import { spokenDrag } from "#web/parts/spoken-drag.ts";
import { spoken, stepSays } from "./saying.ts";

interface LineWanted {
  readonly block: BlockView;
  readonly today: string;
  readonly chosen: string | undefined;
  readonly onChoose: (on: string) => void;
  /** What two days teach changes places. */
  readonly onSwap: (one: string, other: string) => void;
}

/** True for a session whose points can be given to another day. */
const isMovable = ({ by }: Pick<BlockSessionView, "by">): boolean => by !== "session";

/**
 * The weeks of a group on a line: what was, what comes. A session is chosen by a press or with the arrows; its points are moved by
 * dragging, or with Alt and an arrow.
 */
export function WeekLine({ block, today, chosen, onChoose, onSwap }: LineWanted) {
  const frame = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
  );
  const weeks = Map.groupBy(block.sessions, ({ on }) => mondayOf(on));
  const days = block.sessions.map(({ on }) => on);
  const at = Math.max(0, days.indexOf(chosen ?? ""));
  const keys = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    const next = days[at + step];
    if (step === 0 || !next) return;
    event.preventDefault();
    const here = days[at] as string;
    if (event.altKey) {
      // Past what is planned already.
      const free = block.sessions.filter(isMovable).map(({ on }) => on);
      const to = step > 0 ? free.find((day) => day > here) : free.findLast((day) => day < here);
      if (!to || !free.includes(here)) return;
      onSwap(here, to);
      focus(to);
    } else focus(next);
  };
  const focus = (on: string) => {
    onChoose(on);
    requestAnimationFrame(() => frame.current?.querySelector<HTMLElement>(`[data-day="${on}"]`)?.focus());
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onSwap(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragEnd={dropped}
      accessibility={spokenDrag({
        what: (id) => `what ${shortDay(id, today)} teaches`,
        where: (id) => shortDay(id, today),
        how: "Alt and an arrow give what it teaches to the session before or after.",
      })}
    >
      <div ref={frame} className="flex gap-3 overflow-x-auto pb-2" role="group" aria-label="Weeks" onKeyDown={keys}>
        {block.past.length > 0 && (
          <div className="shrink-0">
            <p className="mb-1 text-xs text-soft">so far</p>
            <ol className="flex gap-1.5" aria-label="Sessions so far">
              {block.past.slice(-4).map(({ on, sessionId, taught, about, came, of }) => (
                <li key={sessionId}>
                  <Link
                    to={`/sessions/${sessionId}`}
                    className="block min-h-24 w-24 rounded-md border border-dashed border-line px-2 py-1 text-sm text-soft hover:border-ink"
                  >
                    <span className="block text-xs">{shortDay(on, today)}</span>
                    {about && <span className="mt-0.5 block leading-tight">{about}</span>}
                    {(about ? [] : taught).map((gpc) => (
                      <span key={gpc} className="mt-0.5 block">
                        <Spelling gpc={gpc} sound={false} />
                      </span>
                    ))}
                    <span className="mt-0.5 block text-xs">
                      {came} of {of} came
                    </span>
                  </Link>
                </li>
              ))}
            </ol>
          </div>
        )}
        {[...weeks].map(([monday, sessions]) => (
          <div key={monday} className="shrink-0">
            <p className="mb-1 text-xs text-soft">week of {shortDay(monday, today).replace(/^\w+ /, "")}</p>
            <ol className="flex gap-1.5" aria-label={`Week of ${shortDay(monday, today)}`}>
              {sessions.map((one) => (
                <li key={one.on}>
                  <Tile
                    {...{ session: one, today, isChosen: one.on === chosen, isStop: one.on === days[at] }}
                    onChoose={() => onChoose(one.on)}
                  />
                </li>
              ))}
            </ol>
          </div>
        ))}
      </div>
    </DndContext>
  );
}

interface TileWanted {
  readonly session: BlockSessionView;
  readonly today: string;
  readonly isChosen: boolean;
  readonly isStop: boolean;
  readonly onChoose: () => void;
}

function Tile({ session, today, isChosen, isStop, onChoose }: TileWanted) {
  const { on, from, points, focus, by, look } = session;
  const movable = isMovable(session);
  const drag = useDraggable({ id: on, disabled: !movable });
  const drop = useDroppable({ id: on, disabled: !movable });
  const moved = drag.transform ? `translate(${drag.transform.x}px, ${drag.transform.y}px)` : undefined;
  return (
    <div ref={drop.setNodeRef} className={drop.isOver ? "rounded-md outline-2 outline-leaf" : ""}>
      <button
        ref={drag.setNodeRef}
        type="button"
        data-day={on}
        tabIndex={isStop ? 0 : -1}
        aria-pressed={isChosen}
        aria-label={`${shortDay(on, today)}, ${spoken(session)}`}
        onPointerDown={drag.listeners?.onPointerDown as never}
        onMouseDown={drag.listeners?.onMouseDown as never}
        onTouchStart={drag.listeners?.onTouchStart as never}
        onClick={onChoose}
        style={{ transform: moved }}
        className={`relative flex min-h-24 w-28 flex-col items-stretch rounded-md border bg-sheet px-2 py-1 text-left text-sm aria-pressed:border-leaf aria-pressed:outline-2 aria-pressed:outline-leaf ${
          points.length === 0 && !focus ? "border-line bg-paper" : "border-line"
        } ${drag.isDragging ? "z-10 opacity-80" : ""}`}
      >
        <span className="flex items-center justify-between gap-1 text-xs text-soft">
          <span>
            {shortDay(on, today).split(" ")[0]}
            {from !== null && ` ${timeInWords(from)}`}
          </span>
          {by === "teacher" && <Pin size={12} aria-hidden />}
          {by === "session" && <CalendarCheck size={12} aria-hidden />}
        </span>
        {focus && (
          <span className="mt-1 block leading-tight">
            {focus.name} <span className="text-xs text-soft">{stepSays[focus.step]}</span>
          </span>
        )}
        {points.length === 0 && !focus && <span className="mt-1 block text-soft">review</span>}
        {points.map(({ gpc, step }) => (
          <span key={gpc} className="mt-0.5 flex items-baseline justify-between gap-1">
            <Spelling gpc={gpc} sound={false} />
            <span className={`text-xs ${step === "differently" ? "text-damson" : "text-soft"}`}>
              {stepSays[step]}
            </span>
          </span>
        ))}
        {look.length > 0 && <span className="mt-0.5 block text-xs text-soft">looks back</span>}
      </button>
    </div>
  );
}
