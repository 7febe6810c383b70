import { asc, eq, ne, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import type { OwnPicture, OwnSplit, OwnWordAge } from "#contract";
import { type Accent, accentOf } from "#core/phonics";
import type { Lexicon } from "#core/words";
import { ownUnitsHere } from "../orders/own-units.ts";
import { row, wordsChanged } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { laidOver, type SentWords } from "./laid.ts";

/** What a school says of single words, a row a word. */
type OfWords = typeof t.splits | typeof t.wordAges | typeof t.pictures;

/** Keeps one row a word: an older one of the same word gives way. Two who say something of words come one after the other. */
async function keepIn<Table extends OfWords>(
  inside: Inside,
  table: Table,
  said: Table["$inferInsert"] & { readonly key: string },
): Promise<void> {
  await inside.select({ id: t.schools.id }).from(t.schools).where(eq(t.schools.id, inside.schoolId)).for("update");
  await inside.delete(table).where(eq(table.key, said.key));
  await inside
    .insert(table)
    .values(said as never)
    .onConflictDoUpdate({ target: [table.schoolId, table.id], set: said as never });
}

async function removeFrom(inside: Inside, table: OfWords, id: string): Promise<boolean> {
  const gone = await inside.delete(table).where(eq(table.id, id)).returning({ id: table.id });
  return gone.length === 1;
}

const shown = {
  id: t.splits.id,
  text: t.splits.text,
  units: t.splits.units,
  reason: t.splits.reason,
  savedAt: t.splits.savedAt,
};

/** Splits that the school put right, by word. */
export async function list(inside: Inside): Promise<OwnSplit[]> {
  return inside.select(shown).from(t.splits).orderBy(asc(t.splits.key));
}

/** Keeps a split of a word, in the place of an older one. */
export async function put(inside: Inside, split: OwnSplit & { readonly key: string }): Promise<OwnSplit> {
  await keepIn(inside, t.splits, split);
  await wordsChanged(inside);
  const { id, text, units, reason, savedAt } = split;
  return { id, text, units, reason, savedAt };
}

/** Takes a split away. @returns false when there was none */
export async function remove(inside: Inside, id: string): Promise<boolean> {
  const wasThere = await removeFrom(inside, t.splits, id);
  if (wasThere) await wordsChanged(inside);
  return wasThere;
}

const shownAge = {
  id: t.wordAges.id,
  text: t.wordAges.text,
  knownBy: t.wordAges.knownBy,
  savedAt: t.wordAges.savedAt,
};

/** Ages of words that the school has said itself, by word. */
export async function listAges(inside: Inside): Promise<OwnWordAge[]> {
  return inside.select(shownAge).from(t.wordAges).orderBy(asc(t.wordAges.key));
}

/** Keeps the age of a word, in the place of an older one. */
export async function putAge(inside: Inside, age: OwnWordAge & { readonly key: string }): Promise<OwnWordAge> {
  await keepIn(inside, t.wordAges, age);
  await wordsChanged(inside);
  const { id, text, knownBy, savedAt } = age;
  return { id, text, knownBy, savedAt };
}

/** Takes an age away. @returns false when there was none */
export async function removeAge(inside: Inside, id: string): Promise<boolean> {
  const wasThere = await removeFrom(inside, t.wordAges, id);
  if (wasThere) await wordsChanged(inside);
  return wasThere;
}

const shownPicture = {
  id: t.pictures.id,
  text: t.pictures.text,
  image: t.pictures.image,
  madeBy: t.pictures.madeBy,
  savedAt: t.pictures.savedAt,
};

/** Pictures of words that the school put in, by word. */
export async function listPictures(inside: Inside): Promise<OwnPicture[]> {
  return inside.select(shownPicture).from(t.pictures).orderBy(asc(t.pictures.key));
}

/** How many other words have a picture of the school's own. */
export async function countPictures(inside: Inside, key: string): Promise<number> {
  return inside.$count(t.pictures, ne(t.pictures.key, key));
}

/** Keeps a picture of a word, in the place of an older one. */
export async function putPicture(
  inside: Inside,
  picture: OwnPicture & { readonly key: string },
): Promise<OwnPicture> {
  await keepIn(inside, t.pictures, picture);
  const { key: _, ...kept } = picture;
  return kept;
}

/** Takes a picture away. @returns false when there was none */
export async function removePicture(inside: Inside, id: string): Promise<boolean> {
  return removeFrom(inside, t.pictures, id);
}

/** The words of the school and the accent that they are heard in. */
export interface SchoolWords {
  readonly lexicon: Lexicon;
  /** As they are sent to another thread. */
  readonly sent: SentWords;
  readonly accent: Accent;
  /** Says which school's words these are and of when: what is worked out from them may be kept under it. */
  readonly version: string;
}

/** So many schools' own words are kept at a time; each holds what differs from those that ship. */
const MOST_LEXICONS = 50;
const kept = new LRUCache<string, Pick<SchoolWords, "lexicon" | "sent">>({ max: MOST_LEXICONS });

/** The lexicon that ships with the school's own splits, ages and units laid over it, made anew when they have changed, and its accent. */
export async function read(inside: Inside): Promise<SchoolWords> {
  const { accent, wordsVersion } = await row(inside);
  const version = `${inside.schoolId} ${wordsVersion}`;
  const key = `${inside.memoryKey} ${wordsVersion}`;
  const known = kept.get(key);
  if (known) return { ...known, accent: accentOf(accent), version };
  const own = (await list(inside)).map(({ text, units }) => ({ text, units }));
  const ages = (await listAges(inside)).map(({ text, knownBy }) => ({ text, knownBy }));
  const sent = { version: key, own, ages, units: await ownUnitsHere(inside) };
  const words = { lexicon: laidOver(inside.shipped.lexicon, sent), sent };
  kept.set(key, words);
  return { ...words, accent: accentOf(accent), version };
}

/** Sets the accent whose sounds count as right. */
export async function setAccent(inside: Inside, accent: string): Promise<void> {
  await inside
    .update(t.schools)
    .set({ accent, version: sql`${t.schools.version} + 1` })
    .where(eq(t.schools.id, inside.schoolId));
  await wordsChanged(inside);
}
