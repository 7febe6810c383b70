import { closeGroup, type GroupView, getGroup, listGroups, saveGroup, setGroupReads } from "#contract";
import { findCorrespondence } from "#core/phonics";
import { mustBeSame } from "../frame/again.ts";
import { refuseFuture } from "../frame/clock.ts";
import { changedMeanwhile, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** Groups: the children who learn together, and every state that was saved of them. */
export function groupRoutes({ serve }: Domain): void {
  serve(listGroups, ({ school }) => school.groups.list());

  serve(getGroup, async ({ params, school }) => ({
    ...(await mustGroup(school, params.id)),
    history: await school.groups.history(params.id),
  }));

  serve(saveGroup, async ({ params, body, school, now }) => {
    refuseFuture(body.at, now);
    const { versionId, name, members, at, why } = body;
    const targets = [...new Set(body.targets)];
    const besides = [...new Set(body.besides)];
    const ids = members.map((member) => member.childId);
    if (new Set(ids).size !== ids.length) throw unfit("A child stands twice in this group.");
    if ((await school.children.findMany(ids)).length !== ids.length)
      throw unfit("One of these children is not here any more. Reload and save again.");
    const unknown = targets.find((gpc) => !findCorrespondence(gpc));
    if (unknown) throw unfit(`${unknown} is not a spelling this tool knows.`);
    const state = { id: versionId, groupId: params.id, name, members, targets, besides, savedAt: at, why };
    if (!(await school.groups.save(state, body.version))) {
      const here = await mustGroup(school, params.id);
      throw changedMeanwhile("this group", {
        version: here.version,
        mine: { name, members, targets, besides },
        theirs: {
          name: here.name,
          members: here.members.map(({ childId, locked }) => ({ childId, locked })),
          targets: here.targets,
          besides: here.besides,
        },
      });
    }
    const made = (await school.groups.history(params.id)).find((version) => version.id === versionId);
    mustBeSame(
      "state of the group",
      made && { name: made.name, targets: made.targets, besides: made.besides, members: made.members },
      { name, targets, besides, members },
    );
    return mustGroup(school, params.id);
  });

  serve(setGroupReads, async ({ params, body, school }) => {
    await mustGroup(school, params.id);
    await school.groups.setReads(params.id, body.reads);
    return mustGroup(school, params.id);
  });

  serve(closeGroup, async ({ params, body, school, now }) => {
    await mustGroup(school, params.id);
    await school.groups.setClosed(params.id, body.closed);
    // It meets no more; opened again it needs a time of its own again.
    const from = await school.settings.dayOf(now);
    if (body.closed) await school.week.endGroup(params.id, { from, changedAt: now.toISOString() });
    return mustGroup(school, params.id);
  });
}

async function mustGroup(school: School, id: string): Promise<GroupView> {
  const group = await school.groups.find(id);
  if (!group) throw notFound("group");
  return group;
}
