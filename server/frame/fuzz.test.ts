import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import * as contract from "#contract";
import { dice } from "#core/checks";
import { MarlpitLock } from "#demo";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { changed, leavesOf } from "../testing-leaves.ts";
import { partOf } from "../testing-share.ts";

/**
 * Goes past the schema: good requests of the demo school's filling with one leaf changed. Whatever the change, the server
 * says yes or no in words, and every list, page and export can still be read. `npm run test:long` sends 10,000.
 */
const RUNS = Number(process.env.KEEN_FUZZ ?? partOf(10_000));
const SEED = Number(process.env.KEEN_SEED ?? 20261125);
/** Requests of the filling that are sent as they are before any is changed. */
const FILLED = 130;

interface Sent {
  readonly endpoint: contract.Endpoint;
  readonly asking: { readonly params?: unknown; readonly query?: unknown; readonly body?: unknown };
}

let house: TestHouse;
let requests: readonly Sent[] = [];

async function send({ endpoint, asking }: Sent) {
  const response = await fetch(house.base + contract.addressOf(endpoint, asking.params, asking.query), {
    method: endpoint.method,
    ...(endpoint.method === "GET"
      ? {}
      : { headers: { "content-type": "application/json" }, body: JSON.stringify(asking.body) }),
  });
  return { status: response.status, content: (await response.json()) as { detail?: string } & Record<string, never> };
}

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T18:00:00.000Z");
  const school = await house.ask(contract.getSchool, {});
  const [order] = school.orders;
  if (!order) throw new Error("no order");
  const { lexicon, madeUp, sentences, carriers } = house.shipped;
  const texts = await house.ask(contract.listTexts, {});
  requests = new MarlpitLock("2026-11-20", order, {
    lexicon,
    madeUp,
    sentences,
    carriers,
    texts,
  }).build() as readonly Sent[];
  // Building blocks; what arrived meanwhile gets its turn.
  await new Promise((turn) => setTimeout(turn, 0));
  for (const request of requests.slice(0, FILLED)) await send(request);
  // One of each kind that comes later in the filling, so that all can be changed.
  const seen = new Set(requests.slice(0, FILLED).map((one) => one.endpoint));
  for (const request of requests)
    if (!seen.has(request.endpoint)) {
      seen.add(request.endpoint);
      await send(request);
    }
});
afterAll(() => house.close());

const odd: readonly unknown[] = [
  null,
  "",
  " ",
  "\u0000",
  "a\u0000b",
  "\ud800",
  "é".repeat(3),
  "w".repeat(250),
  "x".repeat(70_000),
  "%00",
  "b=b",
  "zq=k",
  "/ʃ/",
  "2026-11-20",
  "1999-12-31",
  "2099-12-31",
  "2100-01-01",
  "2026-02-30",
  "2026-11-20T08:00:00Z",
  `2026-11-20T08:00:00.${"0".repeat(200)}Z`,
  "1999-01-01T00:00:00.000Z",
  "2099-01-01T00:00:00.000Z",
  "9999-12-31T23:59:59.999Z",
  -1,
  0,
  1.5,
  2_147_483_647,
  2_147_483_648,
  9_007_199_254_740_991,
  1e308,
  true,
  [],
  {},
  [[]],
];

test(`${RUNS} good requests with one leaf changed: never a 500, and everything can be read afterwards`, async () => {
  const roll = dice(SEED);
  const of = <T>(list: readonly T[]): T => list[roll.pick(list.length)] as T;
  const kinds = [...new Set(requests.map((one) => one.endpoint))];
  const byEndpoint = new Map(kinds.map((kind) => [kind, requests.filter((one) => one.endpoint === kind)]));
  const ids = requests.flatMap(({ asking }) => JSON.stringify(asking).match(/[0-9a-f]{8}-[0-9a-f-]{27}/g) ?? []);
  for (let run = 0; run < RUNS; run++) {
    const request = of(byEndpoint.get(of(kinds)) ?? []);
    const whole = JSON.parse(JSON.stringify(request.asking)) as Sent["asking"];
    // Half of them under new ids, so that they are no retry of what is here.
    const body = roll.pick(2) === 0 && whole.body ? { ...(whole.body as object), id: uuid() } : whole.body;
    const path = of(leavesOf({ ...(whole.params ? { params: whole.params } : {}), body }));
    const to = of([...odd, of(ids), of(ids).toUpperCase(), uuid()]);
    const asking = changed({ ...whole, body }, path, to) as Sent["asking"];
    const { status, content } = await send({ endpoint: request.endpoint, asking });
    const what = `${request.endpoint.method} ${request.endpoint.path}, ${path.join(".")} = ${JSON.stringify(to).slice(0, 60)}`;
    expect(status, what).toBeLessThan(500);
    if (status >= 400) expect(content.detail, what).toMatch(/\.$/);
  }
  const problems = house.logged.filter((line) => line.includes("unexpected error"));
  expect(problems).toEqual([]);
  const children = await house.ask(contract.listChildren, { query: {} });
  for (const endpoint of [
    contract.getSchool,
    contract.getToday,
    contract.listGroups,
    contract.listTexts,
    contract.listPresets,
    contract.listSplits,
  ] as const)
    await house.ask(endpoint as typeof contract.getSchool, {});
  await house.ask(contract.getGaps, { query: {} });
  const sessions = await house.ask(contract.listSessions, { query: {} });
  for (const { id } of sessions) await house.ask(contract.getSession, { params: { id } });
  for (const { id } of children.slice(0, 12)) {
    await house.ask(contract.getChild, { params: { id } });
    await house.ask(contract.exportChild, { params: { id } });
    await house.ask(contract.listReadings, { params: { id } });
  }
});

test("addresses with odd ids are answered in words", async () => {
  for (const path of ["/api/children/%00", "/api/children/%E0%A4%A", "/api/sittings/x/live", "/api/faces/1/live"]) {
    const response = await fetch(house.base + path);
    expect(response.status, path).toBeLessThan(500);
    await response.body?.cancel();
  }
  const [child] = await house.ask(contract.listChildren, { query: {} });
  const upper = await house.ask(contract.getChild, { params: { id: child?.id.toUpperCase() ?? "" } });
  expect(upper.child.id).toBe(child?.id);
});
