import { defineConfig } from "vitest/config";

const test = { testTimeout: 60_000, hookTimeout: 120_000, isolate: false };
const setup = { globalSetup: "server/store/testing-setup.ts" };
/**
 * What is of the embedded database alone: its folder, its migrations from versions that had no other, its dumps; and what
 * asks no database.
 */
const notOnServer = [
  "server/jobs.test.ts",
  "server/store/{copies,dumps,open,power,prepared,migrations,ledger-migration}.test.ts",
  "server/frame/upgrade.test.ts",
];
const ofServer = ["server/store/server.test.ts"];
/**
 * What `npm test` leaves to `npm test -- all`: files that take six seconds and more by opening one database after another, by
 * solving, or by simulating, and all that runs a second time on a server. Of what is done many times it does a part
 * (server/testing-share.ts).
 */
const short = process.env.KEEN_SHORT === "1";
const left = short
  ? [
      "server/store/{copies,dumps,open,prepared,ledger-migration}.test.ts",
      "server/{jobs,frame/{fuzz,upgrade},care/{accounts,care},standings/kept}.test.ts",
      "server/people/{guessing,letters,passkeys}.test.ts",
      "core/{plans/obeys,groups/week/{conflict,week},readers/world/world,words/own-units}.test.ts",
      "scripts/{new-kind,sim/{decisions,loop,plans,refit},proof/{proofreader,sessions}}.test.ts",
    ]
  : [];

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        test: { ...test, name: "rooms", include: ["{core,contract,web,demo,scripts}/**/*.test.ts"], exclude: left },
      },
      {
        test: {
          ...test,
          ...setup,
          name: "embedded",
          include: ["server/**/*.test.ts"],
          exclude: [...ofServer, ...left],
          benchmark: { include: ["{core,server}/**/*.bench.ts"] },
        },
      },
      ...(short
        ? []
        : [
            { test: { ...test, ...setup, name: "postgres", include: ["server/**/*.test.ts"], exclude: notOnServer } },
          ]),
    ],
  },
});
