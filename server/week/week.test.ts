import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import ICAL from "ical.js";
import nodeIcal, { type VEvent } from "node-ical";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  changeMeetings,
  closeGroup,
  endFeed,
  eraseChild,
  exportChild,
  getGrouping,
  getSchool,
  getToday,
  getWeek,
  listFeeds,
  listMeetings,
  makeFeed,
  planNewSession,
  saveGroup,
  setAbsent,
  setGrouping,
  setOwnHours,
  setTimetable,
  setTimeZone,
  setWeek,
  startingWeek,
  type Week,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, otters, herons] = [uuid(), uuid(), uuid()];
const [ada, ben, cy] = [uuid(), uuid(), uuid()];
const [jo, wyn, den] = [uuid(), uuid(), uuid()];
const week: Week = {
  ...startingWeek,
  slots: ([1, 3] as const).map((day) => ({ id: `s${day}`, day, from: 540, to: 570 })),
  calendar: {
    terms: [{ name: "Autumn", from: "2026-09-02", to: "2026-12-18" }],
    off: [{ name: "half-term", from: "2026-10-26", to: "2026-10-30" }],
  },
  rooms: [{ id: den, name: "Den", fits: 4, closed: [] }],
};
const monday = { groupId: otters, day: 1 as const, from: 540, to: 560, adultId: jo, roomId: den, fixed: false };
const version = async () => (await house.ask(getWeek, {})).version;
const meetings = async (from: string, to: string) =>
  (await house.ask(listMeetings, { query: { from, to } })).meetings;
const calendar = async (address: string) => (await fetch(house.base + address)).text();

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-10-19T08:00:00.000Z");
  const order = (await house.ask(getSchool, {})).orders[0];
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
    [cy, "Cy F."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  const group = (id: string, name: string, members: readonly string[]) =>
    house.ask(saveGroup, {
      params: { id },
      body: {
        ...{ versionId: uuid(), version: 0, name, targets: [], at: "2026-10-19T07:00:00.000Z", why: "" },
        members: members.map((childId) => ({ childId, locked: false })),
      },
    });
  await group(otters, "Otters", [ada, ben]);
  await group(herons, "Herons", [cy]);
  const { version: onto, grouping } = await house.ask(getGrouping, {});
  const adults = [
    { id: jo, name: "Jo P.", sessions: 6 },
    { id: wyn, name: "Wyn D.", sessions: 6 },
  ];
  await house.ask(setGrouping, { body: { version: onto, grouping: { ...grouping, adults } } });
  await house.ask(setTimeZone, { body: { version: await version(), timeZone: "Europe/London" } });
});
afterAll(() => house.close());

test("a week is kept whole; what stands against itself is refused with a sentence, and nothing of it is kept", async () => {
  expect(await house.ask(getWeek, {})).toMatchObject({ week: startingWeek, placements: [], children: [] });
  const refused = async (change: Partial<Week>, says: string | RegExp) => {
    const told = await house.refused(setWeek, { body: { version: await version(), week: { ...week, ...change } } });
    expect(told.status).toBe(422);
    expect(told.detail).toMatch(says);
  };
  const [slot] = week.slots;
  if (!slot) return;
  await refused({ slots: [slot, { ...slot, id: "s", from: 560, to: 600 }] }, "Monday 9:00 and Monday 9:20 overlap");
  await refused({ slots: [{ ...slot, to: slot.from }] }, "Monday 9:00 has no length");
  await refused({ slots: [{ ...slot, to: 1441 }] }, "past midnight");
  await refused(
    { calendar: { terms: [{ name: "Spring", from: "2027-03-01", to: "2027-01-05" }], off: [] } },
    "Spring ends before it begins. Swap the two days.",
  );
  const lesson = { day: 1 as const, from: 540, to: 600, what: "Maths" };
  await refused({ classes: [{ id: classId, lessons: [lesson, { ...lesson, what: "Art" }] }] }, /Art|Maths/);
  await refused({ rooms: [...week.rooms, { id: uuid(), name: "den", fits: 2, closed: [] }] }, "Two rooms");
  await refused(
    { adults: [{ id: jo, hours: [{ day: 1, from: 600, to: 540 }], rooms: [], classes: [], mostADay: 3 }] },
    "Monday 10:00 ends before it begins",
  );
  expect((await house.ask(getWeek, {})).week).toEqual(startingWeek);
  const onto = await version();
  await house.ask(setWeek, { body: { version: onto, week } });
  // Sent again it is told as success; another from the same state is asked about.
  await house.ask(setWeek, { body: { version: onto, week } });
  expect((await house.refused(setWeek, { body: { version: onto, week: { ...week, minutes: 15 } } })).status).toBe(
    409,
  );
  expect((await house.ask(getWeek, {})).week).toEqual(week);
});

