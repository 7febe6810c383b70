import { pointsOf } from "#core/order";
import type { Inside } from "../store/scope.ts";
import { taughtByClass } from "./taught.ts";

/** What a spelling is taught with as one thing. */
export interface PointHere {
  readonly name: string;
  readonly gpcs: string[];
}

/**
 * The teaching point of each spelling, by the first order of a class that teaches it; null for a spelling that is taught by itself,
 * or by no order.
 */
export async function pointsHere(inside: Inside): Promise<(gpc: string) => PointHere | null> {
  const found = new Map<string, PointHere | null>();
  for (const { order } of (await taughtByClass(inside)).values())
    for (const { name, gpcs } of pointsOf(order))
      for (const gpc of gpcs) if (!found.has(gpc)) found.set(gpc, gpcs.length > 1 ? { name, gpcs: [...gpcs] } : null);
  return (gpc) => found.get(gpc) ?? null;
}
