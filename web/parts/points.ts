import type { Gaps } from "#contract";
import { type Shown, targetsApart } from "#core/groups";
import { needFamilyName } from "#core/mastery";
import { pointsAmong } from "#core/order";

/** How a screen with a map writes of groups: targets by the points in which they are taught, children by name. */
export function shownBy(map: Pick<Gaps, "points" | "rows">): Shown {
  const points = map.points.map(({ name, gpcs }) => ({ id: gpcs[0] ?? "", name, gpcs, own: false }));
  const names = new Map(map.rows.map(({ id, name }) => [id, name]));
  return {
    points: (all) => {
      const { targets, besides } = targetsApart(all);
      const others = besides.map((family) => ({ name: needFamilyName(family), gpcs: [family] }));
      return [...pointsAmong(points, targets), ...others];
    },
    name: (id) => names.get(id) ?? "",
  };
}
