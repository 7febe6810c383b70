import { Router } from "express";
import { closeGroup, type GroupView, getGroup, listGroups, saveGroup } from "#contract";
import { findCorrespondence } from "#core/phonics";
import { findChildren } from "../store/children.ts";
import * as store from "../store/groups.ts";
import type { Db } from "../store/open.ts";
import { mustBeSame } from "./again.ts";
import { refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

export async function mustGroup(db: Db, id: string): Promise<GroupView> {
  const group = await store.findGroup(db, id);
  if (!group) throw notFound("group");
  return group;
}

export function groupRoutes({ db, now }: House): Router {
  const router = Router();

  serve(router, listGroups, () => store.listGroups(db));

  serve(router, getGroup, async ({ params }) => ({
    ...(await mustGroup(db, params.id)),
    history: await store.groupHistory(db, params.id),
  }));

  serve(router, saveGroup, async ({ params, body }) => {
    refuseFuture(body.at, now());
    const ids = body.members.map((member) => member.childId);
    if (new Set(ids).size !== ids.length) throw unfit("A child stands twice in this group.");
    if ((await findChildren(db, ids)).length !== ids.length)
      throw unfit("One of these children is not here any more. Reload and save again.");
    const unknown = body.targets.find((gpc) => !findCorrespondence(gpc));
    if (unknown) throw unfit(`${unknown} is not a spelling this tool knows.`);
    const { versionId, name, members, at } = body;
    const targets = [...new Set(body.targets)];
    await store.insertVersion(db, {
      id: versionId,
      groupId: params.id,
      name,
      members,
      targets,
      savedAt: at,
    });
    const made = (await store.groupHistory(db, params.id)).find((version) => version.id === versionId);
    mustBeSame("state of the group", made && { name: made.name, targets: made.targets, members: made.members }, {
      name,
      targets,
      members,
    });
    return mustGroup(db, params.id);
  });

  serve(router, closeGroup, async ({ params, body }) => {
    await mustGroup(db, params.id);
    await store.setClosed(db, params.id, body.closed);
    return mustGroup(db, params.id);
  });

  return router;
}
