import { type Grouping, setOwnHours, setTimetable, setWeek, startingWeek, type Week } from "#contract";
import {
  fits,
  gridOf,
  type Lesson,
  placedOf,
  placementsFrom,
  type Slot,
  type Spot,
  type Weekday,
  WeekFinder,
  weekdayOf,
  weekWanted,
} from "#core/groups";
import { schoolDays, weekday } from "./calendar.ts";
import { type DemoRequest, request } from "./checks.ts";
import type { Pupil } from "./pupil.ts";
import type { DemoGroup } from "./sessions.ts";

const DAYS: readonly Weekday[] = [1, 2, 3, 4, 5];
const TIMES = ["9:00", "9:30", "10:00", "10:50", "11:20", "13:15", "13:45"].map((text) => {
  const [hour = 0, minute = 0] = text.split(":").map(Number);
  return hour * 60 + minute;
});
/** What the two classes have at these times, Monday to Friday. */
const LESSONS: readonly (readonly string[])[][] = [
  [
    ["Maths", "Maths", "Writing", "Story", "Music", "Canal study", "Drawing"],
    ["Maths", "Maths", "Writing", "Games", "Games", "Drawing", "Canal study"],
    ["Writing", "Writing", "Maths", "Story", "Canal study", "Music", "Drawing"],
    ["Maths", "Maths", "Writing", "Story", "Drawing", "Canal study", "Choice"],
    ["Maths", "Writing", "Story", "Games", "Games", "Choice", "Choice"],
  ],
  [
    ["Writing", "Writing", "Maths", "Maths", "Story", "Games", "Games"],
    ["Maths", "Maths", "Canal study", "Writing", "Story", "Music", "Drawing"],
    ["Writing", "Writing", "Maths", "Maths", "Drawing", "Canal study", "Story"],
    ["Maths", "Maths", "Writing", "Canal study", "Story", "Games", "Games"],
    ["Writing", "Maths", "Maths", "Music", "Story", "Drawing", "Choice"],
  ],
];

interface WeekFrom {
  /** Of the school's settings. */
  readonly version: number;
  readonly today: string;
  readonly adults: Grouping["adults"];
  readonly sessionsAWeek: number;
  readonly classIds: readonly string[];
  readonly pupils: readonly Pupil[];
  readonly groups: readonly DemoGroup[];
  readonly uuid: () => string;
}

/** The week of the school: its times, who is free when, and a timetable that runs. */
export function weekRequests(from: WeekFrom): DemoRequest[] {
  const { version, today, adults, sessionsAWeek, classIds, pupils, groups, uuid } = from;
  const slots: Slot[] = DAYS.flatMap((day) =>
    TIMES.map((begins, at) => ({ id: `${day}-${at}`, day, from: begins, to: begins + 25 })),
  );
  const rooms = [
    { id: uuid(), name: "Toll house", fits: 6, closed: [{ day: 5 as const, from: 780, to: 900 }] },
    { id: uuid(), name: "Library nook", fits: 5, closed: [] },
  ];
  const lessonsOf = (classNumber: number): Lesson[] =>
    slots.map(({ day, from: begins, to }, at) => ({
      ...{ day, from: begins, to },
      what: LESSONS[classNumber]?.[day - 1]?.[at % TIMES.length] ?? "",
    }));
  const mornings = DAYS.map((day) => ({ day, from: 510, to: 720 }));
  const [jo, wyn, harrow] = adults;
  const hours = (id = "", free: Week["adults"][number]["hours"] = []) => ({
    id,
    hours: free,
    rooms: [],
    classes: [],
    mostADay: 3,
  });
  const week: Week = {
    ...startingWeek,
    ...{ slots, rooms, minutes: 20 },
    calendar: {
      terms: [{ name: "Autumn", from: weekday(today, -11, 0), to: weekday(today, 5, 4) }],
      off: [{ name: "half-term", from: weekday(today, -4, 0), to: weekday(today, -4, 4) }],
    },
    adults: [
      hours(
        jo?.id,
        DAYS.map((day) => ({ day, from: 510, to: 900 })),
      ),
      hours(wyn?.id, mornings),
      {
        ...hours(
          harrow?.id,
          [3, 5].map((day) => ({ day: day as Weekday, from: 540, to: 640 })),
        ),
        mostADay: 1,
      },
    ],
    classes: classIds.map((id, at) => ({ id, lessons: lessonsOf(at) })),
    lessons: [
      { what: "Playtime", must: true, most: null },
      { what: "Games", must: true, most: null },
      { what: "Maths", must: false, most: 1 },
    ],
  };
  const hari = pupils.find(({ name }) => name === "Hari S.");
  const clinic = { day: 2 as const, from: 650, to: 705, what: "Home language" };
  const own = { lessons: [clinic], away: [] };
  const wanted = weekWanted({
    ...{ week, sessionsAWeek, adults },
    groups: groups.map(({ id, name, members }) => ({ id, name, members: members.map((one) => one.id) })),
    children: pupils.map(({ id, name, classNumber }) => ({ id, name, classId: classIds[classNumber] ?? "" })),
    own: new Map(hari ? [[hari.id, own]] : []),
  });
  // What is planned for the coming days is on a day of its group.
  const grid = gridOf(wanted);
  const chosen: Spot[] = [];
  for (const [group] of groups.entries()) {
    const day = weekdayOf(schoolDays(today)[group] ?? today);
    const first = slots.flatMap((slot, at) =>
      slot.day === day ? [0, 1].flatMap((adult) => [0, 1].map((room) => ({ group, slot: at, adult, room }))) : [],
    );
    const free = first.find((spot) => fits(grid, chosen, spot));
    if (free) chosen.push(free);
  }
  const fixed = placedOf(grid, chosen);
  const finder = new WeekFinder(gridOf({ ...wanted, fixed }), 4310);
  finder.again(60);
  const placements = placementsFrom(wanted, placedOf(finder.grid, finder.spots()), () => false);
  return [
    request(setWeek, { body: { version, week } }),
    ...(hari ? [request(setOwnHours, { params: { id: hari.id }, body: { version: 0, hours: own } })] : []),
    request(setTimetable, { body: { version: version + 1, from: today, placements } }),
  ];
}
