import {
  DndContext,
  type DragEndEvent,
  MeasuringStrategy,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { Lock } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useMemo, useRef, useState } from "react";
import {
  clash,
  type Grid,
  type Place,
  type Placed,
  placedOf,
  placesFor,
  type Spot,
  spotOf,
  type Weekday,
} from "#core/groups";
import { spokenDrag } from "#web/parts/spoken-drag.ts";
import { WeekTable } from "./week-table.tsx";

/** A session on the board. */
export interface BoardItem {
  readonly key: string;
  readonly placed: Placed;
  readonly fixed: boolean;
  /** A word or two beside it: changed for the day, say. */
  readonly note?: string;
}

interface BoardWanted {
  readonly label: string;
  readonly grid: Grid;
  readonly items: readonly BoardItem[];
  /** Sessions without a place, by group. */
  readonly unplaced: ReadonlyMap<string, number>;
  readonly head?: (day: Weekday) => ReactNode;
  /** Null for a session that had no place. `against` when it breaks a rule there. */
  readonly onPut?: (item: BoardItem | null, placed: Placed, against: boolean) => void;
  readonly actions?: (item: BoardItem) => ReactNode;
}

/** What is held: a session that is somewhere, or one of a group that has no place. */
type Held = { readonly item: BoardItem } | { readonly groupId: string };

const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string | null) =>
  list.find((one) => one.id === id)?.name ?? "";

/**
 * A week of sessions. One that is taken up shows where it could be: by drag, or by a press and a press; Escape puts it back. Where
 * it cannot be stands why.
 */
export function WeekBoard({ label, grid, items, unplaced, head, onPut, actions }: BoardWanted) {
  const [held, setHeld] = useState<Held>();
  const frame = useRef<HTMLElement>(null);
  const { groups, adults, rooms } = grid;
  const spots = useMemo(() => items.map((item) => spotOf(grid, item.placed)), [grid, items]);
  const heldKey = held && ("item" in held ? held.item.key : `new ${held.groupId}`);
  const groupId = held && ("item" in held ? held.item.placed.groupId : held.groupId);
  const places = useMemo((): readonly Place[] => {
    if (groupId === undefined) return [];
    const known = spots.flatMap((spot) => spot ?? []);
    const itemAt = items.findIndex((item) => item.key === heldKey);
    const at = spots[itemAt] ? known.indexOf(spots[itemAt] as Spot) : -1;
    return placesFor(grid, known, { at, group: groups.findIndex(({ id }) => id === groupId) });
  }, [grid, spots, items, groupId, heldKey, groups]);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    // A short touch scrolls or takes up; a longer one drags.
    useSensor(TouchSensor, { activationConstraint: { delay: 200, tolerance: 8 } }),
  );
  const wordsOf = ({ placed }: BoardItem) => nameIn(groups, placed.groupId);

  const take = (next: Held | undefined) => setHeld(next);
  const putSpot = (spot: Spot, against: boolean) => {
    const [placed] = placedOf(grid, [spot]);
    if (!held || !placed) return;
    const item = "item" in held ? held.item : null;
    setHeld(undefined);
    onPut?.(item, placed, against);
    // What was held is where it was put: the keys go on from there.
    requestAnimationFrame(() =>
      frame.current?.querySelector<HTMLElement>(`[data-session="${item?.key ?? ""}"]`)?.focus(),
    );
  };
  const dropped = ({ over }: DragEndEvent) => {
    const place = over && places[Number(over.id)];
    if (place?.spot) putSpot(place.spot, false);
    else setHeld(undefined);
  };
  const keys = (event: KeyboardEvent) => {
    if (!held) return;
    if (event.key === "Escape") {
      event.preventDefault();
      event.stopPropagation();
      setHeld(undefined);
      requestAnimationFrame(() => frame.current?.querySelector<HTMLElement>(`[data-session="${heldKey}"]`)?.focus());
    }
    if (event.key.startsWith("Arrow")) {
      event.preventDefault();
      const all = [...(frame.current?.querySelectorAll<HTMLElement>("[data-place]") ?? [])];
      const here = all.indexOf(document.activeElement as HTMLElement);
      const step = event.key === "ArrowRight" || event.key === "ArrowDown" ? 1 : -1;
      all[(here + step + all.length) % all.length]?.focus();
    }
  };
  const holding = held !== undefined && onPut !== undefined;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      // Lines grow when places light up.
      measuring={{ droppable: { strategy: MeasuringStrategy.Always } }}
      onDragStart={({ active }) => {
        const item = items.find((one) => one.key === active.id);
        take(item ? { item } : { groupId: String(active.id).replace("new ", "") });
      }}
      onDragEnd={dropped}
      onDragCancel={() => setHeld(undefined)}
      accessibility={spokenDrag({
        what: (id) => nameIn(groups, items.find((one) => one.key === id)?.placed.groupId ?? id.replace("new ", "")),
        where: (id) => `slot ${Number(id) + 1}`,
        how: "Press Enter to take a session up, the arrow keys to go through the places where it could be, Enter to put it there, Escape to leave it where it was.",
      })}
    >
      <section ref={frame} aria-label={label} onKeyDown={keys}>
        {onPut && unplaced.size > 0 && (
          <p className="mb-2 flex flex-wrap items-center gap-2">
            <span className="text-sm text-soft">No place yet:</span>
            {[...unplaced].map(([id, count]) => (
              <Chip
                key={id}
                id={`new ${id}`}
                name={nameIn(groups, id)}
                about={count === 1 ? "1 session" : `${count} sessions`}
                held={heldKey === `new ${id}`}
                movable
                onTake={() => take(heldKey === `new ${id}` ? undefined : { groupId: id })}
              />
            ))}
          </p>
        )}
        <WeekTable
          label={`${label}, by days`}
          slots={grid.slots}
          {...(head ? { head } : {})}
          cell={(slot) => {
            const at = grid.slots.indexOf(slot);
            const here = items.filter(({ placed }) => placed.slotId === slot.id);
            const place = holding ? places[at] : undefined;
            return (
              <Cell at={at} open={place?.spot !== undefined} waits={holding}>
                {here.map((item) => (
                  <Chip
                    key={item.key}
                    id={item.key}
                    name={wordsOf(item)}
                    about={[nameIn(adults, item.placed.adultId), nameIn(rooms, item.placed.roomId)]
                      .filter(Boolean)
                      .join(" · ")}
                    note={item.note}
                    fixed={item.fixed}
                    held={heldKey === item.key}
                    movable={onPut !== undefined}
                    onTake={() => take(heldKey === item.key ? undefined : { item })}
                    actions={actions?.(item)}
                  />
                ))}
                {place && (
                  <PlaceHere
                    place={place}
                    grid={grid}
                    same={here.some(({ key }) => key === heldKey)}
                    onPut={(spot) => putSpot(spot, false)}
                    allTheSame={allTheSame(at)}
                    onPutAllTheSame={(spot) => putSpot(spot, true)}
                  />
                )}
              </Cell>
            );
          }}
        />
      </section>
    </DndContext>
  );

  /** Where it would be against a rule: with whom and where it is now, if no one would be in two places. */
  function allTheSame(slot: number): Spot | undefined {
    if (!held || !("item" in held) || groupId === undefined) return undefined;
    const here = spotOf(grid, held.item.placed);
    if (!here) return undefined;
    const there = { ...here, slot };
    const others = spots.filter((spot, at): spot is Spot => spot !== undefined && items[at]?.key !== heldKey);
    return others.some((other) => clash(grid, there, other)) ? undefined : there;
  }
}

