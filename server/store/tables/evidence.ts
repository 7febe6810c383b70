import { sql } from "drizzle-orm";
import { date, doublePrecision, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import type { ReadingBody, SectionBody, SeekFromBody, SetupBody } from "#contract";
import type { Help, Source, TextRead, Way } from "#core/ledger";
import type { Known } from "#core/mastery";
import { at, belongs, keyOf, ofSchool, schoolId, version } from "../columns.ts";
import { children } from "./school.ts";
import { reports, sessions } from "./teaching.ts";

/** Checks that are done in one go. */
export const sittings = pgTable(
  "sittings",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    startedAt: at("started_at").notNull(),
    /** The member who is to do it; null for whoever comes to it. */
    givenTo: uuid("given_to"),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

/** Codes under which another device shows the child's face of a desk: a sitting, or a reading on its way. */
export const faces = pgTable(
  "faces",
  {
    schoolId: schoolId(),
    deskId: uuid("desk_id").notNull(),
    code: text("code").notNull(),
    openedAt: at("opened_at").notNull(),
  },
  (table) => [keyOf(table, table.deskId), uniqueIndex("faces_code").on(table.schoolId, table.code), ofSchool()],
);

/** A check of one kind with one child. Its items and its setup stay as they were drawn. */
export const checks = pgTable(
  "checks",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    childId: uuid("child_id").notNull(),
    sittingId: uuid("sitting_id").notNull(),
    /** Which child of the sitting, and which part of the plan, both from 0. */
    place: integer("place").notNull().default(0),
    part: integer("part").notNull().default(0),
    kind: text("kind").notNull().default("card"),
    scope: text("scope").notNull(),
    items: jsonb("items").$type<string[]>().notNull(),
    /** Null for checks made before there were kinds. */
    setup: jsonb("setup").$type<SetupBody>(),
    seed: integer("seed").notNull(),
    /** What was believed of the child when it began, where that says what is asked. */
    belief: jsonb("belief").$type<SeekFromBody>(),
    startedAt: at("started_at").notNull(),
    endedAt: at("ended_at"),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("checks_of_child", table, table.childId, children).onDelete("cascade"),
    belongs("checks_of_sitting", table, table.sittingId, sittings).onDelete("cascade"),
    index("checks_child").on(table.schoolId, table.childId),
    index("checks_sitting").on(table.schoolId, table.sittingId),
    ofSchool(),
  ],
);

/** Plans of checks that the school has made. */
export const presets = pgTable(
  "presets",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    version: version(),
    name: text("name").notNull(),
    purpose: text("purpose").notNull(),
    sections: jsonb("sections").$type<readonly SectionBody[]>().notNull(),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

/** Readings of a text, each with the text as it was read. */
export const readings = pgTable(
  "readings",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    childId: uuid("child_id").notNull(),
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
    /** When it was taken away; what it said of its words was taken back then, and stays in the log so. */
    removedAt: at("removed_at"),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("readings_of_child", table, table.childId, children).onDelete("cascade"),
    index("readings_child").on(table.schoolId, table.childId, table.readAt),
    ofSchool(),
  ],
);

/**
 * The ledger. Rows are only ever added, and only by `server/ledger`; undo adds a row whose `voids` names an earlier one. Of
 * the columns of where a mark comes from, those of its `source` are set; an undo has those of what it takes back.
 */
export const answers = pgTable(
  "answers",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    childId: uuid("child_id").notNull(),
    /** The place in the log of its child, from 1, without gaps: in which order they came, not in which they were marked. */
    number: integer("number").notNull(),
    source: text("source").$type<Source["kind"]>().notNull(),
    checkId: uuid("check_id"),
    sessionId: uuid("session_id"),
    /** The reading of a text in which the word stood. */
    readingId: uuid("reading_id"),
    reportId: uuid("report_id"),
    help: text("help").$type<Help>(),
    way: text("way").$type<Way>(),
    kind: text("kind").notNull().default("card"),
    item: text("item"),
    outcome: text("outcome").notNull(),
    heard: text("heard"),
    ms: integer("ms"),
    pass: integer("pass").notNull().default(1),
    tags: jsonb("tags").$type<readonly string[]>(),
    units: jsonb("units").$type<readonly number[]>(),
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
    keyOf(table, table.id),
    belongs("answers_of_child", table, table.childId, children).onDelete("cascade"),
    belongs("answers_of_check", table, table.checkId, checks).onDelete("cascade"),
    belongs("answers_of_reading", table, table.readingId, readings).onDelete("cascade"),
    // These two let go of the column alone: `set null (session_id)` in the migration, which this notation cannot say.
    belongs("answers_of_session", table, table.sessionId, sessions).onDelete("set null"),
    belongs("answers_of_report", table, table.reportId, reports).onDelete("set null"),
    index("answers_child_day").on(table.schoolId, table.childId, table.day),
    index("answers_check").on(table.schoolId, table.checkId),
    index("answers_reading").on(table.schoolId, table.readingId).where(sql`reading_id is not null`),
    index("answers_session").on(table.schoolId, table.sessionId).where(sql`session_id is not null`),
    index("answers_report").on(table.schoolId, table.reportId).where(sql`report_id is not null`),
    uniqueIndex("answers_number").on(table.schoolId, table.childId, table.number),
    uniqueIndex("answers_voids").on(table.schoolId, table.voids).where(sql`voids is not null`),
    ofSchool(),
  ],
);

/** What is known of a child, as it was worked out from the log up to a number: never the truth, and made anew from it. */
export const standings = pgTable(
  "standings",
  {
    schoolId: schoolId(),
    childId: uuid("child_id").notNull(),
    /** Of the last entry that it is made of. */
    number: integer("number").notNull(),
    /** What it was made by: the rule, the words, the settings. */
    basis: text("basis").notNull(),
    known: jsonb("shown").$type<Known>().notNull(),
  },
  (table) => [
    keyOf(table, table.childId),
    belongs("standings_of_child", table, table.childId, children).onDelete("cascade"),
    ofSchool(),
  ],
);
