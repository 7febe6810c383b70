import { addDays, formatISO, parseISO } from "date-fns";
import { type BlockSessionView, fixBlockDays, getBlock, setBlockWeeks } from "#contract";
import { thoughtDays } from "#core/groups";
import { findCorrespondence } from "#core/phonics";
import { type BlockDay, focusName, minutesOfRoutine, roomFor, taughtIn } from "#core/plans";
import { plural, shortDay } from "#core/saying";
import { untilGone } from "../frame/jobs.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { isWithin } from "./block.ts";

/** Sessions that are shown of those that were. */
const MOST_PAST = 8;
/** A block is worked out by a job, outside of a transaction. */
const apart = { apart: true };

/** A group's sessions over weeks. */
export function blockRoutes({ serve, jobs }: Domain): void {
  serve(
    getBlock,
    async ({ params, school, now, request }) => {
      const group = await school.groups.find(params.id);
      if (!group) throw notFound("group");
      const today = await school.settings.dayOf(now);
      const { weeks, fixed } = await school.groups.block(group.id);
      const last = formatISO(addDays(parseISO(today), weeks * 7 - 1), { representation: "date" });
      const childIds = group.members.map(({ childId }) => childId);
      const done = await pastOf(school, group.id);
      const held = new Set(done.map(({ sessionId }) => sessionId));
      const planned = (await school.sessions.list({ groupId: group.id, from: today })).filter(
        ({ id, heldOn }) => !held.has(id) && isWithin(heldOn, { today, weeks }),
      );
      const routine = await school.routines.named(group.routine);
      const itsMinutes = minutesOfRoutine(routine);
      const slots = group.closed
        ? { inTheWeek: false, list: [] }
        : await slotsOf(school, group.id, { today, last, minutes: itsMinutes });
      const heldToday = done.some(({ on }) => on === today);
      // A day on which a session is planned is one, also where the week has none.
      const days = [
        ...slots.list.filter(({ on }) => !(heldToday && on === today)),
        ...planned.flatMap(({ heldOn }) =>
          slots.list.some(({ on }) => on === heldOn) ? [] : [{ on: heldOn, from: null, minutes: itsMinutes }],
        ),
      ].sort((one, other) => (one.on < other.on ? -1 : 1));
      const block = days.map(
        ({ on, minutes }): BlockDay => ({
          ...{ on, minutes: Math.min(minutes, itsMinutes), room: roomFor(routine, minutes) },
        }),
      );
      const stands = [
        ...planned.map(({ heldOn, plan }) => ({
          on: heldOn,
          gpcs: plan.focus ? [] : [...taughtIn(plan)],
          focus: plan.focus,
        })),
        ...fixed.filter(({ on }) => !planned.some(({ heldOn }) => heldOn === on)),
      ];
      const filling = await school.planning.toFill({
        ...{ childIds, targets: group.targets, aims: group.besides, wish: null, today, reads: group.reads },
        ...{ groupId: group.id, routine: group.routine },
      });
      const { sessions, remarks } = await jobs.run(
        "planWeeks",
        {
          ...filling,
          today,
          days: block,
          past: done.map(({ on, taught, focus }) => ({ on, taught, focus })),
          fixed: stands,
        },
        1,
        { signal: untilGone(request) },
      );
      const pointOf = await school.together(() => school.orders.pointsHere());
      const tooLong = slots.list.filter(({ minutes }) => minutes < itsMinutes);
      return {
        ...{ weeks, inTheWeek: slots.inTheWeek },
        past: done.slice(-MOST_PAST).map(({ focus, ...one }) => ({ ...one, about: focus ? focusName(focus) : null })),
        sessions: sessions.map((one): BlockSessionView => {
          const session = planned.find(({ heldOn }) => heldOn === one.on);
          return {
            ...{ on: one.on, minutes: one.minutes, room: one.room, look: [...one.look] },
            from: days.find(({ on }) => on === one.on)?.from ?? null,
            points: one.points.map((point) => ({
              ...{ gpc: point.gpc, step: point.step, way: point.way, for: [...point.for] },
              name: pointOf(point.gpc)?.name ?? null,
            })),
            focus: one.focus && {
              ...{ ids: [...one.focus.ids], name: focusName(one.focus.ids) },
              ...{ step: one.focus.step, for: [...one.focus.for] },
            },
            cardsOnly: [...one.cardsOnly],
            cards: one.cards.map(({ childId, gpcs }) => ({ childId, gpcs: [...gpcs] })),
            by: session ? "session" : one.fixed ? "teacher" : "tool",
            sessionId: session?.id ?? null,
          };
        }),
        remarks: [
          ...(group.closed ? ["This group is closed: nothing is planned for it."] : []),
          ...(childIds.length === 0 ? ["No one is in this group. Put children into it first."] : []),
          ...(tooLong[0]
            ? [
                `Its routine takes ${plural(itsMinutes, "minute")}; the time on ${shortDay(tooLong[0].on, today)} has ${tooLong[0].minutes}. Choose a shorter routine, or a longer time.`,
              ]
            : []),
          ...remarks,
        ],
      };
    },
    apart,
  );

  serve(setBlockWeeks, async ({ params, body, school }) => {
    if (!(await school.groups.find(params.id))) throw notFound("group");
    await school.groups.setBlockWeeks(params.id, body.weeks);
    return { done: true as const };
  });

  serve(fixBlockDays, async ({ params, body, school, now }) => {
    if (!(await school.groups.find(params.id))) throw notFound("group");
    const today = await school.settings.dayOf(now);
    for (const { on, gpcs } of body.days) {
      if (on < today) throw unfit("This day is over. Nothing was changed.");
      const strange = gpcs?.find((gpc) => !findCorrespondence(gpc));
      if (strange) throw unfit(`${strange} is not a spelling this tool knows. Nothing was changed.`);
    }
    await school.groups.fixBlock(params.id, { today, days: body.days });
    return { done: true as const };
  });
}

/** Sessions of a group that were held, the earliest first. */
async function pastOf(school: School, groupId: string) {
  const rows = await school.sessions.list({ groupId });
  const reports = new Map((await school.diary.heads({ groupId })).map((head) => [head.sessionId, head]));
  const places = await school.sessions.countPlaces(rows.map(({ id }) => id));
  return rows
    .flatMap(({ id, heldOn, plan }) => {
      const report = reports.get(id);
      if (!report) return [];
      const taught = [...taughtIn(plan)];
      return [{ on: heldOn, sessionId: id, taught, focus: plan.focus, came: report.came, of: places.get(id) ?? 0 }];
    })
    .reverse();
}

/** When a group meets: its times in the week, or days that are thought where it has none. */
async function slotsOf(
  school: School,
  groupId: string,
  { today, last, minutes }: { readonly today: string; readonly last: string; readonly minutes: number },
) {
  const meetings = (await school.week.meetingsOn(today, last)).filter((one) => one.groupId === groupId);
  const list = meetings
    .filter(({ cancelled }) => !cancelled)
    .map(({ on, from, to }) => ({ on, from: from as number | null, minutes: to - from }));
  if (meetings.length > 0) return { inTheWeek: true, list: oneADay(list) };
  const { calendar } = await school.week.read();
  const { sessionsAWeek } = await school.grouping.read();
  const days = thoughtDays(calendar, { from: today, to: last, aWeek: sessionsAWeek });
  return { inTheWeek: false, list: days.map((on) => ({ on, from: null, minutes })) };
}

/** A second session of a day goes on with the first. */
function oneADay<T extends { readonly on: string }>(list: readonly T[]): T[] {
  return list.filter(({ on }, at) => list.findIndex((one) => one.on === on) === at);
}
