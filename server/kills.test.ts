import { type ChildProcess, spawn } from "node:child_process";
import { randomUUID as uuid } from "node:crypto";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, inject, test } from "vitest";
import {
  type AnswerOf,
  type Asking,
  addChild,
  addClass,
  addressOf,
  type Endpoint,
  getSchool,
  getSitting,
  markTaught,
  saveAnswers,
} from "#contract";
import { dice } from "#core/checks";
import { answerTo, beginOne } from "./checks/marking.ts";
import { emptyDatabase } from "./store/testing.ts";
import type { TestHouse } from "./testing.ts";
import { partOf } from "./testing-share.ts";

// The server is killed while desks mark. A desk sends a mark until it is told what became of it, as a device does.

/** As it was built, where `npm test` has done so: it starts three times as fast. */
const program = process.env.KEEN_BUILT
  ? [process.env.KEEN_BUILT]
  : ["--import", "tsx", join(import.meta.dirname, "main.ts")];

const kills = partOf(100);
const DESKS = 4;

const folder = mkdtempSync(join(tmpdir(), "keen-kills-"));
let server: ChildProcess | undefined;
afterAll(async () => {
  server?.kill("SIGKILL");
  rmSync(folder, { recursive: true, force: true });
});

async function freePort(): Promise<number> {
  const holder = createServer().listen(0, "127.0.0.1");
  await once(holder, "listening");
  const address = holder.address();
  holder.close();
  return typeof address === "object" && address ? address.port : 0;
}

async function start(port: number, url: string): Promise<void> {
  const started = spawn(process.execPath, program, {
    stdio: ["ignore", "ignore", "inherit", "ipc"],
    env: {
      ...process.env,
      PORT: String(port),
      KEEN_DATA: folder,
      DATABASE_URL: url,
      KEEN_WEB: "none",
      KEEN_LOG: "error",
    },
  });
  server = started;
  await new Promise<void>((done, failed) => {
    started.on("message", (message) => message === "ready" && done());
    started.on("exit", (code) => failed(new Error(`The server ended with ${code} before it listened`)));
  });
}

async function kill(): Promise<void> {
  const gone = server && once(server, "exit");
  server?.kill("SIGKILL");
  await gone;
}

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

test(`killed ${kills} times while ${DESKS} desks mark: no mark that was acknowledged is lost, none is there twice`, {
  // Each start is of a whole program.
  timeout: 60_000 + kills * 30_000,
}, async () => {
  const { kind, empty } = inject("database");
  const url = kind === "server" ? await emptyDatabase(empty) : "";
  const port = await freePort();
  const ask = async <E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>> => {
    const { params, query, body } = asking as { params?: unknown; query?: unknown; body?: unknown };
    const response = await fetch(`http://127.0.0.1:${port}${addressOf(endpoint, params, query)}`, {
      method: endpoint.method,
      ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${endpoint.path}: ${response.status} ${await response.text()}`);
    return endpoint.answer.parse(await response.json()) as AnswerOf<E>;
  };
  await start(port, url);
  const [classId, childId] = [uuid(), uuid()];
  const at = "2026-11-20T08:00:00.000Z";
  const orderId = (await ask(getSchool, {})).orders[0]?.id ?? "";
  await ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const taught = { id: uuid(), stepId: "s14", taughtOn: "2026-11-02", at };
  await ask(markTaught, { params: { id: classId }, body: taught });
  await ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
  const check = await beginOne({ ask } as TestHouse, childId, { scope: "all" }, at);

  let over = false;
  const acknowledged = new Set<string>();
  const made = new Set<string>();
  const again = { there: 0, tries: 0 };
  const desk = async (number: number) => {
    for (let at = number; !over; at++) {
      const mark = answerTo(
        check,
        check.items[at % check.items.length] ?? "",
        { outcome: "right" },
        { pass: 1 + (at % 20) },
      );
      made.add(mark.id);
      for (let told = false; !told; ) {
        again.tries++;
        told = await ask(saveAnswers, { body: { answers: [mark] } }).then(
          ({ fates }) => {
            expect(["kept", "there"]).toContain(fates[0]?.fate ?? "kept");
            if (fates[0]?.fate === "there") again.there++;
            return true;
          },
          () => wait(30).then(() => false),
        );
        if (over && !told) return;
      }
      acknowledged.add(mark.id);
    }
  };
  const desks = Array.from({ length: DESKS }, (_, number) => desk(number));
  const from = dice(17);
  for (let times = 0; times < kills; times++) {
    const before = acknowledged.size;
    // Always in the middle of marking, never before it has begun again.
    while (acknowledged.size < before + 5) await wait(5);
    await wait(from.pick(120));
    await kill();
    await start(port, url);
  }
  const last = acknowledged.size;
  while (acknowledged.size < last + DESKS) await wait(5);
  over = true;
  await Promise.all(desks);

  const [view] = (await ask(getSitting, { params: { id: await sittingOf() } })).checks;
  async function sittingOf(): Promise<string> {
    const response = await fetch(`http://127.0.0.1:${port}/api/today`);
    const { openSittings } = (await response.json()) as { openSittings: { id: string }[] };
    return openSittings[0]?.id ?? "";
  }
  const ids = (view?.answers ?? []).map((one) => one.id);
  expect(new Set(ids).size).toBe(ids.length);
  expect([...acknowledged].filter((id) => !ids.includes(id))).toEqual([]);
  expect(ids.filter((id) => !made.has(id))).toEqual([]);
  expect(acknowledged.size).toBeGreaterThan(kills * 5);
  // Some marks were sent again: else nothing was ever cut off.
  expect(again.tries).toBeGreaterThan(acknowledged.size);
});
