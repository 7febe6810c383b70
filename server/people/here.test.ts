import { request } from "node:http";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { schoolCommand } from "./command.ts";
import { CannotMake } from "./schools.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

/** Asks under a host name; fetch does not let it be said. */
function askAt(host: string, path: string, body?: object): Promise<{ status: number; content: unknown }> {
  const { port } = new URL(house.base);
  return new Promise((done, failed) => {
    const asked = request(
      {
        host: "127.0.0.1",
        port,
        path,
        method: body ? "POST" : "GET",
        headers: { host: `${host}:${port}`, ...(body ? { "content-type": "application/json" } : {}) },
      },
      (response) => {
        let text = "";
        response.on("data", (part) => {
          text += String(part);
        });
        response.on("end", () => done({ status: response.statusCode ?? 0, content: JSON.parse(text) }));
      },
    );
    asked.on("error", failed).end(body ? JSON.stringify(body) : undefined);
  });
}

test("another school is made by a command and stands under its own host name, apart from the first", async () => {
  const said = await schoolCommand(house.store, house.all, ["add", "St.", "Orm’s", "Upper", "Lock"]);
  expect(said).toContain("http://st-orms-upper-lock.localhost:");
  const orders = (
    (await askAt("st-orms-upper-lock.localhost", "/api/school")).content as { orders: { id: string }[] }
  ).orders;
  const classId = "5f0c7a52-3b2e-4b39-8a55-0a7a1f6f0001";
  const body = { id: classId, name: "Reed", yearGroup: "", orderId: orders[0]?.id };
  expect((await askAt("st-orms-upper-lock.localhost", "/api/classes", body)).status).toBe(200);
  const classesAt = async (host: string) =>
    ((await askAt(host, "/api/school")).content as { classes: { name: string }[] }).classes.map((one) => one.name);
  expect(await classesAt("st-orms-upper-lock.localhost")).toEqual(["Reed"]);
  expect(await classesAt("localhost")).toEqual([]);
  expect(await classesAt("127.0.0.1")).toEqual([]);
  expect(await schoolCommand(house.store, house.all, ["list"])).toContain(
    "st-orms-upper-lock.localhost  St. Orm’s Upper Lock",
  );
});

test("a host name of no school is told so, and one from elsewhere is not answered", async () => {
  expect(await askAt("reeds.localhost", "/api/school")).toMatchObject({
    status: 404,
    content: { title: "No such school", detail: expect.stringContaining("npm run school -- add NAME") },
  });
  expect((await askAt("keen.example", "/api/school")).status).toBe(403);
});

test.each([
  ["", "needs at least one letter"],
  ["***", "needs at least one letter"],
  ["x".repeat(81), "at most 80 characters"],
  ["st orms upper lock", "There is a school at st-orms-upper-lock.localhost already"],
])("no school is made of the name %j", async (name, why) => {
  const made = schoolCommand(house.store, house.all, ["add", name]);
  await expect(made).rejects.toThrow(CannotMake);
  await expect(made).rejects.toThrow(why);
});
