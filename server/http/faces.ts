import { randomInt } from "node:crypto";
import { type Request, type Response, Router } from "express";
import { closeFace, deskStream, faceStream, getFace, livePaths, openFace, showFace, tapFace } from "#contract";
import { findSitting } from "../store/checks.ts";
import * as store from "../store/faces.ts";
import type { House } from "./house.ts";
import { HttpProblem, notFound } from "./problem.ts";
import { serve } from "./serve.ts";
import { openTries } from "./tries.ts";

/** Codes that lead nowhere, from one device in five minutes. */
const WRONG_CODES = 30;

/** A face whose desk is no sitting ends after this long, when no one closed it. */
const LONGEST_MS = 24 * 3_600_000;

/** The child's face on another device, under a code of six figures. */
export function faceRoutes({ db, live, now }: House): Router {
  const router = Router();
  const tries = openTries({ most: WRONG_CODES, minutes: 5, what: "codes" });
  const find = (request: Request, code: string) => tries.lookUp(request, () => store.faceByCode(db, code));
  const deskOf = async (request: Request, code: string) => {
    const face = await find(request, code);
    if (!face)
      throw new HttpProblem(
        404,
        "No such code",
        "This code leads to no check. It may have ended; ask for the new one.",
      );
    return face.deskId;
  };

  serve(router, openFace, async ({ params }) => {
    await store.deleteFacesBefore(db, new Date(now().getTime() - LONGEST_MS).toISOString());
    for (;;) {
      const code = await store.faceCodeOf(db, params.id);
      if (code) return { code };
      const openedAt = now().toISOString();
      await store.insertFace(db, { deskId: params.id, code: String(randomInt(100_000, 1_000_000)), openedAt });
    }
  });

  serve(router, showFace, async ({ params, body }) => {
    if ((await store.faceCodeOf(db, params.id)) === null) throw notFound("code");
    live.show(params.id, body.face);
    return { done: true as const };
  });

  serve(router, closeFace, async ({ params }) => {
    await store.deleteFace(db, params.id);
    live.end(params.id);
    return { done: true as const };
  });

  serve(router, getFace, async ({ params }, request) => ({
    face: live.faceOf(await deskOf(request, params.code)),
  }));

  serve(router, tapFace, async ({ params, body }, request) => {
    live.desk(await deskOf(request, params.code), { kind: "tap", ...body });
    return { done: true as const };
  });

  router.get(livePaths.desk(":id"), async (request: Request, response: Response) => {
    response.locals.route = `GET ${livePaths.desk(":id")}`;
    const asked = deskStream.params.safeParse(request.params);
    const id = asked.success ? asked.data.id : undefined;
    if (id === undefined || !(await findSitting(db, id))) throw notFound("check");
    live.joinDesk(id, request, response);
  });

  router.get(livePaths.face(":code"), async (request: Request, response: Response) => {
    response.locals.route = `GET ${livePaths.face(":code")}`;
    // 204 tells a browser's event stream not to come back.
    const asked = faceStream.params.safeParse(request.params);
    const face = await find(request, asked.success ? asked.data.code : "");
    if (!face) response.status(204).end();
    else live.joinFace(face.deskId, request, response);
  });

  return router;
}
