import type { Numbers } from "#contract";
import { countsFor, dayNumber, dayOfNumber } from "#core/mastery";
import { inFives } from "#core/saying";
import { list as listChildren } from "../classes/children.ts";
import { brief as briefClasses } from "../classes/repository.ts";
import { list as listGroups } from "../groups/repository.ts";
import { groupsHeldBetween } from "../sessions/held.ts";
import type { Inside } from "../store/scope.ts";
import { gapMap } from "./maps.ts";

/** What was done is counted over so many days. */
const DAYS = 42;
/** A class of fewer is told of with the school alone. */
const LEAST_CLASS = 5;

/** Numbers of the school and its classes without names, in fives. Children and classes that have left are not in them. */
export async function numbers(inside: Inside, today: string): Promise<Numbers> {
  const since = dayOfNumber(dayNumber(today) - DAYS);
  const map = await gapMap(inside, today);
  const lastChecked = new Map((await listChildren(inside)).map((child) => [child.id, child.lastChecked]));
  const groups = (await listGroups(inside)).filter(({ closed }) => !closed);
  const members = new Map(groups.map(({ id, members: its }) => [id, its.map(({ childId }) => childId)]));
  const inGroup = new Set([...members.values()].flat());
  const held = await groupsHeldBetween(inside, since, today);
  const children = map.rows.map(({ id, classId, cells }) => ({
    ...{ id, classId, ...countsFor(cells, map.columns.length) },
    ...{ checked: (lastChecked.get(id) ?? "") >= since, inGroup: inGroup.has(id) },
  }));

  const rowOf = (className: string | null, of: typeof children): Numbers["rows"][number] => {
    const here = new Set(of.map(({ id }) => id));
    const count = (fits: (child: (typeof of)[number]) => boolean) => inFives(of.filter(fits).length);
    return {
      className,
      children: inFives(of.length),
      checked: count((child) => child.checked),
      inGroup: count((child) => child.inGroup),
      mostSecure: count((child) => child.mostSecure),
      manyGaps: count((child) => child.manyGaps),
      sessions: held.filter(
        (groupId) => className === null || members.get(groupId)?.some((childId) => here.has(childId)),
      ).length,
    };
  };
  const classes = (await briefClasses(inside)).filter(({ archived }) => !archived);
  return {
    today,
    since,
    rows: [
      rowOf(null, children),
      ...classes.flatMap(({ id, name }) => {
        const of = children.filter(({ classId }) => classId === id);
        return of.length < LEAST_CLASS ? [] : [rowOf(name, of)];
      }),
    ],
  };
}
