import { sql } from "drizzle-orm";
import { boolean, check, date, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import type { MoveView, PlanBody, PreparationBody, RoutineBody, SaidOfNext, TextContentBody, Wish } from "#contract";
import type { ReadingLimit } from "#core/plans";
import { at, belongs, keyOf, nowHere, ofSchool, schoolId, version } from "../columns.ts";
import { children, classes, members, orders } from "./school.ts";

/** Texts of the school's own. */
export const texts = pgTable(
  "texts",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** Set while a removal can be taken back. */
    removedAt: at("removed_at"),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

/** Every kept state of an own text; the one with the highest number is the text. */
export const textVersions = pgTable(
  "text_versions",
  {
    schoolId: schoolId(),
    textId: uuid("text_id").notNull(),
    version: integer("version").notNull(),
    content: jsonb("content").$type<TextContentBody>().notNull(),
    savedAt: at("saved_at").notNull(),
    savedBy: text("saved_by").notNull(),
  },
  (table) => [
    keyOf(table, table.textId, table.version),
    belongs("text_versions_text", table, table.textId, texts).onDelete("cascade"),
    ofSchool(),
  ],
);

/** What adults made of the preparation of a text for some readers; null where they took it back. */
export const preparations = pgTable(
  "preparations",
  {
    schoolId: schoolId(),
    textId: text("text_id").notNull(),
    /** `all`, or `class:`, `group:` or `child:` and an id. */
    forKey: text("for_key").notNull(),
    version: version(),
    preparation: jsonb("preparation").$type<PreparationBody>(),
  },
  (table) => [keyOf(table, table.textId, table.forKey), ofSchool()],
);

export const groups = pgTable(
  "groups",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    closed: boolean("closed").notNull().default(false),
    /** Who of it must be able to read what it is given. */
    reads: text("reads").$type<ReadingLimit>().notNull().default("all"),
    /** How its sessions are held: one that ships, or the id of one of the school's own. */
    routine: text("routine").notNull().default("usual"),
    /** Over how many weeks it is planned ahead, and what a teacher fixed of days to come; no spellings is review alone. */
    blockWeeks: integer("block_weeks").notNull().default(6),
    blockFixed: jsonb("block_fixed")
      .$type<{ on: string; gpcs: string[]; focus?: string[] }[]>()
      .notNull()
      .default([]),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

/** Every saved state of a group; the one with the highest number is the group. */
export const groupVersions = pgTable(
  "group_versions",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    groupId: uuid("group_id").notNull(),
    /** In which order they came, from 1. */
    number: integer("number").notNull(),
    name: text("name").notNull(),
    targets: jsonb("targets").$type<string[]>().notNull(),
    /** What it works on that is no spelling. */
    besides: jsonb("besides").$type<string[]>().notNull().default([]),
    savedAt: at("saved_at").notNull(),
    /** Why it was changed, in a sentence; empty where no one said. */
    why: text("why").notNull().default(""),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("group_versions_group", table, table.groupId, groups).onDelete("cascade"),
    uniqueIndex("group_versions_number").on(table.schoolId, table.groupId, table.number),
    ofSchool(),
  ],
);

export const groupMembers = pgTable(
  "group_members",
  {
    schoolId: schoolId(),
    versionId: uuid("version_id").notNull(),
    childId: uuid("child_id").notNull(),
    locked: boolean("locked").notNull().default(false),
    place: integer("place").notNull(),
  },
  (table) => [
    keyOf(table, table.versionId, table.childId),
    belongs("group_members_version", table, table.versionId, groupVersions).onDelete("cascade"),
    belongs("group_members_of_child", table, table.childId, children).onDelete("cascade"),
    index("group_members_child").on(table.schoolId, table.childId),
    ofSchool(),
  ],
);

/** The groups that are given to a member. */
export const memberGroups = pgTable(
  "member_groups",
  { schoolId: schoolId(), memberId: uuid("member_id").notNull(), groupId: uuid("group_id").notNull() },
  (table) => [
    keyOf(table, table.memberId, table.groupId),
    belongs("member_groups_member", table, table.memberId, members).onDelete("cascade"),
    belongs("member_groups_group", table, table.groupId, groups).onDelete("cascade"),
    ofSchool(),
  ],
);

/** What was asked for when groups are made: two apart or together, one alone. */
export const wishes = pgTable(
  "wishes",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    kind: text("kind").$type<Wish["kind"]>().notNull(),
    childId: uuid("child_id").notNull(),
    /** Null for who is taught alone. */
    otherId: uuid("other_id"),
    by: text("by").notNull(),
    since: date("since").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("wishes_child", table, table.childId, children).onDelete("cascade"),
    belongs("wishes_other", table, table.otherId, children).onDelete("cascade"),
    check("wishes_pair", sql`(kind = 'alone') = (other_id is null)`),
    ofSchool(),
  ],
);

/** What a teacher says of a spelling that would be worth teaching: to a child, or to a class. */
export const nextThings = pgTable(
  "next_things",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** One of the two is set. */
    childId: uuid("child_id"),
    classId: uuid("class_id"),
    gpc: text("gpc").notNull(),
    how: text("how").$type<SaidOfNext["how"]>().notNull(),
    until: date("until"),
    by: text("by").notNull(),
    since: date("since").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("next_things_child", table, table.childId, children).onDelete("cascade"),
    belongs("next_things_class", table, table.classId, classes).onDelete("cascade"),
    check("next_things_whose", sql`(child_id is null) <> (class_id is null)`),
    uniqueIndex("next_things_of_child").on(table.schoolId, table.childId, table.gpc),
    uniqueIndex("next_things_of_class").on(table.schoolId, table.classId, table.gpc),
    ofSchool(),
  ],
);

