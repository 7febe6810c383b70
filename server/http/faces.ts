import { randomInt } from "node:crypto";
import { type Request, type Response, Router } from "express";
import { rateLimit } from "express-rate-limit";
import { closeFace, getFace, livePaths, openFace, showFace, tapFace } from "#contract";
import { findSitting } from "../store/checks.ts";
import * as store from "../store/faces.ts";
import type { House } from "./house.ts";
import { HttpProblem, notFound } from "./problem.ts";
import { serve } from "./serve.ts";

/** Codes that lead nowhere: so many in five minutes, then the door stays shut for the rest of them. */
const WRONG_CODES = 30;

/** A face whose desk is no sitting ends after this long, when no one closed it. */
const LONGEST_MS = 24 * 3_600_000;

/** The child's face on another device, under a code of six figures. */
export function faceRoutes({ db, live, now }: House): Router {
  const router = Router();
  const deskOf = async (code: string) => {
    const face = await store.faceByCode(db, code);
    if (!face)
      throw new HttpProblem(
        404,
        "No such code",
        "This code leads to no check. It may have ended; ask for the new one.",
      );
    return face.deskId;
  };

  router.use(
    "/api/faces",
    rateLimit({
      windowMs: 5 * 60_000,
      limit: WRONG_CODES,
      skipSuccessfulRequests: true,
      legacyHeaders: false,
      handler: () => {
        throw new HttpProblem(
          429,
          "Too many codes",
          "Too many wrong codes from here. Wait five minutes and try again.",
        );
      },
    }),
  );

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

  serve(router, getFace, async ({ params }) => ({ face: live.faceOf(await deskOf(params.code)) }));

  serve(router, tapFace, async ({ params, body }) => {
    live.desk(await deskOf(params.code), { kind: "tap", ...body });
    return { done: true as const };
  });

  router.get(livePaths.desk(":id"), async (request: Request<{ id: string }>, response: Response) => {
    response.locals.route = `GET ${livePaths.desk(":id")}`;
    if (!(await findSitting(db, request.params.id))) throw notFound("check");
    live.joinDesk(request.params.id, request, response);
  });

  router.get(livePaths.face(":code"), async (request: Request<{ code: string }>, response: Response) => {
    response.locals.route = `GET ${livePaths.face(":code")}`;
    // 204 tells a browser's event stream not to come back.
    const face = await store.faceByCode(db, request.params.code);
    if (!face) response.status(204).end();
    else live.joinFace(face.deskId, request, response);
  });

  return router;
}
