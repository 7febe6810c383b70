import { Router } from "express";
import { type AnswerBody, saveAnswers } from "#contract";
import { kinds } from "#core/checks";
import { dayAt } from "#core/ledger";
import * as log from "../store/answers.ts";
import { checksByIds, checksOfSitting, setCheckEnd } from "../store/checks.ts";
import { childrenHere } from "../store/children.ts";
import { schoolZone } from "../store/classes.ts";
import { deleteFace } from "../store/faces.ts";
import type { Db } from "../store/open.ts";
import { isFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { serve } from "./serve.ts";

/** The answer log: what enters it, and what an entry that ends a check brings with it. */
export function answerRoutes({ db, now, live }: House): Router {
  const router = Router();

  serve(router, saveAnswers, async ({ body }) => {
    const { good, saved, refused, sittings } = await sort(db, body.answers, now());
    await log.appendAnswers(db, good);
    for (const entry of good) if (entry.outcome === "stop") await setCheckEnd(db, entry.checkId, entry.markedAt);
    for (const [checkId, at] of await reopened(db, good)) await setCheckEnd(db, checkId, at);
    for (const [sittingId, answers] of sittings) {
      live.desk(sittingId, { kind: "answers", answers });
      if (!answers.some((entry) => entry.outcome === "stop")) continue;
      if ((await checksOfSitting(db, sittingId)).some((check) => check.endedAt === null)) continue;
      await deleteFace(db, sittingId);
      live.end(sittingId);
    }
    return { saved: [...saved, ...good.map((answer) => answer.id)], refused };
  });

  return router;
}

/** Checks whose end was taken back. */
async function reopened(db: Db, entries: readonly AnswerBody[]): Promise<[string, null][]> {
  const ids = entries.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : []));
  const { rows } = await log.storedAnswers(db, ids);
  return [...rows.values()].flatMap((entry): [string, null][] =>
    entry.outcome === "stop" ? [[entry.checkId, null]] : [],
  );
}

interface Sorted {
  /** New and in order. */
  readonly good: AnswerBody[];
  /** Here already, the same as now. */
  readonly saved: string[];
  readonly refused: { id: string; says: string }[];
  /** What is new, by the sitting that it belongs to. */
  readonly sittings: Map<string, AnswerBody[]>;
}

/**
 * Which of these entries may be added to the log, each with the day at the school on which it was marked, whatever day
 * the device took it for. One that may not be added stops no other.
 */
async function sort(db: Db, answers: readonly AnswerBody[], now: Date): Promise<Sorted> {
  const ids = answers.flatMap((answer) => (answer.outcome === "void" ? [answer.id, answer.voids] : [answer.id]));
  const { rows, voided } = await log.storedAnswers(db, ids);
  const known = new Map(rows);
  const taken = new Map(voided);
  const checkIdOf = (answer: AnswerBody | undefined): string | null =>
    answer === undefined ? null : answer.outcome === "void" ? checkIdOf(known.get(answer.voids)) : answer.checkId;
  const checkIds = new Set([...answers, ...rows.values()].flatMap((answer) => checkIdOf(answer) ?? []));
  const checks = new Map((await checksByIds(db, [...checkIds])).map((check) => [check.id, check]));
  const children = await childrenHere(
    db,
    answers.map((answer) => answer.childId),
  );
  const zone = await schoolZone(db);
  const sorted: Sorted = { good: [], saved: [], refused: [], sittings: new Map() };

  const problemWith = (answer: AnswerBody): string | undefined => {
    if (!children.has(answer.childId)) return "This child is not here any more.";
    if (isFuture(answer.markedAt, now)) return "The time lies ahead of the server's clock.";
    if (answer.outcome === "void") {
      const target = known.get(answer.voids);
      if (!target || target.outcome === "void") return "The answer to take back is not in the log.";
      if (target.childId !== answer.childId) return "The answer to take back is another child's.";
      if (taken.has(answer.voids)) return "This answer has been taken back already.";
      return undefined;
    }
    if (answer.checkId === null) return "An answer needs the check that it belongs to.";
    const check = checks.get(answer.checkId);
    if (!check) return "The check is not here any more.";
    if (check.childId !== answer.childId) return "The check is another child's.";
    if (Date.parse(answer.markedAt) < Date.parse(check.startedAt) - 1000)
      return "The time is before the check began.";
    if (answer.outcome === "stop") return undefined;
    if (answer.item !== null && !check.items.includes(answer.item)) return "This item is not in the check.";
    if (answer.outcome === "note") return undefined;
    if (answer.kind !== check.kind) return `The check is one of another kind: ${kinds[kindOf(check)].name}.`;
    return undefined;
  };

  for (const answer of answers) {
    const stored = known.get(answer.id);
    if (stored) {
      const same = stored.childId === answer.childId && stored.outcome === answer.outcome;
      if (same) sorted.saved.push(answer.id);
      else sorted.refused.push({ id: answer.id, says: "Another answer has this id." });
      continue;
    }
    const says = problemWith(answer);
    if (says) {
      sorted.refused.push({ id: answer.id, says });
      continue;
    }
    const sittingId = checks.get(checkIdOf(answer) ?? "")?.sittingId;
    const entry = { ...answer, day: dayAt(zone, answer.markedAt) };
    if (sittingId) sorted.sittings.set(sittingId, [...(sorted.sittings.get(sittingId) ?? []), entry]);
    known.set(entry.id, entry);
    if (entry.outcome === "void") taken.set(entry.voids, entry.id);
    sorted.good.push(entry);
  }
  return sorted;
}

function kindOf(check: { readonly kind: string }): keyof typeof kinds {
  return check.kind as keyof typeof kinds;
}
