import { sql } from "drizzle-orm";
import {
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgPolicy,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type {
  CheckSettingsBody,
  ChildLetters,
  Did,
  Grouping,
  Opens,
  OrderBody,
  OwnModel,
  ReadingSettingsBody,
  Role,
  SecureWhenBody,
  Week,
} from "#contract";
import {
  at,
  belongs,
  keenApp,
  keenDoor,
  keyOf,
  nowHere,
  ofSchool,
  schoolId,
  theSchool,
  version,
} from "../columns.ts";

/** The schools of this server. */
export const schools = pgTable(
  "schools",
  {
    id: uuid("id").primaryKey(),
    /** Its name in a host name: `SLUG.localhost`. */
    slug: text("slug").notNull().unique(),
    name: text("name").notNull().default(""),
    accent: text("accent").notNull().default("neutral"),
    /** An IANA name; null until the school has said. */
    timeZone: text("time_zone"),
    /** How this school checks; what is missing is as it ships. */
    checks: jsonb("checks").$type<Partial<CheckSettingsBody>>().notNull().default({}),
    /** What it measures readings against; what is missing is as it ships. */
    reading: jsonb("reading").$type<Partial<ReadingSettingsBody>>().notNull().default({}),
    /** How it makes its groups; what is missing is as it ships. */
    grouping: jsonb("grouping").$type<Partial<Grouping>>().notNull().default({}),
    /** Its week: what is missing is as it ships. */
    week: jsonb("week").$type<Partial<Week>>().notNull().default({}),
    /** Numbers of the model of the school's own, with how they were found; null while it goes by what ships. */
    ownModel: jsonb("own_model").$type<OwnModel>(),
    /** When it calls a spelling secure; null until it has said. */
    secureWhen: jsonb("secure_when").$type<SecureWhenBody>(),
    /** Of its settings. */
    version: version(),
    /** Goes up with every change of how words are split or heard. */
    wordsVersion: integer("words_version").notNull().default(1),
    /** Goes up with every transaction that writes classes, orders or how far a class is taught. */
    outline: integer("outline").notNull().default(1),
    /** Goes up with every transaction that writes sessions or what was said of them. */
    held: integer("held").notNull().default(1),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
    /** Months after which a child who left is to be erased, and weeks for which backups are kept. */
    leaversMonths: integer("leavers_months").notNull().default(12),
    backupWeeks: integer("backup_weeks").notNull().default(8),
    /** When a backup was last made that holds this school; null when there was none. */
    backedUpAt: at("backed_up_at"),
    /** Nothing in it is real: anyone at its machine may come in as any role. */
    demo: boolean("demo").notNull().default(false),
    /** Months for which it keeps who saw and did what. */
    trailMonths: integer("trail_months").notNull().default(24),
    /** Minutes without a touch after which shared devices lock. */
    lockMinutes: integer("lock_minutes").notNull().default(5),
    /** A lead can do what a lead does only with a second factor. */
    leadsNeedSecond: boolean("leads_need_second").notNull().default(false),
  },
  () => [theSchool(), pgPolicy("at_the_door", { for: "select", to: keenDoor, using: sql`true` })],
);

/**
 * What leads to a school before anyone is known: hashed tokens of links, codes of children's faces. A school writes its
 * own; only the door reads them.
 */
export const doors = pgTable(
  "doors",
  {
    kind: text("kind").$type<Opens>().notNull(),
    key: text("key").notNull(),
    schoolId: schoolId(),
  },
  (table) => [
    primaryKey({ columns: [table.kind, table.key] }),
    ofSchool(),
    pgPolicy("at_the_door", { for: "select", to: keenDoor, using: sql`true` }),
  ],
);

/** Who belongs to the school, and as what. */
export const members = pgTable(
  "members",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    role: text("role").$type<Role>().notNull(),
    version: version(),
    /** With which the person signs in, once an invitation was used; in this school it is theirs alone. */
    accountId: uuid("account_id"),
    /** The names that marks of theirs carry from before they had an account. */
    /** Which of the adults who take groups they are; null for whoever takes none. */
    adultId: uuid("adult_id"),
    typedNames: jsonb("typed_names").$type<readonly string[]>().notNull().default([]),
    /** Since when they do not belong to the school any more. What they did keeps their name. */
    removedAt: at("removed_at"),
  },
  (table) => [
    keyOf(table, table.id),
    // People sign in by their name.
    uniqueIndex("members_name").on(table.schoolId, sql`lower(${table.name})`).where(sql`removed_at is null`),
    uniqueIndex("members_account").on(table.schoolId, table.accountId),
    ofSchool(),
  ],
);

