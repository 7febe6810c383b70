import { useMemo, useState } from "react";
import { changeMeetings, getSchool, listMeetings, type Meetings } from "#contract";
import {
  allDay,
  type Changed,
  dayLater,
  gridOf,
  type Missing,
  mondayOf,
  type Placed,
  placesFor,
  type Slot,
  slotInWords,
  spotOf,
  type WeekWanted,
  weekdayOf,
} from "#core/groups";
import { plural, shortDay, timeInWords } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { toast } from "#web/parts/toast.tsx";
import { useWeekOffPage } from "./use-week.ts";

type Meeting = Meetings["meetings"][number];

/** A change of one session on its day, with the places where it could go when it falls out. */
interface Proposed {
  readonly meeting: Meeting;
  readonly after: { readonly slot: Slot; readonly placed: Placed; readonly on: string } | null;
  readonly couldGo: readonly string[];
}

const MOST_WEEKS = 15;

interface AwayWanted {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly today: string;
  readonly monday: string;
  readonly wantedWith: () => WeekWanted | undefined;
}

/** Someone is away, a room is closed, a class is on a trip: what changes, for as few children as can be. */
export function AwaySheet({ open, onClose, ...wanted }: AwayWanted) {
  return (
    <Sheet open={open} onClose={onClose} title="Away, closed, a trip" place="side">
      {open && <AwayForm {...wanted} onDone={onClose} />}
    </Sheet>
  );
}

