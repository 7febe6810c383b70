import { isDeepStrictEqual } from "node:util";
import { Router } from "express";
import {
  addChild,
  type ChildView,
  editChild,
  eraseChild,
  evidence,
  exportChild,
  getChild,
  importChildren,
  listChildren,
  traces,
} from "#contract";
import { plainSetup } from "#core/checks";
import { checkOf, firstOfEach, isGiven, isRight, type KindId } from "#core/ledger";
import { confusionsIn, standingOf, whyState } from "#core/mastery";
import { sameName } from "#core/roster";
import { shortDay } from "#core/saying";
import { logOfChildren, standingOfChildren } from "../ledger/log.ts";
import { checksOfChild } from "../store/checks.ts";
import * as store from "../store/children.ts";
import { findClass, listClasses, slowAfterMs } from "../store/classes.ts";
import { standingsOf } from "../store/gaps.ts";
import { groupHistory, listGroups } from "../store/groups.ts";
import type { Db } from "../store/open.ts";
import { readingsOfChild } from "../store/readings.ts";
import { sessionsOfChild } from "../store/sessions.ts";
import { schoolWords } from "../store/splits.ts";
import { mustBeSame } from "./again.ts";
import { dayAtSchool } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

async function mustChild(db: Db, id: string): Promise<ChildView> {
  const child = await store.findChild(db, id);
  if (!child) throw notFound("child");
  return child;
}

async function refuseSameName(db: Db, classId: string, name: string, exceptId?: string): Promise<void> {
  if (await store.nameTaken(db, classId, name, exceptId)) {
    throw unfit(`A child called “${name}” is already in this class. Add a letter that tells them apart.`, [
      { field: "name", says: "Already in this class." },
    ]);
  }
}

async function mustClass(db: Db, id: string) {
  const found = await findClass(db, id);
  if (!found) throw unfit("This class does not exist any more.", [{ field: "classId", says: "Choose a class." }]);
  return found;
}

export function childRoutes({ db, ground, now }: House): Router {
  const router = Router();

  serve(router, listChildren, ({ query }) => store.listChildren(db, query.classId));

  serve(router, addChild, async ({ body }) => {
    await mustClass(db, body.classId);
    const made = await store.findChild(db, body.id);
    if (made) {
      const { id, classId, name, note } = made;
      mustBeSame("child", { id, classId, name, note }, body);
      return made;
    }
    await refuseSameName(db, body.classId, body.name);
    await store.insertChildren(db, [body]);
    return mustChild(db, body.id);
  });

  serve(router, importChildren, async ({ body }) => {
    const classes = new Set((await listClasses(db)).map((one) => one.id));
    const here = await store.listChildren(db);
    const known = new Map(here.map(({ id, classId, name, note }) => [id, { id, classId, name, note }]));
    const names = new Set(
      here.filter((child) => !child.archived).map((child) => `${child.classId} ${sameName(child.name)}`),
    );
    const refused: { id: string; says: string }[] = [];
    const good = body.children.filter((child) => {
      const key = `${child.classId} ${sameName(child.name)}`;
      const made = known.get(child.id);
      if (made) {
        if (!isDeepStrictEqual(made, child)) refused.push({ id: child.id, says: "Another child was made under it." });
        return false;
      }
      if (!classes.has(child.classId)) refused.push({ id: child.id, says: "This class does not exist any more." });
      else if (names.has(key)) refused.push({ id: child.id, says: "Already in this class." });
      else {
        names.add(key);
        return true;
      }
      return false;
    });
    const added = await store.insertChildren(db, good);
    return { added: added.length, refused };
  });

  serve(router, editChild, async ({ params, body }) => {
    const child = await mustChild(db, params.id);
    if (body.classId) await mustClass(db, body.classId);
    const after = { ...child, ...body };
    if (!after.archived) await refuseSameName(db, after.classId, after.name, child.id);
    await store.updateChild(db, child.id, body);
    return mustChild(db, child.id);
  });

  serve(router, getChild, async ({ params }) => {
    const child = await mustChild(db, params.id);
    const words = await schoolWords(db, ground.lexicon);
    const rule = { slowAfterMs: await slowAfterMs(db), words };
    const given = (await standingOfChildren(db, [child.id], rule)).get(child.id) ?? [];
    const rows = await checksOfChild(db, child.id);
    const checks = rows.map((check) => {
      const first = firstOfEach(given.filter((answer) => checkOf(answer) === check.id && answer.pass === 1));
      const { id, sittingId, startedAt, endedAt, items } = check;
      return {
        id,
        sittingId,
        kind: check.kind as KindId,
        startedAt,
        endedAt,
        cards: items.length,
        asked: first.length,
        right: first.filter((answer) => isRight(answer.outcome)).length,
      };
    });
    const setups = new Map(rows.map((check) => [check.id, check.setup]));
    const confusions = confusionsIn(given, {
      ...words,
      setupOf: (checkId) => setups.get(checkId ?? "") ?? plainSetup,
    });
    const groups = (await listGroups(db)).filter(
      (group) => !group.closed && group.members.some((member) => member.childId === child.id),
    );
    return {
      child,
      checks,
      groups: groups.map(({ id, name }) => ({ id, name })),
      confusions: confusions.map(({ pair: _, items, ...one }) => ({ ...one, items: [...items] })),
    };
  });

  serve(router, evidence, async ({ params, query }) => {
    const child = await mustChild(db, params.id);
    const log = await logOfChildren(db, [child.id]);
    const today = await dayAtSchool(db, now());
    const voided = new Set(log.flatMap((answer) => (answer.outcome === "void" ? [answer.voids] : [])));
    const { standings } = await standingsOf(
      db,
      await schoolWords(db, ground.lexicon),
      child.id,
      child.classId,
      today,
    );
    const here = standings.get(query.gpc) ?? { ...standingOf([], today), state: "not taught" as const };
    return {
      state: here.state,
      why: whyState(here, (day) => shortDay(day, today)),
      answers: log
        .filter((answer) => isGiven(answer) && answer.kind === "card" && answer.item === query.gpc)
        .reverse()
        .map((answer) => ({ answer, voided: voided.has(answer.id) })),
    };
  });

  serve(router, traces, async ({ params }) => store.countTraces(db, await mustChild(db, params.id)));

  serve(router, exportChild, async ({ params }) => {
    const child = await mustChild(db, params.id);
    const className = (await findClass(db, child.classId))?.name ?? "";
    const groups = await listGroups(db);
    const versions = (await Promise.all(groups.map((group) => groupHistory(db, group.id)))).flat();
    const checks = await checksOfChild(db, child.id);
    return {
      format: "keen-sapling child 3" as const,
      exportedAt: now().toISOString(),
      child,
      className,
      answers: await logOfChildren(db, [child.id]),
      checks: checks.map(({ id, kind, scope, items, startedAt, endedAt }) => ({
        id,
        kind: kind as KindId,
        scope,
        items,
        startedAt,
        endedAt,
      })),
      groups: versions
        .filter((version) => version.members.some((member) => member.childId === child.id))
        .map(({ name, savedAt, targets }) => ({ name, savedAt, targets })),
      readings: await readingsOfChild(db, child.id),
      sessions: await sessionsOfChild(db, child.id),
    };
  });

  serve(router, eraseChild, async ({ params }) => {
    await store.eraseChild(db, await mustChild(db, params.id));
    return { done: true as const };
  });

  return router;
}
