import type { Gaps } from "#contract";
import type { Shown } from "#core/groups";
import { pointsAmong } from "#core/order";

/** How a screen with a map writes of groups: spellings by the points in which they are taught, children by name. */
export function shownBy(map: Pick<Gaps, "points" | "rows">): Shown {
  const points = map.points.map(({ name, gpcs }) => ({ id: gpcs[0] ?? "", name, gpcs, own: false }));
  const names = new Map(map.rows.map(({ id, name }) => [id, name]));
  return { points: (gpcs) => pointsAmong(points, gpcs), name: (id) => names.get(id) ?? "" };
}
