import { Router } from "express";
import {
  type AnswerBody,
  type CheckView,
  countCards,
  endCheck,
  getCheck,
  getGaps,
  saveAnswers,
  startCheck,
} from "#contract";
import { chooseItems, type Outcome, standing } from "#core/checks";
import { lastSteps } from "#core/order";
import { findCorrespondence } from "#core/phonics";
import * as store from "../store/answers.ts";
import { findChildren } from "../store/children.ts";
import { gapMap, standingsOf } from "../store/gaps.ts";
import type { Db } from "../store/open.ts";
import { mustChild } from "./children.ts";
import { dayOf, isFuture, refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

async function viewCheck(db: Db, id: string): Promise<CheckView> {
  const check = await store.findCheck(db, id);
  if (!check) throw notFound("check");
  const child = await mustChild(db, check.childId);
  const log = await store.answersOfChildren(db, [child.id]);
  const mine = new Set(
    log.flatMap((answer) => (answer.outcome !== "void" && answer.checkId === id ? [answer.id] : [])),
  );
  const before = new Map<string, Outcome>();
  for (const answer of standing(log)) {
    if (answer.markedAt < check.startedAt && answer.checkId !== id) before.set(answer.item, answer.outcome);
  }
  return {
    id,
    childId: child.id,
    childName: child.name,
    classId: child.classId,
    scope: check.scope as CheckView["scope"],
    items: check.items,
    seed: check.seed,
    startedAt: check.startedAt,
    endedAt: check.endedAt,
    answers: log.filter((answer) => mine.has(answer.outcome === "void" ? answer.voids : answer.id)),
    before: check.items.flatMap((item) => {
      const outcome = before.get(item);
      return outcome ? [{ item, outcome }] : [];
    }),
  };
}

/** The decks that could be dealt to a child now. */
async function decksFor(db: Db, childId: string, classId: string, today: string, recentSteps: number) {
  const { taught, standings } = await standingsOf(db, childId, classId, today);
  const recent = lastSteps(taught.order, taught.stepId, recentSteps);
  const base = {
    taught: taught.gpcs,
    recent,
    isSecure: (gpc: string) => standings.get(gpc)?.state === "secure",
    wasAsked: (gpc: string) => (standings.get(gpc)?.answers ?? 0) > 0,
  };
  return (scope: CheckView["scope"]) => [...chooseItems({ ...base, scope, picked: [] })];
}

export function checkRoutes({ db, now }: House): Router {
  const router = Router();

  serve(router, countCards, async ({ params, query }) => {
    const child = await mustChild(db, params.id);
    const deck = await decksFor(db, child.id, child.classId, dayOf(now()), query.recentSteps);
    const open = (await store.checksOfChild(db, child.id)).find((check) => check.endedAt === null);
    const times = standing(await store.answersOfChildren(db, [child.id]))
      .flatMap((answer) => (answer.ms === null ? [] : [answer.ms]))
      .sort((one, other) => one - other);
    return {
      due: deck("due"),
      all: deck("all"),
      recent: deck("recent"),
      msPerCard: times[Math.floor(times.length / 2)] ?? null,
      openCheck: open?.id ?? null,
    };
  });

  serve(router, startCheck, async ({ body }) => {
    if (await store.findCheck(db, body.id)) return viewCheck(db, body.id);
    const child = await mustChild(db, body.childId);
    refuseFuture(body.startedAt, now());
    const unknown = body.picked.find((gpc) => !findCorrespondence(gpc));
    if (unknown) throw unfit(`${unknown} is not a spelling this tool knows.`);
    const items =
      body.scope === "picked"
        ? [...new Set(body.picked)]
        : (await decksFor(db, child.id, child.classId, dayOf(now()), body.recentSteps))(body.scope);
    if (items.length === 0) {
      throw unfit(
        "There is no card to show: nothing in this choice has been taught, or all of it is secure. Choose another set.",
      );
    }
    const { id, childId, scope, seed, startedAt } = body;
    await store.insertCheck(db, { id, childId, scope, items, seed, startedAt });
    return viewCheck(db, id);
  });

  serve(router, getCheck, ({ params }) => viewCheck(db, params.id));

  serve(router, endCheck, async ({ params, body }) => {
    const check = await store.findCheck(db, params.id);
    if (!check) throw notFound("check");
    refuseFuture(body.at, now());
    if (check.endedAt === null) await store.setCheckEnd(db, check.id, body.at);
    return { done: true as const };
  });

  serve(router, saveAnswers, async ({ body }) => {
    const { good, saved, refused } = await sort(db, body.answers, now());
    await store.appendAnswers(db, good);
    return { saved: [...saved, ...good.map((answer) => answer.id)], refused };
  });

  serve(router, getGaps, ({ query }) => gapMap(db, dayOf(now()), query.classId));

  return router;
}

interface Sorted {
  /** New and in order. */
  good: AnswerBody[];
  /** Here already, the same as now. */
  saved: string[];
  refused: { id: string; says: string }[];
}

/** Which of these answers may enter the log. One that may not stops no other. */
async function sort(db: Db, answers: readonly AnswerBody[], now: Date): Promise<Sorted> {
  const checkIds = new Set(
    answers.flatMap((answer) => (answer.outcome !== "void" && answer.checkId ? [answer.checkId] : [])),
  );
  const checks = new Map((await store.checksByIds(db, [...checkIds])).map((check) => [check.id, check]));
  const childIds = new Set(answers.map((answer) => answer.childId));
  const children = new Set((await findChildren(db, [...childIds])).map((child) => child.id));
  const ids = answers.flatMap((answer) => (answer.outcome === "void" ? [answer.id, answer.voids] : [answer.id]));
  const { rows, voided } = await store.storedAnswers(db, ids);
  const sorted: Sorted = { good: [], saved: [], refused: [] };
  const known = new Map(rows);
  const taken = new Map(voided);

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
    if (!findCorrespondence(answer.item)) return `${answer.item} is not a spelling this tool knows.`;
    if (answer.checkId === null) return "An answer needs the check that it belongs to.";
    const check = checks.get(answer.checkId);
    if (!check) return "The check is not here any more.";
    if (check.childId !== answer.childId) return "The check is another child's.";
    if (!check.items.includes(answer.item)) return "This card is not in the check.";
    if (Date.parse(answer.markedAt) < Date.parse(check.startedAt) - 1000)
      return "The time is before the check began.";
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
    known.set(answer.id, answer);
    if (answer.outcome === "void") taken.set(answer.voids, answer.id);
    sorted.good.push(answer);
  }
  return sorted;
}
