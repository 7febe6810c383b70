import { afterAll, beforeAll, expect, test } from "vitest";
import { savePreset } from "#contract";
import { part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { loggedError } from "./trouble.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

test("of an error with a message of several lines only name, code and frames are logged", () => {
  const cause = Object.assign(new Error("Key (name)=(Ada M.) exists"), { code: "23505" });
  const error = new Error("Failed query: insert\nparams: Ada M.,glasses\n    at home with Ada M. (not a frame)", {
    cause,
  });
  const logged = loggedError(error);
  expect(logged).toMatchObject({ name: "Error", code: "23505" });
  expect(logged.frames.length).toBeGreaterThan(0);
  expect(logged.frames[0]).toMatch(/trouble\.test\.ts:\d+:\d+$/);
  expect(JSON.stringify(logged)).not.toMatch(/Ada|glasses|params/);
  expect(loggedError("Ada M.")).toEqual({ name: "string", code: undefined, frames: [] });
});

test("a query that fails is answered in a sentence, and its parameters are in no log", async () => {
  const id = crypto.randomUUID();
  const body = { version: 0, name: "For Ada M.", purpose: "she mixes b and d", sections: [part("card")] };
  await house.store.owner.execute("alter table presets rename to presets_away");
  const problem = await house.refused(savePreset, { params: { id }, body });
  await house.store.owner.execute("alter table presets_away rename to presets");
  expect(problem).toMatchObject({ status: 500, title: "Something went wrong here" });
  const logged = house.logged.join("\n");
  expect(logged).toContain("unexpected error");
  expect(logged).toContain("42P01");
  expect(logged).not.toMatch(/Ada|mixes/);
});
