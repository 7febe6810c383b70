import { addClass, type ClassView, editClass, markTaught, taughtHistory } from "#contract";
import { sameName } from "#core/roster";
import { mustBeSame } from "../frame/again.ts";
import { refuseFuture } from "../frame/clock.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

async function mustClass(school: School, id: string): Promise<ClassView> {
  const found = await school.classes.find(id);
  if (!found) throw notFound("class");
  return found;
}

async function refuseSameClassName(school: School, name: string, exceptId: string): Promise<void> {
  const others = (await school.classes.brief()).filter((one) => one.id !== exceptId && !one.archived);
  if (others.some((one) => sameName(one.name) === sameName(name))) {
    throw unfit(`A class is called “${name}” already.`, [{ field: "name", says: "Choose another name." }]);
  }
}

async function mustOrder(school: School, id: string) {
  const found = await school.orders.find(id);
  if (!found) throw notFound("teaching order");
  return found;
}

/** Classes, and how far each has been taught. */
export function classRoutes({ serve }: Domain): void {
  serve(addClass, async ({ body, school }) => {
    await mustOrder(school, body.orderId);
    const made = await school.classes.find(body.id);
    if (made) {
      const { id, name, yearGroup, orderId } = made;
      mustBeSame("class", { id, name, yearGroup, orderId }, body);
      return made;
    }
    await refuseSameClassName(school, body.name, body.id);
    await school.classes.insert(body);
    return mustClass(school, body.id);
  });

  serve(editClass, async ({ params, body, school }) => {
    await mustClass(school, params.id);
    if (body.orderId) await mustOrder(school, body.orderId);
    if (body.name) await refuseSameClassName(school, body.name, params.id);
    await school.classes.update(params.id, body);
    return mustClass(school, params.id);
  });

  serve(markTaught, async ({ params, body, school, now }) => {
    const one = await mustClass(school, params.id);
    const order = await mustOrder(school, one.orderId);
    refuseFuture(body.at, now);
    if (body.taughtOn > (await school.settings.dayOf(now)))
      throw unfit("The day lies ahead.", [{ field: "taughtOn", says: "Choose today or a day before." }]);
    if (body.stepId !== null && !order.content.steps.some((step) => step.id === body.stepId)) {
      throw unfit("This step is not in the teaching order of the class.", [
        { field: "stepId", says: "Choose a step of the order." },
      ]);
    }
    await school.classes.insertTaught({
      id: body.id,
      classId: one.id,
      stepId: body.stepId,
      taughtOn: body.taughtOn,
      markedAt: body.at,
    });
    return mustClass(school, one.id);
  });

  serve(taughtHistory, async ({ params, school }) => {
    await mustClass(school, params.id);
    return (await school.classes.taughtMarks(params.id)).map(({ id, stepId, taughtOn }) => ({
      id,
      stepId,
      taughtOn,
    }));
  });
}
