import {
  addWish,
  getGrouping,
  getGroupsOn,
  getMoves,
  getNext,
  getOverview,
  putMoveOff,
  removeWish,
  type SaidOfNext,
  sayNextOfChild,
  sayNextOfClass,
} from "#contract";
import { dayAt } from "#core/ledger";
import { isOtherNeed } from "#core/mastery";
import { findCorrespondence } from "#core/phonics";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { movesOn } from "./moves.ts";
import { overviewOn } from "./overview.ts";

/** How groups are made, what was asked for of single children, who may leave or move, and groups as they were. */
export function groupingRoutes({ serve }: Domain): void {
  const mustChild = async (school: School, id: string) => {
    const child = await school.children.find(id);
    if (!child) throw notFound("child");
    return child;
  };

  serve(getGrouping, async ({ school }) => ({
    version: (await school.settings.read()).version,
    grouping: await school.grouping.read(),
    wishes: await school.grouping.wishes(),
  }));

  serve(addWish, async ({ params, body, school, actor, now }) => {
    const child = await mustChild(school, params.id);
    const { id, kind, otherId } = body;
    if (otherId === child.id) throw unfit("Choose another child: no one is apart from themselves.");
    if (otherId !== null) await mustChild(school, otherId);
    const since = await school.settings.dayOf(now);
    await school.grouping.putWish({ id, kind, childId: child.id, otherId, by: actor.name, since });
    return { done: true as const };
  });

  serve(removeWish, async ({ params, school }) => {
    await school.grouping.removeWish((await mustChild(school, params.id)).id, params.wishId);
    return { done: true as const };
  });

  serve(getNext, async ({ school, now }) => school.grouping.saidOn(await school.settings.dayOf(now)));

  const said = async (
    school: School,
    { gpc, how, until }: { gpc: string; how: SaidOfNext["how"] | null; until: string | null },
    { by, now }: { by: string; now: Date },
  ) => {
    if (!findCorrespondence(gpc) && !isOtherNeed(gpc))
      throw unfit(`${gpc} is nothing that this tool knows as a thing to teach.`);
    const since = await school.settings.dayOf(now);
    if (until !== null && until <= since)
      throw unfit("This day is not ahead.", [{ field: "until", says: "Choose a day after today." }]);
    return how && { how, until, by, since };
  };
  serve(sayNextOfChild, async ({ params, body, school, actor, now }) => {
    const { id: childId } = await mustChild(school, params.id);
    await school.grouping.sayNext({ childId }, body.gpc, await said(school, body, { by: actor.name, now }));
    return { done: true as const };
  });
  serve(sayNextOfClass, async ({ params, body, school, actor, now }) => {
    if (!(await school.classes.find(params.id))) throw notFound("class");
    const about = await said(school, body, { by: actor.name, now });
    await school.grouping.sayNext({ classId: params.id }, body.gpc, about);
    return { done: true as const };
  });

  serve(getMoves, async ({ school, now }) => movesOn(school, await school.settings.dayOf(now)));

  serve(getOverview, async ({ school, now }) => overviewOn(school, await school.settings.dayOf(now)));

  serve(putMoveOff, async ({ params, body, school }) => {
    const { id } = await mustChild(school, params.id);
    await school.grouping.putMoveOff(id, body.kind, body.until);
    return { done: true as const };
  });

  serve(getGroupsOn, async ({ params, school }) => {
    const zone = await school.settings.zone();
    const names = new Map((await school.children.list()).map((child) => [child.id, child.name]));
    // The newest comes first, so that the first of a group that was there by then is the one that held.
    const then = new Map<string, { savedAt: string }>();
    const states = (await school.groups.everyState()).filter(({ savedAt }) => dayAt(zone, savedAt) <= params.day);
    const held = states.filter((state) => {
      if (then.has(state.groupId)) return false;
      then.set(state.groupId, state);
      return true;
    });
    return {
      groups: held
        .filter(({ members }) => members.length > 0)
        .map(({ groupId, name, members, targets, besides, savedAt, why }) => ({
          ...{ id: groupId, name, targets: [...targets], besides: [...besides], since: dayAt(zone, savedAt), why },
          members: members.map(({ childId }) => ({ childId, name: names.get(childId) ?? "" })),
        }))
        .sort((one, other) => one.name.localeCompare(other.name)),
    };
  });
}
