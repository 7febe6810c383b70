import type { ReactNode } from "react";
import { type Slot, type Stretch, type Weekday, weekdayNames } from "#core/groups";
import { timeInWords } from "#core/saying";

interface WeekTableWanted<One extends Stretch> {
  readonly label: string;
  readonly slots: readonly One[];
  /** Under the name of a day: its date, what copies or fills it. */
  readonly head?: (day: Weekday) => ReactNode;
  readonly cell: (slot: One) => ReactNode;
  /** Days that are there even when no slot is. */
  readonly days?: readonly Weekday[];
}

/** The times of slots, each once: what the lines of a week are. */
export function timesOf(slots: readonly Stretch[]): { readonly from: number; readonly to: number }[] {
  const times = new Map(slots.map(({ from, to }) => [`${from}-${to}`, { from, to }]));
  return [...times.values()].sort((one, other) => one.from - other.from || one.to - other.to);
}

/** A week: days side by side, their slots one under the other. A slot that a day has not got is an empty field. */
export function WeekTable<One extends Stretch = Slot>({ label, slots, head, cell, days }: WeekTableWanted<One>) {
  const shown = days ?? [...new Set(slots.map(({ day }) => day))].sort((one, other) => one - other);
  return (
    <div className="overflow-x-auto">
      <table aria-label={label} className="w-full min-w-[31rem] table-fixed border-separate border-spacing-1">
        <thead>
          <tr>
            <th scope="col" className="w-[4.5rem]">
              <span className="sr-only">Time</span>
            </th>
            {shown.map((day) => (
              <th key={day} scope="col" className="px-1 pb-1 text-left align-bottom font-semibold">
                {weekdayNames[day]}
                {head?.(day)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {timesOf(slots).map(({ from, to }) => (
            <tr key={`${from}-${to}`}>
              <th scope="row" className="pt-1.5 pr-1 text-right align-top text-sm font-normal tabular-nums">
                {timeInWords(from)}
                <span className="block text-xs text-soft">
                  <span className="sr-only">to </span>
                  {timeInWords(to)}
                </span>
              </th>
              {shown.map((day) => {
                const slot = slots.find((one) => one.day === day && one.from === from && one.to === to);
                return (
                  <td key={day} className="h-11 p-0 align-top">
                    {slot && cell(slot)}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
