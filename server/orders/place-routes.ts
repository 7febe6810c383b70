import { getPlaceOfChild, getPlaceOfGroup, setPlaceOfChild, setPlaceOfGroup } from "#contract";
import { refuseFuture } from "../frame/clock.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

interface Asked {
  readonly id: string;
  readonly orderId: string | null;
  readonly stepId: string | null;
  readonly again: boolean;
  readonly since: string;
  readonly at: string;
}

/** A mark of a place as it can be kept; refused with the reason. */
async function markOf(school: School, body: Asked, now: Date) {
  refuseFuture(body.at, now);
  if (body.since > (await school.settings.dayOf(now)))
    throw unfit("The day lies ahead.", [{ field: "since", says: "Choose today or a day before." }]);
  const { id, stepId, again, since: taughtOn, at: markedAt } = body;
  if (stepId === null) return { id, orderId: null, stepId: null, again: false, taughtOn, markedAt };
  const order = (await school.orders.list()).find((one) => one.id === body.orderId);
  if (!order) throw unfit("This teaching order is not here.", [{ field: "orderId", says: "Choose an order." }]);
  if (!order.content.steps.some((step) => step.id === stepId))
    throw unfit("This step is not in that teaching order.", [
      { field: "stepId", says: "Choose a step of the order." },
    ]);
  return { id, orderId: order.id, stepId, again, taughtOn, markedAt };
}

/** Places of children and groups in a teaching order, beside those of the classes. */
export function placeRoutes({ serve }: Domain): void {
  const mustChild = async (school: School, id: string) => {
    const child = await school.children.find(id);
    if (!child) throw notFound("child");
    return child;
  };
  serve(getPlaceOfChild, async ({ params, school }) => {
    const { id, classId } = await mustChild(school, params.id);
    return school.places.placeOfChild(id, classId);
  });
  serve(setPlaceOfChild, async ({ params, body, school, now }) => {
    const { id, classId } = await mustChild(school, params.id);
    await school.places.insertPlace({ childId: id }, await markOf(school, body, now));
    return school.places.placeOfChild(id, classId);
  });
  serve(getPlaceOfGroup, async ({ params, school }) => {
    if (!(await school.groups.find(params.id))) throw notFound("group");
    return school.places.placeOfGroup(params.id);
  });
  serve(setPlaceOfGroup, async ({ params, body, school, now }) => {
    if (!(await school.groups.find(params.id))) throw notFound("group");
    await school.places.insertPlace({ groupId: params.id }, await markOf(school, body, now));
    return school.places.placeOfGroup(params.id);
  });
}
