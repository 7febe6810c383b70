import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,contract,server,web,demo,scripts}/**/*.test.ts"],
    benchmark: { include: ["{core,server}/**/*.bench.ts"] },
    globalSetup: "server/store/testing.ts",
    maxWorkers: 2,
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
});
