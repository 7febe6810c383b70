import { randomInt } from "node:crypto";
import type { Request, Response } from "express";
import { closeFace, deskStream, faceStream, getFace, openFace, showFace, tapFace } from "#contract";
import { deskOf } from "../frame/live.ts";
import { HttpProblem, notFound } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** A face whose desk is no sitting ends after this long, when no one closed it. */
const LONGEST_MS = 24 * 3_600_000;

/** The child's face on another device, under a code of six figures. */
export function faceRoutes({ serve, live, streams }: Domain): void {
  const behind = async (school: School, code: string) => {
    const deskId = await school.faces.deskOf(code);
    if (deskId === undefined)
      throw new HttpProblem(
        404,
        "No such code",
        "This code leads to no check. It may have ended; ask for the new one.",
      );
    return deskId;
  };

  serve(openFace, async ({ params, school, now }) => {
    await school.faces.closeBefore(new Date(now.getTime() - LONGEST_MS).toISOString());
    for (;;) {
      const face = { deskId: params.id, code: String(randomInt(100_000, 1_000_000)), openedAt: now.toISOString() };
      const code = await school.faces.open(face);
      if (code) return { code };
    }
  });

  serve(showFace, async ({ params, body, school, actor }) => {
    if ((await school.faces.codeOf(params.id)) === null) throw notFound("code");
    live.show(deskOf(actor, params.id), body.face);
    return { done: true as const };
  });

  serve(closeFace, async ({ params, school, actor }) => {
    await school.faces.close([params.id]);
    school.afterwards(() => live.end(deskOf(actor, params.id)));
    return { done: true as const };
  });

  serve(getFace, async ({ params, school, actor }) => ({
    face: live.faceOf(deskOf(actor, await behind(school, params.code))),
    letterShapes: (await school.settings.read()).checks.letterShapes,
  }));

  serve(tapFace, async ({ params, body, school, actor }) => {
    live.desk(
      deskOf(actor, await behind(school, params.code)),
      "laid" in body
        ? { kind: "laid", ...body }
        : "apart" in body
          ? { kind: "slid", ...body }
          : { kind: "tap", ...body },
    );
    return { done: true as const };
  });

  const { router, gate, as } = streams;
  router.get(deskStream.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${deskStream.path}`;
    const asked = deskStream.params.safeParse(request.params);
    if (!asked.success) throw notFound("check");
    const { id } = asked.data;
    const actor = await gate.enter(deskStream.may, request, asked.data);
    const school = as(actor);
    await gate.check(deskStream.may, actor, school.own, { params: asked.data });
    if (!(await school.checks.findSitting(id)) && !(await school.sessions.find(id))) throw notFound("check");
    live.joinDesk(deskOf(actor, id), request, response);
    // Whoever is signed out or taken out meanwhile hears no more. A database that is away says nothing about them.
    const still = setInterval(async () => {
      try {
        const now = await gate.enter(deskStream.may, request, asked.data);
        await gate.check(deskStream.may, now, school.own, { params: asked.data });
      } catch (error) {
        if (error instanceof HttpProblem) response.end();
      }
    }, streams.lookAgainMs);
    response.on("close", () => clearInterval(still));
  });

  router.get(faceStream.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${faceStream.path}`;
    const asked = faceStream.params.safeParse(request.params);
    const desk = await gate
      .enter(faceStream.may, request, asked.success ? asked.data : { code: "" })
      .then(async (actor) => {
        const id = await as(actor).faces.deskOf(asked.success ? asked.data.code : "");
        return id === undefined ? undefined : deskOf(actor, id);
      })
      .catch((error: unknown) => {
        if (error instanceof HttpProblem && error.status === 404) return undefined;
        throw error;
      });
    // 204 tells a browser's event stream not to come back.
    if (desk === undefined) response.status(204).end();
    else live.joinFace(desk, request, response);
  });
}
