import type { Gaps } from "#contract";
import type { Learner } from "#core/groups";
import { cellAt } from "#core/mastery";

/** The children of a map as the grouping sees them. */
export function learnersOf(map: Gaps): readonly Learner[] {
  return map.rows.map((row) => {
    const needs = new Map<string, number>();
    const secure = new Set<string>();
    map.columns.forEach(({ gpc }, at) => {
      const cell = cellAt(row.cells, at);
      if (cell.need > 0) needs.set(gpc, cell.need);
      if (cell.state === "secure") secure.add(gpc);
    });
    return { id: row.id, needs, secure };
  });
}
