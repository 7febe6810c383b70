import {
  copySession,
  editSession,
  type GroupView,
  getAfresh,
  getSession,
  listSessions,
  otherPart,
  type PlanBody,
  planNewSession,
  removeSession,
  replanSession,
  restoreSession,
  type SessionView,
} from "#contract";
import { focusName, kindsOfPart, planChanges, type SessionPart, USUAL } from "#core/plans";
import { mustAgree, mustBeSame } from "../frame/again.ts";
import { untilGone } from "../frame/jobs.ts";
import { conflict, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import type { ReportHead } from "./diary.ts";
import type { ToFill } from "./fill.ts";
import type { SessionChange } from "./repository.ts";

/** A plan is filled by a job, between the transaction that reads and the one that writes. */
const between = { apart: true };

/** The session with this id. @throws HttpProblem 404 */
export async function mustSession(school: School, id: string): Promise<SessionView> {
  const session = await school.sessions.view(id);
  if (!session) throw notFound("session");
  return session;
}

/** A part as it is kept. */
function bodyOf({ each, ...part }: SessionPart): PlanBody["parts"][number] {
  return {
    ...{ ...part, items: [...part.items] },
    ...(each ? { each: each.map((one) => ({ ...one, items: [...one.items] })) } : {}),
  };
}

/** Sessions of groups: planned, changed, shared, and what was said of them. */
export function sessionRoutes({ serve, jobs }: Domain): void {
  /** A plan for these children, with what they can read today; filled between transactions. */
  async function filled(
    school: School,
    wanted: Parameters<School["planning"]["toFill"]>[0],
    { seed, request }: { readonly seed: number; readonly request: Parameters<typeof untilGone>[0] },
  ) {
    const from = await school.planning.toFill(wanted);
    const done = await jobs.run("fillSession", from, seed, { signal: untilGone(request) });
    if ("unfit" in done) throw unfit(done.unfit);
    const { target, second, focus, cardsOnly, remarks, parts } = done.plan;
    const plan: PlanBody = {
      ...{ target, ...(second ? { second } : {}), ...(focus ? { focus: [...focus] } : {}) },
      ...(cardsOnly ? { cardsOnly: [...cardsOnly] } : {}),
      remarks: [...remarks],
      parts: parts.map(bodyOf),
    };
    return { plan, known: [...from.common.known], wholes: [...from.common.wholes] };
  }

  async function change(
    school: School,
    { id, version }: { readonly id: string; readonly version: number },
    what: SessionChange,
  ): Promise<SessionView> {
    if (await school.sessions.update(id, version, what)) return mustSession(school, id);
    const { version: newest, heldOn, plan } = await mustSession(school, id);
    const { heldOn: myDay = heldOn, plan: myPlan = plan } = what;
    mustAgree("this session", {
      version: newest,
      mine: { heldOn: myDay, plan: myPlan },
      theirs: { heldOn, plan },
    });
    return mustSession(school, id);
  }

  serve(listSessions, async ({ query, school }) => {
    const rows = await school.diary.sessions(query);
    const names = new Map((await school.groups.list()).map((group) => [group.id, group.name]));
    const shared = await school.sessions.sharedIds();
    const colleagues = new Map((await school.people.colleagues()).map((one) => [one.id, one]));
    const pointOf = await school.orders.pointsHere();
    const reports = new Map<string, ReportHead[]>();
    for (const head of await school.diary.heads(query))
      reports.set(head.sessionId, [...(reports.get(head.sessionId) ?? []), head]);
    return rows.map((row) => {
      const mine = reports.get(row.id) ?? [];
      const last = mine.at(-1);
      return {
        id: row.id,
        groupId: row.groupId,
        groupName: names.get(row.groupId) ?? "",
        heldOn: row.heldOn,
        target: row.target,
        second: row.second,
        about: row.focus ? focusName(row.focus) : null,
        point: pointOf(row.target)?.name ?? null,
        state: last ? ("held" as const) : ("planned" as const),
        givenTo: colleagues.get(row.givenTo ?? "") ?? null,
        shared: shared.has(row.id),
        reports: mine.length,
        last: last ? { by: last.by, came: last.came, note: last.note } : null,
      };
    });
  });

  /** The session that was made under this id before, if it was. Throws when it was removed meanwhile. */
  async function madeBefore(school: School, id: string) {
    if (await school.sessions.findRemoved(id))
      throw conflict("This session was made and removed meanwhile. Plan another.");
    return school.sessions.find(id);
  }
  async function membersOf(
    school: School,
    groupId: string,
  ): Promise<{ group: GroupView; childIds: readonly string[] }> {
    const group = await school.groups.find(groupId);
    if (!group) throw notFound("group");
    const childIds = group.members.map((member) => member.childId);
    if (childIds.length === 0) throw unfit("No one is in this group. Put children into it first.");
    return { group, childIds };
  }

  serve(
    planNewSession,
    async ({ body, school, now, request }) => {
      const made = await madeBefore(school, body.id);
      if (made) {
        // What was asked for, as far as a session keeps it: without a wish the tool chose the target.
        const target = !body.focus && body.target ? made.plan.target : body.target;
        const focus = body.focus ? (made.plan.focus ?? null) : body.focus;
        const { groupId, heldOn } = made;
        const asked = { groupId: body.groupId, heldOn: body.heldOn, target: body.target, focus: body.focus };
        mustBeSame("session", { groupId, heldOn, target, focus }, asked);
        return mustSession(school, body.id);
      }
      const { group, childIds } = await membersOf(school, body.groupId);
      const today = await school.settings.dayOf(now);
      const routine = body.routine ?? group.routine;
      const { id: groupId, targets, besides: aims, reads } = group;
      const { target, second, focus, way, heldOn } = body;
      const wish = focus ? null : target;
      const wanted = { childIds, targets, aims, wish, second, focus, way, heldOn, today, reads, groupId, routine };
      const plan = await filled(school, wanted, { seed: body.seed, request });
      return school.together(async () => {
        const filledAt = now.toISOString();
        const row = { id: body.id, groupId: group.id, heldOn: body.heldOn, filledAt, ...plan };
        await school.sessions.insert(row, childIds);
        return mustSession(school, body.id);
      });
    },
    between,
  );

  serve(getSession, ({ params, school }) => mustSession(school, params.id));

  serve(editSession, async ({ params, body, school }) => {
    await mustSession(school, params.id);
    return change(school, { id: params.id, version: body.version }, { heldOn: body.heldOn, plan: body.plan });
  });

  /** What a session is filled from today. */
  async function anew(school: School, session: SessionView, now: Date) {
    const group = await school.groups.find(session.groupId);
    return {
      childIds: session.members.map((member) => member.id),
      targets: session.targets,
      aims: group?.besides ?? [],
      heldOn: session.heldOn,
      today: await school.settings.dayOf(now),
      reads: group?.reads ?? ("all" as const),
      groupId: session.groupId,
      routine: group?.routine ?? USUAL,
    };
  }

  serve(
    replanSession,
    async ({ params, body, school, now, request }) => {
      const session = await mustSession(school, params.id);
      const from = await anew(school, session, now);
      const { target, second, focus, routine = from.routine } = body;
      const wanted = { ...from, wish: focus ? null : target, second, focus, routine };
      const plan = await filled(school, wanted, { seed: body.seed, request });
      const what = { ...plan, filledAt: now.toISOString() };
      return school.together(() => change(school, { id: session.id, version: body.version }, what));
    },
    between,
  );

  serve(
    getAfresh,
    async ({ params, query, school, now, request }) => {
      const session = await mustSession(school, params.id);
      const wanted = { ...(await anew(school, session, now)), wish: null };
      const { plan } = await filled(school, wanted, { seed: query.seed, request });
      const nameOf = (id: string) => session.members.find((one) => one.id === id)?.name ?? "";
      return {
        ...{ target: plan.target, second: plan.second ?? null, focus: plan.focus ? [...plan.focus] : null },
        changes: [...planChanges(session.plan, plan, nameOf)],
      };
    },
    between,
  );

  serve(
    otherPart,
    async ({ params, body, school, now, request }) => {
      const session = await mustSession(school, params.id);
      const part = session.plan.parts[params.at];
      if (!part) throw unfit("This session has no such part any more. Nothing was changed.");
      const group = await school.groups.find(session.groupId);
      const wanted = {
        ...{ childIds: session.members.map((member) => member.id), targets: session.targets },
        ...{
          wish: session.plan.focus ? null : session.plan.target,
          second: session.plan.second,
          focus: session.plan.focus,
          today: await school.settings.dayOf(now),
          reads: group?.reads ?? "all",
        },
        ...{ groupId: session.groupId, routine: USUAL, heldOn: session.heldOn },
      };
      const { kind, minutes, how, marks, who = kindsOfPart[kind].who } = part;
      const from = await school.planning.toFill(wanted);
      const given = session.plan.parts.flatMap(({ items }) => items);
      const one: ToFill = {
        ...from,
        routine: { name: "", about: "", parts: [{ kind, minutes, who, how, marks }] },
        hadLately: [...from.hadLately, ...given],
      };
      const done = await jobs.run("fillSession", one, body.seed, { signal: untilGone(request) });
      if ("unfit" in done) throw unfit(done.unfit);
      const [filled] = done.plan.parts;
      if (!filled || filled.items.length === 0)
        throw unfit(done.plan.remarks[0] ?? "There is nothing else for this part.");
      const fresh = bodyOf(filled);
      const parts = session.plan.parts.map((each, at) => (at === params.at ? fresh : each));
      const plan = { ...session.plan, parts };
      return school.together(() => change(school, { id: session.id, version: body.version }, { plan }));
    },
    between,
  );

  serve(copySession, async ({ params, body, school, now }) => {
    const { groupId, plan } = await mustSession(school, params.id);
    const made = await madeBefore(school, body.id);
    if (made) {
      const { groupId: itsGroup, heldOn } = made;
      mustBeSame("session", { groupId: itsGroup, heldOn }, { groupId, heldOn: body.heldOn });
      return mustSession(school, body.id);
    }
    const { childIds, group } = await membersOf(school, groupId);
    const today = await school.settings.dayOf(now);
    const { known, wholes } = await school.standings.commonOf(childIds, today, group.reads);
    const copy = { id: body.id, groupId, heldOn: body.heldOn, plan, known: [...known], wholes: [...wholes] };
    await school.sessions.insert(copy, childIds);
    return mustSession(school, body.id);
  });

  serve(removeSession, async ({ params, school, now }) => {
    const session = await mustSession(school, params.id);
    if (session.reports.length > 0) throw unfit("This session was held and reported, so it stays.");
    await school.sessions.setRemoved(session.id, now.toISOString());
    return { done: true as const };
  });

  serve(restoreSession, async ({ params, school }) => {
    if (await school.sessions.findRemoved(params.id)) await school.sessions.setRemoved(params.id, null);
    return mustSession(school, params.id);
  });
}