test("hours of a child's own come, change over their version, go with the child's export, and can be given back", async () => {
  const hours = { lessons: [{ day: 1 as const, from: 540, to: 560, what: "Clinic" }], away: [] };
  const put = (onto: number, now: typeof hours | null) =>
    house.ask(setOwnHours, { params: { id: ben }, body: { version: onto, hours: now } });
  expect((await put(0, hours)).version).toBe(1);
  expect((await house.ask(getWeek, {})).children).toEqual([{ id: ben, version: 1, ...hours }]);
  expect((await house.ask(exportChild, { params: { id: ben } })).hours).toEqual(hours);
  const stale = {
    params: { id: ben },
    body: { version: 0, hours: { ...hours, away: [{ day: 2 as const, from: 0, to: 60 }] } },
  };
  expect((await house.refused(setOwnHours, stale)).status).toBe(409);
  expect((await put(0, hours)).version).toBe(1);
  expect((await put(1, null)).version).toBe(0);
  expect((await put(1, null)).version).toBe(0);
  expect((await house.ask(getWeek, {})).children).toEqual([]);
});

test("a timetable that runs has its sessions on their days, and keeps them when it changes", async () => {
  const from = "2026-10-19";
  const run = async (placements: readonly (typeof monday)[]) =>
    house.ask(setTimetable, { body: { version: await version(), from, placements: [...placements] } });
  expect(await run([monday])).toMatchObject({ added: 8, changed: 0 });
  const before = await meetings("2026-10-19", "2026-11-08");
  expect(before.map(({ on }) => on)).toEqual(["2026-10-19", "2026-11-02"]);
  expect(before[0]).toMatchObject({ groupName: "Otters", adultName: "Jo P.", roomName: "Den", members: [ada, ben] });
  expect(await run([{ ...monday, day: 1, from: 600, to: 620 }])).toMatchObject({ added: 0, changed: 8 });
  expect(
    (await meetings("2026-10-19", "2026-11-08")).map(({ id, sequence, from: at }) => ({ id, sequence, at })),
  ).toEqual(before.map(({ id }) => ({ id, sequence: 1, at: 600 })));
  await run([monday]);
  const late = { version: await version(), from: "2026-10-01", placements: [monday] };
  expect((await house.refused(setTimetable, { body: late })).detail).toContain("cannot begin in the past");
  for (const wrong of [{ groupId: uuid() }, { adultId: uuid() }, { roomId: uuid() }, { to: 540 }])
    expect(
      (await house.refused(setTimetable, { body: { ...late, from, placements: [{ ...monday, ...wrong }] } })).status,
    ).toBe(422);
});

test("a new day off cancels what falls into it, and a day that is none any more brings it back", async () => {
  const snow = {
    ...week,
    calendar: {
      ...week.calendar,
      off: [...week.calendar.off, { name: "snow", from: "2026-11-09", to: "2026-11-10" }],
    },
  };
  await house.ask(setWeek, { body: { version: await version(), week: snow } });
  expect((await meetings("2026-11-09", "2026-11-09")).map(({ cancelled }) => cancelled)).toEqual([true]);
  const { off } = await house.ask(listMeetings, { query: { from: "2026-11-09", to: "2026-11-11" } });
  expect(off).toEqual([
    { day: "2026-11-09", why: "snow" },
    { day: "2026-11-10", why: "snow" },
  ]);
  await house.ask(setWeek, { body: { version: await version(), week } });
  expect((await meetings("2026-11-09", "2026-11-09")).map(({ cancelled }) => cancelled)).toEqual([false]);
});

