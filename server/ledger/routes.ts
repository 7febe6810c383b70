import { Router } from "express";
import { type AnswerBody, saveAnswers, sentAnswer } from "#contract";
import { checkOf, dayAt } from "#core/ledger";
import { isFuture } from "../http/clock.ts";
import type { House } from "../http/house.ts";
import { serve } from "../http/serve.ts";
import { checksByIds } from "../store/checks.ts";
import { schoolZone } from "../store/classes.ts";
import { deleteFace } from "../store/faces.ts";
import type { Db } from "../store/open.ts";
import { append, endedSittings } from "./append.ts";
import { entriesUnder } from "./log.ts";

interface Sent {
  readonly fate: "kept" | "there" | "refused";
  readonly says: string;
}

/** Where marks of devices arrive: each is kept, there already, or refused with its reason. */
export function ledgerRoutes({ db, now, live }: House): Router {
  const router = Router();

  serve(router, saveAnswers, async ({ body }) => {
    const read = body.answers.map((sent) => sentAnswer.safeParse(sent));
    const isAlone = (mark: AnswerBody) => mark.outcome === "void" || mark.source.kind === "check";
    const marks = read.flatMap((one) => (one.success && isAlone(one.data) ? [one.data] : []));
    const zone = await schoolZone(db);
    const { appended, ended } = await db.transaction(async (inside) => {
      const appended = await append(inside, marks, {
        dayOf: (instant) => dayAt(zone, instant),
        isFuture: (instant) => isFuture(instant, now()),
      });
      const stops = appended.added.flatMap((entry) => (entry.outcome === "stop" ? [entry.source.checkId] : []));
      const ended = await endedSittings(inside, stops);
      for (const id of ended) await deleteFace(inside, id);
      return { appended, ended };
    });
    for (const [sittingId, answers] of await bySitting(db, appended.added))
      live.desk(sittingId, { kind: "answers", answers });
    for (const id of ended) live.end(id);

    const fates = [...appended.fates];
    const told = read.map((one): Sent => {
      if (!one.success) return { fate: "refused", says: malformed(one.error.issues) };
      // The words of a text come with the reading, and what was said of a session with its report.
      if (!isAlone(one.data))
        return { fate: "refused", says: "A mark that comes alone needs the check that it was made in." };
      const fate = fates.shift();
      return { fate: fate?.fate ?? "refused", says: fate?.fate === "refused" ? fate.says : "" };
    });
    const idOf = (at: number) => String((body.answers[at] as { id?: unknown } | null)?.id ?? "");
    return {
      fates: told.map((one, at) => ({ at, ...one })),
      saved: told.flatMap(({ fate }, at) => (fate === "refused" ? [] : [idOf(at).toLowerCase()])),
      refused: told.flatMap(({ fate, says }, at) => (fate === "refused" ? [{ id: idOf(at), says }] : [])),
    };
  });

  return router;
}

function malformed(issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]): string {
  const [first] = issues;
  const where = first?.path.map(String).join(".");
  return `This mark cannot be read${where ? ` (${where}: ${first?.message})` : ""}.`;
}

/** Entries by the sitting that they are of; an undo is of the sitting of what it takes back. */
async function bySitting(db: Db, added: readonly AnswerBody[]): Promise<Map<string, AnswerBody[]>> {
  const { entries } = await entriesUnder(
    db,
    added.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : [])),
  );
  const checkIdOf = (entry: AnswerBody) => {
    const of = entry.outcome === "void" ? entries.get(entry.voids) : entry;
    return of && of.outcome !== "void" ? checkOf(of) : null;
  };
  const ids = new Set(added.flatMap((entry) => checkIdOf(entry) ?? []));
  const sittings = new Map((await checksByIds(db, [...ids])).map((check) => [check.id, check.sittingId]));
  const found = new Map<string, AnswerBody[]>();
  for (const entry of added) {
    const sittingId = sittings.get(checkIdOf(entry) ?? "");
    if (sittingId) found.set(sittingId, [...(found.get(sittingId) ?? []), entry]);
  }
  return found;
}
