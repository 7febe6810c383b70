import { Router } from "express";
import { listReadings, saveReading } from "#contract";
import { textWords } from "#core/reading";
import { findChild } from "../store/children.ts";
import * as store from "../store/readings.ts";
import { refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** Readings of a text, kept whole. */
export function readingRoutes({ db, now }: House): Router {
  const router = Router();
  const mustChild = async (id: string) => {
    if (!(await findChild(db, id))) throw notFound("child");
  };

  serve(router, listReadings, async ({ params }) => {
    await mustChild(params.id);
    return store.readingsOfChild(db, params.id);
  });

  serve(router, saveReading, async ({ params, body }) => {
    await mustChild(body.childId);
    refuseFuture(body.readAt, now());
    const before = await store.findReading(db, params.id);
    if (before && before.childId !== body.childId)
      throw unfit("This reading is another child's. Nothing was changed.");
    const words = textWords(body.text).length;
    if (words === 0) throw unfit("This text has no words. Nothing was kept.");
    if (body.marks.some((mark) => mark.at >= words) || (body.stoppedAt ?? 0) >= words)
      throw unfit("A mark stands at a word that this text does not have. Nothing was kept.");
    const row = { id: params.id, ...body };
    await store.putReading(db, row);
    return row;
  });

  return router;
}
