// npm run bench -- pages [runs [page …]]: what every main page costs a slow device, measured in Chromium at a quarter of this
// processor's speed. Medians; the empty page is Today of a school that no one has set up.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium } from "@playwright/test";
import { fillDemo } from "#demo";
import { freePort, type RunningServer, startServer } from "../e2e/server.ts";
import { chromium as browserHere } from "./chromium.mjs";

const SLOWER = 4;
const SETTLE_MS = 3000;
const [of = "5", ...only] = process.argv.slice(2);
const runs = Number(of);

interface Cost {
  readonly requests: number;
  readonly kB: number;
  readonly scriptKB: number;
  readonly paint: number;
  /** Longest task up to the first paint, and after it; milliseconds. */
  readonly starting: number;
  readonly after: number;
  readonly shift: number;
}

const median = (values: readonly number[]) =>
  [...values].sort((one, other) => one - other)[Math.floor(values.length / 2)] ?? 0;

async function cost(browser: Browser, address: string): Promise<Cost> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
  await context.request.post(new URL("/api/come-in", address).href, { data: { role: "lead" } });
  const page = await context.newPage();
  const cdp = await context.newCDPSession(page);
  await cdp.send("Network.enable");
  await cdp.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  let [requests, bytes] = [0, 0];
  cdp.on("Network.responseReceived", () => {
    requests++;
  });
  cdp.on("Network.loadingFinished", ({ encodedDataLength }) => {
    bytes += encodedDataLength;
  });
  await page.addInitScript(() => {
    const seen = { tasks: [] as { at: number; ms: number }[], shift: 0 };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const { startTime, duration } of list.getEntries()) seen.tasks.push({ at: startTime, ms: duration });
    }).observe({ type: "longtask", buffered: true });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
        if (!entry.hadRecentInput) seen.shift += entry.value;
    }).observe({ type: "layout-shift", buffered: true });
  });
  await page.goto(address, { waitUntil: "networkidle" });
  await page.waitForTimeout(SETTLE_MS);
  const { paint, tasks, shift, scripts } = await page.evaluate(() => {
    const { tasks: all, shift: moved } = (
      window as unknown as { seen: { tasks: { at: number; ms: number }[]; shift: number } }
    ).seen;
    const first = performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0;
    // Scripts as they are sent, without the heads of their answers.
    const scripts = (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
      .filter((entry) => /\.js$/.test(entry.name))
      .reduce((sum, entry) => sum + entry.encodedBodySize, 0);
    return { paint: first, tasks: all, shift: moved, scripts };
  });
  await context.close();
  const longest = (list: readonly { ms: number }[]) => Math.max(0, ...list.map((task) => task.ms));
  return {
    requests,
    kB: bytes / 1000,
    scriptKB: scripts / 1000,
    paint,
    starting: longest(tasks.filter((task) => task.at < paint)),
    after: longest(tasks.filter((task) => task.at >= paint)),
    shift,
  };
}

const server = async (folder: string): Promise<RunningServer> => startServer(folder, await freePort());
const folder = mkdtempSync(join(tmpdir(), "keen-bench-"));
const [filled, empty] = [await server(join(folder, "filled")), await server(join(folder, "empty"))];
const browser = await chromium.launch({
  executablePath: browserHere(),
  args: ["--no-sandbox", "--disable-gpu"],
});
try {
  await fillDemo(filled.base);
  const get = async <T>(path: string): Promise<T> => (await fetch(filled.base + path)).json() as Promise<T>;
  const { classes } = await get<{ classes: { id: string; name: string }[] }>("/api/school");
  const children = await get<{ id: string; name: string; classId: string }[]>("/api/children");
  const [session] = await get<{ id: string }[]>("/api/sessions");
  const [group] = await get<{ id: string }[]>("/api/groups");
  const kiln = classes.find((one) => one.name === "Kiln")?.id;
  const wren = children.find((one) => one.name === "Wren I.")?.id;
  const pages: readonly (readonly [string, string])[] = [
    ["empty page", `${empty.base}/`],
    ...(
      [
        ["Today", "/"],
        ["Class", `/class/${kiln}`],
        ["Child", `/child/${wren}`],
        ["Check", `/check?child=${wren}`],
        ["Gaps", "/gaps"],
        ["Groups", "/groups"],
        ["Group", `/groups/${group?.id}`],
        ["Sessions", "/sessions"],
        ["Session", `/sessions/${session?.id}`],
        ["Words", `/words?for=class:${kiln}`],
        ["Texts", `/texts?for=class:${kiln}`],
        ["Text", `/texts/the-slow-boat?for=child:${wren}`],
        ["Reading", `/texts/the-slow-boat/read?child=${wren}`],
        ["Orders", "/orders"],
        ["Settings", "/settings"],
        ["Help", "/help"],
      ] as const
    ).map(([name, path]) => [name, filled.base + path] as const),
  ];
  const cells = (values: readonly string[]) =>
    values.map((value, at) => (at === 0 ? value.padEnd(11) : value.padStart(9))).join("");
  console.log(`Chromium at a processor ${SLOWER} times slower, median of ${runs}`);
  console.log(cells(["page", "requests", "kB", "script kB", "paint ms", "start ms", "after ms", "shift"]));
  for (const [name, address] of pages) {
    if (only.length > 0 && !only.includes(name)) continue;
    const all: Cost[] = [];
    for (let run = 0; run < runs; run++) all.push(await cost(browser, address));
    const of = (pick: (one: Cost) => number, digits = 0) => median(all.map(pick)).toFixed(digits);
    console.log(
      cells([
        name,
        of((one) => one.requests),
        of((one) => one.kB),
        of((one) => one.scriptKB),
        of((one) => one.paint),
        of((one) => one.starting),
        of((one) => one.after),
        of((one) => one.shift, 3),
      ]),
    );
  }
} finally {
  await browser.close();
  await Promise.all([filled.stop(), empty.stop()]);
  rmSync(folder, { recursive: true, force: true });
}
