import type { AddressInfo } from "node:net";
import { join } from "node:path";
import pino from "pino";
import { type AnswerOf, type Asking, addressOf, type Endpoint, type Problem } from "#contract";
import { shipOrders } from "../store/classes.ts";
import { type Ground, readGround } from "../store/ground.ts";
import type { OpenStore } from "../store/open.ts";
import { openTestStore } from "../store/testing.ts";
import { buildApp } from "./app.ts";
import { answerUnreadable } from "./unreadable.ts";

/** A server on an empty database in memory, with a clock that the test sets, for tests only. */
export interface TestHouse {
  readonly store: OpenStore;
  readonly ground: Ground;
  readonly base: string;
  /** Lines that were logged. */
  readonly logged: string[];
  now: Date;
  /** Asks and expects a good answer. */
  ask<E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>>;
  /** Asks and expects a problem. */
  refused<E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<Problem>;
  close(): Promise<void>;
}

/** With `from` the server stands on that store, as it starts on one that was filled by an earlier version. */
export async function openTestHouse(from?: OpenStore): Promise<TestHouse> {
  const ground = readGround(join(import.meta.dirname, "../../data"));
  const store = from ?? (await openTestStore());
  await shipOrders(store.db, ground.orders);
  const logged: string[] = [];
  const log = pino({ level: "debug" }, { write: (line) => void logged.push(line) });
  const house = { now: new Date("2026-11-20T09:00:00.000Z") };
  const app = buildApp({ db: store.db, ground, now: () => house.now, log });
  const server = app.listen(0, "127.0.0.1");
  // A test that computes for long must not find its line closed.
  server.keepAliveTimeout = 75_000;
  answerUnreadable(server);
  await new Promise((done) => server.once("listening", done));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

  const send = (endpoint: Endpoint, asking: { params?: unknown; query?: unknown; body?: unknown }) =>
    fetch(base + addressOf(endpoint, asking.params, asking.query), {
      method: endpoint.method,
      ...(asking.body === undefined
        ? {}
        : { headers: { "content-type": "application/json" }, body: JSON.stringify(asking.body) }),
    });
  return Object.assign(house, {
    store,
    ground,
    base,
    logged,
    ask: async <E extends Endpoint>(endpoint: E, asking: Asking<E>) => {
      const response = await send(endpoint, asking);
      const content = await response.json();
      if (!response.ok)
        throw new Error(`${endpoint.method} ${endpoint.path}: ${response.status} ${JSON.stringify(content)}`);
      return endpoint.answer.parse(content) as AnswerOf<E>;
    },
    refused: async <E extends Endpoint>(endpoint: E, asking: Asking<E>) => {
      const response = await send(endpoint, asking);
      const content = await response.json();
      if (response.ok) throw new Error(`${endpoint.method} ${endpoint.path} was taken`);
      if (!response.headers.get("content-type")?.startsWith("application/problem+json"))
        throw new Error("not a problem document");
      return content as Problem;
    },
    close: async () => {
      await new Promise((done) => server.close(done));
      await store.close();
    },
  });
}