test("changes for a day are kept together or not at all, and survive another timetable", async () => {
  const [second, third] = await meetings("2026-11-02", "2026-11-09");
  if (!second || !third) throw new Error("No meetings");
  const bare = ({
    groupName: _,
    adultName: __,
    roomName: ___,
    members: ____,
    byHand: _____,
    ...one
  }: typeof second) => one;
  const changes = [
    { ...bare(second), on: "2026-11-03", adultId: wyn },
    { ...bare(third), cancelled: true },
  ];
  const stale = [changes[0], { ...changes[1], sequence: 99 }] as typeof changes;
  expect((await house.refused(changeMeetings, { body: { changes: stale } })).status).toBe(409);
  expect(await meetings("2026-11-02", "2026-11-09")).toEqual([second, third]);
  await house.ask(changeMeetings, { body: { changes } });
  await house.ask(changeMeetings, { body: { changes } });
  const onto = await version();
  await house.ask(setTimetable, {
    body: { version: onto, from: "2026-10-19", placements: [{ ...monday, from: 545, to: 565 }] },
  });
  const now = await meetings("2026-11-02", "2026-11-16");
  expect(now.map(({ on, from, adultId, cancelled }) => [on, from, adultId, cancelled])).toEqual([
    ["2026-11-03", 540, wyn, false],
    ["2026-11-09", 540, jo, true],
    ["2026-11-16", 545, jo, false],
  ]);
  expect((await house.refused(listMeetings, { query: { from: "2026-11-09", to: "2026-11-01" } })).status).toBe(422);
});

test("Today has its sessions in order, whose they are, who is absent, and what is planned", async () => {
  const at = { version: await version(), from: "2026-10-19" };
  await house.ask(setTimetable, {
    body: { ...at, placements: [{ ...monday, groupId: herons, from: 600, to: 620, adultId: wyn }, monday] },
  });
  await house.ask(setAbsent, { params: { id: ben }, body: { absent: true } });
  const sessionId = uuid();
  const planned = { id: sessionId, groupId: otters, heldOn: "2026-10-19", target: "s=s", seed: 1 };
  await house.ask(planNewSession, { body: planned });
  const { meetings: today } = await house.ask(getToday, {});
  expect(
    today.map(({ groupName, from, adultName, sessionId: planned }) => [groupName, from, adultName, planned]),
  ).toEqual([
    ["Otters", 540, "Jo P.", sessionId],
    ["Herons", 600, "Wyn D.", null],
  ]);
  expect(today[0]?.children).toEqual([
    { name: "Ada M.", absent: false },
    { name: "Ben T.", absent: true },
  ]);
});

