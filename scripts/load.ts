// npm run load [desks] [seconds]: what the server of one school carries. Desks mark once a second and read as a desk
// does; then the two single things that hold everyone up. Plain fetch to this machine only, on a folder of its own that
// is removed; at most 60 desks and 300 seconds.
import { randomUUID } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import * as contract from "#contract";
import { type AnswerOf, type Asking, addressOf, type Endpoint } from "#contract";
import { sectionOf } from "#core/checks";
import { dayAt, inCheck } from "#core/ledger";
import { fillDemo } from "#demo";
import { freePort, type RunningServer, startServer } from "../e2e/server.ts";

const [desks = 40, seconds = 60] = process.argv.slice(2).map(Number);
if (!(desks >= 1 && desks <= 60 && seconds >= 5 && seconds <= 300)) {
  console.error("npm run load [desks, 1 to 60] [seconds, 5 to 300]");
  process.exit(1);
}

const folder = mkdtempSync(join(tmpdir(), "keen-load-"));
let server: RunningServer = await startServer(folder, await freePort());
const port = Number(new URL(server.base).port);

async function ask<E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>> {
  const { params, query, body } = asking as { params?: unknown; query?: unknown; body?: unknown };
  const response = await fetch(server.base + addressOf(endpoint, params, query), {
    method: endpoint.method,
    ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
  });
  const content = await response.json();
  if (!response.ok) throw new Error(`${endpoint.method} ${endpoint.path}: ${JSON.stringify(content)}`);
  return content as AnswerOf<E>;
}

/** Milliseconds of the processor that the server has used; null where the system does not say. */
function processorMs(): number | null {
  try {
    const fields = readFileSync(`/proc/${server.pid}/stat`, "utf8").split(") ")[1]?.split(" ") ?? [];
    // User and system time, in hundredths of a second.
    return (Number(fields[11]) + Number(fields[12])) * 10;
  } catch {
    return null;
  }
}

async function timed<T>(run: () => Promise<T>): Promise<{ ms: number; value: T }> {
  const began = performance.now();
  const value = await run();
  return { ms: performance.now() - began, value };
}

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
const share = (values: readonly number[], part: number) =>
  [...values].sort((one, other) => one - other)[Math.min(values.length - 1, Math.floor(values.length * part))] ?? 0;
const row = (what: string, ...cells: (string | number)[]) => console.log(`| ${[what, ...cells].join(" | ")} |`);
const whole = (ms: number) => Math.round(ms);

type Sat = {
  readonly id: string;
  readonly childId: string;
  readonly check: AnswerOf<typeof contract.getSitting>["checks"][number];
};

async function sit(childId: string): Promise<Sat> {
  const id = randomUUID();
  const sections = [{ ...sectionOf("card", { scope: "all", most: 60 }), picked: [] }] as never;
  const sitting = await ask(contract.startSitting, {
    body: {
      id,
      name: "Load",
      sections,
      children: [{ childId, seed: 7, checkIds: [randomUUID()] }],
      startedAt: new Date().toISOString(),
    },
  });
  const [check] = sitting.checks;
  if (!check) throw new Error("nothing to ask");
  return { id, childId, check };
}

const markOf = ({ childId, check }: Sat, at: number, markedAt: string) => ({
  id: randomUUID(),
  childId,
  markedAt,
  day: dayAt("Europe/London", markedAt),
  markedBy: "Load",
  ...inCheck("card", check.id),
  item: check.items[at % check.items.length] ?? "b=b",
  ms: 900,
  pass: 1,
  tags: [],
  outcome: at % 5 === 0 ? ("none" as const) : ("right" as const),
});

/** One desk: a mark a second; every fourth second it reads its sitting, every tenth the map, as two screens beside it do. */
async function desk(sat: Sat, until: number, times: { mark: number[]; read: number[] }): Promise<void> {
  await wait(Math.random() * 1000);
  for (let at = 0; Date.now() < until; at++) {
    const began = Date.now();
    const answers = [markOf(sat, at, new Date().toISOString())];
    times.mark.push((await timed(() => ask(contract.saveAnswers, { body: { answers } }))).ms);
    if (at % 4 === 3) times.read.push((await timed(() => ask(contract.getSitting, { params: { id: sat.id } }))).ms);
    if (at % 10 === 9) times.read.push((await timed(() => ask(contract.getGaps, { query: {} }))).ms);
    await wait(Math.max(0, 1000 - (Date.now() - began)));
  }
}