/** Links by which someone sets their passphrase: the first lead of the school, whoever is invited, whoever is locked out. */
export const invitations = pgTable(
  "invitations",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** Of the token, in hexadecimal: the database cannot tell a link. */
    tokenHash: text("token_hash").notNull(),
    /** Null where the school is set up with it. */
    memberId: uuid("member_id"),
    madeAt: at("made_at").notNull(),
    endsAt: at("ends_at").notNull(),
    usedAt: at("used_at"),
  },
  (table) => [
    keyOf(table, table.id),
    uniqueIndex("invitations_token").on(table.schoolId, table.tokenHash),
    belongs("invitations_member", table, table.memberId, members).onDelete("cascade"),
    ofSchool(),
  ],
);

/** Letters with a link that no mail server sends: a lead hands them over. They go with their invitation. */
export const outbox = pgTable(
  "outbox",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    invitationId: uuid("invitation_id").notNull(),
    to: text("to").notNull(),
    subject: text("subject").notNull(),
    /** The whole letter, with its link. */
    text: text("text").notNull(),
    madeAt: at("made_at").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    index("outbox_invitation").on(table.schoolId, table.invitationId),
    belongs("outbox_invitation", table, table.invitationId, invitations).onDelete("cascade"),
    ofSchool(),
  ],
);

/** Devices of the school that several people use, each let in once by a lead. */
export const devices = pgTable(
  "devices",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** Of what the device keeps in a cookie, in hexadecimal. */
    tokenHash: text("token_hash").notNull(),
    letInAt: at("let_in_at").notNull(),
    usedAt: at("used_at"),
  },
  (table) => [keyOf(table, table.id), uniqueIndex("devices_token").on(table.schoolId, table.tokenHash), ofSchool()],
);

/** With what each person comes in on one of them; hashed. */
export const deviceCodes = pgTable(
  "device_codes",
  {
    schoolId: schoolId(),
    deviceId: uuid("device_id").notNull(),
    memberId: uuid("member_id").notNull(),
    hash: text("hash").notNull(),
  },
  (table) => [
    keyOf(table, table.deviceId, table.memberId),
    belongs("device_codes_device", table, table.deviceId, devices).onDelete("cascade"),
    belongs("device_codes_member", table, table.memberId, members).onDelete("cascade"),
    ofSchool(),
  ],
);

/** Who saw and did what, for the lead. Rows come and, when they are old, go; none is changed. */
export const trail = pgTable(
  "trail",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    at: at("at").notNull(),
    /** Null for who sat at the machine before anyone signed in, and for visitors. */
    memberId: uuid("member_id"),
    /** As they were called then, so that it can be read when they are gone. */
    by: text("by").notNull(),
    did: text("did").$type<Did>().notNull(),
    /** The id of a child, member, class or session that it was about; never a name. */
    about: text("about").notNull().default(""),
    /** How many, where it was about several. */
    count: integer("count").notNull().default(1),
  },
  (table) => [
    keyOf(table, table.id),
    index("trail_at").on(table.schoolId, table.at),
    ofSchool(),
    pgPolicy("old_enough", {
      as: "restrictive",
      for: "delete",
      to: keenApp,
      using: sql`at < now() - interval '27 days'`,
    }),
  ],
);

