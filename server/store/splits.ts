import { asc, eq } from "drizzle-orm";
import type { OwnSplit } from "#contract";
import { type Accent, accentOf } from "#core/phonics";
import { type Lexicon, ownEntry, withOwnSplits } from "#core/words";
import { schoolSettings } from "./classes.ts";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

const shown = {
  id: t.splits.id,
  text: t.splits.text,
  units: t.splits.units,
  reason: t.splits.reason,
  savedAt: t.splits.savedAt,
};

export async function listSplits(db: Db): Promise<OwnSplit[]> {
  return db.select(shown).from(t.splits).orderBy(asc(t.splits.key));
}

/** Keeps one split a word: an older one of the same word gives way. */
export async function putSplit(
  db: Db,
  row: Omit<OwnSplit, "savedAt"> & { key: string; savedAt: string },
): Promise<OwnSplit> {
  await db.transaction(async (step) => {
    await step.delete(t.splits).where(eq(t.splits.key, row.key));
    await step.insert(t.splits).values(row).onConflictDoUpdate({ target: t.splits.id, set: row });
  });
  const { id, text, units, reason, savedAt } = row;
  return { id, text, units, reason, savedAt };
}

export async function deleteSplit(db: Db, id: string): Promise<boolean> {
  return (await db.delete(t.splits).where(eq(t.splits.id, id)).returning({ id: t.splits.id })).length === 1;
}

const made = new WeakMap<Lexicon, { of: string; lexicon: Lexicon }>();

/** The lexicon that ships with the school's own splits laid over it; made anew when they have changed. */
export async function schoolLexicon(db: Db, shipped: Lexicon): Promise<Lexicon> {
  const own = await listSplits(db);
  if (own.length === 0) return shipped;
  const of = own.map((split) => `${split.id} ${split.savedAt}`).join("\n");
  const known = made.get(shipped);
  if (known?.of === of) return known.lexicon;
  const lexicon = withOwnSplits(
    shipped,
    own.map(({ text, units }) => ownEntry(text, units)),
  );
  made.set(shipped, { of, lexicon });
  return lexicon;
}

/** The words of the school and the accent that they are heard in. */
export interface SchoolWords {
  readonly lexicon: Lexicon;
  readonly accent: Accent;
}

export async function schoolWords(db: Db, shipped: Lexicon): Promise<SchoolWords> {
  return { lexicon: await schoolLexicon(db, shipped), accent: accentOf((await schoolSettings(db)).accent) };
}
