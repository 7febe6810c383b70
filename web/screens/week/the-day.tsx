import { X } from "lucide-react";
import { useState } from "react";
import {
  evenSlots,
  faultsOf,
  inOrder,
  minutesOf,
  type Slot,
  slotInWords,
  type Weekday,
  weekdayNames,
  weekdays,
} from "#core/groups";
import { timeInWords } from "#core/saying";
import { newId } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField, Tick, WholeField } from "#web/parts/field.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import type { PartOfWeek } from "./use-week.ts";
import { WeekTable } from "./week-table.tsx";

/** The times at which sessions can be held. */
export function TheDay({ week, change }: PartOfWeek) {
  const put = (slots: readonly Slot[]) => change((now) => ({ ...now, slots: inOrder(slots) }));
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <Panel title="Times for sessions">
        {week.slots.length === 0 ? (
          <p className="text-soft">No time yet. Cut the day into equal parts, or add one time after the other.</p>
        ) : (
          <WeekTable
            label="Times for sessions"
            slots={week.slots}
            cell={(slot) => (
              <div className="flex h-full min-h-9 items-center justify-between rounded-md border border-line bg-leaf-pale px-1.5 text-sm">
                {slot.to - slot.from} min
                <button
                  type="button"
                  className="flex size-6 items-center justify-center text-soft hover:text-ink"
                  aria-label={`No sessions on ${slotInWords(slot)}`}
                  onClick={() => put(week.slots.filter(({ id }) => id !== slot.id))}
                >
                  <X size={14} aria-hidden />
                </button>
              </div>
            )}
          />
        )}
      </Panel>
      <div className="flex flex-col gap-4">
        <CutDay none={week.slots.length === 0} onCut={put} />
        <OneTime slots={week.slots} onAdd={(slots) => put([...week.slots, ...slots])} />
        <Panel title="A session">
          <div className="w-32">
            <WholeField
              label="Minutes"
              least={5}
              most={90}
              value={week.minutes}
              hint="where a group says nothing else"
              onSet={(minutes) => void change((now) => ({ ...now, minutes }))}
            />
          </div>
        </Panel>
      </div>
    </div>
  );
}

const school = weekdays.filter((day) => day <= 5);

/** A day cut into equal parts, the same on all days. */
function CutDay({ none, onCut }: { none: boolean; onCut: (slots: readonly Slot[]) => void }) {
  const [from, setFrom] = useState("9:00");
  const [to, setTo] = useState("15:00");
  const [minutes, setMinutes] = useState(25);
  const [gap, setGap] = useState(5);
  const [begins, ends] = [minutesOf(from), minutesOf(to)];
  const wrong = begins === undefined || ends === undefined || begins >= ends;
  const slots = wrong ? [] : evenSlots({ days: school, from: begins, to: ends, minutes, gap });
  return (
    <Panel title="Cut the day">
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (slots.length > 0) onCut(slots.map((slot) => ({ ...slot, id: newId() })));
        }}
      >
        <TextField
          label="From"
          value={from}
          problem={begins === undefined ? "A time, as 9:00." : undefined}
          onChange={(event) => setFrom(event.target.value)}
        />
        <TextField
          label="To"
          value={to}
          problem={
            ends === undefined
              ? "A time, as 15:00."
              : begins !== undefined && begins >= ends
                ? "Ends before it begins."
                : undefined
          }
          onChange={(event) => setTo(event.target.value)}
        />
        <WholeField label="Minutes of each" least={5} most={120} value={minutes} onSet={setMinutes} />
        <WholeField label="Between two" least={0} most={60} value={gap} onSet={setGap} />
        <div className="col-span-2">
          <Button type="submit" shape={none ? "main" : "plain"} disabled={slots.length === 0}>
            {none ? "Make" : "Make anew"} {slots.length / school.length} times a day
          </Button>
        </div>
      </form>
    </Panel>
  );
}

/** One time more, on one day or on all. */
function OneTime({ slots, onAdd }: { slots: readonly Slot[]; onAdd: (slots: readonly Slot[]) => void }) {
  const [on, setOn] = useState<Weekday>(1);
  const [all, setAll] = useState(true);
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [fault, setFault] = useState<string>();
  const add = () => {
    const [begins, ends] = [minutesOf(from), minutesOf(to)];
    if (begins === undefined || ends === undefined) return setFault("Write two times, as 9:00 and 9:25.");
    const fresh = (all ? school : [on]).map((day): Slot => ({ id: newId(), day, from: begins, to: ends }));
    const [wrong] = [
      ...fresh.flatMap((one) => faultsOf([one], (its) => slotInWords(its))),
      ...faultsOf([...slots, ...fresh], (one) => slotInWords(one)),
    ];
    if (wrong) return setFault(wrong);
    onAdd(fresh);
    setFault(undefined);
    setFrom(timeInWords(ends));
    setTo("");
  };
  return (
    <Panel title="Add a time">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <TextField label="Begins" value={from} onChange={(event) => setFrom(event.target.value)} />
          <TextField label="Ends" value={to} onChange={(event) => setTo(event.target.value)} />
        </div>
        <Tick checked={all} onChange={setAll}>
          on all five days
        </Tick>
        {!all && (
          <Choice label="Day" value={on} onChange={(event) => setOn(Number(event.target.value) as Weekday)}>
            {weekdays.map((day) => (
              <option key={day} value={day}>
                {weekdayNames[day]}
              </option>
            ))}
          </Choice>
        )}
        <Fault>{fault}</Fault>
        <Button type="submit">Add</Button>
      </form>
    </Panel>
  );
}
