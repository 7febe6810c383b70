import { Router } from "express";
import { getGaps } from "#contract";
import { gapMap } from "../store/gaps.ts";
import { schoolWords } from "../store/splits.ts";
import { dayAtSchool } from "./clock.ts";
import type { House } from "./house.ts";
import { serve } from "./serve.ts";

export function gapRoutes({ db, ground, now }: House): Router {
  const router = Router();
  serve(router, getGaps, async ({ query }) =>
    gapMap(db, await schoolWords(db, ground.lexicon), await dayAtSchool(db, now()), query.classId),
  );
  return router;
}
