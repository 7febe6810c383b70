import { defineConfig } from "@playwright/test";
import { chromium } from "./scripts/chromium.mjs";

/** In `npm test`: the path on which a screen is used most. */
const mainPath = /@main/;

export default defineConfig({
  testDir: "e2e",
  outputDir: "test-results/pages",
  timeout: 60_000,
  expect: { timeout: 15_000 },
  workers: 2,
  ...(process.env.KEEN_SHORT ? { grep: mainPath } : {}),
  fullyParallel: false,
  forbidOnly: Boolean(process.env.CI),
  // A machine that is busy with something else may miss a time once; a second miss is a fault.
  retries: process.env.CI ? 1 : 0,
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  globalSetup: "./e2e/setup.ts",
  use: {
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    // The application kept on the device is tested on its own; else each test would fetch all of it.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: chromium(),
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