function AwayForm({
  today,
  monday,
  wantedWith,
  onDone,
}: Omit<AwayWanted, "open" | "onClose"> & { onDone: () => void }) {
  const offPage = useWeekOffPage();
  const school = useAsk(getSchool, {});
  const wanted = useMemo(() => wantedWith(), [wantedWith]);
  const [who, setWho] = useState("");
  const first = monday > today ? monday : today;
  const [from, setFrom] = useState(first);
  const [to, setTo] = useState(first);
  const backwards = to < from;
  const weeks = useMemo(() => {
    const list: string[] = [];
    for (let week = mondayOf(from); !backwards && week <= to && list.length < MOST_WEEKS; week = dayLater(week, 7))
      list.push(week);
    return list;
  }, [from, to, backwards]);
  const { data } = useAsk(
    listMeetings,
    weeks.length > 0 ? { query: { from: weeks[0] as string, to: dayLater(weeks.at(-1) as string, 6) } } : null,
  );
  const [proposed, setProposed] = useState<{ changes: readonly Proposed[]; children: number; fewest: boolean }>();
  if (!wanted || !school.data) return null;
  const days = (week: string) =>
    Array.from({ length: 7 }, (_, at) => dayLater(week, at)).filter((day) => from <= day && day <= to);
  const missingIn = (week: string): Missing => {
    const when = days(week).map((day) => allDay(weekdayOf(day)));
    const [kind = "", id = ""] = who.split(":");
    return kind === "everyone" ? { kind, when } : { kind: kind as "adult", id, when };
  };
  const propose = async () => {
    if (!data) return;
    const all: Proposed[] = [];
    const touched = new Set<string>();
    let fewest = true;
    try {
      for (const week of weeks) {
        const off = data.off.filter(({ day }) => mondayOf(day) === week).map(({ day }) => allDay(weekdayOf(day)));
        // Days that are over, and days off, are no place to go to; what is on them stays.
        const over = Array.from({ length: 7 }, (_, at) => dayLater(week, at)).filter((day) => day < today);
        const closed = [...off, ...over.map((day) => allDay(weekdayOf(day)))];
        const mine = data.meetings.filter(
          (one) => mondayOf(one.on) === week && !one.cancelled && one.on >= today && slotOf(one),
        );
        const placed = mine.map((one) => asPlaced(one));
        const missing: Missing[] = [
          missingIn(week),
          ...(closed.length > 0 ? [{ kind: "everyone" as const, when: closed }] : []),
        ];
        const told = await offPage.ask((worker) => worker.change(wanted, placed, missing));
        fewest = fewest && told.fewest;
        const after = placed.flatMap((one) => {
          const change = told.changes.find(({ before }) => isSame(before, one));
          return change ? (change.after ?? []) : one;
        });
        for (const change of told.changes) {
          const meeting = mine[placed.findIndex((one) => isSame(one, change.before))];
          if (!meeting) continue;
          const entry = proposedOf(week, meeting, change, after);
          if (!entry.after || entry.after.on !== meeting.on || entry.after.slot.from !== meeting.from)
            for (const child of meeting.members) touched.add(child);
          all.push(entry);
        }
      }
      setProposed({ changes: all, children: touched.size, fewest });
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const take = async () => {
    if (!proposed) return;
    try {
      await call(changeMeetings, {
        body: {
          changes: proposed.changes.map(({ meeting, after }) => {
            const { id, groupId, sequence } = meeting;
            const time = after
              ? { on: after.on, from: after.slot.from, to: after.slot.from + meeting.to - meeting.from }
              : { on: meeting.on, from: meeting.from, to: meeting.to };
            const { adultId, roomId } = after?.placed ?? meeting;
            return { id, groupId, sequence, ...time, adultId, roomId, cancelled: after === null };
          }),
        },
      });
      await refreshAll();
      toast(`${plural(proposed.changes.length, "session")} changed.`);
      onDone();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const changed = (how: () => void) => {
    setProposed(undefined);
    how();
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void (proposed && proposed.changes.length > 0 ? take() : propose());
      }}
    >
      <Choice
        label="Who or what is not there"
        value={who}
        onChange={(event) => changed(() => setWho(event.target.value))}
      >
        <option value="" disabled>
          choose
        </option>
        <optgroup label="An adult is away">
          {wanted.adults.map(({ id, name }) => (
            <option key={id} value={`adult:${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
        {wanted.rooms.length > 0 && (
          <optgroup label="A room is closed">
            {wanted.rooms.map(({ id, name }) => (
              <option key={id} value={`room:${id}`}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
        <optgroup label="A class is out">
          {school.data.classes
            .filter(({ archived }) => !archived)
            .map(({ id, name }) => (
              <option key={id} value={`class:${id}`}>
                {name}
              </option>
            ))}
        </optgroup>
        <option value="everyone:">Everyone: no sessions at all</option>
      </Choice>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label="From"
          type="date"
          min={today}
          value={from}
          onChange={(event) =>
            changed(() => {
              setFrom(event.target.value);
              if (to < event.target.value) setTo(event.target.value);
            })
          }
        />
        <TextField
          label="To"
          type="date"
          min={from}
          value={to}
          problem={backwards ? "This lies before the first day." : undefined}
          onChange={(event) => changed(() => setTo(event.target.value))}
        />
      </div>
      {!proposed && (
        <Button type="submit" shape="main" disabled={who === "" || backwards || !data} onClick={propose}>
          Propose what changes
        </Button>
      )}
      {proposed && (
        <section aria-label="Proposed change" className="flex flex-col gap-2">
          <p role="status">
            {proposed.changes.length === 0
              ? "No session is touched. Nothing has to change."
              : `${plural(proposed.changes.length, "session")} ${proposed.changes.length === 1 ? "changes" : "change"}; ${
                  proposed.children === 0
                    ? "no child has another time"
                    : `${plural(proposed.children, "child", "children")} ${proposed.children === 1 ? "has" : "have"} another time or none`
                }.${proposed.fewest ? " No change touches fewer." : ""}`}
          </p>
          <ul className="flex flex-col divide-y divide-line">
            {proposed.changes.map(({ meeting, after, couldGo }) => (
              <li key={meeting.id} className="py-1.5">
                <span className="font-semibold">{meeting.groupName}</span> {shortDay(meeting.on, today)}{" "}
                {timeInWords(meeting.from)}
                <span className="block text-sm">{after ? inWords(meeting, after) : "falls out"}</span>
                {!after && (
                  <span className="block text-sm text-soft">
                    {couldGo.length > 0
                      ? `It could go to ${couldGo.slice(0, 3).join(", ")} if you move it by hand.`
                      : "No place is free for it in that week."}
                  </span>
                )}
              </li>
            ))}
          </ul>
          {proposed.changes.length > 0 && (
            <Button type="submit" shape="main" autoFocus onClick={take}>
              Change these
            </Button>
          )}
        </section>
      )}
    </form>
  );

  function slotOf(one: Meeting): Slot | undefined {
    return wanted?.slots.find(({ day, from: begins }) => day === weekdayOf(one.on) && begins === one.from);
  }
  function asPlaced(one: Meeting): Placed {
    return { groupId: one.groupId, slotId: slotOf(one)?.id ?? "", adultId: one.adultId, roomId: one.roomId };
  }
  function proposedOf(week: string, meeting: Meeting, { after }: Changed, placed: readonly Placed[]): Proposed {
    const slot = wanted?.slots.find(({ id }) => id === after?.slotId);
    if (after && slot)
      return { meeting, after: { slot, placed: after, on: dayLater(week, slot.day - 1) }, couldGo: [] };
    if (!wanted) return { meeting, after: null, couldGo: [] };
    const grid = gridOf(wanted);
    const spots = placed.flatMap((one) => spotOf(grid, one) ?? []);
    const group = grid.groups.findIndex(({ id }) => id === meeting.groupId);
    const free = placesFor(grid, spots, { at: -1, group }).filter(
      (place) => place.spot && !days(week).includes(dayLater(week, (grid.slots[place.slot]?.day ?? 1) - 1)),
    );
    const later = free.filter((place) => dayLater(week, (grid.slots[place.slot]?.day ?? 1) - 1) >= today);
    return { meeting, after: null, couldGo: later.map((place) => slotInWords(grid.slots[place.slot] as Slot)) };
  }
  function inWords(meeting: Meeting, after: NonNullable<Proposed["after"]>): string {
    const adult = wanted?.adults.find(({ id }) => id === after.placed.adultId)?.name ?? "";
    const room = wanted?.rooms.find(({ id }) => id === after.placed.roomId)?.name ?? "";
    const moved = after.on !== meeting.on || after.slot.from !== meeting.from;
    const said = [
      ...(moved ? [`moves to ${shortDay(after.on, today)} ${timeInWords(after.slot.from)}`] : []),
      ...(after.placed.adultId === meeting.adultId ? [] : [`with ${adult}`]),
      ...(after.placed.roomId === meeting.roomId ? [] : [`in ${room}`]),
    ];
    return said.join(", ");
  }
}

function isSame(one: Placed, other: Placed): boolean {
  return one.groupId === other.groupId && one.slotId === other.slotId;
}