/** The classes that are a member's own. */
export const memberClasses = pgTable(
  "member_classes",
  { schoolId: schoolId(), memberId: uuid("member_id").notNull(), classId: uuid("class_id").notNull() },
  (table) => [
    keyOf(table, table.memberId, table.classId),
    belongs("member_classes_member", table, table.memberId, members).onDelete("cascade"),
    belongs("member_classes_class", table, table.classId, classes).onDelete("cascade"),
    ofSchool(),
  ],
);

export const orders = pgTable(
  "orders",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    shipped: boolean("shipped").notNull().default(false),
    version: version(),
    content: jsonb("content").$type<OrderBody>().notNull(),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);

export const classes = pgTable(
  "classes",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    yearGroup: text("year_group").notNull(),
    orderId: uuid("order_id").notNull(),
    archived: boolean("archived").notNull().default(false),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), belongs("classes_order", table, table.orderId, orders), ofSchool()],
);

/** How far a class has been taught: the row with the highest number counts, the others are its history. */
export const taught = pgTable(
  "taught",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    classId: uuid("class_id").notNull(),
    /** In which order they came, from 1. */
    number: integer("number").notNull(),
    stepId: text("step_id"),
    taughtOn: date("taught_on").notNull(),
    markedAt: at("marked_at").notNull(),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("taught_class", table, table.classId, classes).onDelete("cascade"),
    uniqueIndex("taught_number").on(table.schoolId, table.classId, table.number),
    ofSchool(),
  ],
);

export const children = pgTable(
  "children",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    classId: uuid("class_id").notNull(),
    name: text("name").notNull(),
    note: text("note").notNull().default(""),
    archived: boolean("archived").notNull().default(false),
    /** The day on which the child was archived; null while it is here. */
    leftOn: date("left_on"),
    /** How large letters stand for the child, and how far apart. */
    letterSize: text("letter_size").$type<ChildLetters["letterSize"]>().notNull().default("usual"),
    letterSpacing: text("letter_spacing").$type<ChildLetters["letterSpacing"]>().notNull().default("usual"),
    /** The day for which the child was said to be absent last; any other day it is here. */
    absentOn: date("absent_on"),
    /** All days on which it was away, in order. */
    awayOn: date("away_on").array().notNull().default([]),
    /** Of what was said of the child; marks do not count. */
    version: version(),
    /** How many entries its log has: the number of the last one. */
    entries: integer("entries").notNull().default(0),
    createdAt: at("created_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [
    keyOf(table, table.id),
    belongs("children_of_class", table, table.classId, classes),
    index("children_class").on(table.schoolId, table.classId),
    ofSchool(),
  ],
);

/** Ids of children who were erased, with no name: a backup from before that is put back leaves them out. */
export const erased = pgTable(
  "erased",
  {
    schoolId: schoolId(),
    childId: uuid("child_id").notNull(),
    erasedAt: at("erased_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.childId), ofSchool()],
);

/** What a school year found, so that it can be taken back: which class was called what, and who was in which. */
export interface BeforeYear {
  readonly classes: readonly {
    readonly id: string;
    readonly before: { readonly name: string; readonly yearGroup: string; readonly archived: boolean };
    readonly after: { readonly name: string; readonly yearGroup: string; readonly archived: boolean };
  }[];
  readonly added: readonly string[];
  readonly children: readonly {
    readonly id: string;
    readonly classId: string;
    readonly archived: boolean;
    readonly leftOn: string | null;
    /** The version that the year gave it: another means that someone has changed the child since. */
    readonly version: number;
  }[];
}

/** School years that were begun here. */
export const years = pgTable(
  "years",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    begunAt: at("begun_at").notNull(),
    counts: jsonb("counts").notNull().$type<{ classes: number; added: number; moved: number; left: number }>(),
    /** Null when it is too late to take it back. */
    before: jsonb("before").$type<BeforeYear>(),
    undoneAt: at("undone_at"),
  },
  (table) => [keyOf(table, table.id), ofSchool()],
);
