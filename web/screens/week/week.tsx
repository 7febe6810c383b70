import { ChevronLeft, ChevronRight } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { changeMeetings, getSchool, listGroups, listMeetings, type Meetings } from "#contract";
import {
  allDay,
  dayLater,
  gridOf,
  type Missing,
  mondayOf,
  type Placed,
  type Slot,
  wantedWithout,
  weekdayOf,
} from "#core/groups";
import { shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { useKeys } from "#web/device/keys.tsx";
import { useIsAtLeast } from "#web/device/me.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { Empty, Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { AwaySheet } from "./away.tsx";
import { type BoardItem, WeekBoard } from "./board.tsx";
import { Calendars } from "./calendars.tsx";
import { MeetingList } from "./meeting-list.tsx";
import { useWeek } from "./use-week.ts";
import { WeekTable } from "./week-table.tsx";
import { allWeeks, choicesOf, isOf } from "./whose.ts";

type Meeting = Meetings["meetings"][number];

/** One week on its days: who meets when, by whom and where; changes for a day; calendars. */
export function Screen() {
  const [search, setSearch] = useSearchParams();
  const school = useAsk(getSchool, {});
  const today = school.data?.today;
  const monday = today && mondayOf(search.get("week") ?? today);
  const { data, error } = useAsk(listMeetings, monday ? { query: { from: monday, to: dayLater(monday, 6) } } : null);
  const groups = useAsk(listGroups, {});
  const teaches = useIsAtLeast("teacher");
  const lead = useIsAtLeast("lead");
  const whose = search.get("whose") ?? allWeeks;
  const set = (name: string, value: string) =>
    setSearch((now) => {
      const next = new URLSearchParams(now);
      next.set(name, value);
      return next;
    });
  const go = (weeks: number) => monday && set("week", dayLater(monday, weeks * 7));
  useKeys([
    { key: "ArrowLeft", does: "the week before", run: () => go(-1) },
    { key: "ArrowRight", does: "the next week", run: () => go(1) },
  ]);
  const choices = useMemo(
    () =>
      choicesOf({ meetings: data?.meetings ?? [], groups: groups.data ?? [], classes: school.data?.classes ?? [] }),
    [data, groups.data, school.data],
  );
  const chosen = choices.find((one) => one.whose === whose);
  const shown = useMemo(
    () => data?.meetings.filter((one) => isOf(whose, one, groups.data ?? [])) ?? [],
    [data, groups.data, whose],
  );
  return (
    <Page
      printsTitle
      place="Week"
      title={chosen && whose !== allWeeks ? `Week of ${chosen.name}` : "Week"}
      about={monday && today ? `${shortDay(monday, today)} to ${shortDay(dayLater(monday, 4), today)}` : undefined}
      actions={
        <>
          <Button aria-label="The week before" onClick={() => go(-1)}>
            <ChevronLeft size={16} aria-hidden />
          </Button>
          <Button
            disabled={!today || monday === mondayOf(today)}
            onClick={() => today && set("week", mondayOf(today))}
          >
            This week
          </Button>
          <Button aria-label="The next week" onClick={() => go(1)}>
            <ChevronRight size={16} aria-hidden />
          </Button>
          <div className="w-48">
            <Choice
              bare
              label="Whose week"
              value={chosen ? whose : allWeeks}
              onChange={(event) => set("whose", event.target.value)}
            >
              <option value={allWeeks}>Everyone</option>
              {(["adult", "room", "class", "child"] as const).map((of) => {
                const list = choices.filter((one) => one.whose.startsWith(`${of}:`));
                return list.length === 0 ? null : (
                  <optgroup
                    key={of}
                    label={{ adult: "Adults", room: "Rooms", class: "Classes", child: "Children" }[of]}
                  >
                    {list.map((one) => (
                      <option key={one.whose} value={one.whose}>
                        {one.name}
                      </option>
                    ))}
                  </optgroup>
                );
              })}
            </Choice>
          </div>
          <Button onClick={() => print()}>Print</Button>
          {teaches && whose !== allWeeks && chosen && <Calendars whose={whose} name={chosen.name} />}
          {lead && <ButtonLink to="/week/timetable">Timetable</ButtonLink>}
          {teaches && <ButtonLink to="/week/hours">Hours and rooms</ButtonLink>}
        </>
      }
    >
      {error && !data ? (
        <Trouble error={error} />
      ) : !data || !monday || !today ? (
        <Waiting rows={9} />
      ) : (
        <>
          {data.off.length > 0 && data.off.length < 7 && <DaysOff off={data.off} today={today} />}
          {data.meetings.length === 0 ? (
            <Empty
              action={
                lead && (
                  <ButtonLink to="/week/timetable" shape="main">
                    Make the timetable
                  </ButtonLink>
                )
              }
            >
              {data.off.length >= 5
                ? `There is no school in this week: ${data.off[0]?.why}.`
                : "No session stands in this week. The timetable says when each group meets; the lead of the school makes it."}
            </Empty>
          ) : teaches ? (
            <Board {...{ monday, today, meetings: data.meetings, shown, lead }} off={data.off} taken={data.taken} />
          ) : (
            <MeetingTable {...{ monday, today }} meetings={shown} />
          )}
        </>
      )}
    </Page>
  );
}

function DaysOff({ off, today }: { off: Meetings["off"]; today: string }) {
  const weekdays = off.filter(({ day }) => weekdayOf(day) <= 5);
  if (weekdays.length === 0) return null;
  return (
    <p className="mb-2 text-soft">
      No school: {weekdays.map(({ day, why }) => `${shortDay(day, today)} (${why})`).join(", ")}.
    </p>
  );
}

/** The sessions of a week as they stand, for whoever changes nothing in it. */
function MeetingTable({ monday, today, meetings }: { monday: string; today: string; meetings: readonly Meeting[] }) {
  if (meetings.length === 0) return <p className="text-soft">No session in this week.</p>;
  const at = (one: Meeting) => ({ day: weekdayOf(one.on), from: one.from, to: one.to });
  const slots = [...new Map(meetings.map((one) => [JSON.stringify(at(one)), at(one)])).values()];
  const days = [...new Set([...([1, 2, 3, 4, 5] as const), ...slots.map(({ day }) => day)])];
  return (
    <WeekTable
      label="The week"
      slots={slots}
      days={days}
      head={(day) => <DateOf day={dayLater(monday, day - 1)} today={today} />}
      cell={(slot) => (
        <ul className="flex flex-col gap-1">
          {meetings
            .filter((one) => JSON.stringify(at(one)) === JSON.stringify(slot))
            .map((one) => (
              <li key={one.id} className="rounded border border-line bg-sheet px-1.5 py-1 text-sm">
                <Link
                  to={`/groups/${one.groupId}`}
                  className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {one.groupName}
                </Link>
                <span className="block text-xs text-soft">
                  {[one.adultName, one.roomName].filter(Boolean).join(" · ")}
                </span>
                {one.cancelled && <span className="block text-xs text-damson">does not meet</span>}
              </li>
            ))}
        </ul>
      )}
    />
  );
}

function DateOf({ day, today }: { day: string; today: string }) {
  return <span className="ml-1.5 text-sm font-normal text-soft">{shortDay(day, today).replace(/^\w+ /, "")}</span>;
}

interface BoardWanted {
  readonly monday: string;
  readonly today: string;
  readonly meetings: readonly Meeting[];
  /** Those of the chosen week. */
  readonly shown: readonly Meeting[];
  readonly off: Meetings["off"];
  readonly taken: Meetings["taken"];
  /** Only the lead changes the week of everyone. */
  readonly lead: boolean;
}

/** What a change of one session is sent as. */
function sent({ groupName: _, adultName: __, roomName: ___, members: ____, byHand: _____, ...one }: Meeting) {
  return one;
}

function Board({ monday, today, meetings, shown, off, taken, lead }: BoardWanted) {
  const { wantedWith, view } = useWeek();
  const [away, setAway] = useState(false);
  useKeys(lead ? [{ key: "a", does: "someone is away, a room is closed, a trip", run: () => setAway(true) }] : []);
  const wanted = useMemo(() => {
    const all = wantedWith();
    if (!all) return undefined;
    const days = off.map(({ day }) => allDay(weekdayOf(day)));
    const others = [...taken, ...meetings.filter((one) => !one.cancelled && !shown.includes(one))];
    return wantedWithout(all, [{ kind: "everyone", when: days }, ...others.flatMap(takenBy)]);
  }, [wantedWith, off, taken, meetings, shown]);
  const live = meetings.filter(({ cancelled }) => !cancelled);
  const slotOf = (one: Meeting) => slotFor(wanted?.slots ?? [], one);
  const grid = useMemo(() => {
    if (!wanted) return undefined;
    // As many as the week has: what a cancelled session leaves free is free.
    const held = (id: string) => live.filter(({ groupId }) => groupId === id).length;
    return gridOf({ ...wanted, groups: wanted.groups.map((group) => ({ ...group, sessions: held(group.id) })) });
  }, [wanted, live]);
  if (!wanted || !grid || !view) return <Waiting rows={9} />;
  const placedOf = (one: Meeting, slot: Slot): Placed => ({
    ...{ groupId: one.groupId, slotId: slot.id, adultId: one.adultId, roomId: one.roomId },
  });
  const items = live.flatMap((one): BoardItem[] => {
    const slot = slotOf(one);
    if (!slot || !shown.includes(one)) return [];
    const past = one.on < today;
    return [
      { key: one.id, placed: placedOf(one, slot), fixed: past, ...(one.byHand ? { note: "for this day" } : {}) },
    ];
  });
  const elsewhere = shown.filter((one) => one.cancelled || !slotOf(one));
  const save = async (changes: readonly Meeting[], says: string, before: readonly Meeting[]) => {
    try {
      await call(changeMeetings, { body: { changes: changes.map(sent) } });
      await refreshAll();
      toastWithUndo(says, async () => {
        try {
          await call(changeMeetings, {
            body: { changes: before.map((one) => ({ ...sent(one), sequence: one.sequence + 1 })) },
          });
          await refreshAll();
        } catch (error) {
          toast.error(wordsOfError(error));
        }
      });
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const put = (item: BoardItem | null, placed: Placed) => {
    const meeting = meetings.find(({ id }) => id === item?.key);
    const slot = wanted.slots.find(({ id }) => id === placed.slotId);
    if (!meeting || !slot) return;
    const on = dayLater(monday, slot.day - 1);
    const minutes = meeting.to - meeting.from;
    const moved = {
      ...{ ...meeting, on, from: slot.from, to: slot.from + minutes, adultId: placed.adultId, roomId: placed.roomId },
    };
    void save([moved], `${meeting.groupName} moved for this week.`, [meeting]);
  };
  return (
    <>
      <div className="no-print mb-2 flex items-center gap-3">
        {lead && <Button onClick={() => setAway(true)}>Away, closed, a trip …</Button>}
        <p className="text-sm text-soft">Take a session up to see where it could be in this week instead.</p>
      </div>
      <WeekBoard
        label="The week"
        grid={grid}
        items={items}
        unplaced={new Map()}
        head={(day) => <DateOf day={dayLater(monday, day - 1)} today={today} />}
        onPut={put}
        actions={(item) => {
          const meeting = meetings.find(({ id }) => id === item.key);
          return (
            meeting &&
            !item.fixed && (
              <button
                type="button"
                className="no-print min-h-6 shrink-0 px-1 text-xs text-soft underline underline-offset-2 hover:text-ink"
                aria-label={`${meeting.groupName} does not meet on this day`}
                onClick={() =>
                  void save([{ ...meeting, cancelled: true }], `${meeting.groupName} does not meet.`, [meeting])
                }
              >
                cancel
              </button>
            )
          );
        }}
      />
      {elsewhere.length > 0 && (
        <section aria-label="Not in the timetable's slots" className="mt-4">
          <h2>Falls out, or at a time of its own</h2>
          <MeetingList
            meetings={elsewhere}
            today={today}
            action={(one) =>
              one.cancelled && (
                <Button onClick={() => save([{ ...one, cancelled: false }], `${one.groupName} meets again.`, [one])}>
                  It meets after all
                </Button>
              )
            }
          />
        </section>
      )}
      <AwaySheet open={away} onClose={() => setAway(false)} {...{ today, monday, wantedWith }} />
    </>
  );
}

/** An adult and a room that a session which is not on the board takes. */
function takenBy(one: Meetings["taken"][number]): readonly Missing[] {
  const when = [{ day: weekdayOf(one.on), from: one.from, to: one.to }];
  const room = one.roomId === null ? [] : [{ kind: "room" as const, id: one.roomId, when }];
  return [{ kind: "adult", id: one.adultId, when }, ...room];
}

/** The slot at which a session begins, if it is one. */
function slotFor(slots: readonly Slot[], one: { readonly on: string; readonly from: number }): Slot | undefined {
  const day = weekdayOf(one.on);
  return slots.find((slot) => slot.day === day && slot.from === one.from);
}
