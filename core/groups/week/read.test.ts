import { expect, test } from "vitest";
import { calendarWith, daysInCalendar, daysInTable, hoursInCalendar, hoursInTable, weekdayNamed } from "./index.ts";
import { dayWritten } from "./read-days.ts";

test("days are read as people write them", () => {
  expect(["Mon", "tuesday", "3", "TH", "fri", "sa"].map(weekdayNamed)).toEqual([1, 2, 3, 4, 5, 6]);
  for (const text of ["", "t", "s", "8", "Funday"]) expect(weekdayNamed(text)).toBeUndefined();
});

test("hours of a table, its columns in any order where they are named; what cannot be read is told by its line", () => {
  const rows = [
    ["Lesson", "Day", "Start", "End"],
    ["Maths", "Mon", "9:00", "10.00"],
    ["", "", "", ""],
    ["Music", "Funday", "9:00", "10:00"],
    ["Art", "Tue", "10:00", "9:00"],
    ["Art", "Tue", "10:00", "10:00"],
    ["Games", "Wed", "soon", "9:00"],
    ["Night", "Fri", "23:00", "24:00"],
  ];
  expect(hoursInTable(rows)).toEqual({
    lessons: [
      { day: 1, from: 540, to: 600, what: "Maths" },
      { day: 5, from: 1380, to: 1440, what: "Night" },
    ],
    leftOut: [
      "Line 4: “Funday” is no day.",
      "Line 5: 10:00 to 9:00 ends before it begins.",
      "Line 6: 10:00 to 10:00 has no length.",
      "Line 7: “soon” is no time.",
    ],
  });
  expect(hoursInTable([["Thu", "9:00", "9:30", "Story"]]).lessons).toEqual([
    { day: 4, from: 540, to: 570, what: "Story" },
  ]);
  expect(hoursInTable([["From", "what"]]).leftOut[0]).toContain("names no column");
  expect(hoursInTable([]).lessons).toEqual([]);
  const many = hoursInTable(Array.from({ length: 2100 }, () => ["Mon", "9:00", "9:30"]));
  expect([many.lessons.length, many.leftOut.length]).toEqual([2000, 1]);
});

const file = (...events: string[]) =>
  ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//test//EN", ...events, "END:VCALENDAR"].join("\r\n");
let made = 0;
const event = (...lines: string[]) => ["BEGIN:VEVENT", `UID:e${++made}`, ...lines, "END:VEVENT"].join("\r\n");
const read = (text: string, zone = "Europe/London") => hoursInCalendar(text, { zone, from: "2026-11-02", weeks: 4 });

test("what is there each week is of every week; what is there once is told", () => {
  const text = file(
    event("SUMMARY:Maths", "DTSTART:20260907T090000", "DTEND:20260907T100000", "RRULE:FREQ=WEEKLY;BYDAY=MO,TH"),
    event("SUMMARY:Visit", "DTSTART:20261104T110000", "DURATION:PT45M"),
    event("SUMMARY:Old", "DTSTART:20250101T090000", "DTEND:20250101T100000"),
    event("SUMMARY:Fair", "DTSTART;VALUE=DATE:20261105"),
    event("SUMMARY:Off", "STATUS:CANCELLED", "DTSTART:20261105T090000", "DTEND:20261105T100000"),
  );
  expect(read(text)).toEqual({
    lessons: [
      { day: 1, from: 540, to: 600, what: "Maths" },
      { day: 4, from: 540, to: 600, what: "Maths" },
    ],
    leftOut: ["Visit, Wednesday 11:00: in 1 of 4 weeks.", "1 event of a whole day was left out."],
  });
});

