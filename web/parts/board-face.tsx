import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { FaceBody } from "#contract";
import { useMine } from "./mine.ts";
import { spokenDrag } from "./spoken-drag.ts";

/** Words that are seen of a column; more would leave no room for the next. */
const MOST_SEEN = 4;

type BoardBody = Extract<FaceBody, { show: "board" }>;
type Laid = BoardBody["at"];

interface BoardWanted {
  readonly face: BoardBody;
  readonly room: "window" | "desk";
  readonly onLaid: (laid: Laid) => void;
}

/** Height and letters of a tile: as large as the window lets so many of them be. */
function tileSize({ look, places, tiles }: BoardBody, room: BoardWanted["room"]): string {
  const across = Math.max(look === "boxes" ? places.length : 2, Math.ceil(tiles.length / 2), 4);
  return room === "window" ? `min(${Math.round(76 / across)}vw, 20vh)` : `min(${Math.round(46 / across)}vw, 5.5rem)`;
}

/**
 * Tiles that children lay into boxes or columns: dragged by finger or mouse, or pressed and then the place pressed, by keys too.
 * What was laid here stands at once; the adult's side is told.
 */
export function BoardFace({ face, room, onLaid }: BoardWanted) {
  const { item, places, tiles, look } = face;
  const [at, waits, setAt] = useMine<Laid>(item, face.at);
  const [picked, setPicked] = useState<{ readonly item: string; readonly tile: number }>();
  const held = picked?.item === item ? picked.tile : undefined;
  const frame = useRef<HTMLDivElement>(null);
  const focusOn = useRef<number>(undefined);
  useEffect(() => {
    const tile = focusOn.current;
    focusOn.current = undefined;
    if (tile !== undefined) frame.current?.querySelector<HTMLElement>(`[data-tile="${tile}"]`)?.focus();
  });
  const lay = (tile: number, place: number | null, keepFocus: boolean) => {
    const out = look === "boxes" && place !== null ? at.map((where) => (where === place ? null : where)) : at;
    const next = out.with(tile, place);
    setPicked(undefined);
    if (keepFocus) focusOn.current = tile;
    if (JSON.stringify(next) === JSON.stringify(at)) return;
    setAt(next);
    onLaid(next);
  };
  const pressTile = (tile: number) => {
    const where = at[tile] ?? null;
    if (held !== undefined && held !== tile && where !== null) return lay(held, where, true);
    if (held !== tile) return setPicked({ item, tile });
    // Pressed twice it goes to the first box that is free, or off the board.
    const free = look === "boxes" ? places.findIndex((_, place) => !at.includes(place)) : -1;
    if (where !== null) lay(tile, null, true);
    else if (free >= 0) lay(tile, free, true);
    else setPicked(undefined);
  };
  const pressPlace = (place: number | null) => {
    if (held !== undefined) lay(held, place, true);
  };
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const dropped = ({ active, over }: DragEndEvent) => {
    const where = over ? String(over.id) : "beside";
    lay(Number(active.id), where === "beside" ? null : Number(where), false);
  };
  const size = tileSize(face, room);
  const nameOf = (place: number) => places[place]?.name || `box ${place + 1}`;
  const draw = (tile: number) => {
    const { text, as } = tiles[tile] ?? { text: "", as: null };
    const seen = waits ? null : as;
    const where = at[tile] ?? null;
    const says = `${text}${where === null ? "" : `, in ${nameOf(where)}`}${seen === null ? "" : seen === "right" ? ", right" : ", not yet"}`;
    return (
      <Tile
        key={tile}
        {...{ tile, text, says, look, size }}
        as={seen}
        isHeld={held === tile}
        onPress={() => pressTile(tile)}
      />
    );
  };
  const lying = (place: number | null) =>
    tiles.flatMap((_, tile) => ((at[tile] ?? null) === place ? [draw(tile)] : []));
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={dropped}
      accessibility={spokenDrag({
        what: (id) => tiles[Number(id)]?.text ?? "",
        where: (id) => (id === "beside" ? "beside the board" : nameOf(Number(id))),
        how: "Press to pick it up, then press the place where it goes. Press it twice to put it into the first free box, or to take it off.",
      })}
    >
      <div
        ref={frame}
        data-testid="board"
        className="font-child flex w-full select-none flex-col items-center gap-[4vh] text-ink"
      >
        <ul
          aria-label={look === "boxes" ? "Boxes" : "Columns"}
          className="flex w-full items-stretch justify-center gap-[1.5vw]"
        >
          {places.map(({ name, has }, place) => (
            <Place
              // biome-ignore lint/suspicious/noArrayIndexKey: boxes have no other name
              key={place}
              {...{ place, look, size }}
              says={nameOf(place)}
              isAsked={held !== undefined}
              onPress={() => pressPlace(place)}
              head={name}
              has={has}
            >
              {lying(place)}
            </Place>
          ))}
        </ul>
        <Beside
          isAsked={held !== undefined && (at[held] ?? null) !== null}
          onPress={() => pressPlace(null)}
          size={size}
        >
          {lying(null)}
        </Beside>
      </div>
    </DndContext>
  );
}

