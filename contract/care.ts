import { z } from "zod";
import type { Stream } from "./endpoint.ts";

/** All of the school in one file, which `npm run restore` puts back. */
export const backupFile = {
  path: "/api/backup",
  may: { by: "lead" },
  params: z.object({}),
} as const satisfies Stream;
