import { beginYear, lastYear, undoYear } from "#contract";
import { yearProblems } from "#core/roster";
import { conflict, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** A new school year for all classes in one step, and its way back. */
export function yearRoutes({ serve }: Domain): void {
  serve(lastYear, async ({ school, now }) => ({ year: (await school.years.last(now)) ?? null }));

  const must = async (school: School, id: string, now: Date) => {
    const year = await school.years.find(id, now);
    if (!year) throw notFound("school year");
    return year;
  };

  serve(beginYear, async ({ body, school, now }) => {
    const made = await school.years.find(body.id, now);
    if (made) return made;
    const classes = (await school.classes.brief()).filter((one) => !one.archived);
    const children = (await school.children.list()).filter((one) => !one.archived);
    const here = new Map(children.map((one) => [one.id, one]));
    const moved = body.children.filter(({ id, from }) => here.get(id)?.classId !== from);
    if (moved.length > 0 || body.classes.some((one) => !classes.some(({ id }) => id === one.id)))
      throw conflict(
        "A child or a class of this plan was changed meanwhile by someone else. Nothing was changed; the plan is laid anew over what stands now.",
      );
    const orders = new Set((await school.orders.list()).map((one) => one.id));
    if (body.added.some((one) => !orders.has(one.orderId)))
      throw unfit("A new class follows a teaching order that is not here any more. Choose another.");
    const problems = yearProblems(body, { classes, children });
    const [first] = problems;
    if (first) {
      const more = problems.length > 1 ? ` There are ${problems.length} such places.` : "";
      throw unfit(
        `${first.says}${more}`,
        problems.slice(0, 40).map(({ id, says }) => ({ field: id, says })),
      );
    }
    await school.years.begin(body, { now, today: await school.settings.dayOf(now) });
    return must(school, body.id, now);
  });

  serve(undoYear, async ({ params, school, now }) => {
    const year = await must(school, params.id, now);
    if (year.undoneAt !== null) return { done: true as const, kept: [] };
    if (year.until === null)
      throw unfit(
        "A school year can be taken back for a day, and this one was begun before. Change classes one by one.",
      );
    return { done: true as const, kept: await school.years.undo(year.id, now) };
  });
}