function Cell({ at, open, waits, children }: { at: number; open: boolean; waits: boolean; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: String(at) });
  const look =
    isOver && open ? "border-leaf bg-leaf-pale" : waits && open ? "border-leaf border-dashed" : "border-line";
  return (
    <div
      ref={setNodeRef}
      data-over={isOver && open}
      className={`flex h-full min-h-11 flex-col gap-1 rounded-md border p-1 ${look}`}
    >
      {children}
    </div>
  );
}

function PlaceHere({
  place,
  grid,
  same,
  onPut,
  allTheSame,
  onPutAllTheSame,
}: {
  place: Place;
  grid: Grid;
  same: boolean;
  onPut: (spot: Spot) => void;
  allTheSame: Spot | undefined;
  onPutAllTheSame: (spot: Spot) => void;
}) {
  const { spot, costs, why } = place;
  if (same) return null;
  if (!spot)
    return (
      <p className="px-1 text-xs text-soft">
        <span className="line-clamp-2" title={why.join(" ")}>
          {why.join(" ")}
        </span>
        {allTheSame && (
          <button
            type="button"
            data-place
            className="min-h-6 underline underline-offset-2 hover:text-ink"
            onClick={() => onPutAllTheSame(allTheSame)}
          >
            All the same
          </button>
        )}
      </p>
    );
  const who = [grid.adults[spot.adult]?.name, grid.rooms[spot.room]?.name].filter(Boolean).join(" · ");
  const cost = costs < -1e-9 ? ", better" : costs > 1e-9 ? ", less wished for" : "";
  return (
    <button
      type="button"
      data-place
      className="block min-h-9 w-full rounded px-1 text-left text-xs hover:bg-leaf-pale"
      onClick={() => onPut(spot)}
    >
      <span className="font-semibold">Here</span>
      {cost}
      <span className="block truncate text-soft">{who}</span>
    </button>
  );
}

interface ChipWanted {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly note?: string | undefined;
  readonly fixed?: boolean;
  readonly held: boolean;
  readonly movable: boolean;
  readonly onTake: () => void;
  readonly actions?: ReactNode;
}

function Chip({ id, name, about, note, fixed = false, held, movable, onTake, actions }: ChipWanted) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id, disabled: !movable || fixed });
  const look = held ? "border-leaf bg-leaf-pale" : "border-line bg-sheet";
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      style={
        transform
          ? { transform: `translate(${transform.x}px, ${transform.y}px)`, position: "relative", zIndex: 20 }
          : undefined
      }
      className={`flex items-start gap-1 rounded border px-1.5 py-1 text-sm ${look} ${isDragging ? "shadow-lg" : ""}`}
    >
      {fixed && <Lock size={13} aria-label="stays where it is" className="mt-1 shrink-0 text-soft" />}
      <span className="min-w-0 flex-1">
        {movable ? (
          <button
            type="button"
            data-session={id}
            aria-pressed={held}
            className="min-h-6 text-left font-semibold hover:underline"
            onClick={onTake}
          >
            {name}
          </button>
        ) : (
          <span className="font-semibold">{name}</span>
        )}
        <span className="block text-xs text-soft">{about}</span>
        {note && <span className="block text-xs text-damson">{note}</span>}
      </span>
      {actions}
    </div>
  );
}
