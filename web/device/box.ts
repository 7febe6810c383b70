import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { type AnswerBody, broughtUp } from "#contract";

/** What this device keeps in IndexedDB: marks until the server has them, and what an open check needs without a line. */
export interface Box extends DBSchema {
  marks: {
    key: string;
    value: {
      readonly id: string;
      /** Order of marking on this device. */
      readonly sort: number;
      readonly answer: AnswerBody;
      /** Of which sitting; missing for marks of an older version. */
      readonly sittingId?: string;
      /** The server has it; kept until its sitting is forgotten, so that a reload without a line still knows it. */
      readonly sent?: boolean;
      readonly refused?: string;
    };
    indexes: { sort: number; sitting: string };
  };
  pages: { key: string; value: { readonly address: string; readonly content: unknown; readonly keptAt: number } };
}

export const box: Promise<IDBPDatabase<Box>> = openDB<Box>("keen-sapling", 3, {
  upgrade: async (db, from, _to, change) => {
    const marks = from < 1 ? db.createObjectStore("marks", { keyPath: "id" }) : change.objectStore("marks");
    if (from < 1) marks.createIndex("sort", "sort");
    if (from < 2) {
      marks.createIndex("sitting", "sittingId");
      db.createObjectStore("pages", { keyPath: "address" });
    }
    if (from < 3) {
      // Marks that a version before made and could not send.
      for await (const cursor of marks.iterate())
        await cursor.update({ ...cursor.value, answer: broughtUp(cursor.value.answer) as AnswerBody });
    }
  },
});

/**
 * Puts a row and ends the transaction at once: a page that is closed in the same moment loses nothing. (One that ends
 * by itself is undone when the page goes before it has heard that the row is in.)
 */
export async function keepInBox<K extends "marks" | "pages">(store: K, row: Box[K]["value"]): Promise<void> {
  const change = (await box).transaction(store, "readwrite");
  const put = change.store.put(row);
  change.commit();
  await Promise.all([put, change.done]);
}
