import { Router } from "express";
import { getShared, reportShared } from "#contract";
import { shareByHash } from "../store/sessions.ts";
import { dayOf } from "./clock.ts";
import type { House } from "./house.ts";
import { HttpProblem } from "./problem.ts";
import { serve } from "./serve.ts";
import { hashOf, takeReport, viewSession } from "./sessions.ts";

/** What a colleague reaches with a link: one session card, and nothing that leads further. */
export function sharedRoutes({ db, now }: House): Router {
  const router = Router();

  async function open(token: string) {
    const share = await shareByHash(db, hashOf(token));
    if (!share || share.endsOn < dayOf(now())) {
      throw new HttpProblem(
        404,
        "This link does not work any more",
        "It was switched off, or its last day has passed. Ask the teacher who sent it for a new one.",
      );
    }
    return { share, session: await viewSession(db, share.sessionId) };
  }

  serve(router, getShared, async ({ params }) => {
    const { share, session } = await open(params.token);
    return {
      groupName: session.groupName,
      heldOn: session.heldOn,
      today: dayOf(now()),
      endsOn: share.endsOn,
      members: session.members.map(({ id, name }) => ({ id, name })),
      targets: session.targets,
      plan: session.plan,
      reports: session.reports.map(({ by, at }) => ({ by, at })),
    };
  });

  serve(router, reportShared, async ({ params, body }) => {
    const { session } = await open(params.token);
    await takeReport(db, session.id, body, now());
    return { done: true as const };
  });

  return router;
}
