import { createReadStream, createWriteStream, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import type { Request, Response } from "express";
import { backupFile, eraseLeavers, listErased, listLeavers } from "#contract";
import type { Domain } from "../house.ts";

/** Care for the data: a school takes a copy of all of its own, and erases who left. */
export function careRoutes({ serve, streams, backup }: Domain): void {
  serve(listLeavers, ({ school, now }) => school.leavers.list(now));

  serve(
    eraseLeavers,
    async ({ body, school }) => {
      const erased = await school.leavers.erase(body.ids);
      if (erased > 0) await school.leaveNoTrace();
      return { erased };
    },
    // The dump waits for the transaction, so that it may not be within one.
    { apart: true },
  );

  serve(listErased, async ({ school }) => ({ ids: await school.leavers.erasedIds() }));

  const { router, gate, as } = streams;
  router.get(backupFile.path, async (request: Request, response: Response) => {
    response.locals.route = `GET ${backupFile.path}`;
    const actor = await gate.enter(backupFile.may, request, {});
    const now = new Date();
    const day = await as(actor).settings.dayOf(now);
    await as(actor).trail.write({
      at: now.toISOString(),
      memberId: actor.memberId,
      by: actor.name,
      did: "backup-taken",
    });
    // Written whole before it is sent: a slow line would hold the database's one moment, and on the embedded one everyone.
    const between = mkdtempSync(join(tmpdir(), "keen-backup-"));
    try {
      const file = join(between, "school.keen");
      await backup(actor.schoolId, createWriteStream(file, { mode: 0o600 }), now);
      response.setHeader("content-type", "application/octet-stream");
      response.setHeader("content-disposition", `attachment; filename="school-${day}.keen"`);
      response.setHeader("cache-control", "no-store, no-transform");
      await pipeline(createReadStream(file), response);
    } finally {
      rmSync(between, { recursive: true, force: true });
    }
    await as(actor).settings.backedUp(now);
  });
}
