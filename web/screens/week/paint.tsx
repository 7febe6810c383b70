import { type KeyboardEvent, useRef, useState } from "react";
import { type Slot, slotInWords, type Weekday, weekdayNames } from "#core/groups";
import { timeInWords } from "#core/saying";
import { Choice } from "#web/parts/field.tsx";
import { timesOf, WeekTable } from "./week-table.tsx";

interface PaintWanted {
  readonly label: string;
  readonly slots: readonly Slot[];
  /** What a slot is now, in a word or two; empty where it is as it usually is. */
  readonly valueAt: (slot: Slot) => string;
  /** How that is shown: `on` stands out, `off` is struck through, `plain` is neither. */
  readonly toneOf: (value: string) => "on" | "off" | "plain";
  /** The value that is painted with; the same painted over it once more clears it. */
  readonly brush: string;
  readonly cleared: string;
  readonly onPaint: (slots: readonly Slot[], value: string) => void;
  readonly onCopyDay: (from: Weekday, to: readonly Weekday[]) => void;
}

const tones = {
  on: "border-leaf bg-leaf-pale text-ink",
  off: "border-line bg-line/60 text-soft",
  plain: "border-line bg-sheet text-soft",
};

/**
 * A week to draw hours on: a press paints a slot, a stroke paints a stretch, the name of a day all of it. By keys: arrows move,
 * Space paints, Shift with an arrow paints on.
 */
export function PaintedWeek(wanted: PaintWanted) {
  const { label, slots, valueAt, toneOf, brush, cleared, onPaint, onCopyDay } = wanted;
  const [stroke, setStroke] = useState<{ value: string; ids: ReadonlySet<string> }>();
  const [at, setAt] = useState<string>();
  const table = useRef<HTMLDivElement>(null);
  const byId = new Map(slots.map((slot) => [slot.id, slot]));
  const focusable = at && byId.has(at) ? at : slots[0]?.id;
  const days = [...new Set(slots.map(({ day }) => day))].sort((one, other) => one - other);
  const valueFor = (slot: Slot) => (valueAt(slot) === brush ? cleared : brush);

  const begin = (slot: Slot) => setStroke({ value: valueFor(slot), ids: new Set([slot.id]) });
  const over = (x: number, y: number) => {
    const id = document.elementFromPoint(x, y)?.closest<HTMLElement>("[data-slot]")?.dataset.slot;
    if (stroke && id && !stroke.ids.has(id)) setStroke({ ...stroke, ids: new Set([...stroke.ids, id]) });
  };
  const end = () => {
    if (!stroke) return;
    const painted = slots.filter(({ id }) => stroke.ids.has(id));
    setStroke(undefined);
    onPaint(painted, stroke.value);
  };
  const go = (slot: Slot, key: string): Slot | undefined => {
    const times = timesOf(slots);
    const place = times.findIndex(({ from, to }) => from === slot.from && to === slot.to);
    if (key === "ArrowLeft" || key === "ArrowRight") {
      const step = key === "ArrowRight" ? 1 : -1;
      for (let day = days.indexOf(slot.day) + step; day >= 0 && day < days.length; day += step) {
        const next = slots.find((one) => one.day === days[day] && one.from === slot.from && one.to === slot.to);
        if (next) return next;
      }
      return undefined;
    }
    const step = key === "ArrowDown" ? 1 : -1;
    for (let row = place + step; row >= 0 && row < times.length; row += step) {
      const next = slots.find(
        (one) => one.day === slot.day && one.from === times[row]?.from && one.to === times[row]?.to,
      );
      if (next) return next;
    }
    return undefined;
  };
  const press = (event: KeyboardEvent, slot: Slot) => {
    if (event.key.startsWith("Arrow")) {
      event.preventDefault();
      const next = go(slot, event.key);
      if (!next) return;
      if (event.shiftKey) onPaint([slot, next], brush);
      setAt(next.id);
      table.current?.querySelector<HTMLElement>(`[data-slot="${next.id}"]`)?.focus();
    } else if (event.key === " " || event.key === "Enter") {
      event.preventDefault();
      onPaint([slot], valueFor(slot));
    }
  };
  return (
    <div
      ref={table}
      className="select-none"
      onPointerMove={(event) => stroke && over(event.clientX, event.clientY)}
      onPointerUp={end}
      onPointerCancel={() => setStroke(undefined)}
    >
      <WeekTable
        label={label}
        slots={slots}
        head={(day) => (
          <button
            type="button"
            className="-ml-1 block min-h-6 rounded px-1 text-xs font-normal text-soft underline underline-offset-2 hover:text-ink"
            aria-label={`All of ${weekdayNames[day]}`}
            onClick={() => {
              const all = slots.filter((one) => one.day === day);
              onPaint(all, all.every((slot) => valueAt(slot) === brush) ? cleared : brush);
            }}
          >
            all
          </button>
        )}
        cell={(slot) => {
          const value = stroke?.ids.has(slot.id) ? stroke.value : valueAt(slot);
          return (
            <button
              type="button"
              data-slot={slot.id}
              tabIndex={slot.id === focusable ? 0 : -1}
              aria-pressed={value === brush}
              aria-label={`${slotInWords(slot)} to ${timeInWords(slot.to)}: ${value || "nothing"}`}
              onFocus={() => setAt(slot.id)}
              onKeyDown={(event) => press(event, slot)}
              // Pressed by something that is neither a pointer nor a key.
              onClick={(event) => event.detail === 0 && onPaint([slot], valueFor(slot))}
              onPointerDown={(event) => {
                if (event.button !== 0) return;
                if (event.currentTarget.hasPointerCapture(event.pointerId))
                  event.currentTarget.releasePointerCapture(event.pointerId);
                begin(slot);
              }}
              className={`block size-full min-h-11 touch-none truncate rounded-md border px-1.5 py-1 text-left text-sm ${tones[toneOf(value)]}`}
            >
              {value}
            </button>
          );
        }}
      />
      <CopyDay days={days} onCopy={onCopyDay} />
    </div>
  );
}

function CopyDay({ days, onCopy }: { days: readonly Weekday[]; onCopy: PaintWanted["onCopyDay"] }) {
  const [from, setFrom] = useState<Weekday>();
  const source = from ?? days[0];
  if (!source || days.length < 2) return null;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <div className="w-36">
        <Choice
          label="Copy a day"
          value={source}
          onChange={(event) => setFrom(Number(event.target.value) as Weekday)}
        >
          {days.map((day) => (
            <option key={day} value={day}>
              {weekdayNames[day]}
            </option>
          ))}
        </Choice>
      </div>
      <div className="w-40">
        <Choice
          label="to"
          value=""
          onChange={(event) => {
            const to = event.target.value;
            onCopy(source, to === "all" ? days.filter((day) => day !== source) : [Number(to) as Weekday]);
          }}
        >
          <option value="" disabled>
            choose
          </option>
          <option value="all">all other days</option>
          {days
            .filter((day) => day !== source)
            .map((day) => (
              <option key={day} value={day}>
                {weekdayNames[day]}
              </option>
            ))}
        </Choice>
      </div>
    </div>
  );
}
