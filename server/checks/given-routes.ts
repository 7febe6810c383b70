import { getGiven, giveSitting } from "#contract";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** Sittings that are given to a person. */
export function givenRoutes({ serve }: Domain): void {
  const mustSitting = async (school: School, id: string) => {
    const sitting = await school.checks.findSitting(id);
    if (!sitting) throw notFound("check");
    return sitting;
  };
  /** Those who have each of its children, by name. */
  const whoCould = async (school: School, sittingId: string, now: Date) => {
    const childIds = [...new Set((await school.checks.ofSitting(sittingId)).map(({ childId }) => childId))];
    return (await school.own.ownersOfAll({ childIds, now })).map((one) => ({ ...one }));
  };

  serve(getGiven, async ({ params, school, now }) => {
    const { givenTo } = await mustSitting(school, params.id);
    const colleagues = await whoCould(school, params.id, now);
    return { to: colleagues.some(({ id }) => id === givenTo) ? givenTo : null, colleagues };
  });

  serve(giveSitting, async ({ params, body, school, now }) => {
    await mustSitting(school, params.id);
    const { to } = body;
    if (to !== null && !(await whoCould(school, params.id, now)).some(({ id }) => id === to))
      throw unfit("Whoever this check is for has not all of its children. Nothing was changed.", [
        { field: "to", says: "Choose someone else, or leave it to whoever comes to it." },
      ]);
    await school.checks.giveSitting(params.id, to);
    return { done: true as const };
  });
}
