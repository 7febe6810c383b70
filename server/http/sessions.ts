import { createHash, randomBytes } from "node:crypto";
import { Router } from "express";
import {
  copySession,
  editSession,
  type GroupView,
  getSession,
  listSessions,
  planNewSession,
  type ReportBody,
  removeReport,
  removeSession,
  replanSession,
  reportSession,
  restoreSession,
  type SessionView,
  shareSession,
  unshareSession,
} from "#contract";
import { findCorrespondence } from "#core/phonics";
import { planSession, practiceWords, type SessionPlan } from "#core/plans";
import type { Lexicon } from "#core/words";
import { type GroupGround, groundOf } from "../store/gaps.ts";
import { findGroup, listGroups } from "../store/groups.ts";
import type { Db } from "../store/open.ts";
import * as store from "../store/sessions.ts";
import { schoolWords } from "../store/splits.ts";
import { mustBeSame } from "./again.ts";
import { dayAtSchool, refuseFuture } from "./clock.ts";
import { mustGroup } from "./groups.ts";
import type { House } from "./house.ts";
import { conflict, notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** What the database keeps instead of a share's token. */
export function hashOf(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}

export async function viewSession(db: Db, id: string): Promise<SessionView> {
  const row = await store.findSessionRow(db, id);
  if (!row) throw notFound("session");
  const group = await findGroup(db, row.groupId);
  const reports = await store.reportsOf(db, [id]);
  const share = await store.shareOf(db, id);
  return {
    id,
    groupId: row.groupId,
    groupName: group?.name ?? "",
    heldOn: row.heldOn,
    state: reports.length > 0 ? "held" : "planned",
    version: row.version,
    members: await store.membersOfSession(db, id),
    targets: group?.targets ?? [],
    plan: row.plan,
    known: row.known,
    wholes: row.wholes,
    share: share ? { endsOn: share.endsOn, createdAt: share.createdAt } : null,
    reports,
  };
}

/** A report may speak only of the children who have a place in the session, and comes once per id. */
export async function takeReport(
  db: Db,
  sessionId: string,
  report: ReportBody,
  { now, byLink }: { readonly now: Date; readonly byLink: boolean },
): Promise<void> {
  refuseFuture(report.at, now);
  const made = (await store.reportsOf(db, [sessionId])).find((one) => one.id === report.id);
  if (made) {
    const said = ({ by, at, reached, note, came }: ReportBody) => ({ by, at, reached, note, came: [...came].sort() });
    return mustBeSame("report", said(made), said({ ...report, at: new Date(report.at).toISOString() }));
  }
  const members = new Set((await store.membersOfSession(db, sessionId)).map((member) => member.id));
  const named = [...report.came, ...report.marks.map((mark) => mark.childId)];
  if (named.some((id) => !members.has(id))) throw unfit("This report names a child who has no place in the session.");
  const unknown = report.marks.find((mark) => !findCorrespondence(mark.gpc));
  if (unknown) throw unfit(`${unknown.gpc} is not a spelling this tool knows.`);
  const marks = new Set(report.marks.map((mark) => mark.id));
  if (marks.size !== report.marks.length) throw unfit("Two marks of this report have the same id.");
  const day = await dayAtSchool(db, report.at);
  const [refused] = await store.insertReport(db, sessionId, report, { day, byLink });
  if (refused) throw unfit(`A mark of this report cannot be kept: ${refused} Nothing was kept.`);
}

/** Words with the target that make a lesson. */
const ENOUGH_WORDS = 8;

/**
 * The plan's target when none is asked for: the first of the group's targets that some member still needs and
 * that has enough words all can read; where none has, the one with most.
 */
function nextTarget(targets: readonly string[], ground: GroupGround, lexicon: Lexicon): string | undefined {
  const needed = targets.filter((gpc) => ground.needed.includes(gpc));
  const open = needed.length > 0 ? needed : targets.length > 0 ? targets : ground.needed;
  const known = new Set(ground.known);
  const counted = open.map((gpc) => ({ gpc, count: practiceWords(lexicon, known, gpc).length }));
  const most = [...counted].sort((one, other) => other.count - one.count)[0];
  return (counted.find(({ count }) => count >= ENOUGH_WORDS) ?? most)?.gpc;
}

export function sessionRoutes({ db, ground: shipped, now }: House): Router {
  const router = Router();

  async function fill(childIds: readonly string[], targets: readonly string[], wish: string | null, seed: number) {
    const words = await schoolWords(db, shipped.lexicon);
    const ground = await groundOf(db, words, childIds, await dayAtSchool(db, now()));
    const { lexicon } = words;
    const target = wish ?? nextTarget(targets, ground, lexicon);
    if (!target) throw unfit("This group has no target yet. Choose at least one spelling for it first.");
    if (!findCorrespondence(target)) throw unfit(`${target} is not a spelling this tool knows.`);
    const plan: SessionPlan = planSession({
      known: new Set(ground.known),
      target,
      revisit: [...targets.filter((gpc) => ground.known.includes(gpc)), ...ground.unsteady],
      lexicon,
      sentences: shipped.sentences,
      exceptionWords: ground.wholes,
      seed,
    });
    return {
      plan: {
        target,
        remarks: [...plan.remarks],
        parts: plan.parts.map((part) => ({ ...part, items: [...part.items] })),
      },
      known: [...ground.known],
      wholes: [...ground.wholes],
    };
  }

  async function change(
    id: string,
    version: number,
    what: Parameters<typeof store.updateSession>[3],
  ): Promise<SessionView> {
    if (!(await store.updateSession(db, id, version, what))) {
      throw conflict(
        "Someone else changed this session meanwhile. Their version is kept; reload to see it, then make your change again.",
      );
    }
    return viewSession(db, id);
  }

  serve(router, listSessions, async ({ query }) => {
    const rows = await store.listSessionRows(db, query.groupId);
    const names = new Map((await listGroups(db)).map((group) => [group.id, group.name]));
    const shared = await store.sharedSessionIds(db);
    const reports = await store.reportsOf(
      db,
      rows.map((row) => row.id),
    );
    return rows.map((row) => {
      const mine = reports.filter((report) => report.sessionId === row.id);
      const last = mine.at(-1);
      return {
        id: row.id,
        groupId: row.groupId,
        groupName: names.get(row.groupId) ?? "",
        heldOn: row.heldOn,
        target: row.plan.target,
        state: last ? ("held" as const) : ("planned" as const),
        shared: shared.has(row.id),
        reports: mine.length,
        last: last ? { by: last.by, came: last.came.length, note: last.note } : null,
      };
    });
  });

  /** The session that was made under this id before, if it was. Throws when it was removed meanwhile. */
  async function madeBefore(id: string) {
    if (await store.findRemovedSession(db, id))
      throw conflict("This session was made and removed meanwhile. Plan another.");
    return store.findSessionRow(db, id);
  }
  async function membersOf(groupId: string): Promise<{ group: GroupView; childIds: readonly string[] }> {
    const group = await mustGroup(db, groupId);
    const childIds = group.members.map((member) => member.childId);
    if (childIds.length === 0) throw unfit("No one is in this group. Put children into it first.");
    return { group, childIds };
  }

  serve(router, planNewSession, async ({ body }) => {
    const made = await madeBefore(body.id);
    if (made) {
      // What was asked for, as far as a session keeps it: without a wish the tool chose the target.
      const target = body.target && made.plan.target;
      const asked = { groupId: made.groupId, heldOn: made.heldOn, target };
      mustBeSame("session", asked, { groupId: body.groupId, heldOn: body.heldOn, target: body.target });
      return viewSession(db, body.id);
    }
    const { group, childIds } = await membersOf(body.groupId);
    const filled = await fill(childIds, group.targets, body.target, body.seed);
    await store.insertSession(db, { id: body.id, groupId: group.id, heldOn: body.heldOn, ...filled }, childIds);
    return viewSession(db, body.id);
  });

  serve(router, getSession, ({ params }) => viewSession(db, params.id));

  serve(router, editSession, async ({ params, body }) => {
    await viewSession(db, params.id);
    return change(params.id, body.version, { heldOn: body.heldOn, plan: body.plan });
  });

  serve(router, replanSession, async ({ params, body }) => {
    const session = await viewSession(db, params.id);
    const filled = await fill(
      session.members.map((member) => member.id),
      session.targets,
      body.target,
      body.seed,
    );
    return change(session.id, session.version, filled);
  });

  serve(router, copySession, async ({ params, body }) => {
    const { groupId, plan } = await viewSession(db, params.id);
    const made = await madeBefore(body.id);
    if (made) {
      const { groupId: itsGroup, heldOn } = made;
      mustBeSame("session", { groupId: itsGroup, heldOn }, { groupId, heldOn: body.heldOn });
      return viewSession(db, body.id);
    }
    const { childIds } = await membersOf(groupId);
    const words = await schoolWords(db, shipped.lexicon);
    const { known, wholes } = await groundOf(db, words, childIds, await dayAtSchool(db, now()));
    const copy = { id: body.id, groupId, heldOn: body.heldOn, plan, known: [...known], wholes: [...wholes] };
    await store.insertSession(db, copy, childIds);
    return viewSession(db, body.id);
  });

  serve(router, removeSession, async ({ params }) => {
    const session = await viewSession(db, params.id);
    if (session.reports.length > 0) throw unfit("This session was held and reported, so it stays.");
    await store.setSessionRemoved(db, session.id, now().toISOString());
    return { done: true as const };
  });

  serve(router, restoreSession, async ({ params }) => {
    if (await store.findRemovedSession(db, params.id)) await store.setSessionRemoved(db, params.id, null);
    return viewSession(db, params.id);
  });

  serve(router, shareSession, async ({ params, body }) => {
    const session = await viewSession(db, params.id);
    if (body.endsOn < (await dayAtSchool(db, now())))
      throw unfit("The last day of the link lies in the past.", [
        { field: "endsOn", says: "Choose today or later." },
      ]);
    const token = randomBytes(32).toString("base64url");
    await store.setShare(db, session.id, hashOf(token), body.endsOn);
    return { token, endsOn: body.endsOn };
  });

  serve(router, unshareSession, async ({ params }) => {
    await store.deleteShare(db, (await viewSession(db, params.id)).id);
    return { done: true as const };
  });

  serve(router, reportSession, async ({ params, body }) => {
    const session = await viewSession(db, params.id);
    await takeReport(db, session.id, body, { now: now(), byLink: false });
    return { done: true as const };
  });

  serve(router, removeReport, async ({ params }) => {
    const session = await viewSession(db, params.id);
    const report = session.reports.find((one) => one.id === params.reportId);
    if (!report) throw notFound("report");
    const markedAt = now().toISOString();
    await store.deleteReport(db, report, { markedAt, day: await dayAtSchool(db, markedAt) });
    return { done: true as const };
  });

  return router;
}
