import { sql } from "drizzle-orm";
import {
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type {
  CheckSettingsBody,
  OrderBody,
  PlanBody,
  PreparationBody,
  ReadingBody,
  ReadingSettingsBody,
  SectionBody,
  SetupBody,
  TextContentBody,
} from "#contract";
import type { Help, TextRead, Way } from "#core/ledger";

/** An instant, in and out as the ISO text that the contract speaks. */
const at = customType<{ data: string; driverData: string }>({
  dataType: () => "timestamp with time zone",
  fromDriver: (value) => new Date(value).toISOString(),
});
const childRef = () =>
  uuid("child_id")
    .notNull()
    .references(() => children.id, { onDelete: "cascade" });

/** One row: the school itself. */
export const school = pgTable("school", {
  id: integer("id").primaryKey(),
  name: text("name").notNull(),
  accent: text("accent").notNull().default("neutral"),
  /** An IANA name; null until the school has said. */
  timeZone: text("time_zone"),
  /** How this school checks; what is missing is as it ships. */
  checks: jsonb("checks").$type<Partial<CheckSettingsBody>>().notNull().default({}),
  /** What it measures readings against; what is missing is as it ships. */
  reading: jsonb("reading").$type<Partial<ReadingSettingsBody>>().notNull().default({}),
});

/** Splits of words that the school put right by hand; one a word. */
export const splits = pgTable(
  "splits",
  {
    id: uuid("id").primaryKey(),
    /** The word in small letters, by which it is found. */
    key: text("key").notNull(),
    text: text("text").notNull(),
    units: jsonb("units").$type<string[]>().notNull(),
    reason: text("reason").notNull(),
    savedAt: at("saved_at").notNull().default(sql`now()`),
  },
  (table) => [uniqueIndex("splits_key").on(table.key)],
);

export const orders = pgTable("orders", {
  id: uuid("id").primaryKey(),
  shipped: boolean("shipped").notNull().default(false),
  version: integer("version").notNull().default(1),
  content: jsonb("content").$type<OrderBody>().notNull(),
  createdAt: at("created_at").notNull().default(sql`now()`),
});

export const classes = pgTable("classes", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  yearGroup: text("year_group").notNull(),
  orderId: uuid("order_id")
    .notNull()
    .references(() => orders.id),
  archived: boolean("archived").notNull().default(false),
  createdAt: at("created_at").notNull().default(sql`now()`),
});

/** How far a class has been taught: the newest row counts, the others are its history. */
export const taught = pgTable(
  "taught",
  {
    id: uuid("id").primaryKey(),
    classId: uuid("class_id")
      .notNull()
      .references(() => classes.id, { onDelete: "cascade" }),
    stepId: text("step_id"),
    taughtOn: date("taught_on").notNull(),
    markedAt: at("marked_at").notNull(),
  },
  (table) => [index("taught_class").on(table.classId, table.markedAt)],
);

export const children = pgTable(
  "children",
  {
    id: uuid("id").primaryKey(),
    classId: uuid("class_id")
      .notNull()
      .references(() => classes.id),
    name: text("name").notNull(),
    note: text("note").notNull().default(""),
    archived: boolean("archived").notNull().default(false),
    /** How many entries its log has: the number of the last one. */
    entries: integer("entries").notNull().default(0),
    createdAt: at("created_at").notNull().default(sql`now()`),
  },
  (table) => [index("children_class").on(table.classId)],
);

/** Checks that are done in one go. */
export const sittings = pgTable("sittings", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  startedAt: at("started_at").notNull(),
});

/** Codes under which another device shows the child's face of a desk: a sitting, or a reading on its way. */
export const faces = pgTable("faces", {
  deskId: uuid("desk_id").primaryKey(),
  code: text("code").notNull().unique(),
  openedAt: at("opened_at").notNull(),
});

