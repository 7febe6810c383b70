import { existsSync, rmSync } from "node:fs";
import { fillDemo } from "#demo";
import { emptyFolder, filledFolder, freePort, startServer } from "./server.ts";

/**
 * Makes the two folders that every test copies: a school with the demo data, and one without. While a test is written,
 * KEEN_E2E_KEEP=1 takes those of the run before.
 */
export default async function setup(): Promise<void> {
  for (const folder of [emptyFolder, filledFolder]) {
    if (process.env.KEEN_E2E_KEEP === "1" && existsSync(folder)) continue;
    rmSync(folder, { recursive: true, force: true });
    const server = await startServer(folder, await freePort());
    if (folder === filledFolder) await fillDemo(server.base);
    await server.stop();
  }
}