test("a week that is left out or moved does not make it another lesson", () => {
  const first = event(
    "SUMMARY:Art",
    "DTSTART:20261103T130000",
    "DTEND:20261103T140000",
    "RRULE:FREQ=WEEKLY;COUNT=4",
    "EXDATE:20261110T130000",
  );
  const uid = /UID:(\w+)/.exec(first)?.[1];
  const moved = [
    "BEGIN:VEVENT",
    `UID:${uid}`,
    "RECURRENCE-ID:20261117T130000",
    "SUMMARY:Art",
    "DTSTART:20261118T090000",
    "DTEND:20261118T100000",
    "END:VEVENT",
  ].join("\r\n");
  const { lessons, leftOut } = read(file(first, moved));
  expect(lessons).toEqual([{ day: 2, from: 780, to: 840, what: "Art" }]);
  expect(leftOut).toEqual(["Art, Wednesday 9:00: in 1 of 4 weeks."]);
});

test("times of other zones are those of the school's clock, across a change of the clocks", () => {
  const utc = event("SUMMARY:Call", "DTSTART:20261102T100000Z", "DTEND:20261102T103000Z", "RRULE:FREQ=WEEKLY");
  expect(read(file(utc)).lessons).toEqual([{ day: 1, from: 600, to: 630, what: "Call" }]);
  expect(read(file(utc), "Pacific/Auckland").lessons).toEqual([{ day: 1, from: 1380, to: 1410, what: "Call" }]);
  const named = event(
    "SUMMARY:Far",
    "DTSTART;TZID=America/New_York:20260907T040000",
    "DTEND;TZID=America/New_York:20260907T050000",
    "RRULE:FREQ=WEEKLY",
  );
  expect(read(file(named)).lessons).toEqual([{ day: 1, from: 540, to: 600, what: "Far" }]);
});

test("endless repetition, one each second, and 10,000 events end", () => {
  const endless = event("SUMMARY:Tick", "DTSTART:20000101T000000", "DTEND:20000101T000001", "RRULE:FREQ=SECONDLY");
  const daily = event("SUMMARY:Bell", "DTSTART:20200101T090000", "DTEND:20200101T090500", "RRULE:FREQ=DAILY");
  expect(read(file(endless, daily)).lessons).toHaveLength(7);
  const many = Array.from({ length: 10_050 }, (_, at) =>
    event(
      `SUMMARY:E${at % 7}`,
      `DTSTART:202611${String(2 + (at % 28)).padStart(2, "0")}T0900${String(at % 60).padStart(2, "0")}`,
      "DURATION:PT30M",
    ),
  );
  const { leftOut } = read(file(...many));
  expect(leftOut[0]).toBe("Only the first 10000 events were looked at, of 10050.");
});

test("of a file with broken lines what can be read is kept; what is no calendar is told", () => {
  const good = event("SUMMARY:Maths", "DTSTART:20261102T090000", "DTEND:20261102T100000", "RRULE:FREQ=WEEKLY");
  const torn = event(
    "SUMMARY:Story",
    "this line is broken",
    "DTSTART:20261103T090000",
    "DTEND:20261103T100000",
    "RRULE:FREQ=WEEKLY",
  );
  const hopeless = event("SUMMARY:Lost", "DTSTART:never", "RRULE:FREQ=NONSENSE");
  const found = read(file(good, torn, hopeless));
  expect(found.lessons.map(({ what }) => what)).toEqual(["Maths", "Story"]);
  expect(read("").leftOut).toEqual(["This is no calendar file. It begins with BEGIN:VCALENDAR."]);
  expect(read("just words\nand more").lessons).toEqual([]);
  expect(read("x".repeat(8_000_001)).leftOut[0]).toContain("too large");
});

test("what goes past midnight is left out and told", () => {
  const late = event("SUMMARY:Camp", "DTSTART:20261102T220000", "DTEND:20261103T070000", "RRULE:FREQ=WEEKLY");
  expect(read(file(late))).toEqual({ lessons: [], leftOut: ["4 events past midnight left out."] });
});

