import { randomBytes, randomUUID } from "node:crypto";
import type { Request, Response } from "express";
import {
  calendarFeed,
  calendarFile,
  changeMeetings,
  endFeed,
  getWeek,
  listFeeds,
  listMeetings,
  makeFeed,
  setOwnHours,
  setTimetable,
  setWeek,
  whoseOf,
} from "#contract";
import {
  carriedPlacements,
  isSame,
  type Meeting,
  meetingsDue,
  offOn,
  type Placement,
  schoolDaysIn,
} from "#core/groups";
import { mustAgree, mustBeSame } from "../frame/again.ts";
import { conflict, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { keptKey } from "../people/door.ts";
import { calendarOfWeek, type Names, namesOf, whoseWeek } from "./whose.ts";

/** The week: the school's day and hours, the timetable, its sessions on their days, calendars. */
export function weekRoutes({ serve, streams }: Domain): void {
  /** Sessions on their days follow the timetable and the calendar, from a day on. */
  const bringInLine = async (
    school: School,
    { placements, from, now }: { placements: readonly Placement[]; from: string; now: Date },
  ) => {
    const { calendar } = await school.week.read();
    const existing = (await school.week.meetingsFrom(from)).filter(({ dueOn }) => dueOn >= from);
    const due = meetingsDue({
      ...{ placements, calendar, from, newId: randomUUID },
      existing: existing.map(({ changedAt: _, ...one }) => one),
    });
    await school.week.putMeetings(due, now.toISOString());
    return { added: due.added.length, changed: due.changed.length };
  };

  serve(getWeek, async ({ school }) => ({
    version: (await school.settings.read()).version,
    week: await school.week.read(),
    placements: await school.week.placements(),
    children: await school.week.ownHours(),
  }));

  serve(setWeek, async ({ body, school, now }) => {
    const before = await school.week.read();
    if (!(await school.settings.change({ week: body.week }, body.version))) {
      const { version } = await school.settings.read();
      mustAgree("the week", { version, mine: { week: body.week }, theirs: { week: before } });
      return { done: true as const, version };
    }
    const placements = await school.week.placements();
    if (JSON.stringify(before.calendar) !== JSON.stringify(body.week.calendar) && placements.length > 0)
      await bringInLine(school, { placements, from: await school.settings.dayOf(now), now });
    return { done: true as const, version: body.version + 1 };
  });

  serve(setOwnHours, async ({ params, body, school }) => {
    const child = await school.children.find(params.id);
    if (!child) throw notFound("child");
    const version = await school.week.putOwnHours({ childId: child.id, version: body.version, hours: body.hours });
    if (version !== null) return { done: true as const, version };
    const kept = await school.week.ownHoursOf(child.id);
    const theirs = { hours: kept?.hours ?? null };
    mustAgree("these hours", { version: kept?.version ?? 0, mine: { hours: body.hours }, theirs });
    return { done: true as const, version: kept?.version ?? 0 };
  });

  serve(setTimetable, async ({ body, school, now }) => {
    const { version, from, placements } = body;
    const today = await school.settings.dayOf(now);
    if (from < today)
      throw unfit("A timetable cannot begin in the past.", [{ field: "from", says: "Choose today or later." }]);
    const names = await namesOf(school);
    for (const one of placements) {
      if (!names.groups.has(one.groupId))
        throw unfit("A group of this timetable is not here any more. Make it anew.");
      if (!names.isAdult(one.adultId))
        throw unfit("An adult of this timetable takes no groups any more. Make it anew.");
      if (one.roomId !== null && !names.isRoom(one.roomId))
        throw unfit("A room of this timetable is not here any more. Make it anew.");
      if (one.from >= one.to) throw unfit("A session of this timetable has no length.");
    }
    const before = await school.week.placements();
    if (!(await school.settings.change({}, version))) {
      const bare = (list: readonly Omit<Placement, "id">[]) => list.map((one) => ({ ...one, id: undefined }));
      const { version: newest } = await school.settings.read();
      mustAgree("the timetable", {
        version: newest,
        mine: { placements: bare(placements) },
        theirs: { placements: bare(before) },
      });
      return { done: true as const, version: newest, added: 0, changed: 0 };
    }
    const list = carriedPlacements(placements, before, randomUUID);
    await school.week.putPlacements(list);
    const counts = await bringInLine(school, { placements: list, from, now });
    return { done: true as const, version: version + 1, ...counts };
  });

  serve(listMeetings, async ({ query, school, actor, now }) => {
    const names = await namesOf(school);
    const { calendar } = names.week;
    const meetings = await school.week.meetingsOn(query.from, query.to);
    const ids = [...new Set(meetings.map(({ groupId }) => groupId))];
    const others = new Set(await school.own.notTheirs(actor, { thing: "group", ids, now }));
    return {
      taken: meetings
        .filter(({ groupId, cancelled }) => others.has(groupId) && !cancelled)
        .map(({ on, from, to, adultId, roomId }) => ({ on, from, to, adultId, roomId })),
      meetings: meetings.map((one) => ({
        ...one,
        groupName: names.group(one.groupId),
        adultName: names.adult(one.adultId),
        roomName: names.room(one.roomId),
        members: names.members(one.groupId).map(({ childId }) => childId),
      })),
      off: schoolDaysIn({ terms: [], off: [] }, query.from, query.to).flatMap((day) => {
        const why = offOn(calendar, day);
        return why === undefined ? [] : { day, why };
      }),
    };
  });

  serve(changeMeetings, async ({ body, school, actor, now }) => {
    const kept = new Map(
      (await school.week.findMeetings(body.changes.map(({ id }) => id))).map((one) => [one.id, one]),
    );
    const names = await namesOf(school);
    const changed: Meeting[] = [];
    for (const wanted of body.changes) {
      const { changedAt: _, ...before } = kept.get(wanted.id) ?? notHere();
      const next: Meeting = { ...before, ...wanted, byHand: true, sequence: before.sequence + 1 };
      if (before.groupId !== wanted.groupId) throw unfit("A session stays with its group.");
      if (isSame(before, next)) continue;
      if (before.sequence !== wanted.sequence)
        throw conflict(
          `${names.group(wanted.groupId)} was given another time meanwhile. Nothing was changed; look at the week again.`,
        );
      if (!wanted.cancelled && !names.isAdult(wanted.adultId)) throw unfit("This adult takes no groups any more.");
      changed.push(next);
    }
    if (actor.as !== "lead") await mustBeFree(school, changed, names);
    await school.week.putMeetings({ added: [], changed }, now.toISOString());
    return { done: true as const };

    function notHere(): never {
      throw notFound("session");
    }
  });

  serve(listFeeds, async ({ school }) => school.week.feeds());

  serve(makeFeed, async ({ body, school }) => {
    const names = await namesOf(school);
    const { id, whose } = body;
    if (!(await whoseWeek(school, whoseOf(whose), names))) throw notFound(whoseOf(whose).of);
    const token = randomBytes(32).toString("base64url");
    if (!(await school.week.addFeed({ id, whose }, keptKey("feed", token)))) {
      const made = (await school.week.feeds()).find((one) => one.id === id);
      mustBeSame("address", made?.whose, whose);
      throw conflict("This address was made already and is shown once. End it, and make another.");
    }
    return { token };
  });

  serve(endFeed, async ({ params, school }) => {
    await school.week.endFeed(params.id);
    return { done: true as const };
  });

  calendars(streams);
}

/** @throws HttpProblem 422 when an adult or a room of these sessions is taken by another at their time */
async function mustBeFree(school: School, changed: readonly Meeting[], names: Names): Promise<void> {
  const now = new Map(changed.map((one) => [one.id, one]));
  for (const one of changed.filter(({ cancelled }) => !cancelled))
    for (const kept of await school.week.meetingsOn(one.on, one.on)) {
      const other = now.get(kept.id) ?? kept;
      const meets = other.id !== one.id && !other.cancelled && other.on === one.on;
      if (!meets || other.to <= one.from || one.to <= other.from) continue;
      const who =
        other.adultId === one.adultId
          ? names.adult(one.adultId)
          : other.roomId !== null && other.roomId === one.roomId
            ? names.room(one.roomId) || "This room"
            : undefined;
      if (who)
        throw unfit(
          `${who} is taken at that time by another group. Choose another time, or ask the lead. Nothing was changed.`,
        );
    }
}

/** Calendar files: to keep, and under a private address. */
function calendars({ router, gate, as }: Domain["streams"]): void {
  const send = (response: Response, text: string, name: string | undefined) => {
    response.setHeader("content-type", "text/calendar; charset=utf-8");
    response.setHeader("cache-control", "no-store");
    if (name) response.setHeader("content-disposition", `attachment; filename="${name}"`);
    response.send(text);
  };
  router.get(calendarFeed.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${calendarFeed.path}`;
    const params = calendarFeed.params.safeParse({ token: String(request.params.token).replace(/\.ics$/, "") });
    const token = params.success ? params.data.token : "none";
    const actor = await gate.enter(calendarFeed.may, request, { token });
    const school = as(actor);
    const text = await school.together(async () => {
      const feed = await school.week.feedByHash(keptKey("feed", token));
      return feed && calendarOfWeek(school, whoseOf(feed));
    });
    if (text === undefined) throw notFound("calendar");
    send(response, text, undefined);
  });
  router.get(calendarFile.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${calendarFile.path}`;
    const params = calendarFile.params.safeParse(request.params);
    if (!params.success) throw notFound("calendar");
    const actor = await gate.enter(calendarFile.may, request, params.data);
    const school = as(actor);
    const text = await school.together(async () => {
      await gate.check(calendarFile.may, actor, school.own, { params: params.data });
      return calendarOfWeek(school, whoseOf(params.data.whose));
    });
    if (text === undefined) throw notFound("calendar");
    send(response, text, "week.ics");
  });
}
