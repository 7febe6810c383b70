import { differenceInCalendarDays, formatISO, parseISO, subDays } from "date-fns";
import { getToday, type Today } from "#contract";
import { checkOf, dayAt, standing } from "#core/ledger";
import { focusName } from "#core/plans";
import type { Domain } from "../house.ts";
import type { DiaryRow } from "../sessions/diary.ts";
import { meetingsOn } from "./meetings.ts";

const DAYS_AHEAD = 7;
const DAYS_BACK = 14;
const MOST = 8;

/** The day: what waits, what is due, and what was done last. */
export function todayRoutes({ serve }: Domain): void {
  serve(getToday, async ({ school, actor, now }) => {
    const zone = await school.settings.zone();
    const today = dayAt(zone, now);
    const classes = new Map(
      (await school.classes.brief()).filter((one) => !one.archived).map((one) => [one.id, one.name]),
    );
    const groups = (await school.groups.list()).filter((group) => !group.closed);
    const names = new Map(groups.map((group) => [group.id, group.name]));
    const since = formatISO(subDays(parseISO(today), DAYS_BACK), { representation: "date" });
    const rows = (await school.diary.sessions({ since })).filter((row) => names.has(row.groupId));
    const lastHeld = await school.diary.lastHeld();
    const away = (day: string) => differenceInCalendarDays(parseISO(day), parseISO(today));

    const colleagues = new Map((await school.people.colleagues()).map((one) => [one.id, one]));
    const givenTo = (row?: DiaryRow) => colleagues.get(row?.givenTo ?? "") ?? null;

    const sittings = await school.checks.openSittings(MOST);
    const log = await school.ledger.logOfChecks(sittings.flatMap(({ checks }) => checks.map((check) => check.id)));
    const asked = [...new Set(standing(log).map((answer) => `${checkOf(answer)} ${answer.item}`))];
    const open = sittings.map(
      ({ id, name, startedAt, checks, givenTo, givenName }): Today["openSittings"][number] => {
        const mine = new Set(checks.map((check) => check.id));
        return {
          id,
          name,
          startedAt,
          // Of someone who has left it is whoever's again.
          givenTo: givenTo === null || givenName === null ? null : { id: givenTo, name: givenName },
          children: [...new Set(checks.map((check) => check.childName))],
          asked: asked.filter((one) => mine.has(one.split(" ")[0] ?? "")).length,
          items: checks.reduce((sum, check) => sum + check.items.length, 0),
        };
      },
    );

    const children = (await school.children.list()).filter((child) => !child.archived && classes.has(child.classId));
    const toCheck = children
      .filter((child) => child.absentOn !== today)
      .sort(
        (one, other) =>
          (one.lastChecked ?? "").localeCompare(other.lastChecked ?? "") || one.name.localeCompare(other.name),
      );

    // A day earlier than any of the school's own: which day it was there is looked at one by one.
    const reports = await school.diary.heads({ since: subDays(parseISO(since), 1).toISOString() });
    const last = reports
      .filter(({ groupId, at }) => names.has(groupId) && away(dayAt(zone, at)) >= -DAYS_BACK)
      .reverse()
      .slice(0, 5);
    const places = await school.sessions.countPlaces(last.map((report) => report.sessionId));
    const newest = last.map(({ sessionId, groupId, by, at, came, note }) => {
      const of = places.get(sessionId) ?? 0;
      return { sessionId, groupName: names.get(groupId) ?? "", by, at, came, of, note };
    });
    const checksDone = (await school.checks.recentlyEnded(5)).map(({ sittingId, childId, childName, endedAt }) => ({
      kind: "check" as const,
      sittingId,
      childId,
      childName,
      at: endedAt,
    }));
    const sessionsDone = newest.map(({ sessionId, groupName, by, at }) => ({
      kind: "session" as const,
      sessionId,
      groupName,
      by,
      at,
    }));

    return {
      today,
      meetings: (await meetingsOn(school, { today, actor })).map((one) => {
        const session = rows.find((row) => row.groupId === one.groupId && row.heldOn === today);
        const takes = givenTo(session);
        return {
          ...one,
          ...(takes ? { adultName: takes.name, mine: takes.id === actor.memberId } : {}),
          ...{ sessionId: session?.id ?? null, held: session?.held ?? false },
        };
      }),
      openSittings: open,
      sessions: rows
        .filter(
          (row) =>
            (!row.held && away(row.heldOn) <= DAYS_AHEAD && away(row.heldOn) >= -DAYS_BACK) || row.heldOn === today,
        )
        .sort((one, other) => one.heldOn.localeCompare(other.heldOn))
        .map((row) => ({
          id: row.id,
          groupId: row.groupId,
          groupName: names.get(row.groupId) ?? "",
          heldOn: row.heldOn,
          target: row.target,
          about: row.focus ? focusName(row.focus) : null,
          state: row.held ? ("held" as const) : ("planned" as const),
          givenTo: givenTo(row),
        })),
      reports: newest,
      groups: groups.map((group) => {
        const next = rows
          .filter((row) => row.groupId === group.id && !row.held)
          .sort((one, other) => one.heldOn.localeCompare(other.heldOn))[0];
        return {
          id: group.id,
          name: group.name,
          members: group.members.length,
          ...{ targets: group.targets, besides: group.besides },
          lastHeld: lastHeld.get(group.id) ?? null,
          next: next ? { id: next.id, heldOn: next.heldOn } : null,
        };
      }),
      toCheck: toCheck.slice(0, MOST).map((child) => ({
        id: child.id,
        name: child.name,
        className: classes.get(child.classId) ?? "",
        lastChecked: child.lastChecked,
      })),
      lastDone: [...checksDone, ...sessionsDone].sort((one, other) => other.at.localeCompare(one.at)).slice(0, 6),
    };
  });
}