/** Proposed moves of children that were put off, until a day. */
export const movesOff = pgTable(
  "moves_off",
  {
    schoolId: schoolId(),
    childId: uuid("child_id").notNull(),
    kind: text("kind").$type<MoveView["kind"]>().notNull(),
    until: date("until").notNull(),
  },
  (table) => [
    keyOf(table, table.childId, table.kind),
    belongs("moves_off_child", table, table.childId, children).onDelete("cascade"),
    ofSchool(),
  ],
);

/** How sessions are held in this school: routines of its own. */
export const routines = pgTable(
  "routines",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    version: version(),
    routine: jsonb("routine").$type<RoutineBody>().notNull(),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

export const sessions = pgTable(
  "sessions",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    groupId: uuid("group_id").notNull(),
    heldOn: date("held_on").notNull(),
    version: version(),
    plan: jsonb("plan").$type<PlanBody>().notNull(),
    /** What the whole group could read when the plan was made, and the exception words taught by then. */
    known: jsonb("known").$type<string[]>().notNull(),
    wholes: jsonb("wholes").$type<string[]>().notNull(),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
    /** When its parts were filled from what its children could read then; as it was made where no one filled it anew. */
    filledAt: at("filled_at"),
    /** The member who is to take it; null for whoever takes its group. */
    givenTo: uuid("given_to"),
    /** Set while a removal can be taken back. */
    removedAt: at("removed_at"),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("sessions_of_group", table, table.groupId, groups).onDelete("cascade"),
    index("sessions_group").on(table.schoolId, table.groupId),
    index("sessions_day").on(table.schoolId, table.heldOn),
    ofSchool(),
  ],
);

export const sessionMembers = pgTable(
  "session_members",
  {
    schoolId: schoolId(),
    sessionId: uuid("session_id").notNull(),
    childId: uuid("child_id").notNull(),
    place: integer("place").notNull(),
  },
  (table) => [
    keyOf(table, table.sessionId, table.childId),
    belongs("session_members_session", table, table.sessionId, sessions).onDelete("cascade"),
    belongs("session_members_of_child", table, table.childId, children).onDelete("cascade"),
    index("session_members_child").on(table.schoolId, table.childId),
    ofSchool(),
  ],
);