test("days of a table are read as people write them; a line that cannot be is told", () => {
  expect(["2026-10-26", "26/10/2026", "26.10.2026", "26 October 2026", "26 Oct 2026"].map(dayWritten)).toEqual(
    Array(5).fill("2026-10-26"),
  );
  for (const text of ["", "10/26/2026", "31/02/2026", "soon", "26/10/0026"]) expect(dayWritten(text)).toBeUndefined();
  const rows = [
    ["Name", "From", "To"],
    ["Half-term", "26/10/2026", "30/10/2026"],
    ["Lock fair", "2026-11-20", ""],
    ["", "2026-11-21", ""],
    ["Spring", "5/1/2027", "soon"],
    ["Back", "10/1/2027", "5/1/2027"],
    [""],
  ];
  expect(daysInTable(rows)).toEqual({
    days: [
      { name: "Half-term", from: "2026-10-26", to: "2026-10-30" },
      { name: "Lock fair", from: "2026-11-20", to: "2026-11-20" },
    ],
    leftOut: ["Line 4: there is no name.", "Line 5: “soon” is no day.", "Line 6: Back ends before it begins."],
  });
});

test("days of a calendar file are its whole days; hours, what is over and what is broken is told", () => {
  const between = { from: "2026-11-01", to: "2027-12-31" };
  const text = file(
    event("SUMMARY:Winter holiday", "DTSTART;VALUE=DATE:20261221", "DTEND;VALUE=DATE:20270102"),
    event("SUMMARY:Training", "DTSTART;VALUE=DATE:20270104"),
    event("SUMMARY:Fair", "DTSTART;VALUE=DATE:20261120", "RRULE:FREQ=YEARLY"),
    event("SUMMARY:Half-term", "DTSTART;VALUE=DATE:20261026", "DTEND;VALUE=DATE:20261031"),
    event("SUMMARY:Maths", "DTSTART:20261104T090000", "DTEND:20261104T100000"),
  );
  expect(daysInCalendar(text, between)).toEqual({
    days: [
      { name: "Winter holiday", from: "2026-12-21", to: "2027-01-01" },
      { name: "Training", from: "2027-01-04", to: "2027-01-04" },
      { name: "Fair", from: "2026-11-20", to: "2026-11-20" },
      { name: "Fair", from: "2027-11-20", to: "2027-11-20" },
    ],
    leftOut: ["1 event with hours left out.", "1 event before Sun 1 Nov 2026 left out."],
  });
  const endless = file(event("SUMMARY:Each day", "DTSTART;VALUE=DATE:20261101", "RRULE:FREQ=DAILY"));
  const many = daysInCalendar(endless, between);
  expect([many.days.length, many.leftOut]).toEqual([200, ["Only the first 200 were taken, of 400."]]);
  expect(daysInCalendar("Monday", between).leftOut[0]).toContain("no calendar file");
});

test("days that were read go to a calendar; the same once, and none against what is there", () => {
  const terms = [{ name: "Autumn", from: "2026-09-02", to: "2026-12-18" }];
  const read = {
    days: [
      { name: "Autumn term", from: "2026-09-02", to: "2026-12-18" },
      { name: "Late", from: "2026-12-01", to: "2027-01-20" },
      { name: "Spring", from: "2027-01-05", to: "2027-03-26" },
    ],
    leftOut: ["Line 9: “soon” is no day."],
  };
  const told = calendarWith({ terms, off: [] }, "terms", read);
  expect(told.calendar).toEqual({ terms: [...terms, read.days[2]], off: [] });
  expect([told.added, told.leftOut]).toEqual([
    1,
    ["Line 9: “soon” is no day.", "Autumn term is there already.", "Autumn and Late overlap. Change one of them."],
  ]);
  const days = Array.from({ length: 120 }, (_, at) => ({
    name: `Day ${at}`,
    from: `20${10 + Math.floor(at / 12)}-${String((at % 12) + 1).padStart(2, "0")}-01`,
    to: `20${10 + Math.floor(at / 12)}-${String((at % 12) + 1).padStart(2, "0")}-01`,
  }));
  const full = calendarWith({ terms: [], off: [] }, "off", { days, leftOut: [] });
  expect([full.added, full.leftOut.length]).toEqual([100, 20]);
});