try {
  await fillDemo(server.base);
  const children = await ask(contract.listChildren, {});
  const sats: Sat[] = [];
  for (let at = 0; at < desks; at++) sats.push(await sit(children[at % children.length]?.id ?? ""));

  console.log(`\nOn this machine, ${desks} desks for ${seconds} seconds, the demo school on the embedded database\n`);
  row("what", "number", "median ms", "99% ms", "processor ms each");
  row("---", "--:", "--:", "--:", "--:");
  const alone: number[] = [];
  const cpuBefore = processorMs();
  for (let at = 0; at < 200; at++) {
    const [sat] = sats;
    if (!sat) break;
    const answers = [markOf(sat, at, new Date().toISOString())];
    alone.push((await timed(() => ask(contract.saveAnswers, { body: { answers } }))).ms);
  }
  const cpuAfter = processorMs();
  const each = cpuBefore === null || cpuAfter === null ? "–" : ((cpuAfter - cpuBefore) / alone.length).toFixed(1);
  row("a mark, no one else there", alone.length, whole(share(alone, 0.5)), whole(share(alone, 0.99)), each);

  // All desks at once, and no reads: what comes together goes into the ledger together.
  const crowd: number[] = [];
  const crowdBefore = processorMs();
  for (let round = 0; round < 10; round++) {
    const sent = sats.map((sat) => [markOf(sat, round, new Date().toISOString())]);
    const took = await Promise.all(
      sent.map((answers) => timed(() => ask(contract.saveAnswers, { body: { answers } }))),
    );
    crowd.push(...took.map((one) => one.ms));
  }
  const crowdAfter = processorMs();
  const ofCrowd =
    crowdBefore === null || crowdAfter === null ? "–" : ((crowdAfter - crowdBefore) / crowd.length).toFixed(1);
  row(
    `a mark, ${desks} desks in the same moment`,
    crowd.length,
    whole(share(crowd, 0.5)),
    whole(share(crowd, 0.99)),
    ofCrowd,
  );

  const times = { mark: [] as number[], read: [] as number[] };
  const [before, until] = [processorMs(), Date.now() + seconds * 1000];
  await Promise.all(sats.map((sat) => desk(sat, until, times)));
  const after = processorMs();
  const all = times.mark.length + times.read.length;
  const busy = before === null || after === null ? "–" : ((after - before) / all).toFixed(1);
  row(
    `a mark, ${desks} desks`,
    times.mark.length,
    whole(share(times.mark, 0.5)),
    whole(share(times.mark, 0.99)),
    busy,
  );
  row(
    `a read, ${desks} desks`,
    times.read.length,
    whole(share(times.read, 0.5)),
    whole(share(times.read, 0.99)),
    busy,
  );

  const sections = [
    { ...sectionOf("card", { scope: "all", stopAfter: 6 }), picked: [] },
    { ...sectionOf("words", { most: 4 }), picked: [] },
  ] as never;
  // A class of 60: the demo school has fewer children than that, so some come in.
  const classId = children[0]?.classId ?? "";
  const more = Array.from({ length: Math.max(0, contract.MOST_CHILDREN - children.length) }, (_, at) => ({
    id: randomUUID(),
    classId,
    name: `More ${at}`,
    note: "",
  }));
  if (more.length > 0) await ask(contract.importChildren, { body: { children: more } });
  const ids = [...children, ...more].slice(0, contract.MOST_CHILDREN).map((child) => child.id);
  const plans = {
    "planning a check for 60 children": () =>
      ask(contract.previewSitting, { body: { childIds: ids, sections } }).then(() => undefined),
    "beginning it": () =>
      ask(contract.startSitting, {
        body: {
          id: randomUUID(),
          name: "Load",
          sections,
          children: ids.map((childId, seed) => ({ childId, seed, checkIds: [randomUUID(), randomUUID()] })),
          startedAt: new Date().toISOString(),
        },
      }).then(() => undefined),
  };
  for (const [name, plan] of Object.entries(plans)) {
    let planning = true;
    const began = performance.now();
    const planned = plan().finally(() => {
      planning = false;
    });
    const waits: number[] = [];
    while (planning) waits.push((await timed(() => ask(contract.listPresets, {}))).ms);
    await planned;
    row(name, 1, whole(performance.now() - began), "", "");
    row("another request meanwhile", waits.length, whole(share(waits, 0.5)), `longest ${whole(share(waits, 1))}`, "");
  }

  const many = 100_000;
  const [sat] = sats;
  if (sat) {
    const start = Date.parse("2026-09-01T08:00:00Z");
    for (let from = 0; from < many; from += contract.MOST_ANSWERS) {
      const answers = Array.from({ length: contract.MOST_ANSWERS }, (_, at) => {
        const one = sats[(from + at) % sats.length] ?? sat;
        return markOf(one, from + at, new Date(start + (from + at) * 60_000).toISOString());
      });
      await ask(contract.saveAnswers, { body: { answers } });
    }
  }
  await server.stop();
  server = await startServer(folder, port);
  const first = await timed(() => ask(contract.getGaps, { query: {} }));
  row("the map with 100,000 answers, first after a start", 1, whole(first.ms), "", "");
  const second = await timed(() => ask(contract.getGaps, { query: {} }));
  row("the map with 100,000 answers, again", 1, whole(second.ms), "", "");
} finally {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
