import { sql } from "drizzle-orm";
import { boolean, check, date, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import type { CalendarOf, OwnHours } from "#contract";
import { at, belongs, keyOf, nowHere, ofSchool, schoolId, version } from "../columns.ts";
import { children, classes } from "./school.ts";
import { groups } from "./teaching.ts";

/** Hours of a child's own, where it is not as its class is. */
export const childHours = pgTable(
  "child_hours",
  {
    schoolId: schoolId(),
    childId: uuid("child_id").notNull(),
    version: version(),
    hours: jsonb("hours").$type<OwnHours>().notNull(),
  },
  (table) => [
    keyOf(table, table.childId),
    belongs("child_hours_of_child", table, table.childId, children).onDelete("cascade"),
    ofSchool(),
  ],
);

/** The timetable that runs: a session of a group in every week. */
export const placements = pgTable(
  "placements",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    groupId: uuid("group_id").notNull(),
    /** 1 is Monday; minutes from midnight. */
    day: integer("day").notNull(),
    from: integer("from_minute").notNull(),
    to: integer("to_minute").notNull(),
    /** Of those who take groups, and of the school's rooms: both are settings. */
    adultId: uuid("adult_id").notNull(),
    roomId: uuid("room_id"),
    fixed: boolean("fixed").notNull().default(false),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("placements_group", table, table.groupId, groups).onDelete("cascade"),
    check("placements_time", sql`from_minute < to_minute`),
    ofSchool(),
  ],
);

/** Its sessions on their days. One that falls out stays, so that calendars that have it can be told. */
export const meetings = pgTable(
  "meetings",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** What it came of; that may be gone. */
    placementId: uuid("placement_id").notNull(),
    dueOn: date("due_on").notNull(),
    groupId: uuid("group_id").notNull(),
    on: date("on_day").notNull(),
    from: integer("from_minute").notNull(),
    to: integer("to_minute").notNull(),
    adultId: uuid("adult_id").notNull(),
    roomId: uuid("room_id"),
    cancelled: boolean("cancelled").notNull().default(false),
    byHand: boolean("by_hand").notNull().default(false),
    sequence: integer("sequence").notNull().default(0),
    changedAt: at("changed_at").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("meetings_group", table, table.groupId, groups).onDelete("cascade"),
    uniqueIndex("meetings_due").on(table.schoolId, table.placementId, table.dueOn),
    index("meetings_day").on(table.schoolId, table.on),
    ofSchool(),
  ],
);

/** Private addresses under which calendars read a week. */
export const feeds = pgTable(
  "feeds",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    of: text("of").$type<CalendarOf>().notNull(),
    about: uuid("about").notNull(),
    /** The same as `about` where it is of a child, or of a class, so that it ends with them. */
    childId: uuid("child_id"),
    classId: uuid("class_id"),
    /** SHA-256 of the token, in hex. The token itself is not kept. */
    tokenHash: text("token_hash").notNull(),
    madeAt: at("made_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("feeds_child", table, table.childId, children).onDelete("cascade"),
    belongs("feeds_class", table, table.classId, classes).onDelete("cascade"),
    uniqueIndex("feeds_token").on(table.schoolId, table.tokenHash),
    ofSchool(),
  ],
);
