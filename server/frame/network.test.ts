import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer, request } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import express from "express";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CannotListen, networkOf, onlyOurs, onThisMachine, slugIn } from "./network.ts";
import { HttpProblem } from "./problem.ts";

const folder = mkdtempSync(join(tmpdir(), "keen-tls-"));
afterAll(() => rmSync(folder, { recursive: true }));
const [cert, key] = ["cert.pem", "key.pem"].map((name) => join(folder, name)) as [string, string];
for (const file of [cert, key]) writeFileSync(file, "a certificate");
const origin = "https://keen.school.example";

describe("what the environment says of the network", () => {
  test("nothing: this machine alone", () => {
    expect(networkOf({})).toEqual(onThisMachine);
    expect(networkOf({ KEEN_HOST: "127.0.0.1" })).toEqual(onThisMachine);
  });
  test("a name of the network, with a certificate or a proxy that has one", () => {
    expect(
      networkOf({ KEEN_HOST: "0.0.0.0", KEEN_ORIGIN: origin, KEEN_TLS_CERT: cert, KEEN_TLS_KEY: key }),
    ).toMatchObject({
      host: "0.0.0.0",
      origin: new URL(origin),
      tls: { cert: Buffer.from("a certificate") },
    });
    expect(networkOf({ KEEN_ORIGIN: origin, KEEN_PROXY: "loopback" })).toMatchObject({
      host: "127.0.0.1",
      proxy: "loopback",
    });
  });
  test.each([
    [{ KEEN_HOST: "0.0.0.0" }, /beyond this machine.*KEEN_ORIGIN/],
    [{ KEEN_PROXY: "loopback" }, /KEEN_ORIGIN does not say/],
    [{ KEEN_ORIGIN: "http://keen.school.example", KEEN_PROXY: "loopback" }, /has to be an https address/],
    [{ KEEN_ORIGIN: "https://keen.school.example/reading", KEEN_PROXY: "loopback" }, /without a path/],
    [{ KEEN_ORIGIN: "keen", KEEN_PROXY: "loopback" }, /has to be an https address/],
    [{ KEEN_HOST: "0.0.0.0", KEEN_ORIGIN: origin }, /nothing speaks TLS/],
    [{ KEEN_ORIGIN: origin, KEEN_TLS_CERT: cert }, /one of them is not named/],
    [
      { KEEN_ORIGIN: origin, KEEN_TLS_CERT: cert, KEEN_TLS_KEY: "/nowhere/key.pem" },
      /\/nowhere\/key\.pem is not there/,
    ],
  ])("%j is refused in a sentence", (env, says) => {
    expect(() => networkOf(env)).toThrow(CannotListen);
    expect(() => networkOf(env)).toThrow(says);
    expect(() => networkOf(env)).toThrow(/Nothing was started/);
  });
});

test("the school stands before the server's name, or before localhost", () => {
  const network = networkOf({ KEEN_ORIGIN: origin, KEEN_PROXY: "loopback" });
  expect(
    ["orm.keen.school.example", "keen.school.example", "orm.localhost:4310", "orm.elsewhere.example"].map((host) =>
      slugIn(network, host),
    ),
  ).toEqual(["orm", null, "orm", null]);
});

describe("who may ask", () => {
  let port = 0;
  const app = express();
  app.use(onlyOurs(networkOf({ KEEN_ORIGIN: origin, KEEN_PROXY: "loopback" })));
  app.use((_request, response) => void response.send("in"));
  app.use(((error, _request, response, _next) => {
    response.status(error instanceof HttpProblem ? error.status : 500).send("out");
  }) as express.ErrorRequestHandler);
  const server = createServer(app);
  beforeAll(async () => {
    await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
    port = (server.address() as AddressInfo).port;
  });
  afterAll(() => void server.close());
  const ask = (method: string, headers: Record<string, string>) =>
    new Promise<number>((done, failed) => {
      request({ host: "127.0.0.1", port, method, path: "/", headers }, (response) => {
        response.resume();
        done(response.statusCode ?? 0);
      })
        .on("error", failed)
        .end();
    });
  const passed = { "x-forwarded-for": "10.0.0.7" };
  test.each([
    ["GET", { host: "keen.school.example", ...passed }, 200],
    ["GET", { host: "orm.keen.school.example", ...passed }, 200],
    ["GET", { host: "localhost" }, 200],
    // A proxy hands on whatever name was asked for: that of this machine is no way in.
    ["GET", { host: "localhost", ...passed }, 403],
    ["GET", { host: "keen.school.example.elsewhere.example", ...passed }, 403],
    ["GET", { host: "elsewhere.example" }, 403],
    ["POST", { host: "keen.school.example", origin, ...passed }, 200],
    ["POST", { host: "keen.school.example", origin: "https://elsewhere.example", ...passed }, 403],
    ["POST", { host: "keen.school.example", origin: "http://keen.school.example", ...passed }, 403],
    ["POST", { host: "keen.school.example", origin: "https://orm.keen.school.example", ...passed }, 403],
    ["POST", { host: "keen.school.example", origin: "null", ...passed }, 403],
    ["POST", { host: "keen.school.example", "sec-fetch-site": "cross-site", ...passed }, 403],
    ["POST", { host: "localhost:4310", origin: "http://localhost:4311" }, 403],
  ])("%s with %j: %i", async (method, headers, status) => {
    expect(await ask(method, headers)).toBe(status);
  });
});
