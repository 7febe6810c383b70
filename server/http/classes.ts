import { formatISO, parseISO, subDays } from "date-fns";
import { Router } from "express";
import {
  addClass,
  addOrder,
  type ClassView,
  editClass,
  editOrder,
  getSchool,
  markTaught,
  nameSchool,
  type OrderBody,
  removeOrder,
  setTimeZone,
  taughtHistory,
} from "#contract";
import { isTimeZone } from "#core/ledger";
import { orderProblems } from "#core/order";
import { sameName } from "#core/roster";
import { countOpenSittings } from "../store/checks.ts";
import * as store from "../store/classes.ts";
import type { Db } from "../store/open.ts";
import { countDueSessions } from "../store/sessions.ts";
import { mustBeSame } from "./again.ts";
import { dayAtSchool, refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { conflict, notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** For so many days a session that no one has spoken of waits; after that it is of the past. */
const DAYS_DUE = 14;

async function mustClass(db: Db, id: string): Promise<ClassView> {
  const found = await store.findClass(db, id);
  if (!found) throw notFound("class");
  return found;
}

async function refuseSameClassName(db: Db, name: string, exceptId: string): Promise<void> {
  const others = (await store.listClasses(db)).filter((one) => one.id !== exceptId && !one.archived);
  if (others.some((one) => sameName(one.name) === sameName(name))) {
    throw unfit(`A class is called “${name}” already.`, [{ field: "name", says: "Choose another name." }]);
  }
}

async function mustOrder(db: Db, id: string) {
  const found = await store.findOrder(db, id);
  if (!found) throw notFound("teaching order");
  return found;
}

function refuseBadOrder(content: OrderBody): void {
  const says = orderProblems(content);
  if (says[0])
    throw unfit(
      says[0],
      says.map((text) => ({ field: "content", says: text })),
    );
}

export function classRoutes({ db, now }: House): Router {
  const router = Router();

  async function settings() {
    const { timeZone, ...others } = await store.schoolSettings(db);
    return { ...others, timeZone: await store.schoolZone(db), zoneChosen: timeZone !== null };
  }

  serve(router, getSchool, async () => {
    const today = await dayAtSchool(db, now());
    const from = formatISO(subDays(parseISO(today), DAYS_DUE), { representation: "date" });
    return {
      ...(await settings()),
      today,
      waiting: {
        checks: await countOpenSittings(db),
        sessions: await countDueSessions(db, from, today),
      },
      classes: await store.listClasses(db),
      orders: await store.listOrders(db),
    };
  });

  serve(router, nameSchool, async ({ body }) => {
    await store.setSchool(db, { name: body.name });
    return { done: true as const };
  });

  serve(router, setTimeZone, async ({ body }) => {
    if (!isTimeZone(body.timeZone))
      throw unfit(`${body.timeZone} is not a time zone that this server knows.`, [
        { field: "timeZone", says: "Choose one of the list, for example Europe/London." },
      ]);
    await store.setSchool(db, body);
    return { done: true as const };
  });

  serve(router, addClass, async ({ body }) => {
    await mustOrder(db, body.orderId);
    const made = await store.findClass(db, body.id);
    if (made) {
      const { id, name, yearGroup, orderId } = made;
      mustBeSame("class", { id, name, yearGroup, orderId }, body);
      return made;
    }
    await refuseSameClassName(db, body.name, body.id);
    await store.insertClass(db, body);
    return mustClass(db, body.id);
  });

  serve(router, editClass, async ({ params, body }) => {
    await mustClass(db, params.id);
    if (body.orderId) await mustOrder(db, body.orderId);
    if (body.name) await refuseSameClassName(db, body.name, params.id);
    await store.updateClass(db, params.id, body);
    return mustClass(db, params.id);
  });

  serve(router, markTaught, async ({ params, body }) => {
    const one = await mustClass(db, params.id);
    const order = await mustOrder(db, one.orderId);
    refuseFuture(body.at, now());
    if (body.taughtOn > (await dayAtSchool(db, now())))
      throw unfit("The day lies ahead.", [{ field: "taughtOn", says: "Choose today or a day before." }]);
    if (body.stepId !== null && !order.content.steps.some((step) => step.id === body.stepId)) {
      throw unfit("This step is not in the teaching order of the class.", [
        { field: "stepId", says: "Choose a step of the order." },
      ]);
    }
    await store.insertTaught(db, {
      id: body.id,
      classId: one.id,
      stepId: body.stepId,
      taughtOn: body.taughtOn,
      markedAt: body.at,
    });
    return mustClass(db, one.id);
  });

  serve(router, taughtHistory, async ({ params }) => {
    await mustClass(db, params.id);
    return (await store.taughtMarks(db, params.id)).map(({ id, stepId, taughtOn }) => ({ id, stepId, taughtOn }));
  });

  serve(router, addOrder, async ({ body }) => {
    refuseBadOrder(body.content);
    await store.insertOrder(db, body);
    const made = await mustOrder(db, body.id);
    mustBeSame("teaching order", made.content, body.content);
    return made;
  });

  serve(router, editOrder, async ({ params, body }) => {
    const order = await mustOrder(db, params.id);
    if (order.shipped) throw unfit("This order ships with the tool and stays as it is. Make a copy and edit that.");
    refuseBadOrder(body.content);
    const stranded = order.usedBy.find(
      (one) => one.stepId !== null && !body.content.steps.some((step) => step.id === one.stepId),
    );
    if (stranded) {
      throw unfit(
        `${stranded.name} is marked as taught up to a step that this would remove. Move its mark to another step first.`,
      );
    }
    if (!(await store.updateOrder(db, order.id, body.version, body.content))) {
      throw conflict(
        "Someone else saved this order meanwhile. Their version is kept; reload to see it, then make your change again.",
      );
    }
    return mustOrder(db, order.id);
  });

  serve(router, removeOrder, async ({ params }) => {
    const order = await mustOrder(db, params.id);
    if (order.shipped) throw unfit("This order ships with the tool and stays.");
    const user = order.usedBy[0];
    if (user) throw unfit(`${user.name} uses this order. Give the class another order first.`);
    await store.deleteOrder(db, order.id);
    return { done: true as const };
  });

  return router;
}