export const shares = pgTable(
  "shares",
  {
    schoolId: schoolId(),
    sessionId: uuid("session_id").notNull(),
    /** SHA-256 of the token, in hex. The token itself is not kept. */
    tokenHash: text("token_hash").notNull(),
    endsOn: date("ends_on").notNull(),
    /** When it was opened last; null while no one has. */
    openedAt: at("opened_at"),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [
    keyOf(table, table.sessionId),
    belongs("shares_session", table, table.sessionId, sessions).onDelete("cascade"),
    uniqueIndex("shares_token").on(table.schoolId, table.tokenHash),
    ofSchool(),
  ],
);

export const reports = pgTable(
  "reports",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    sessionId: uuid("session_id").notNull(),
    by: text("by").notNull(),
    at: at("at").notNull(),
    reached: text("reached"),
    note: text("note").notNull(),
    /** Which way it came: from the school, or by a link. */
    byLink: boolean("by_link").notNull().default(false),
    /** Readings of texts that came with it, and go with it. */
    readingIds: jsonb("reading_ids").$type<readonly string[]>().notNull().default([]),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("reports_of_session", table, table.sessionId, sessions).onDelete("cascade"),
    index("reports_session").on(table.schoolId, table.sessionId),
    ofSchool(),
  ],
);

/** Who came, a row a child who did. */
export const reportCame = pgTable(
  "report_came",
  {
    schoolId: schoolId(),
    reportId: uuid("report_id").notNull(),
    childId: uuid("child_id").notNull(),
  },
  (table) => [
    keyOf(table, table.reportId, table.childId),
    belongs("report_came_report", table, table.reportId, reports).onDelete("cascade"),
    belongs("report_came_of_child", table, table.childId, children).onDelete("cascade"),
    index("report_came_child").on(table.schoolId, table.childId),
    ofSchool(),
  ],
);

/**
 * Places in an order of a child's or a group's own: of each owner the row with the highest number counts. Without a step it goes
 * along with its class again.
 */
export const places = pgTable(
  "places",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** One of the two is set. */
    childId: uuid("child_id"),
    groupId: uuid("group_id"),
    /** In which order they came, from 1. */
    number: integer("number").notNull(),
    orderId: uuid("order_id"),
    stepId: text("step_id"),
    /** A second time through the order. */
    again: boolean("again").notNull().default(false),
    taughtOn: date("taught_on").notNull(),
    markedAt: at("marked_at").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("places_child", table, table.childId, children).onDelete("cascade"),
    belongs("places_group", table, table.groupId, groups).onDelete("cascade"),
    belongs("places_order", table, table.orderId, orders),
    uniqueIndex("places_of_child").on(table.schoolId, table.childId, table.number),
    uniqueIndex("places_of_group").on(table.schoolId, table.groupId, table.number),
    check("places_owner", sql`(child_id is null) <> (group_id is null)`),
    ofSchool(),
  ],
);

/** Notes on a child, a group or a session, one of the three. */
export const notes = pgTable(
  "notes",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    childId: uuid("child_id"),
    groupId: uuid("group_id"),
    sessionId: uuid("session_id"),
    text: text("text").notNull(),
    who: text("who").$type<"all" | "me" | "one">().notNull(),
    /** The one colleague for whom it is. */
    forId: uuid("for_id"),
    /** Who wrote it; null is the lead of this machine, who needs no account. */
    byId: uuid("by_id"),
    by: text("by").notNull(),
    at: at("at").notNull(),
    until: date("until"),
    removedAt: at("removed_at"),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("notes_child", table, table.childId, children).onDelete("cascade"),
    belongs("notes_group", table, table.groupId, groups).onDelete("cascade"),
    belongs("notes_session", table, table.sessionId, sessions).onDelete("cascade"),
    index("notes_of_child").on(table.schoolId, table.childId),
    index("notes_of_group").on(table.schoolId, table.groupId),
    index("notes_of_session").on(table.schoolId, table.sessionId),
    check("notes_about", sql`num_nonnulls(child_id, group_id, session_id) = 1`),
    check("notes_one", sql`(who = 'one') = (for_id is not null)`),
    ofSchool(),
  ],
);

/** Who has read a note: a member, or `here`, the lead of this machine. */
export const noteReads = pgTable(
  "note_reads",
  {
    schoolId: schoolId(),
    noteId: uuid("note_id").notNull(),
    reader: text("reader").notNull(),
  },
  (table) => [
    keyOf(table, table.noteId, table.reader),
    belongs("note_reads_note", table, table.noteId, notes).onDelete("cascade"),
    ofSchool(),
  ],
);
