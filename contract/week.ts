import { z } from "zod";
import {
  calendarFaults,
  faultsOf,
  type Lesson,
  MOST_DAYS,
  MOST_STRETCHES,
  slotInWords,
  startingWeekWeights,
  type Weekday,
  weekdays,
} from "#core/groups";
import { byId, count, day, done, id, instant, line, onto, settingsSaved } from "./common.ts";
import type { Endpoint, Stream } from "./endpoint.ts";

/** 1 is Monday, 7 Sunday. */
const weekday = z.literal([...weekdays] as [Weekday, ...Weekday[]]);
/** Minutes from midnight. */
const minute = z.number().int().min(0).max(1440, "This goes past midnight. End it on the same day.");
const stretch = z.object({ day: weekday, from: minute, to: minute });
const hours = z.array(stretch).max(200);
const weight = z.number().int().min(0).max(10);
const days = z.object({ name: line(40), from: day, to: day });

/** What a rule says is wrong, each as a sentence of its own at the same place. */
function telling<T>(faults: (value: T) => readonly string[]) {
  return (value: T, context: z.core.$RefinementCtx<T>) => {
    for (const message of faults(value)) context.addIssue({ code: "custom", message });
  };
}
const lessonInWords = ({ what, ...at }: Lesson) => (what ? `${what} on ${slotInWords(at)}` : slotInWords(at));
const noneBackwards = telling<z.infer<typeof hours>>((list) =>
  list.flatMap((one) => faultsOf([one], (its) => slotInWords(its))),
);
/** When there is something that has a name; `what` is empty where nothing is in the place of what the class has. */
const lessons = z
  .array(stretch.extend({ what: z.string().trim().max(40) }))
  .max(200)
  .superRefine(telling((list) => faultsOf(list, lessonInWords)));
const slots = z
  .array(stretch.extend({ id: line(40) }))
  .max(150)
  .superRefine(telling((list) => faultsOf(list, (one) => slotInWords(one))));

/** The week of a school: its day, its calendar, who is free when, and what holds for a timetable. */
export const week = z
  .object({
    /** When sessions can be held. */
    slots,
    /** Of a session, where its group says nothing else. */
    minutes: z.number().int().min(5, "At least 5 minutes.").max(90, "At most 90 minutes."),
    calendar: z
      .object({ terms: z.array(days).max(MOST_STRETCHES.terms), off: z.array(days).max(MOST_STRETCHES.off) })
      .superRefine(telling(calendarFaults)),
    rooms: z
      .array(
        z.object({
          id,
          name: line(40),
          fits: z.number().int().min(1).max(99),
          closed: hours.superRefine(noneBackwards),
        }),
      )
      .max(60),
    /** Of those who take groups; who is not here is free at any time. */
    adults: z
      .array(
        z.object({
          id,
          hours: hours.superRefine(noneBackwards),
          /** Where they may be, and whose children they may take; empty where that does not matter. */
          rooms: z.array(id).max(60),
          classes: z.array(id).max(100),
          mostADay: z.number().int().min(0).max(20),
        }),
      )
      .max(60),
    classes: z.array(z.object({ id, lessons })).max(100),
    /** What holds for a lesson by its name; what is not here may be missed. */
    lessons: z
      .array(z.object({ what: line(40), must: z.boolean(), most: z.number().int().min(0).max(10).nullable() }))
      .max(60),
    groups: z
      .array(
        z.object({
          id,
          sessions: z.number().int().min(0).max(10),
          minutes: z.number().int().min(5).max(90),
        }),
      )
      .max(300),
    weights: z.object({ adult: weight, time: weight, morning: weight, apart: weight, turns: weight }),
    /** How children are called in calendars that leave the school. */
    names: z.enum(["none", "initials", "names"]),
  })
  .refine(({ rooms }) => new Set(rooms.map((one) => one.name.toLowerCase())).size === rooms.length, {
    message: "Two rooms have the same name.",
    path: ["rooms"],
  });
export type Week = z.infer<typeof week>;

/** A week of which nothing was said. */
export const startingWeek: Week = {
  ...{ slots: [], minutes: 20, calendar: { terms: [], off: [] }, rooms: [], adults: [], classes: [], groups: [] },
  lessons: [{ what: "Playtime", must: true, most: null }],
  weights: startingWeekWeights,
  names: "none",
};

const placement = z.object({
  id,
  groupId: id,
  day: weekday,
  from: minute,
  to: minute,
  adultId: id,
  roomId: id.nullable(),
  fixed: z.boolean(),
});
export type PlacementView = z.infer<typeof placement>;

/** When a child is not as its class is: its own lessons lie over those of the class, and it may be away. */
export const ownHours = z.object({ lessons, away: hours.superRefine(noneBackwards) });
export type OwnHours = z.infer<typeof ownHours>;

/** The week with the timetable that runs, and with the children who have hours of their own. */
export const getWeek = {
  method: "GET",
  path: "/api/week",
  may: { by: "teacher", shows: { "children.*.id": "child" } },
  answer: z.object({
    version: onto,
    week,
    placements: z.array(placement),
    children: z.array(ownHours.extend({ id, version: count })),
  }),
} as const satisfies Endpoint;
export type WeekView = z.infer<typeof getWeek.answer>;

