import { formatISO, parseISO, subDays } from "date-fns";
import {
  getSchool,
  nameSchool,
  setCheckSettings,
  setGrouping,
  setKeeping,
  setModel,
  setReadingSettings,
  setSecureWhen,
  setTimeZone,
} from "#contract";
import { isTimeZone } from "#core/ledger";
import { mustAgree } from "../frame/again.ts";
import { unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import type { SettingsChange } from "./repository.ts";

/** For so many days a session that no one has spoken of waits; after that it is of the past. */
const DAYS_DUE = 14;

/** Changes one of the settings. @throws HttpProblem 409 when the settings were changed since this version */
async function change(school: School, version: number, what: Omit<SettingsChange, "week">) {
  const before = { ...(await school.settings.read()), grouping: await school.grouping.read() };
  if (await school.settings.change(what, version)) return { done: true as const, version: version + 1 };
  const theirs = Object.fromEntries(
    Object.keys(what).map((key) => [key, before[key as Exclude<keyof SettingsChange, "week">]]),
  );
  mustAgree("the settings", { version: before.version, mine: what, theirs });
  return { done: true as const, version: before.version };
}

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
      erased: await school.leavers.countErased(),
      classes: await school.classes.list(),
      orders: await school.orders.list(),
    };
  });

  serve(nameSchool, async ({ body, school }) => {
    return change(school, body.version, { name: body.name });
  });

  serve(setGrouping, async ({ body, school }) => change(school, body.version, { grouping: body.grouping }));

  serve(setTimeZone, async ({ body, school }) => {
    if (!isTimeZone(body.timeZone))
      throw unfit(`${body.timeZone} is not a time zone that this server knows.`, [
        { field: "timeZone", says: "Choose one of the list, for example Europe/London." },
      ]);
    return change(school, body.version, { timeZone: body.timeZone });
  });

  serve(setKeeping, async ({ body: { version, ...keeping }, school }) => change(school, version, { keeping }));

  serve(setCheckSettings, async ({ body, school }) => {
    return change(school, body.version, { checks: body.checks });
  });

  serve(setModel, async ({ body, school }) => {
    return change(school, body.version, { ownModel: body.model });
  });

  serve(setSecureWhen, async ({ body, school }) => {
    return change(school, body.version, { secureWhen: body.secureWhen });
  });

  serve(setReadingSettings, async ({ body, school }) => {
    return change(school, body.version, { reading: body.reading });
  });
}
