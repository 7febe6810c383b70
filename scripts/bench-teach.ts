// npm run bench -- teach [marks]: a session that is taught on a device at a quarter of this processor's speed: from the key of a mark
// to the frame that shows it, and to the children's screen on the same machine; the 50th and the 95th of a hundred.
import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { fillDemo } from "#demo";
import { freePort, startServer } from "../e2e/server.ts";
import { chromium as browserHere } from "./chromium.mjs";

const SLOWER = 4;
const [of = "100"] = process.argv.slice(2);
const marks = Number(of);
const folder = mkdtempSync(join(tmpdir(), "keen-bench-"));
const server = await startServer(folder, await freePort());
const browser = await chromium.launch({ executablePath: browserHere(), args: ["--no-sandbox", "--disable-gpu"] });
/** The value below which so many of a hundred lie, in milliseconds. */
const of100 = (values: readonly number[], share: number) =>
  (values.toSorted((one, other) => one - other)[Math.ceil((values.length * share) / 100) - 1] ?? 0).toFixed(0);

try {
  await fillDemo(server.base);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block" });
  // What runs in the page was named by the compiler that reads this file.
  await context.addInitScript({ content: "globalThis.__name = (one) => one;" });
  await context.request.post(`${server.base}/api/come-in`, { data: { role: "lead" } });
  const [group] = (await (await context.request.get(`${server.base}/api/groups`)).json()) as { id: string }[];
  const { today } = (await (await context.request.get(`${server.base}/api/school`)).json()) as { today: string };
  const face = await context.newPage();
  await face.goto(`${server.base}/face`);
  await face.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { seen });
    new MutationObserver(() => seen.push(performance.timeOrigin + performance.now())).observe(document.body, {
      ...{ childList: true, subtree: true, characterData: true },
    });
  });
  const desk = await context.newPage();
  const cdp = await context.newCDPSession(desk);
  await cdp.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  const [painted, followed]: [number[], number[]] = [[], []];
  let last = true;
  while (painted.length < marks) {
    if (last) {
      const id = randomUUID();
      const data = { id, groupId: group?.id, heldOn: today, target: null, routine: "reading", seed: painted.length };
      await context.request.post(`${server.base}/api/sessions`, { data, headers: { origin: server.base } });
      await desk.goto(`${server.base}/sessions/${id}/teach`);
      await desk.getByRole("button", { name: "Begin" }).click();
    }
    const done = await desk.evaluate(async () => {
      const place = () => document.querySelector("section[aria-label=Now]")?.textContent;
      const frame = () => new Promise<number>((frame) => requestAnimationFrame(() => frame(performance.now())));
      const card = () => document.querySelector("section[aria-label=Now] [data-testid=card]")?.textContent;
      const times: { at: number; ms: number; shows: boolean }[] = [];
      while (document.querySelector("section[aria-label=Now] [data-testid=card]")) {
        const [before, shown] = [place(), card()];
        const from = performance.now();
        dispatchEvent(new KeyboardEvent("keydown", { key: "1", bubbles: true }));
        while (place() === before && performance.now() - from < 2000) await frame();
        // A message comes right behind the frame that is drawn now.
        const drawn = await new Promise<number>((done) => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => done(performance.now());
          port2.postMessage(null);
        });
        times.push({
          at: performance.timeOrigin + from,
          ms: drawn - from,
          shows: card() !== undefined && card() !== shown,
        });
        await new Promise((rest) => setTimeout(rest, 250));
      }
      return times;
    });
    const seen = await face.evaluate(() => (window as unknown as { seen: number[] }).seen);
    painted.push(...done.map(({ ms }) => ms));
    // Where the next item is another and is shown.
    for (const { at, shows } of done) {
      const when = shows ? seen.find((one) => one > at) : undefined;
      if (when !== undefined) followed.push(when - at);
    }
    const parts = desk.getByRole("list", { name: "Parts" }).getByRole("button");
    last = (await parts.last().getAttribute("aria-current")) === "step";
    await desk.keyboard.press("ArrowDown");
    await desk.waitForTimeout(300);
  }
  console.log(`Chromium at a processor ${SLOWER} times slower, ${painted.length} marks`);
  console.log(`a mark is painted after ${of100(painted, 50)} ms (95 of 100: ${of100(painted, 95)} ms)`);
  console.log(`the children's screen follows after ${of100(followed, 50)} ms (95 of 100: ${of100(followed, 95)} ms)`);
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
