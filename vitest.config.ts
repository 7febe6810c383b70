import { defineConfig } from "vitest/config";

const test = { testTimeout: 60_000, hookTimeout: 120_000, isolate: false };
const setup = { globalSetup: "server/store/testing-setup.ts" };
/**
 * What is of the embedded database alone: its folder, its migrations from versions that had no other, its dumps; and what
 * asks no database.
 */
const notOnServer = [
  "server/jobs.test.ts",
  "server/store/{copies,open,power,prepared,migrations,ledger-migration}.test.ts",
  "server/frame/upgrade.test.ts",
];
const ofServer = ["server/store/server.test.ts"];

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      { test: { ...test, name: "rooms", include: ["{core,contract,web,demo,scripts}/**/*.test.ts"] } },
      {
        test: {
          ...test,
          ...setup,
          name: "embedded",
          include: ["server/**/*.test.ts"],
          exclude: ofServer,
          benchmark: { include: ["{core,server}/**/*.bench.ts"] },
        },
      },
      { test: { ...test, ...setup, name: "postgres", include: ["server/**/*.test.ts"], exclude: notOnServer } },
    ],
  },
});
