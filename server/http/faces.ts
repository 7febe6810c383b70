import { randomInt } from "node:crypto";
import { type Request, type Response, Router } from "express";
import { rateLimit } from "express-rate-limit";
import { getFace, livePaths, openFace, showFace, tapFace } from "#contract";
import * as store from "../store/checks.ts";
import type { House } from "./house.ts";
import { HttpProblem, notFound } from "./problem.ts";
import { serve } from "./serve.ts";

/** Codes that lead nowhere: so many in five minutes, then the door stays shut for the rest of them. */
const WRONG_CODES = 30;

/** The child's face on another device, under a code of six figures that ends with its sitting. */
export function faceRoutes({ db, live }: House): Router {
  const router = Router();
  const mustSitting = async (id: string) => {
    const sitting = await store.findSitting(db, id);
    if (!sitting) throw notFound("check");
    return sitting;
  };
  const sittingOf = async (code: string) => {
    const sitting = await store.sittingByCode(db, code);
    if (!sitting)
      throw new HttpProblem(
        404,
        "No such code",
        "This code leads to no check. It may have ended; ask for the new one.",
      );
    return sitting;
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
    const sitting = await mustSitting(params.id);
    if (sitting.faceCode) return { code: sitting.faceCode };
    for (;;) {
      const code = String(randomInt(100_000, 1_000_000));
      if (await store.sittingByCode(db, code)) continue;
      await store.setFaceCode(db, sitting.id, code);
      return { code };
    }
  });

  serve(router, showFace, async ({ params, body }) => {
    live.show((await mustSitting(params.id)).id, body.face);
    return { done: true as const };
  });

  serve(router, getFace, async ({ params }) => ({ face: live.faceOf((await sittingOf(params.code)).id) }));

  serve(router, tapFace, async ({ params, body }) => {
    live.desk((await sittingOf(params.code)).id, { kind: "tap", ...body });
    return { done: true as const };
  });

  router.get(livePaths.desk(":id"), async (request: Request<{ id: string }>, response: Response) => {
    response.locals.route = `GET ${livePaths.desk(":id")}`;
    live.joinDesk((await mustSitting(request.params.id)).id, request, response);
  });

  router.get(livePaths.face(":code"), async (request: Request<{ code: string }>, response: Response) => {
    response.locals.route = `GET ${livePaths.face(":code")}`;
    // 204 tells a browser's event stream not to come back.
    const sitting = await store.sittingByCode(db, request.params.code);
    if (!sitting) response.status(204).end();
    else live.joinFace(sitting.id, request, response);
  });

  return router;
}
