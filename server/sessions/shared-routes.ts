import { randomBytes } from "node:crypto";
import { differenceInCalendarDays, parseISO } from "date-fns";
import {
  getShared,
  listShares,
  type PlanBody,
  type ReportBody,
  removeReport,
  reportSession,
  reportShared,
  shareSession,
  type TaughtMark,
  type TaughtReading,
  unshareSession,
} from "#contract";
import { kinds } from "#core/checks";
import { findCorrespondence } from "#core/phonics";
import { mustBeSame } from "../frame/again.ts";
import { refuseFuture } from "../frame/clock.ts";
import { HttpProblem, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { keptKey } from "../people/door.ts";
import { refuseMisplaced } from "../readings/routes.ts";
import { mustSession } from "./routes.ts";

/** Reports that a link takes, and how many days from its session they may be. */
const MOST_BY_LINK = 10;
const MOST_DAYS = 14;

/** A report may speak only of the children who have a place in the session, and comes once per id. */
async function takeReport(
  school: School,
  sessionId: string,
  report: ReportBody & {
    readonly taught?: readonly TaughtMark[] | undefined;
    readonly readings?: readonly TaughtReading[] | undefined;
  },
  { now, byLink }: { readonly now: Date; readonly byLink: boolean },
): Promise<void> {
  refuseFuture(report.at, now);
  const made = (await school.sessions.reportsOf([sessionId])).find((one) => one.id === report.id);
  if (made) {
    const said = ({ by, at, reached, note, came }: ReportBody) => ({ by, at, reached, note, came: [...came].sort() });
    return mustBeSame("report", said(made), said({ ...report, at: new Date(report.at).toISOString() }));
  }
  const members = new Set((await school.sessions.membersOf(sessionId)).map((member) => member.id));
  const { taught = [], readings = [] } = report;
  for (const { at } of [...taught, ...readings]) refuseFuture(at, now);
  const named = [...report.came, ...[...report.marks, ...taught, ...readings].map((one) => one.childId)];
  if (named.some((id) => !members.has(id))) throw unfit("This report names a child who has no place in the session.");
  const unknown = report.marks.find((mark) => !findCorrespondence(mark.gpc));
  if (unknown) throw unfit(`${unknown.gpc} is not a spelling this tool knows.`);
  const odd = taught.find(({ kind, item }) => !kinds[kind].fits(item));
  if (odd) throw unfit(`${odd.item} is nothing that a child can be asked so. Nothing was kept.`);
  const marks = [...report.marks, ...taught, ...readings].map((one) => one.id);
  if (new Set(marks).size !== marks.length) throw unfit("Two marks of this report have the same id.");
  for (const reading of readings) {
    refuseMisplaced({ ...reading, turns: [] });
    if (await school.readings.find(reading.id))
      throw unfit("A reading of this report is here already, under another report. Nothing was kept.");
  }
  const day = await school.settings.dayOf(report.at);
  const [refused] = await school.sessions.insertReport(sessionId, report, { day, byLink });
  if (refused) throw unfit(`A mark of this report cannot be kept: ${refused} Nothing was kept.`);
}

/** The session that a link leads to, while it does. @throws HttpProblem 404 */
async function open(school: School, token: string, now: Date) {
  const share = await school.sessions.shareByHash(keptKey("share", token));
  if (!share || share.endsOn < (await school.settings.dayOf(now))) {
    throw new HttpProblem(
      404,
      "This link does not work any more",
      "It was switched off, or its last day has passed. Ask the teacher who sent it for a new one.",
    );
  }
  return { share, session: await mustSession(school, share.sessionId) };
}

/** Sessions handed to a colleague by a link, and what is said of a session when it was held. */
export function reportRoutes({ serve, shipped }: Domain): void {
  /** Texts that the parts of a plan read, as they stand on the shelf now. */
  const textsOf = async (school: School, plan: PlanBody) => {
    const titles = new Set(plan.parts.flatMap(({ kind, items }) => (kind === "text" ? items : [])));
    if (titles.size === 0) return [];
    const own = (await school.texts.listOwn()).map(({ id, content: { title, body } }) => ({ id, title, body }));
    return [...shipped.texts.map(({ id, title, body }) => ({ id, title, body })), ...own].filter(({ title }) =>
      titles.has(title),
    );
  };

  serve(shareSession, async ({ params, body, school, now }) => {
    const session = await mustSession(school, params.id);
    if (body.endsOn < (await school.settings.dayOf(now)))
      throw unfit("The last day of the link lies in the past.", [
        { field: "endsOn", says: "Choose today or later." },
      ]);
    const token = randomBytes(32).toString("base64url");
    await school.sessions.setShare(session.id, keptKey("share", token), body.endsOn);
    return { token, endsOn: body.endsOn };
  });

  serve(listShares, async ({ school, now }) => {
    const names = new Map((await school.groups.list()).map((group) => [group.id, group.name]));
    const shares = await school.sessions.listShares(await school.settings.dayOf(now));
    return shares.map(({ groupId, ...share }) => ({ ...share, groupName: names.get(groupId) ?? "" }));
  });

  serve(unshareSession, async ({ params, school }) => {
    await school.sessions.deleteShare((await mustSession(school, params.id)).id);
    return { done: true as const };
  });

  serve(reportSession, async ({ params, body, school, now }) => {
    const session = await mustSession(school, params.id);
    await takeReport(school, session.id, body, { now: now, byLink: false });
    return { done: true as const };
  });

  serve(removeReport, async ({ params, school, now }) => {
    const session = await mustSession(school, params.id);
    const report = session.reports.find((one) => one.id === params.reportId);
    if (!report) throw notFound("report");
    const markedAt = now.toISOString();
    await school.sessions.deleteReport(report, { markedAt, day: await school.settings.dayOf(markedAt) });
    return { done: true as const };
  });

  serve(
    getShared,
    async ({ params, school, now }) => {
      const { share, session } = await open(school, params.token, now);
      await school.sessions.openedShare(session.id, now.toISOString());
      const { letterShapes, deviceVoice } = (await school.settings.read()).checks;
      return {
        sessionId: session.id,
        groupName: session.groupName,
        heldOn: session.heldOn,
        today: await school.settings.dayOf(now),
        timeZone: await school.settings.zone(),
        endsOn: share.endsOn,
        members: session.members.map(({ id, name, absent }) => ({ id, name, absent })),
        targets: session.targets,
        plan: session.plan,
        point: session.point,
        known: session.known,
        texts: await textsOf(school, session.plan),
        splits: await school.words.list(),
        wordAges: await school.words.listAges(),
        ...{ letterShapes, deviceVoice },
        reports: session.reports.map(({ by, at }) => ({ by, at })),
      };
    },
    // It is written down that the link was opened.
    { apart: true },
  );

  serve(reportShared, async ({ params, body, school, now }) => {
    const { session } = await open(school, params.token, now);
    if (!session.reports.some((report) => report.id === body.id)) {
      if ((await school.sessions.countByLink(session.id)) >= MOST_BY_LINK)
        throw unfit(`${MOST_BY_LINK} reports came by this link already. Tell the teacher yourself what happened.`);
      const away = await Promise.all(
        [body.at, ...[...(body.taught ?? []), ...(body.readings ?? [])].map(({ at }) => at)].map(async (at) =>
          Math.abs(differenceInCalendarDays(parseISO(await school.settings.dayOf(at)), parseISO(session.heldOn))),
        ),
      );
      if (away.some((days) => days > MOST_DAYS))
        throw unfit(
          `A report comes within ${MOST_DAYS} days of its session. Tell the teacher yourself what happened.`,
        );
    }
    await takeReport(school, session.id, body, { now, byLink: true });
    return { done: true as const };
  });
}
