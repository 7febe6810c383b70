import { differenceInCalendarDays, parseISO } from "date-fns";
import { type Request, Router } from "express";
import { getShared, reportShared } from "#contract";
import { schoolZone } from "../store/classes.ts";
import { countByLink, shareByHash } from "../store/sessions.ts";
import { dayAtSchool } from "./clock.ts";
import type { House } from "./house.ts";
import { HttpProblem, unfit } from "./problem.ts";
import { serve } from "./serve.ts";
import { hashOf, takeReport, viewSession } from "./sessions.ts";
import { openTries } from "./tries.ts";

/** Wrong links from one device in five minutes. */
const WRONG_LINKS = 30;
/** Reports that a link takes, and how many days from its session they may be. */
const MOST_BY_LINK = 10;
const MOST_DAYS = 14;

/** What a colleague reaches with a link: one session card, and nothing that leads further. */
export function sharedRoutes({ db, now }: House): Router {
  const router = Router();

  const tries = openTries({ most: WRONG_LINKS, minutes: 5, what: "links" });
  async function open(token: string, request: Request) {
    const share = await tries.lookUp(request, () => shareByHash(db, hashOf(token)));
    if (!share || share.endsOn < (await dayAtSchool(db, now()))) {
      throw new HttpProblem(
        404,
        "This link does not work any more",
        "It was switched off, or its last day has passed. Ask the teacher who sent it for a new one.",
      );
    }
    return { share, session: await viewSession(db, share.sessionId) };
  }

  serve(router, getShared, async ({ params }, request) => {
    const { share, session } = await open(params.token, request);
    return {
      groupName: session.groupName,
      heldOn: session.heldOn,
      today: await dayAtSchool(db, now()),
      timeZone: await schoolZone(db),
      endsOn: share.endsOn,
      members: session.members.map(({ id, name }) => ({ id, name })),
      targets: session.targets,
      plan: session.plan,
      reports: session.reports.map(({ by, at }) => ({ by, at })),
    };
  });

  serve(router, reportShared, async ({ params, body }, request) => {
    const { session } = await open(params.token, request);
    if (!session.reports.some((report) => report.id === body.id)) {
      if ((await countByLink(db, session.id)) >= MOST_BY_LINK)
        throw unfit(`${MOST_BY_LINK} reports came by this link already. Tell the teacher yourself what happened.`);
      const away = Math.abs(
        differenceInCalendarDays(parseISO(await dayAtSchool(db, body.at)), parseISO(session.heldOn)),
      );
      if (away > MOST_DAYS)
        throw unfit(
          `A report comes within ${MOST_DAYS} days of its session. Tell the teacher yourself what happened.`,
        );
    }
    await takeReport(db, session.id, body, { now: now(), byLink: true });
    return { done: true as const };
  });

  return router;
}
