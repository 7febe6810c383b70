import { Router } from "express";
import { getGaps } from "#contract";
import { gapMap } from "../store/gaps.ts";
import { dayOf } from "./clock.ts";
import type { House } from "./house.ts";
import { serve } from "./serve.ts";

export function gapRoutes({ db, now }: House): Router {
  const router = Router();
  serve(router, getGaps, ({ query }) => gapMap(db, dayOf(now()), query.classId));
  return router;
}
