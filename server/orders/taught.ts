import type { ClassView, OrderBody } from "#contract";
import { exceptionWordsUpTo, taughtUpTo } from "#core/order";
import * as classes from "../classes/repository.ts";
import type { Inside } from "../store/scope.ts";
import * as orders from "./repository.ts";

/** What a class has been taught so far, by its teaching order and its mark in it. */
export interface Taught {
  readonly gpcs: readonly string[];
  readonly exceptionWords: readonly string[];
  readonly order: OrderBody;
  readonly stepId: string | null;
}

/** What has been taught where nothing has been. */
export const taughtNothing: Taught = {
  gpcs: [],
  exceptionWords: [],
  order: { name: "", kind: "", why: "", steps: [] },
  stepId: null,
};

/** What each class has been taught so far. */
export async function taughtByClass(inside: Inside): Promise<Map<string, Taught>> {
  const all = await classes.list(inside);
  const contents = await orders.contents(inside, [...new Set(all.map((one) => one.orderId))]);
  return new Map(all.map((one) => [one.id, taughtOf(one, contents.get(one.orderId))]));
}

function taughtOf(one: ClassView, order: OrderBody = taughtNothing.order): Taught {
  return {
    order,
    stepId: one.stepId,
    gpcs: taughtUpTo(order, one.stepId),
    exceptionWords: exceptionWordsUpTo(order, one.stepId),
  };
}

/** What a class has been taught so far; nothing when it has no such class. */
export async function taughtToClass(inside: Inside, classId: string): Promise<Taught> {
  return (await taughtByClass(inside)).get(classId) ?? taughtNothing;
}
