import { defineConfig } from "vitest/config";

// For `npm run mutate`: what says that a rule of the ledger or of mastery is broken stands beside it.
export default defineConfig({
  test: { include: ["core/{ledger,mastery}/**/*.test.ts"], testTimeout: 20_000 },
});
