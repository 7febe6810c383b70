import { randomUUID as uuid } from "node:crypto";
import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import * as contract from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

function isEndpoint(one: unknown): one is contract.Endpoint {
  return typeof one === "object" && one !== null && "method" in one && "path" in one;
}
const endpoints = (Object.values(contract) as unknown[]).filter(isEndpoint);
const odd = fc.constantFrom<unknown>(
  "\u0000",
  "\ud800",
  "0000-01-01",
  "9999-12-31",
  "0000-01-01T00:00:00.000Z",
  -1,
  1e308,
  null,
  [],
  {},
  "",
  "a=a",
  uuid(),
);
const fields =
  "id name yearGroup orderId content stepId taughtOn at classId note children childId scope seed startedAt picked answers members targets versionId groupId heldOn target plan version endsOn by came marks reached closed kind items checks checkIds sections childIds part purpose code face choice item pass tags units heard text why outcome".split(
    " ",
  );

test("there are many endpoints, each under /api", () => {
  expect(endpoints.length).toBeGreaterThan(40);
  expect(endpoints.filter((one) => !one.path.startsWith("/api/"))).toEqual([]);
});

test("nothing that a client sends gives 500: random bodies, odd values in good fields", async () => {
  const bodies = endpoints.filter((one) => one.body);
  const params = { id: uuid(), token: "x".repeat(43), code: "123456" };
  const body = fc.oneof(fc.jsonValue(), fc.dictionary(fc.constantFrom(...fields), odd));
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...bodies), body, async (endpoint, sent) => {
      const response = await fetch(house.base + contract.addressOf(endpoint, params), {
        method: endpoint.method,
        headers: { "content-type": "application/json" },
        body: JSON.stringify(sent),
      });
      const content = (await response.json()) as { detail?: string };
      expect(response.status, endpoint.path).toBeLessThan(500);
      if (response.status >= 400) expect(content.detail).toMatch(/\.$/);
    }),
    { numRuns: 300 },
  );
});

test.each(["\ud800", "a\u0000"])("%j in a name, an order or a note is refused, not stored", async (text) => {
  const content = { name: "Ours", kind: text, why: "", steps: [] };
  expect((await house.refused(contract.addOrder, { body: { id: uuid(), content } })).status).toBe(422);
  expect(
    (await house.refused(contract.addChild, { body: { id: uuid(), classId: uuid(), name: "A", note: text } }))
      .fields[0]?.field,
  ).toBe("note");
});

test("a day outside our time is refused at its field", async () => {
  const problem = await house.refused(contract.planNewSession, {
    body: { id: uuid(), groupId: uuid(), heldOn: "0000-01-01", target: null, seed: 1 },
  });
  expect(problem.fields[0]).toEqual({ field: "heldOn", says: "Choose a day of this century." });
});
