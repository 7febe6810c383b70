import { Router } from "express";
import { listTexts } from "#contract";
import type { House } from "./house.ts";
import { serve } from "./serve.ts";

/** The texts that ship. */
export function textRoutes({ ground }: House): Router {
  const router = Router();
  serve(router, listTexts, () => JSON.parse(JSON.stringify(ground.texts)));
  return router;
}
