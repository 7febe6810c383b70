import { Router } from "express";
import { getLexicon, getReaders, listSplits, removeSplit, saveSplit, setAccent } from "#contract";
import { accents, findCorrespondence } from "#core/phonics";
import { keyOf, spellOut, unitOf } from "#core/words";
import { listChildren } from "../store/children.ts";
import { findClass, setSchool } from "../store/classes.ts";
import { readersOf, taughtToClass } from "../store/gaps.ts";
import { findGroup } from "../store/groups.ts";
import * as store from "../store/splits.ts";
import { dayAtSchool } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** What every one of the lists has; nothing when there is no list. */
function inAll(lists: readonly (readonly string[])[]): string[] {
  const others = lists.slice(1).map((list) => new Set(list));
  return (lists[0] ?? []).filter((entry) => others.every((list) => list.has(entry)));
}

/** The word engine's data, the school's own splits and accent, and what children can read. */
export function wordRoutes({ db, ground, now }: House): Router {
  const router = Router();

  serve(router, getLexicon, () => ({
    words: ground.lexiconText,
    madeUp: ground.madeUpText,
    sentences: [...ground.sentences],
  }));

  serve(router, listSplits, () => store.listSplits(db));

  serve(router, saveSplit, async ({ params, body }) => {
    const unknown = body.units.find((gpc) => !findCorrespondence(gpc));
    if (unknown)
      throw unfit(`${unknown} is not a correspondence this tool knows. Nothing was changed.`, [
        { field: "units", says: "Choose another spelling or sound." },
      ]);
    const key = keyOf(body.text);
    const letters = key.normalize("NFD").replace(/[^a-z]/g, "");
    const spelled = spellOut(body.units.map(unitOf));
    if (spelled !== letters)
      throw unfit(`These units spell “${spelled}”, not “${body.text}”. Nothing was changed.`, [
        { field: "units", says: "Every letter belongs to exactly one unit." },
      ]);
    return store.putSplit(db, { id: params.id, key, ...body, savedAt: now().toISOString() });
  });

  serve(router, removeSplit, async ({ params }) => {
    if (!(await store.deleteSplit(db, params.id))) throw notFound("split");
    return { done: true as const };
  });

  serve(router, setAccent, async ({ body }) => {
    if (!accents.some((accent) => accent.id === body.accent))
      throw unfit("This accent is not one the tool knows. Nothing was changed.");
    await setSchool(db, { accent: body.accent });
    return { done: true as const };
  });

  serve(router, getReaders, async ({ query }) => {
    const today = await dayAtSchool(db, now());
    const words = await store.schoolWords(db, ground.lexicon);
    const asked = [query.classId, query.groupId, query.childId].filter((one) => one !== undefined);
    if (asked.length !== 1) throw unfit("Ask for one class, one group or one child.");
    if (query.classId) {
      const found = await findClass(db, query.classId);
      if (!found) throw notFound("class");
      const ids = (await listChildren(db, found.id)).filter((child) => !child.archived).map((child) => child.id);
      const { gpcs, exceptionWords } = await taughtToClass(db, found.id);
      const { children, needed } = await readersOf(db, words, ids, today);
      return { name: found.name, known: [...gpcs], wholes: [...exceptionWords], targets: needed, children };
    }
    const group = query.groupId ? await findGroup(db, query.groupId) : undefined;
    if (query.groupId && !group) throw notFound("group");
    const ids = group ? group.members.map((member) => member.childId) : [query.childId ?? ""];
    const { children, needed } = await readersOf(db, words, ids, today);
    if (!group && children.length === 0) throw notFound("child");
    return {
      name: group?.name ?? children[0]?.name ?? "",
      known: inAll(children.map((child) => child.known)),
      wholes: inAll(children.map((child) => child.wholes)),
      targets: group && group.targets.length > 0 ? group.targets : needed,
      children,
    };
  });

  return router;
}
