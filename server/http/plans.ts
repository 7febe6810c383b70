import { Router } from "express";
import {
  listPresets,
  type PresetView,
  removePreset,
  savePreset,
  setCheckSettings,
  setReadingSettings,
} from "#contract";
import { shippedPresets } from "#core/checks";
import { deletePreset, listOwnPresets, putPreset } from "../store/checks.ts";
import { setSchool } from "../store/classes.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** Ids of the plans that ship: fixed, so that a link to one stays good. */
const shippedId = (at: number) => `7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f2${String(at + 1).padStart(3, "0")}`;

const shipped = (): PresetView[] =>
  shippedPresets.map(({ name, purpose, sections }, at) => ({
    id: shippedId(at),
    shipped: true,
    name,
    purpose,
    sections: sections.map((section) => ({
      ...section,
      picked: [...section.picked],
      blocks: [...section.blocks],
      tasks: [...section.tasks],
    })),
  }));

/** How this school checks: its settings, and the plans that it begins from. */
export function planRoutes({ db }: House): Router {
  const router = Router();

  serve(router, setCheckSettings, async ({ body }) => {
    await setSchool(db, { checks: body });
    return { done: true as const };
  });

  serve(router, setReadingSettings, async ({ body }) => {
    await setSchool(db, { reading: body });
    return { done: true as const };
  });

  serve(router, listPresets, async () => [...shipped(), ...(await listOwnPresets(db))]);

  serve(router, savePreset, async ({ params, body }) => {
    if (shipped().some((one) => one.id === params.id))
      throw unfit("This plan ships with the tool and stays as it is. Keep yours under another name.");
    await putPreset(db, { id: params.id, ...body });
    return { id: params.id, shipped: false, ...body };
  });

  serve(router, removePreset, async ({ params }) => {
    if (!(await deletePreset(db, params.id))) throw notFound("plan");
    return { done: true as const };
  });

  return router;
}
