import type { AddressInfo } from "node:net";
import { join } from "node:path";
import pino from "pino";
import { type AnswerOf, type Asking, addressOf, type Endpoint, type Problem } from "#contract";
import { buildApp } from "./app.ts";
import { backupOf } from "./care/backup.ts";
import type { Knows } from "./frame/gate.ts";
import { jobsHere } from "./frame/jobs.ts";
import { onThisMachine } from "./frame/network.ts";
import { answerUnreadable } from "./frame/unreadable.ts";
import { type House, openHouse, type School } from "./house.ts";
import { jobTable } from "./jobs.ts";
import { openAccounts } from "./people/accounts.ts";
import { openDoor } from "./people/door.ts";
import { openEntrance } from "./people/entrance.ts";
import type { Post } from "./people/post.ts";
import { listSchools } from "./people/schools.ts";
import { triesOn } from "./people/tries.ts";
import { readShipped, type Shipped } from "./shipped.ts";
import type { OpenStore } from "./store/opened.ts";
import { openTestStore } from "./store/testing.ts";

/** A server on an empty database in memory, with a clock that the test sets, for tests only. */
export interface TestHouse {
  readonly store: OpenStore;
  readonly shipped: Shipped;
  /** The first school, as its repositories. */
  readonly school: School;
  readonly all: House;
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

let read: Shipped | undefined;
/** What ships, read once for all tests of a file. */
function shippedHere(): Shipped {
  read ??= readShipped(join(import.meta.dirname, "../data"));
  return read;
}

/** The first school of a store. */
export async function firstSchool(store: OpenStore): Promise<School> {
  const [first] = await listSchools(store.owner);
  return openHouse(store, shippedHere()).as({ schoolId: first?.id ?? "" });
}

/**
 * With `from` the server stands on that store, as it starts on one that was filled by an earlier version; with `knows` who
 * asks is another than the lead of this machine.
 */
export async function openTestHouse(
  from?: OpenStore,
  knows: (usual: Knows) => Knows = (usual) => usual,
  post?: Post,
): Promise<TestHouse> {
  const shipped = shippedHere();
  const store = from ?? (await openTestStore());
  const all = openHouse(store, shipped);
  const school = await firstSchool(store);
  await school.orders.ship();
  const logged: string[] = [];
  const log = pino({ level: "debug" }, { write: (line) => void logged.push(line) });
  const house = { now: new Date("2026-11-20T09:00:00.000Z") };
  const accounts = await openAccounts(store.accounts, "http://localhost", store.signals);
  const network = onThisMachine;
  const entrance = openEntrance({ door: openDoor(store.db), accounts, house: all, network, signals: store.signals });
  const app = buildApp({
    signals: store.signals,
    backup: backupOf(store),
    house: all,
    jobs: jobsHere(jobTable, shipped),
    accounts,
    ...(post ? { post } : {}),
    entrance: { ...entrance, ...knows(entrance) },
    network,
    openTries: triesOn(store),
    shipped,
    lookAgainMs: 50,
    now: () => house.now,
    log,
  });
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
    shipped,
    school,
    all,
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
