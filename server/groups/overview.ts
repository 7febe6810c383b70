import { formatISO, parseISO, subWeeks } from "date-fns";
import type { Overview } from "#contract";
import { cellAt } from "#core/mastery";
import { targetsOf } from "#core/plans";
import type { School } from "../house.ts";

/** So many weeks are looked over. */
const WEEKS = 8;

/** The groups of the whole school over the last weeks: who is in one, what was held, what is read of what was taught. */
export async function overviewOn(school: School, today: string): Promise<Overview> {
  const from = formatISO(subWeeks(parseISO(today), WEEKS), { representation: "date" });
  const groups = (await school.groups.list()).filter(({ closed }) => !closed);
  const map = await school.standings.gapMap(today);
  const place = new Map(map.columns.map(({ gpc }, at) => [gpc, at]));
  const cells = new Map(map.rows.map((row) => [row.id, row.cells]));
  const reads = (childId: string, gpc: string) => cellAt(cells.get(childId) ?? "", place.get(gpc) ?? -1).canRead;
  const sessions = await school.sessions.list({ from, to: today });
  const reports = await school.sessions.reportsOf(sessions.map(({ id }) => id));
  const inOne = new Set(groups.flatMap(({ members }) => members.map(({ childId }) => childId)));
  const classes = (await school.classes.brief()).filter(({ archived }) => !archived);
  return {
    from,
    classes: classes.map(({ id, name }) => {
      const its = map.rows.filter(({ classId }) => classId === id);
      return { id, name, children: its.length, inGroup: its.filter((row) => inOne.has(row.id)).length };
    }),
    groups: groups.map(({ id, name, members }) => {
      const its = sessions.filter(({ groupId }) => groupId === id);
      const held = its.filter((session) => reports.some(({ sessionId }) => sessionId === session.id));
      const pairs = new Set(
        held.flatMap((session) =>
          reports
            .filter(({ sessionId }) => sessionId === session.id)
            .flatMap(({ came }) =>
              came.flatMap((childId) => targetsOf(session.plan).map((gpc) => `${childId} ${gpc}`)),
            ),
        ),
      );
      const read = [...pairs].filter((pair) => {
        const [childId = "", gpc = ""] = pair.split(" ");
        return reads(childId, gpc);
      });
      return {
        ...{ id, name, children: members.length, held: held.length },
        missed: its.filter((session) => !held.includes(session) && session.heldOn < today).length,
        minutes: held.reduce((sum, { plan }) => sum + plan.parts.reduce((all, part) => all + part.minutes, 0), 0),
        ...{ taught: pairs.size, read: read.length },
      };
    }),
  };
}
