import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addOrder,
  editClass,
  editOrder,
  getSchool,
  importChildren,
  listChildren,
  markTaught,
  removeOrder,
  taughtHistory,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
let orderId: string;
const classId = uuid();
beforeAll(async () => {
  house = await openTestHouse();
  orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId } });
});
afterAll(() => house.close());
const at = () => house.now.toISOString();

describe("classes", () => {
  test("a name stands once; the same request twice changes nothing", async () => {
    const problem = await house.refused(addClass, { body: { id: uuid(), name: " kiln ", yearGroup: "", orderId } });
    expect(problem).toMatchObject({ status: 422, fields: [{ field: "name" }] });
    await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId } });
    expect((await house.ask(getSchool, {})).classes).toHaveLength(1);
  });
  test("is marked as taught with the day, and keeps the history", async () => {
    for (const [stepId, taughtOn] of [
      ["s2", "2026-11-02"],
      ["s3", "2026-11-09"],
    ] as const) {
      house.now = new Date(house.now.getTime() + 1000);
      await house.ask(markTaught, { params: { id: classId }, body: { id: uuid(), stepId, taughtOn, at: at() } });
    }
    expect((await house.ask(getSchool, {})).classes[0]).toMatchObject({ stepId: "s3", taughtOn: "2026-11-09" });
    expect((await house.ask(taughtHistory, { params: { id: classId } })).map((mark) => mark.stepId)).toEqual([
      "s3",
      "s2",
    ]);
  });
  test("refuses a step of another order, a day ahead, a clock ahead", async () => {
    const body = { id: uuid(), stepId: "s3", taughtOn: "2026-11-09", at: at() };
    const refuse = (change: object) =>
      house.refused(markTaught, { params: { id: classId }, body: { ...body, ...change } });
    expect((await refuse({ stepId: "s99" })).fields[0]?.field).toBe("stepId");
    expect((await refuse({ taughtOn: "2026-12-01" })).fields[0]?.field).toBe("taughtOn");
    expect((await refuse({ at: "2026-11-21T00:00:00.000Z" })).detail).toMatch(/clock/);
  });
  test("a class, an order or a child that is not there gives 404", async () => {
    expect((await house.refused(editClass, { params: { id: uuid() }, body: { name: "X" } })).status).toBe(404);
    expect((await house.refused(editClass, { params: { id: classId }, body: { orderId: uuid() } })).status).toBe(404);
  });
});

describe("teaching orders", () => {
  test("three ship and stay as they are", async () => {
    const { orders } = await house.ask(getSchool, {});
    expect(orders.filter((order) => order.shipped)).toHaveLength(3);
    const [first] = orders;
    if (!first) throw new Error("none");
    expect(
      (
        await house.refused(editOrder, {
          params: { id: first.id },
          body: { version: first.version, content: first.content },
        })
      ).status,
    ).toBe(422);
    expect((await house.refused(removeOrder, { params: { id: first.id } })).status).toBe(422);
  });
  test("a copy is edited; an old version, a bad spelling, a step in use are refused", async () => {
    const content = (await house.ask(getSchool, {})).orders[0]?.content;
    if (!content) throw new Error("none");
    const id = uuid();
    await house.ask(addOrder, { body: { id, content } });
    const edited = await house.ask(editOrder, {
      params: { id },
      body: { version: 1, content: { ...content, name: "Ours" } },
    });
    expect(edited).toMatchObject({ version: 2, content: { name: "Ours" } });
    expect((await house.refused(editOrder, { params: { id }, body: { version: 1, content } })).status).toBe(409);
    const doubled = { ...content, steps: content.steps.map((step) => ({ ...step, gpcs: ["m=m"] })) };
    expect(
      (await house.refused(editOrder, { params: { id }, body: { version: 2, content: doubled } })).detail,
    ).toMatch(/stands twice/);
    await house.ask(editClass, { params: { id: classId }, body: { orderId: id } });
    const without = { ...content, steps: content.steps.filter((step) => step.id !== "s3") };
    expect(
      (await house.refused(editOrder, { params: { id }, body: { version: 2, content: without } })).detail,
    ).toMatch(/Kiln is marked as taught up to a step/);
    expect((await house.refused(removeOrder, { params: { id } })).detail).toMatch(/Kiln uses this order/);
    await house.ask(editClass, { params: { id: classId }, body: { orderId } });
    await house.ask(removeOrder, { params: { id } });
  });
});

