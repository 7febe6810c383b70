import { appendFileSync, cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import type { Page } from "@playwright/test";
import { asked, part, sit } from "./checking.ts";
import { comeInAs, expect, expectAccessible, test } from "./school.ts";
import { filledFolder, freePort, startServer } from "./server.ts";

// The server is ended in the middle of it.
test.use({ alone: true });

test.use({ serviceWorkers: "allow" });

const main: readonly [string, string][] = [
  ["/", "Waiting for you"],
  ["/class", "Last checked"],
  ["/check", "Begin from a plan"],
  ["/gaps", "What the marks mean"],
  ["/groups", "Plan a session"],
  ["/sessions", "To come"],
  ["/words", "A word or a text"],
  ["/texts", "Every word can be read"],
  ["/orders", "The alphabet first"],
  ["/settings", "Time zone"],
  ["/help", "Without a connection"],
];

/** Whether the device has kept what the server said under this address. */
function isKept(page: Page, address: string): Promise<boolean> {
  return page.evaluate(
    (key) =>
      new Promise<boolean>((done) => {
        const open = indexedDB.open("keen-sapling");
        open.onsuccess = () => {
          const one = open.result.transaction("pages").objectStore("pages").count(key);
          one.onsuccess = () => {
            open.result.close();
            done(one.result === 1);
          };
        };
      }),
    address,
  );
}

/** Waits until the whole application lies on the device. */
async function installed(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    while (!navigator.serviceWorker.controller) await new Promise((done) => setTimeout(done, 50));
  });
}

test("it can be installed, and without a connection every main page opens and says how old what it shows is", async ({
  page,
  school,
}) => {
  test.setTimeout(120_000);
  await page.goto(school.base);
  const manifest = await page.locator("link[rel=manifest]").getAttribute("href");
  const { icons, start_url } = await (await fetch(`${school.base}${manifest}`)).json();
  expect(start_url).toBe("/");
  for (const { src, sizes } of icons) {
    const png = Buffer.from(await (await fetch(`${school.base}${src}`)).arrayBuffer());
    // Width and height stand at the head of a PNG.
    expect(`${png.readUInt32BE(16)}x${png.readUInt32BE(20)}`, src).toBe(sizes);
  }
  await installed(page);
  const there = (words: string) =>
    page
      .getByText(words)
      .or(page.getByLabel(words))
      .or(page.getByRole("button", { name: words }))
      .first();
  const [child] = await school.get<{ id: string; name: string }[]>("/api/children");
  const all = main.map(([path, words]): [string, string] => [
    path === "/check" ? `/check?child=${child?.id}` : path,
    words,
  ]);
  for (const [path, words] of all) {
    await page.goto(`${school.base}${path}`);
    await expect(there(words), path).toBeVisible();
    await expect(page.getByText("No connection.", { exact: false })).toHaveCount(0);
    if (path === "/texts") await expect.poll(() => isKept(page, "/api/lexicon")).toBe(true);
  }
  await school.kill();
  for (const [path, words] of all) {
    await page.goto(`${school.base}${path}`);
    await expect(there(words), path).toBeVisible();
    if (path !== "/help")
      await expect(page.getByText(/^No connection\. What stands here is of today, \d\d:\d\d\.$/)).toBeVisible();
  }
  await page.goto(school.base);
  await expect(there("Waiting for you")).toBeVisible();
  await expectAccessible(page);
  await school.start();
  await expect(page.getByText("No connection.", { exact: false })).toHaveCount(0);
});

test("a newer application waits until no check is open on the device, then takes over by itself", async ({
  browser,
}) => {
  // It opens eight pages, two of them to install the whole application.
  test.setTimeout(150_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-e2e-newer-"));
  const [data, web] = [join(folder, "data"), join(folder, "web")];
  cpSync(filledFolder, data, { recursive: true });
  cpSync(resolve(import.meta.dirname, "..", "dist"), web, { recursive: true });
  const server = await startServer(data, await freePort(), { web });
  const context = await browser.newContext({ serviceWorkers: "allow" });
  await comeInAs(context, server, "lead");
  try {
    const page = await context.newPage();
    const school = { base: server.base, get: async (path: string) => (await fetch(server.base + path)).json() };
    const { id } = await sit(
      school as never,
      ["Rosa M."],
      [part("card", { scope: "picked", picked: ["b=b", "d=d"] })],
    );
    await page.goto(server.base);
    await installed(page);
    await page.goto(`${server.base}/check/${id}`);
    await asked(page);
    const other = await context.newPage();
    await other.goto(`${server.base}/groups`);

    appendFileSync(join(web, "sw.js"), "\n// newer\n");
    const waits = () =>
      other.evaluate(async () => {
        const registration = await navigator.serviceWorker.getRegistration();
        await registration?.update();
        return Boolean(registration?.waiting);
      });
    await expect.poll(waits).toBe(true);
    // Neither another tab nor a reload of the desk takes the old one away under the check.
    await other.getByRole("link", { name: "Gaps", exact: true }).click();
    await expect(other).toHaveTitle(/^Gaps/);
    // What a tab still asks of the older application when it is closed keeps that one at work for minutes.
    await expect(other.getByRole("grid")).toBeVisible();
    await other.evaluate(() => document.fonts.ready.then(() => undefined));
    await page.reload();
    await asked(page);
    expect(await waits()).toBe(true);

    await other.close();
    // At this page, or, where the browser finds that the older one still has work, once its last tab is closed.
    await page.evaluate(() => Object.assign(window, { older: true }));
    await page.getByRole("link", { name: "Groups", exact: true }).click();
    await expect(page.getByRole("heading", { level: 1, name: "Groups" })).toBeVisible();
    const isOlder = () => page.evaluate(() => "older" in window).catch(() => true);
    const tookOver = await expect
      .poll(isOlder, { timeout: 8000 })
      .toBe(false)
      .then(
        () => true,
        () => false,
      );
    if (!tookOver) await page.close();
    const after = tookOver ? page : await context.newPage();
    if (!tookOver) await after.goto(`${server.base}/groups`);
    await expect(after.getByRole("heading", { level: 1, name: "Groups" })).toBeVisible();
    const waiting = () =>
      after
        .evaluate(async () => Boolean((await navigator.serviceWorker.getRegistration())?.waiting))
        .catch(() => true);
    await expect.poll(waiting).toBe(false);
  } finally {
    await context.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
