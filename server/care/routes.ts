import { finished } from "node:stream/promises";
import type { Request, Response } from "express";
import { backupFile } from "#contract";
import type { Domain } from "../house.ts";

/** Care for the data: a school takes a copy of all of its own. */
export function careRoutes({ streams, backup }: Domain): void {
  const { router, gate, as } = streams;
  router.get(backupFile.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${backupFile.path}`;
    const actor = await gate.enter(backupFile.may, request, {});
    const now = new Date();
    const day = await as(actor).settings.dayOf(now);
    response.setHeader("content-type", "application/octet-stream");
    response.setHeader("content-disposition", `attachment; filename="school-${day}.keen"`);
    response.setHeader("cache-control", "no-store, no-transform");
    await backup(actor.schoolId, response, now);
    await finished(response).catch(() => undefined);
    await as(actor).settings.backedUp(now);
  });
}