describe("children", () => {
  test("import takes the good ones once, and says why not the others", async () => {
    const child = (name: string, id = uuid()) => ({ id, classId, name, note: "" });
    const ada = child("Ada M.");
    const first = await house.ask(importChildren, {
      body: { children: [ada, child("ada m."), { ...child("Ben"), classId: uuid() }] },
    });
    expect(first.added).toBe(1);
    expect(first.refused.map((one) => one.says)).toEqual([
      "Already in this class.",
      "This class does not exist any more.",
    ]);
    expect((await house.ask(importChildren, { body: { children: [ada] } })).added).toBe(0);
    expect(await house.ask(listChildren, { query: { classId } })).toHaveLength(1);
  });
  test("a name with the database's own signs is only that name", async () => {
    await house.ask(addChild, { body: { id: uuid(), classId, name: "A%", note: "" } });
    await house.ask(addChild, { body: { id: uuid(), classId, name: "Abc", note: "'; drop table children; --" } });
    expect((await house.refused(addChild, { body: { id: uuid(), classId, name: "a%", note: "" } })).status).toBe(422);
  });
  test.each([
    ["", "name"],
    ["x".repeat(61), "name"],
    ["a\u0000b", "name"],
  ])("the name %j is refused at its field", async (name, field) => {
    expect((await house.refused(addChild, { body: { id: uuid(), classId, name, note: "" } })).fields[0]?.field).toBe(
      field,
    );
  });
});

describe("the edge of the server", () => {
  const raw = (path: string, init?: RequestInit) => fetch(house.base + path, init);
  const json = { "content-type": "application/json" };
  test.each<[string, string, RequestInit, number]>([
    ["an unknown address", "/api/nothing", {}, 404],
    ["an id that is none", "/api/children/42", {}, 404],
    ["bad JSON", "/api/classes", { method: "POST", headers: json, body: "{" }, 400],
    ["JSON that is no object", "/api/classes", { method: "POST", headers: json, body: '"x"' }, 400],
    ["no body", "/api/classes", { method: "POST" }, 422],
    ["a list for an object", "/api/classes", { method: "POST", headers: json, body: "[]" }, 422],
    [
      "another kind of content",
      "/api/classes",
      { method: "POST", headers: { "content-type": "text/xml" }, body: "<a/>" },
      422,
    ],
    [
      "too much",
      "/api/classes",
      { method: "POST", headers: json, body: JSON.stringify({ name: "x".repeat(600_000) }) },
      413,
    ],
    ["a wrong query", "/api/gaps?classId=7", {}, 422],
    ["a broken escape", "/api/children/%E0%A4%A", {}, 400],
    [
      "an unknown charset",
      "/api/classes",
      { method: "POST", headers: { "content-type": "application/json; charset=klingon" }, body: "{}" },
      415,
    ],
  ])("%s gives a problem", async (_, path, init, status) => {
    const response = await raw(path, init);
    expect(response.status).toBe(status);
    expect(response.headers.get("content-type")).toMatch(/problem\+json/);
    expect(((await response.json()) as { detail: string }).detail.length).toBeGreaterThan(10);
  });
  test("a page from elsewhere may not write, nor another name in the address read", async () => {
    const { request } = await import("node:http");
    const status = (headers: Record<string, string>, method = "GET") =>
      new Promise((done) =>
        request(`${house.base}/api/school`, { method, headers }, (answer) => done(answer.statusCode)).end(),
      );
    expect(await status({ host: "evil.example" })).toBe(403);
    expect(await status({ origin: "http://evil.example" }, "PUT")).toBe(403);
    expect(await status({ origin: "http://localhost:4310" })).toBe(200);
  });
  test("no name of a child and no address with a token is logged", async () => {
    await raw("/api/shared/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa");
    await new Promise((done) => setTimeout(done, 50));
    expect(house.logged.join()).toMatch(/GET \/api\/shared\/:token/);
    expect(house.logged.join()).not.toMatch(/Ada|aaaaaaaa/);
  });
});