/** Sets the school's day, its calendar, and who is free when. A timetable that runs stays; what falls into a day off is cancelled. */
export const setWeek = {
  method: "PUT",
  path: "/api/school/week",
  may: { by: "teacher" },
  trail: { did: "settings" },
  body: z.object({ version: onto, week }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Sets the hours of a child's own; null gives it those of its class again. Made from an older version it is answered with both (409). */
export const setOwnHours = {
  method: "PUT",
  path: "/api/children/:id/hours",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "child-changed", about: "params.id" },
  params: byId,
  body: z.object({ version: onto, hours: ownHours.nullable() }),
  answer: done.extend({ version: count }),
} as const satisfies Endpoint;

/**
 * Makes a timetable the one that runs from a day on; what was before that day stays. Sessions keep their ids where a group goes
 * on, so that calendars see them move. It may break a rule, where someone wants it so.
 */
export const setTimetable = {
  method: "PUT",
  path: "/api/school/timetable",
  may: { by: "lead" },
  trail: { did: "timetable" },
  body: z.object({ version: onto, from: day, placements: z.array(placement.omit({ id: true })).max(1000) }),
  answer: settingsSaved.extend({ added: count, changed: count }),
} as const satisfies Endpoint;

const meeting = z.object({
  id,
  groupId: id,
  on: day,
  from: minute,
  to: minute,
  adultId: id,
  roomId: id.nullable(),
  cancelled: z.boolean(),
  /** Changed for its day alone. */
  byHand: z.boolean(),
  sequence: count,
});
export type MeetingView = z.infer<typeof meeting>;

/** The sessions of the week on their days, from a day to another; two school years at most. */
export const listMeetings = {
  method: "GET",
  path: "/api/meetings",
  may: { by: "assistant", shows: { "meetings.*.groupId": "group" } },
  query: z
    .object({ from: day, to: day })
    .refine(({ from, to }) => from <= to, "The last day lies before the first. Swap them.")
    .refine(
      ({ from, to }) => Date.parse(to) - Date.parse(from) < MOST_DAYS * 86_400_000,
      "That is too long a time. Ask for two years at most.",
    ),
  answer: z.object({
    meetings: z.array(
      meeting.extend({ groupName: z.string(), adultName: z.string(), roomName: z.string(), members: z.array(id) }),
    ),
    /** When adults and rooms are taken by groups that are not theirs who ask. */
    taken: z.array(meeting.pick({ on: true, from: true, to: true, adultId: true, roomId: true })),
    /** Days of these on which there is no school, and why. */
    off: z.array(z.object({ day, why: z.string() })),
  }),
} as const satisfies Endpoint;
export type Meetings = z.infer<typeof listMeetings.answer>;

/**
 * Changes sessions for their days alone: moved, given to someone else, cancelled, or back. All or none; where one was changed
 * meanwhile, nothing is (409). Only the lead may put one where its adult or its room is taken (422).
 */
export const changeMeetings = {
  method: "POST",
  path: "/api/meetings/changes",
  may: { by: "teacher", theirs: { "body.changes.*.groupId": "group" } },
  trail: { did: "timetable" },
  body: z.object({
    changes: z
      .array(meeting.omit({ byHand: true }))
      .min(1)
      .max(500)
      .refine(
        (list) => list.every(({ from, to }) => from < to),
        "A session ends before it begins. Swap the two times.",
      )
      .refine((list) => new Set(list.map((one) => one.id)).size === list.length, "A session stands there twice."),
  }),
  answer: done,
} as const satisfies Endpoint;

/** Whose week a calendar shows. */
const calendarOf = ["adult", "room", "class", "child"] as const;
export type CalendarOf = (typeof calendarOf)[number];
/** With the id: `child:ID`. */
const whose = z
  .string()
  .regex(new RegExp(`^(${calendarOf.join("|")}):[0-9a-f-]{36}$`), "Say whose week: adult, room, class or child.");
/** What `whose` says. @example whoseOf("room:ID") // { of: "room", about: "ID" } */
export function whoseOf(text: string): { readonly of: CalendarOf; readonly about: string } {
  const [of = "", about = ""] = text.split(":");
  return { of: of as CalendarOf, about };
}
const feedToken = z.string().regex(/^[\w-]{20,64}$/);

/** The private addresses under which calendars outside read a week, without the addresses themselves. */
export const listFeeds = {
  method: "GET",
  path: "/api/feeds",
  may: { by: "teacher", shows: { "*.whose": "readers" } },
  answer: z.array(z.object({ id, whose: z.string(), madeAt: instant })),
} as const satisfies Endpoint;

/** Makes a private address for one week. It is shown once; only its hash is kept. */
export const makeFeed = {
  method: "POST",
  path: "/api/feeds",
  may: { by: "teacher", theirs: { "body.whose": "readers" } },
  trail: { did: "shared" },
  body: z.object({ id, whose }),
  answer: z.object({ token: feedToken }),
} as const satisfies Endpoint;

/** Ends a private address at once. Said again it changes nothing. */
export const endFeed = {
  method: "DELETE",
  path: "/api/feeds/:id",
  may: { by: "teacher" },
  trail: { did: "shared" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** One week as an iCalendar file, for whoever subscribed to it; the address may end in `.ics`. */
export const calendarFeed = {
  path: "/api/calendar/:token",
  may: { by: "link", opens: "feed", key: "token" },
  params: z.object({ token: feedToken }),
} as const satisfies Stream;

/** One week as an iCalendar file, to keep. */
export const calendarFile = {
  path: "/api/week/:whose/calendar",
  may: { by: "teacher", theirs: { "params.whose": "readers" } },
  params: z.object({ whose }),
} as const satisfies Stream;
