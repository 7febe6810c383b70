import { deal } from "./checks/deal.ts";
import type { Jobs as JobsOf } from "./frame/jobs.ts";
import { worthFor } from "./groups/worth.ts";
import { planWeeks } from "./sessions/block.ts";
import { fillSession } from "./sessions/fill.ts";
import { findModelFor, foretellCards } from "./standings/foretell.ts";

/** Everything that is computed off the request. */
export const jobTable = { deal, fillSession, foretellCards, findModelFor, planWeeks, worthFor };

/** Those whose output is kept for a while: they are asked for again with every look at a page. */
export const keptJobs = ["planWeeks", "worthFor"] as const satisfies readonly (keyof typeof jobTable)[];

/** The jobs of this program, wherever they run. */
export type Jobs = JobsOf<typeof jobTable>;
