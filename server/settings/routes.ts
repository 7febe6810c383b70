import { formatISO, parseISO, subDays } from "date-fns";
import { getSchool, nameSchool, setCheckSettings, setReadingSettings, setTimeZone } from "#contract";
import { isTimeZone } from "#core/ledger";
import { unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** For so many days a session that no one has spoken of waits; after that it is of the past. */
const DAYS_DUE = 14;

/** The school itself: what every page asks of it first, and its settings. */
export function settingRoutes({ serve }: Domain): void {
  const settings = async (school: School) => {
    const { timeZone, ...others } = await school.settings.read();
    return { ...others, timeZone: await school.settings.zone(), zoneChosen: timeZone !== null };
  };

  serve(getSchool, async ({ school, now }) => {
    const today = await school.settings.dayOf(now);
    const from = formatISO(subDays(parseISO(today), DAYS_DUE), { representation: "date" });
    return {
      ...(await settings(school)),
      today,
      waiting: {
        checks: await school.checks.countOpen(),
        sessions: await school.sessions.countDue(from, today),
      },
      classes: await school.classes.list(),
      orders: await school.orders.list(),
    };
  });

  serve(nameSchool, async ({ body, school, now }) => {
    await school.settings.change({ name: body.name }, null);
    return { done: true as const };
  });

  serve(setTimeZone, async ({ body, school, now }) => {
    if (!isTimeZone(body.timeZone))
      throw unfit(`${body.timeZone} is not a time zone that this server knows.`, [
        { field: "timeZone", says: "Choose one of the list, for example Europe/London." },
      ]);
    await school.settings.change({ timeZone: body.timeZone }, null);
    return { done: true as const };
  });

  serve(setCheckSettings, async ({ body, school }) => {
    await school.settings.change({ checks: body }, null);
    return { done: true as const };
  });

  serve(setReadingSettings, async ({ body, school }) => {
    await school.settings.change({ reading: body }, null);
    return { done: true as const };
  });
}
