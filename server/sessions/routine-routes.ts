import { listRoutines, removeRoutine, saveRoutine, setGroupRoutine } from "#contract";
import { shippedRoutines } from "#core/plans";
import { mustAgree } from "../frame/again.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain } from "../house.ts";

/** How sessions are held: the school's own routines, and which a group has. */
export function routineRoutes({ serve }: Domain): void {
  serve(listRoutines, ({ school }) => school.routines.list());

  serve(saveRoutine, async ({ params, body, school }) => {
    const version = await school.routines.save(params.id, body);
    if (version !== null) return { done: true as const, version };
    const kept = await school.routines.find(params.id);
    if (!kept) throw notFound("routine");
    mustAgree("this routine", {
      version: kept.version,
      mine: { routine: body.routine },
      theirs: { routine: kept.routine },
    });
    return { done: true as const, version: kept.version };
  });

  serve(removeRoutine, async ({ params, school }) => {
    await school.routines.remove(params.id);
    return { done: true as const };
  });

  serve(setGroupRoutine, async ({ params, body, school }) => {
    if (!(await school.groups.find(params.id))) throw notFound("group");
    if (!(body.routine in shippedRoutines) && !(await school.routines.find(body.routine)))
      throw unfit("This routine is not here any more. Choose another.");
    await school.groups.setRoutine(params.id, body.routine);
    return { done: true as const };
  });
}
