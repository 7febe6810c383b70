import { expect, test } from "vitest";
import { jobsHere } from "./jobs.ts";
import { keeping } from "./jobs-kept.ts";

let runs = 0;
const table = {
  double: (input: { of: readonly number[] }) => {
    runs++;
    if (input.of.length === 0) throw new Error("nothing to double");
    return { all: input.of.map((one) => 2 * one) };
  },
  other: (input: { of: readonly number[] }) => {
    runs++;
    return input.of.length;
  },
};
const fresh = () => {
  runs = 0;
  return keeping(jobsHere<null, typeof table>(table, null), ["double"]);
};

test("what was worked out for the same input and seed is not worked out again", async () => {
  const jobs = fresh();
  expect(await jobs.run("double", { of: [1, 2] }, 1)).toEqual({ all: [2, 4] });
  expect(await jobs.run("double", { of: [1, 2] }, 1)).toEqual({ all: [2, 4] });
  expect(runs).toBe(1);
  await jobs.run("double", { of: [1, 2] }, 2);
  await jobs.run("double", { of: [2, 1] }, 1);
  expect(runs).toBe(3);
});

test("other jobs run each time, as does what failed", async () => {
  const jobs = fresh();
  await jobs.run("other", { of: [1] }, 1);
  await jobs.run("other", { of: [1] }, 1);
  expect(runs).toBe(2);
  for (const _ of [1, 2]) await expect(jobs.run("double", { of: [] }, 1)).rejects.toThrow("nothing to double");
  expect(runs).toBe(4);
});

test("who has gone is not answered, and what is closed keeps nothing", async () => {
  const jobs = fresh();
  await jobs.run("double", { of: [1] }, 1);
  await expect(jobs.run("double", { of: [1] }, 1, { signal: AbortSignal.abort(new Error("gone")) })).rejects.toThrow(
    "gone",
  );
  await jobs.close();
  await jobs.run("double", { of: [1] }, 1);
  expect(runs).toBe(2);
});