test("a calendar is read by two parsers, at the school's time across both changes of the clocks", async () => {
  const terms = [{ name: "All", from: "2026-10-19", to: "2027-04-30" }];
  await house.ask(setWeek, { body: { version: await version(), week: { ...week, calendar: { terms, off: [] } } } });
  const { token } = await house.ask(makeFeed, { body: { id: uuid(), whose: `adult:${jo}` } });
  const text = await calendar(`/api/calendar/${token}.ics`);
  const clock = new Intl.DateTimeFormat("en-GB", { timeZone: "Europe/London", hour: "2-digit", minute: "2-digit" });
  const one = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents("vevent").map((each) => {
    const event = new ICAL.Event(each);
    const status = String(each.getFirstPropertyValue("status"));
    return { uid: event.uid, start: event.startDate.toJSDate(), summary: event.summary, status };
  });
  const other = Object.values(nodeIcal.sync.parseICS(text)).filter((each): each is VEvent => each.type === "VEVENT");
  expect(other.map(({ uid, start, summary, status }) => ({ uid, start: new Date(start), summary, status }))).toEqual(
    one,
  );
  const days = one.map(({ start }) => start.toISOString());
  // Before, between and after the two changes: 9:00 by the clock on the wall.
  expect(days).toContain("2026-10-19T08:00:00.000Z");
  expect(days).toContain("2026-11-30T09:00:00.000Z");
  expect(days).toContain("2027-04-12T08:00:00.000Z");
  const live = one.filter(({ status }) => status === "CONFIRMED");
  expect(new Set(live.map(({ start }) => clock.format(start)))).toEqual(new Set(["09:00"]));
  expect(one.some(({ status }) => status === "CANCELLED")).toBe(true);
  expect(text).toMatch(/SEQUENCE:[1-9]/);
  expect(text.split("\r\n").every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
});

test("children are named in calendars only as far as the school says, and a child's own names no other", async () => {
  const of = async (whose: string) => calendar(`/api/week/${whose}/calendar`);
  const names = async (how: Week["names"]) => {
    const { week: now } = await house.ask(getWeek, {});
    await house.ask(setWeek, { body: { version: await version(), week: { ...now, names: how } } });
  };
  expect(await of(`room:${den}`)).not.toMatch(/Ada|Ben/);
  await names("initials");
  expect(await of(`room:${den}`)).toMatch(/AM\\, BT/);
  await names("names");
  expect(await of(`class:${classId}`)).toMatch(/Ada M\.\\, Ben T\./);
  const own = await of(`child:${ada}`);
  expect(own).toContain("Otters");
  expect(own).not.toMatch(/Ben|Herons/);
  await names("none");
  expect(await of(`child:${ada}`)).not.toContain("Ada");
  expect((await fetch(`${house.base}/api/week/room:${uuid()}/calendar`)).status).toBe(404);
  expect((await fetch(`${house.base}/api/week/nothing/calendar`)).status).toBe(404);
});

test("a private address shows its own week alone, is never told again, and ends at once, also with the child", async () => {
  const feedId = uuid();
  const { token } = await house.ask(makeFeed, { body: { id: feedId, whose: `child:${cy}` } });
  const read = () => fetch(`${house.base}/api/calendar/${token}`);
  const first = await (await read()).text();
  expect(first).toContain("Herons");
  expect(first).not.toContain("Otters");
  expect((await house.refused(makeFeed, { body: { id: feedId, whose: `child:${cy}` } })).status).toBe(409);
  expect((await house.refused(makeFeed, { body: { id: uuid(), whose: `room:${uuid()}` } })).status).toBe(404);
  expect(JSON.stringify(await house.ask(listFeeds, {}))).not.toContain(token);
  await house.ask(endFeed, { params: { id: feedId } });
  await house.ask(endFeed, { params: { id: feedId } });
  expect((await read()).status).toBe(404);
  const again = await house.ask(makeFeed, { body: { id: uuid(), whose: `child:${cy}` } });
  await house.ask(eraseChild, { params: { id: cy } });
  expect((await fetch(`${house.base}/api/calendar/${again.token}`)).status).toBe(404);
  expect(await house.store.owner.execute(sql`select key from doors where kind = 'feed'`)).toMatchObject({
    rows: { length: 1 },
  });
  expect((await house.ask(listFeeds, {})).map(({ whose }) => whose)).toEqual([`adult:${jo}`]);
});

test("a group that is closed leaves the timetable, and its sessions say that they are cancelled", async () => {
  await house.ask(closeGroup, { params: { id: otters }, body: { closed: true } });
  expect((await house.ask(getWeek, {})).placements.map(({ groupId }) => groupId)).toEqual([herons]);
  const ahead = (await meetings("2026-10-19", "2026-12-18")).filter(({ groupId }) => groupId === otters);
  expect(ahead.length).toBeGreaterThan(3);
  expect(ahead.every(({ cancelled }) => cancelled)).toBe(true);
});
