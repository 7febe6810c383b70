import { getGiven, give } from "#contract";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** What can be given to a person: to whom it is given, who could do it, and the sentence for whoever could not. */
interface Givable {
  readonly to: string | null;
  whoCould(): Promise<readonly { readonly id: string; readonly name: string }[]>;
  give(to: string | null): Promise<void>;
  readonly cannot: string;
}

async function mustFind(school: School, id: string, now: Date): Promise<Givable> {
  const sitting = await school.checks.findSitting(id);
  if (sitting)
    return {
      to: sitting.givenTo,
      whoCould: async () => {
        const childIds = [...new Set((await school.checks.ofSitting(id)).map(({ childId }) => childId))];
        return school.own.ownersOfAll({ childIds, now });
      },
      give: (to) => school.checks.giveSitting(id, to),
      cannot: "Whoever this check is for has not all of its children. Nothing was changed.",
    };
  const session = await school.sessions.find(id);
  if (!session) throw notFound("check or session");
  return {
    to: session.givenTo,
    whoCould: () => school.people.colleagues(),
    give: (to) => school.sessions.give(id, to),
    cannot: "Whoever this session is for does not teach here. Nothing was changed.",
  };
}

/** Checks and sessions that are given to a person. */
export function givenRoutes({ serve }: Domain): void {
  serve(getGiven, async ({ params, school, now }) => {
    const { to, whoCould } = await mustFind(school, params.id, now);
    const colleagues = (await whoCould()).map(({ id, name }) => ({ id, name }));
    return { to: colleagues.some(({ id }) => id === to) ? to : null, colleagues };
  });

  serve(give, async ({ params, body, school, now }) => {
    const given = await mustFind(school, params.id, now);
    const { to } = body;
    if (to !== null && !(await given.whoCould()).some(({ id }) => id === to))
      throw unfit(given.cannot, [{ field: "to", says: "Choose someone else, or leave it to whoever comes to it." }]);
    await given.give(to);
    return { done: true as const };
  });
}