/** A check of one kind with one child. Its items and its setup stay as they were drawn. */
export const checks = pgTable(
  "checks",
  {
    id: uuid("id").primaryKey(),
    childId: childRef(),
    sittingId: uuid("sitting_id")
      .notNull()
      .references(() => sittings.id, { onDelete: "cascade" }),
    /** Which child of the sitting, and which part of the plan, both from 0. */
    place: integer("place").notNull().default(0),
    part: integer("part").notNull().default(0),
    kind: text("kind").notNull().default("card"),
    scope: text("scope").notNull(),
    items: jsonb("items").$type<string[]>().notNull(),
    /** Null for checks made before there were kinds. */
    setup: jsonb("setup").$type<SetupBody>(),
    seed: integer("seed").notNull(),
    startedAt: at("started_at").notNull(),
    endedAt: at("ended_at"),
  },
  (table) => [index("checks_child").on(table.childId), index("checks_sitting").on(table.sittingId)],
);

/** Plans of checks that the school has made. */
export const presets = pgTable("presets", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  purpose: text("purpose").notNull(),
  sections: jsonb("sections").$type<SectionBody[]>().notNull(),
});

/**
 * The ledger. Rows are only ever added, and only by `server/ledger`; undo adds a row whose `voids` names an earlier one. Of
 * the columns of where a mark comes from, those of its `source` are set; an undo has those of what it takes back.
 */
export const answers = pgTable(
  "answers",
  {
    id: uuid("id").primaryKey(),
    childId: childRef(),
    /** The place in the log of its child, from 1, without gaps: in which order they came, not in which they were marked. */
    number: integer("number").notNull(),
    source: text("source").$type<"check" | "reading" | "session">().notNull(),
    checkId: uuid("check_id").references(() => checks.id, { onDelete: "cascade" }),
    sessionId: uuid("session_id").references(() => sessions.id, { onDelete: "set null" }),
    /** The reading of a text in which the word stood. */
    readingId: uuid("reading_id").references(() => readings.id, { onDelete: "cascade" }),
    reportId: uuid("report_id").references(() => reports.id, { onDelete: "set null" }),
    help: text("help").$type<Help>(),
    way: text("way").$type<Way>(),
    kind: text("kind").notNull().default("card"),
    item: text("item"),
    outcome: text("outcome").notNull(),
    heard: text("heard"),
    ms: integer("ms"),
    pass: integer("pass").notNull().default(1),
    tags: jsonb("tags").$type<string[]>(),
    units: jsonb("units").$type<number[]>(),
    /** A text as it was read, of an entry that is a reading. */
    reading: jsonb("reading").$type<TextRead>(),
    /** The words of a note, or why a check ended. */
    text: text("text"),
    voids: uuid("voids"),
    markedAt: at("marked_at").notNull(),
    day: date("day").notNull(),
    markedBy: text("marked_by").notNull(),
  },
  (table) => [
    index("answers_child").on(table.childId, table.markedAt),
    index("answers_child_day").on(table.childId, table.day),
    index("answers_check").on(table.checkId),
    index("answers_reading").on(table.readingId),
    index("answers_report").on(table.reportId),
    uniqueIndex("answers_number").on(table.childId, table.number),
    uniqueIndex("answers_voids").on(table.voids),
  ],
);

/** Readings of a text, each with the text as it was read. */
export const readings = pgTable(
  "readings",
  {
    id: uuid("id").primaryKey(),
    childId: childRef(),
    textId: text("text_id").notNull(),
    how: text("how").$type<ReadingBody["how"]>().notNull().default("alone"),
    title: text("title").notNull(),
    text: text("text").notNull(),
    marks: jsonb("marks").$type<ReadingBody["marks"]>().notNull(),
    stoppedAt: integer("stopped_at"),
    ms: integer("ms"),
    turns: jsonb("turns").$type<ReadingBody["turns"]>().notNull().default([]),
    fit: doublePrecision("fit"),
    voice: jsonb("voice").$type<ReadingBody["voice"]>().notNull(),
    understanding: jsonb("understanding").$type<ReadingBody["understanding"]>().notNull(),
    note: text("note").notNull(),
    readAt: at("read_at").notNull(),
    day: date("day").notNull(),
    markedBy: text("marked_by").notNull(),
  },
  (table) => [index("readings_child").on(table.childId, table.readAt)],
);

/** Texts of the school's own. */
export const texts = pgTable("texts", {
  id: uuid("id").primaryKey(),
  /** Set while a removal can be taken back. */
  removedAt: at("removed_at"),
});

