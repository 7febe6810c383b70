import { sql } from "drizzle-orm";
import { integer, jsonb, pgTable, text, uniqueIndex, uuid } from "drizzle-orm/pg-core";
import type { KnownBy } from "#core/words";
import { at, keyOf, nowHere, ofSchool, schoolId } from "../columns.ts";

/** Splits of words that the school put right by hand; one a word. */
export const splits = pgTable(
  "splits",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** The word in small letters, by which it is found. */
    key: text("key").notNull(),
    text: text("text").notNull(),
    units: jsonb("units").$type<string[]>().notNull(),
    reason: text("reason").notNull(),
    savedAt: at("saved_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), uniqueIndex("splits_key").on(table.schoolId, table.key), ofSchool()],
);

/** From which age words are known here, where the school says otherwise than the list; one a word. */
export const wordAges = pgTable(
  "word_ages",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** The word in small letters, by which it is found. */
    key: text("key").notNull(),
    text: text("text").notNull(),
    knownBy: integer("known_by").$type<KnownBy>().notNull(),
    savedAt: at("saved_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), uniqueIndex("word_ages_key").on(table.schoolId, table.key), ofSchool()],
);

/** Pictures of words that the school put in; one a word. */
export const pictures = pgTable(
  "pictures",
  {
    schoolId: schoolId(),
    id: uuid("id").notNull(),
    /** The word in small letters, by which it is found. */
    key: text("key").notNull(),
    text: text("text").notNull(),
    /** A small PNG of grey tones as a `data:` address. */
    image: text("image").notNull(),
    madeBy: text("made_by").notNull(),
    savedAt: at("saved_at").notNull().default(sql`now()`).$defaultFn(nowHere),
  },
  (table) => [keyOf(table, table.id), uniqueIndex("pictures_key").on(table.schoolId, table.key), ofSchool()],
);