const looks = {
  right: "border-leaf",
  wrong: "border-dashed border-ink",
  none: "border-soft",
} as const;

function Tile({
  tile,
  text,
  says,
  as,
  look,
  size,
  isHeld,
  onPress,
}: {
  tile: number;
  text: string;
  says: string;
  as: "right" | "wrong" | null;
  look: BoardBody["look"];
  size: string;
  isHeld: boolean;
  onPress: () => void;
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: String(tile) });
  return (
    <button
      ref={setNodeRef}
      type="button"
      data-tile={tile}
      aria-label={says}
      aria-pressed={isHeld}
      {...listeners}
      onClick={onPress}
      className={`relative flex touch-none items-center justify-center rounded-xl border-2 bg-sheet leading-none shadow-sm ${looks[as ?? "none"]} ${isHeld ? "-translate-y-1 border-ink outline-2 outline-offset-2 outline-ink" : ""} ${isDragging ? "z-10 cursor-grabbing" : "cursor-grab"}`}
      style={{
        height: size,
        fontSize: `calc(${size} * ${text.length > 2 ? 0.42 : 0.56})`,
        ...(look === "boxes" ? { width: size } : { paddingInline: "0.6em" }),
        ...(transform ? { translate: `${transform.x}px ${transform.y}px` } : {}),
      }}
    >
      <span className={as === "right" ? "bracketed" : ""}>
        <span className={as === "right" ? "asked" : "no-sound"}>{text}</span>
      </span>
    </button>
  );
}

function Place({
  place,
  says,
  head,
  has,
  look,
  size,
  isAsked,
  onPress,
  children,
}: {
  place: number;
  says: string;
  head: string;
  has: readonly string[];
  look: BoardBody["look"];
  size: string;
  isAsked: boolean;
  onPress: () => void;
  children: ReactNode[];
}) {
  const { setNodeRef, isOver } = useDroppable({ id: String(place) });
  const border = isOver ? "border-ink bg-leaf-pale" : isAsked ? "border-ink" : "border-soft";
  const put = (
    <button
      type="button"
      aria-label={look === "boxes" ? `${says}, empty` : `Put into ${says}`}
      tabIndex={isAsked ? 0 : -1}
      onClick={onPress}
      className="min-h-11 w-full flex-1 rounded-lg"
    />
  );
  if (look === "boxes")
    return (
      <li
        ref={setNodeRef}
        className={`flex items-center justify-center rounded-2xl border-2 ${border}`}
        style={{ width: `calc(${size} + 16px)`, height: `calc(${size} + 16px)` }}
      >
        {children.length > 0 ? children : <span className="flex size-full">{put}</span>}
      </li>
    );
  return (
    <li
      ref={setNodeRef}
      className={`flex min-h-[34vh] min-w-0 flex-1 flex-col items-center gap-2 rounded-2xl border-2 p-3 ${border}`}
      style={{ fontSize: `calc(${size} * 0.34)` }}
    >
      <span className="border-b border-line px-3 leading-snug" style={{ fontSize: `calc(${size} * 0.5)` }}>
        {head}
      </span>
      {has.slice(-MOST_SEEN).map((word) => (
        <span key={word} className="leading-snug">
          {word}
        </span>
      ))}
      {children}
      {put}
    </li>
  );
}

/** Where tiles lie that are on no place. Its height stays, so that nothing moves when the last is taken. */
function Beside({
  isAsked,
  size,
  onPress,
  children,
}: {
  isAsked: boolean;
  size: string;
  onPress: () => void;
  children: ReactNode[];
}) {
  const { setNodeRef } = useDroppable({ id: "beside" });
  return (
    <div
      ref={setNodeRef}
      className="flex w-full flex-wrap items-center justify-center gap-3"
      style={{ minHeight: `calc(${size} * 1.1)` }}
    >
      {children}
      {isAsked && (
        <button
          type="button"
          aria-label="Take it off the board"
          onClick={onPress}
          className="rounded-xl border-2 border-dashed border-ink"
          style={{ width: size, height: size }}
        />
      )}
    </div>
  );
}
