import { z } from "zod";
import type { May } from "./may.ts";

/** A file that a browser saves: asked like an endpoint, answered with bytes. */
interface Download {
  readonly path: string;
  readonly may: May;
  readonly params: z.ZodType;
}

/** All of the school in one file, which `npm run restore` puts back. */
export const backupFile = {
  path: "/api/backup",
  may: { by: "lead" },
  params: z.object({}),
} as const satisfies Download;
