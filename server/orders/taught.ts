import type { OrderBody } from "#contract";
import { exceptionWordsUpTo, taughtAtOwnPlace, taughtSince, taughtUpTo } from "#core/order";
import { type ClassInOutline, outlineOf } from "../classes/outline.ts";
import type { Inside } from "../store/scope.ts";
import { placesIn } from "./places.ts";

/** What a class has been taught so far, by its teaching order and its mark in it. */
export interface Taught {
  readonly gpcs: readonly string[];
  readonly exceptionWords: readonly string[];
  readonly order: OrderBody;
  readonly stepId: string | null;
  /** The day from which each spelling and exception word was taught. */
  readonly since: ReadonlyMap<string, string>;
}

/** What has been taught where nothing has been. */
export const taughtNothing: Taught = {
  gpcs: [],
  exceptionWords: [],
  order: { name: "", kind: "", why: "", steps: [] },
  stepId: null,
  since: new Map(),
};

/** What each class has been taught so far. */
export async function taughtByClass(inside: Inside): Promise<Map<string, Taught>> {
  const { classes, orders } = await outlineOf(inside);
  return new Map(classes.map((one) => [one.id, taughtOf(one, orders.get(one.orderId))]));
}

function taughtOf(one: ClassInOutline, order: OrderBody = taughtNothing.order): Taught {
  return {
    order,
    stepId: one.stepId,
    since: one.since,
    gpcs: taughtUpTo(order, one.stepId),
    exceptionWords: exceptionWordsUpTo(order, one.stepId),
  };
}

/**
 * What each child of a class has been taught so far: by its own place in an order, else that of its group, else its class's. The
 * same objects as long as nothing of it changes for those who go along with their class.
 */
export async function taughtByChild(inside: Inside): Promise<(childId: string, classId: string) => Taught> {
  const byClass = await taughtByClass(inside);
  const { orders } = await outlineOf(inside);
  const placeOf = await placesIn(inside);
  return (childId, classId) => {
    const ofClass = byClass.get(classId) ?? taughtNothing;
    const place = placeOf(childId);
    const order = place && orders.get(place.now.orderId);
    if (!place || !order) return ofClass;
    const { stepId, again } = place.now;
    const own = taughtSince(place.marks, order);
    return {
      order,
      stepId,
      since: taughtAtOwnPlace(own, ofClass.since, again),
      gpcs: taughtUpTo(order, stepId),
      exceptionWords: exceptionWordsUpTo(order, stepId),
    };
  };
}

/** What a class has been taught so far; nothing when it has no such class. */
export async function taughtToClass(inside: Inside, classId: string): Promise<Taught> {
  return (await taughtByClass(inside)).get(classId) ?? taughtNothing;
}
