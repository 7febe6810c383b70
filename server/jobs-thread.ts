import { workerData } from "node:worker_threads";
import { workAt } from "./frame/jobs.ts";
import { jobTable } from "./jobs.ts";
import { readShipped } from "./shipped.ts";

// What a thread of the pool is started with.
export default workAt(jobTable, () => readShipped((workerData as { readonly data: string }).data));
