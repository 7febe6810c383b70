import { inArray, lt } from "drizzle-orm";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

/** Lets go for good of sessions and own texts that were removed before this instant. */
export async function forgetRemoved(db: Db, before: string): Promise<void> {
  await db.transaction(async (inside) => {
    await inside.delete(t.sessions).where(lt(t.sessions.removedAt, before));
    const gone = await inside.delete(t.texts).where(lt(t.texts.removedAt, before)).returning({ id: t.texts.id });
    const ids = gone.map((text) => text.id);
    if (ids.length > 0) await inside.delete(t.preparations).where(inArray(t.preparations.textId, ids));
  });
}
