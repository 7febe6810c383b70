import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, memo, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { listedKey, useKeys } from "#web/device/keys.tsx";
import { leafClass, leafStyle } from "#web/parts/marks.tsx";
import { columnName, type GapRow, type GapView } from "./view.ts";

const CELL = 30;
const ROW = 30;
const HEAD = 84;
const NAME = 168;
/** Rows that are drawn in one go when the map opens: more of them would hold up a slow device. */
const ROWS_AT_ONCE = 3;

export interface CellPlace {
  readonly row: number;
  readonly column: number;
}

interface GridWanted {
  readonly view: GapView;
  /** Child whose row is marked out. */
  readonly childId: string | null;
  /** States to leave pale, when one state is looked for. */
  readonly only: string;
  readonly onOpen: (place: CellPlace) => void;
}

/** Children by correspondences; only what can be seen is drawn, so 300 by 130 scrolls as smoothly as 20 by 20. */
export function Grid({ view, childId, only, onOpen }: GridWanted) {
  const frame = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState<CellPlace>({ row: 0, column: 0 });
  const rows = useVirtualizer({
    count: view.rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 3,
    // The active row is drawn wherever it is, so that what says which cell is active points at one that exists.
    rangeExtractor: (range) =>
      [...new Set([...defaultRangeExtractor(range), Math.min(active.row, view.rows.length - 1)])].sort(
        (one, other) => one - other,
      ),
    scrollPaddingStart: HEAD,
    scrollPaddingEnd: 20,
  });
  const columns = useVirtualizer({
    count: view.columns.length,
    horizontal: true,
    getScrollElement: () => frame.current,
    estimateSize: () => CELL,
    overscan: 2,
    scrollPaddingStart: NAME,
    scrollPaddingEnd: 20,
  });
  const shown = columns.getVirtualItems();
  const inSight = rows.getVirtualItems();
  const [drawn, setDrawn] = useState(ROWS_AT_ONCE);
  useEffect(() => {
    if (drawn >= inSight.length) return;
    const next = setTimeout(() => setDrawn(drawn + ROWS_AT_ONCE), 16);
    return () => clearTimeout(next);
  }, [drawn, inSight.length]);
  const width = NAME + columns.getTotalSize();

  useEffect(() => {
    const at = view.rows.findIndex((row) => row.id === childId);
    if (at >= 0) rows.scrollToIndex(at, { align: "center" });
  }, [childId, view.rows, rows]);

  useKeys([
    listedKey("arrows", "Another place of the map"),
    listedKey("Home, End", "The first and the last spelling"),
    listedKey("Page up, page down", "Twelve children on"),
    listedKey("Enter", "Every answer behind it"),
  ]);
  const go = (event: KeyboardEvent, row: number, column: number) => {
    event.preventDefault();
    const next = {
      row: Math.max(0, Math.min(view.rows.length - 1, row)),
      column: Math.max(0, Math.min(view.columns.length - 1, column)),
    };
    setActive(next);
    rows.scrollToIndex(next.row);
    columns.scrollToIndex(next.column);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    // A child's link in the grid is a link.
    if (event.target !== event.currentTarget) return;
    const { row, column } = active;
    const moves: Record<string, [number, number]> = {
      ArrowUp: [row - 1, column],
      ArrowDown: [row + 1, column],
      ArrowLeft: [row, column - 1],
      ArrowRight: [row, column + 1],
      Home: [row, 0],
      End: [row, view.columns.length - 1],
      PageUp: [row - 12, column],
      PageDown: [row + 12, column],
    };
    const move = moves[event.key];
    if (move) go(event, move[0], move[1]);
    else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      onOpen(active);
    }
  };
  const onClick = (event: React.MouseEvent) => {
    const cell = (event.target as Element).closest<HTMLElement>("[data-column]");
    if (!cell) return;
    const place = { row: Number(cell.dataset.row), column: Number(cell.dataset.column) };
    setActive(place);
    onOpen(place);
  };

  return (
    <div
      ref={frame}
      role="grid"
      aria-label="Children by spellings"
      aria-rowcount={view.rows.length + 1}
      aria-colcount={view.columns.length + 1}
      aria-activedescendant={`cell-${active.row}-${active.column}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onClick={onClick}
      className="relative max-h-[calc(100vh-15.5rem)] min-h-72 overflow-auto rounded-lg border border-line bg-sheet"
    >
      <div role="presentation" style={{ width, height: HEAD + rows.getTotalSize(), position: "relative" }}>
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 flex border-b border-line bg-sheet"
          style={{ height: HEAD, width }}
        >
          <span
            role="columnheader"
            className="sticky left-0 z-10 flex flex-none flex-col justify-end border-r border-line bg-sheet px-2 pb-1 text-sm text-soft"
            style={{ width: NAME }}
          >
            Child, and gaps
            <span className="text-xs">below each spelling: children with a gap</span>
          </span>
          {shown.map((item) => (
            <Head key={item.key} column={item.index} left={NAME + item.start} view={view} />
          ))}
        </div>
        {inSight.slice(0, drawn).map((item) => {
          const row = view.rows[item.index];
          return row ? (
            <Row
              key={row.id}
              row={row}
              at={item.index}
              top={HEAD + item.start}
              width={width}
              first={shown[0]?.index ?? 0}
              last={shown.at(-1)?.index ?? -1}
              columns={view.columns}
              active={active.row === item.index ? active.column : -1}
              marked={row.id === childId}
              only={only}
            />
          ) : null;
        })}
      </div>
    </div>
  );
}

function Head({ column, left, view }: { column: number; left: number; view: GapView }) {
  const { gpc, step, title } = view.columns[column] ?? { gpc: "", step: 0, title: "" };
  const newStep = view.columns[column - 1]?.step !== step;
  const { top, below, name } = columnName(gpc);
  return (
    <span
      role="columnheader"
      aria-colindex={column + 2}
      title={step > 0 && below ? `${name}, step ${step}: ${title}` : `${name}, ${title}`}
      className={`absolute bottom-0 flex flex-col items-center justify-end gap-0.5 pb-1 ${newStep ? "border-l border-line" : ""}`}
      style={{ left, width: CELL, height: HEAD }}
    >
      <span className="h-4 text-xs text-soft">{newStep ? step || "–" : ""}</span>
      {below ? (
        <span className={`font-child leading-none ${top.length > 3 ? "text-xs" : "text-[0.95rem]"}`}>{top}</span>
      ) : (
        <span className="rotate-180 text-xs leading-none [writing-mode:vertical-rl]">{top}</span>
      )}
    </span>
  );
}

interface RowWanted {
  readonly row: GapRow;
  readonly at: number;
  readonly top: number;
  readonly width: number;
  readonly first: number;
  readonly last: number;
  readonly columns: GapView["columns"];
  readonly active: number;
  readonly marked: boolean;
  readonly only: string;
}

const Row = memo(function Row({ row, at, top, width, first, last, columns, active, marked, only }: RowWanted) {
  const cells = [];
  const seen = Array.from({ length: last - first + 1 }, (_, index) => first + index);
  const drawn = active >= 0 && (active < first || active > last) ? [...seen, active] : seen;
  for (const column of drawn) {
    const state = row.states[column];
    if (!state) continue;
    const chance = row.chances[column] ?? 0;
    cells.push(
      <span
        key={column}
        id={`cell-${at}-${column}`}
        role="gridcell"
        aria-colindex={column + 2}
        aria-label={`${row.name}, ${columnName(columns[column]?.gpc ?? "").name}: ${state}${chance > 0 ? `, ${Math.round(chance * 100)}%` : ""}`}
        data-row={at}
        data-column={column}
        data-state={state}
        className={`absolute flex cursor-pointer items-center justify-center ${active === column ? "z-10 rounded outline-2 outline-damson" : ""} ${only && only !== state ? "opacity-25" : ""}`}
        style={{ left: NAME + column * CELL, top: 0, width: CELL, height: ROW }}
      >
        <span className={leafClass(state)} style={leafStyle(chance)} aria-hidden />
      </span>,
    );
  }
  return (
    <div
      role="row"
      aria-rowindex={at + 2}
      // A layer of its own: what is added below it does not paint it anew.
      className={`absolute left-0 isolate border-b border-line/40 ${marked ? "bg-leaf-pale" : "hover:bg-leaf-pale/50"}`}
      style={{ top, width, height: ROW }}
    >
      <span
        role="rowheader"
        className={`sticky left-0 z-10 flex h-full items-center justify-between border-r border-line px-2 ${marked ? "bg-leaf-pale font-semibold" : "bg-sheet"}`}
        style={{ width: NAME }}
      >
        <Link to={`/child/${row.id}`} className="truncate hover:underline">
          {row.name}
        </Link>
        <span className="pl-2 text-sm tabular-nums text-soft">{row.gaps}</span>
      </span>
      {cells}
    </div>
  );
});
