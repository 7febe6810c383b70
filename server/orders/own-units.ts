import type { OrderBody } from "#contract";
import { type Gpc, isOwnUnit } from "#core/phonics";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** The units of the school's own that an order teaches, each once, in the order of their text. */
export function ownUnitsOf({ steps }: Pick<OrderBody, "steps">): readonly Gpc[] {
  return [...new Set(steps.flatMap(({ gpcs }) => gpcs.filter(isOwnUnit)))].sort();
}

/** Those of all teaching orders of the school. */
export async function ownUnitsHere(inside: Inside): Promise<readonly Gpc[]> {
  const orders = await inside.select({ content: t.orders.content }).from(t.orders);
  return ownUnitsOf({ steps: orders.flatMap(({ content }) => content.steps) });
}