/** Every kept state of an own text; the one with the highest number is the text. */
export const textVersions = pgTable(
  "text_versions",
  {
    textId: uuid("text_id")
      .notNull()
      .references(() => texts.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    content: jsonb("content").$type<TextContentBody>().notNull(),
    savedAt: at("saved_at").notNull(),
    savedBy: text("saved_by").notNull(),
  },
  (table) => [primaryKey({ columns: [table.textId, table.version] })],
);

/** What adults made of the preparation of a text for some readers. */
export const preparations = pgTable(
  "preparations",
  {
    textId: text("text_id").notNull(),
    /** `all`, or `class:`, `group:` or `child:` and an id. */
    forKey: text("for_key").notNull(),
    preparation: jsonb("preparation").$type<PreparationBody>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.textId, table.forKey] })],
);

export const groups = pgTable("groups", {
  id: uuid("id").primaryKey(),
  closed: boolean("closed").notNull().default(false),
  createdAt: at("created_at").notNull().default(sql`now()`),
});

/** Every saved state of a group; the newest is the group. */
export const groupVersions = pgTable(
  "group_versions",
  {
    id: uuid("id").primaryKey(),
    groupId: uuid("group_id")
      .notNull()
      .references(() => groups.id, { onDelete: "cascade" }),
    name: text("name").notNull(),
    targets: jsonb("targets").$type<string[]>().notNull(),
    savedAt: at("saved_at").notNull(),
  },
  (table) => [index("group_versions_group").on(table.groupId, table.savedAt)],
);

export const groupMembers = pgTable(
  "group_members",
  {
    versionId: uuid("version_id")
      .notNull()
      .references(() => groupVersions.id, { onDelete: "cascade" }),
    childId: childRef(),
    locked: boolean("locked").notNull().default(false),
    place: integer("place").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.versionId, table.childId] }),
    index("group_members_child").on(table.childId),
  ],
);

export const sessions = pgTable(
  "sessions",
  {
    id: uuid("id").primaryKey(),
    groupId: uuid("group_id")
      .notNull()
      .references(() => groups.id, { onDelete: "cascade" }),
    heldOn: date("held_on").notNull(),
    version: integer("version").notNull().default(1),
    plan: jsonb("plan").$type<PlanBody>().notNull(),
    /** What the whole group could read when the plan was made, and the exception words taught by then. */
    known: jsonb("known").$type<string[]>().notNull(),
    wholes: jsonb("wholes").$type<string[]>().notNull(),
    createdAt: at("created_at").notNull().default(sql`now()`),
    /** Set while a removal can be taken back. */
    removedAt: at("removed_at"),
  },
  (table) => [index("sessions_group").on(table.groupId), index("sessions_day").on(table.heldOn)],
);

export const sessionMembers = pgTable(
  "session_members",
  {
    sessionId: uuid("session_id")
      .notNull()
      .references(() => sessions.id, { onDelete: "cascade" }),
    childId: childRef(),
    place: integer("place").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.sessionId, table.childId] }),
    index("session_members_child").on(table.childId),
  ],
);

export const shares = pgTable("shares", {
  sessionId: uuid("session_id")
    .primaryKey()
    .references(() => sessions.id, { onDelete: "cascade" }),
  /** SHA-256 of the token, in hex. The token itself is not kept. */
  tokenHash: text("token_hash").notNull().unique(),
  endsOn: date("ends_on").notNull(),
  createdAt: at("created_at").notNull().default(sql`now()`),
});

export const reports = pgTable(
  "reports",
  {
    id: uuid("id").primaryKey(),
    sessionId: uuid("session_id")
      .notNull()
      .references(() => sessions.id, { onDelete: "cascade" }),
    by: text("by").notNull(),
    at: at("at").notNull(),
    reached: text("reached"),
    note: text("note").notNull(),
    /** Which way it came: from the school, or by a link. */
    byLink: boolean("by_link").notNull().default(false),
  },
  (table) => [index("reports_session").on(table.sessionId)],
);

/** Who came, a row a child who did. */
export const reportCame = pgTable(
  "report_came",
  {
    reportId: uuid("report_id")
      .notNull()
      .references(() => reports.id, { onDelete: "cascade" }),
    childId: childRef(),
  },
  (table) => [primaryKey({ columns: [table.reportId, table.childId] }), index("report_came_child").on(table.childId)],
);
