import { X } from "lucide-react";
import { useState } from "react";
import { getSchool } from "#contract";
import { calendarFaults, calendarWith, type Days, dayLater, type SchoolCalendar } from "#core/groups";
import { plural, shortDay } from "#core/saying";
import { useAsk } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";
import { type FileTold, ReadFile } from "./read-file.tsx";
import { type PartOfWeek, useWeekOffPage } from "./use-week.ts";

/** Days ahead up to which a calendar file is looked at. */
const DAYS_AHEAD = 730;

/** When there is school. */
export function TheTerms({ week, change }: PartOfWeek) {
  const { calendar } = week;
  const offPage = useWeekOffPage();
  const school = useAsk(getSchool, {});
  const read = async (key: keyof SchoolCalendar, text: string): Promise<FileTold | undefined> => {
    const today = school.data?.today;
    if (!today) return undefined;
    const found = await offPage.ask((worker) =>
      worker.readDays(text, { from: today, to: dayLater(today, DAYS_AHEAD) }),
    );
    const { added, leftOut } = calendarWith(calendar, key, found);
    await change((now) => {
      const { terms, off } = calendarWith(now.calendar, key, found).calendar;
      return { ...now, calendar: { terms: [...terms], off: [...off] } };
    });
    return { says: `${plural(added, "stretch", "stretches")} of days added.`, leftOut };
  };
  const add = (next: SchoolCalendar): string | undefined => {
    const [fault] = calendarFaults(next);
    if (!fault) void change((now) => ({ ...now, calendar: { terms: [...next.terms], off: [...next.off] } }));
    return fault;
  };
  const list = (key: keyof SchoolCalendar) => ({
    days: calendar[key],
    onAdd: (one: Days) => add({ ...calendar, [key]: [...calendar[key], one] }),
    onRead: (text: string) => read(key, text),
    onRemove: (one: Days) => void add({ ...calendar, [key]: calendar[key].filter((other) => other !== one) }),
  });
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2">
      <DayList title="Terms" what="term" none="No term: sessions are set down for twelve weeks." {...list("terms")} />
      <DayList title="Holidays and days off" what="day off" none="No day off yet." {...list("off")} />
    </div>
  );
}

function DayList({
  title,
  what,
  none,
  days,
  onAdd,
  onRead,
  onRemove,
}: {
  title: string;
  what: string;
  none: string;
  days: readonly Days[];
  onAdd: (one: Days) => string | undefined;
  onRead: (text: string) => Promise<FileTold | undefined>;
  onRemove: (one: Days) => void;
}) {
  const [name, setName] = useState("");
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [fault, setFault] = useState<string>();
  const add = () => {
    if (name.trim() === "" || from === "") return setFault("Give it a name and its first day.");
    const wrong = onAdd({ name: name.trim(), from, to: to || from });
    setFault(wrong);
    if (wrong) return;
    setName("");
    setFrom("");
    setTo("");
  };
  return (
    <Panel title={title}>
      {days.length === 0 && <p className="mb-2 text-soft">{none}</p>}
      <ul className="mb-3 flex flex-col divide-y divide-line">
        {days
          .toSorted((one, other) => one.from.localeCompare(other.from))
          .map((one) => (
            <li key={`${one.name} ${one.from}`} className="flex items-center justify-between gap-3 py-1">
              <span>
                <strong>{one.name}</strong>{" "}
                <span className="text-soft">
                  {one.from === one.to
                    ? shortDay(one.from, "")
                    : `${shortDay(one.from, "")} to ${shortDay(one.to, "")}`}
                </span>
              </span>
              <Button shape="quiet" aria-label={`Remove ${one.name}`} onClick={() => onRemove(one)}>
                <X size={16} aria-hidden />
              </Button>
            </li>
          ))}
      </ul>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <div className="w-40">
          <TextField
            label={`Name of the ${what}`}
            maxLength={40}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </div>
        <div className="w-36">
          <TextField label="First day" type="date" value={from} onChange={(event) => setFrom(event.target.value)} />
        </div>
        <div className="w-36">
          <TextField label="Last day" type="date" value={to} onChange={(event) => setTo(event.target.value)} />
        </div>
        <Button type="submit">Add</Button>
      </form>
      <Fault className="mt-2">{fault}</Fault>
      <ReadFile
        label={`${title}, as a file`}
        hint="A table with a name, the first day and the last (26/10/2026, the day first), or a calendar file (.ics): its events of whole days."
        onRead={onRead}
      />
    </Panel>
  );
}
