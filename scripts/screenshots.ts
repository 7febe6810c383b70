// npm run screenshots: the pictures of docs/screenshots, made anew from the demo school, all of one day.
// `npm run screenshots -- 820x1180 FOLDER [name …]` takes them in another size into another folder.
import { randomUUID } from "node:crypto";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { chromium, type Page } from "@playwright/test";
import * as contract from "#contract";
import { type AnswerOf, type Asking, addressOf, type Endpoint } from "#contract";
import { sectionOf } from "#core/checks";
import { fillDemo } from "#demo";
import { freePort, startServer } from "../e2e/server.ts";
import { chromium as browserHere } from "./chromium.mjs";

const [size = "1280x800", to = "docs/screenshots", ...only] = process.argv.slice(2);
const [width = 1280, height = 800] = size.split("x").map(Number);
const folder = mkdtempSync(join(tmpdir(), "keen-screenshots-"));
const into = resolve(to);
mkdirSync(into, { recursive: true });

const server = await startServer(folder, await freePort());
const browser = await chromium.launch({
  executablePath: browserHere(),
  args: ["--no-sandbox", "--disable-gpu"],
});

/** Asks the server by the contract. */
async function ask<E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>> {
  const { params, query, body } = asking as { params?: unknown; query?: unknown; body?: unknown };
  const response = await fetch(server.base + addressOf(endpoint, params, query), {
    method: endpoint.method,
    ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
  });
  const content = await response.json();
  if (!response.ok) throw new Error(`${endpoint.method} ${endpoint.path}: ${JSON.stringify(content)}`);
  return endpoint.answer.parse(content) as AnswerOf<E>;
}

/** One picture: where it is, and what is done there before it is taken. */
interface Picture {
  readonly name: string;
  readonly path: () => Promise<string> | string;
  readonly before?: (page: Page) => Promise<unknown>;
  readonly phone?: boolean;
}

try {
  await fillDemo(server.base);
  const { classes } = await ask(contract.getSchool, {});
  const children = await ask(contract.listChildren, {});
  const classNamed = (name: string) => classes.find((one) => one.name === name)?.id ?? "";
  const child = (name: string) => children.find((one) => one.name === name)?.id ?? "";
  const kiln = classNamed("Kiln");
  const sessions = await ask(contract.listSessions, { query: {} });
  const planned = sessions.find((one) => one.state === "planned")?.id ?? "";

  const sit = async (names: readonly string[], name: string, kind: "card") => {
    const id = randomUUID();
    const sections = [{ ...sectionOf(kind, { most: 12 }), picked: [] }] as never;
    await ask(contract.startSitting, {
      body: {
        id,
        name,
        sections,
        children: names.map((one, at) => ({ childId: child(one), seed: at + 3, checkIds: [randomUUID()] })),
        startedAt: new Date().toISOString(),
      },
    });
    return `/check/${id}`;
  };
  const six = ["Alba T.", "Bram O.", "Dario F.", "Edda L.", "Fitz R.", "Gwen A."];

  const pictures: readonly Picture[] = [
    { name: "today", path: () => "/" },
    { name: "class", path: () => `/class/${kiln}` },
    { name: "plan", path: () => `/check?child=${child("Alba T.")}&child=${child("Bram O.")}` },
    {
      name: "check",
      path: () => sit(six, "Spelling cards", "card"),
      before: async (page) => {
        for (const key of ["1", "2", "1", "5"]) {
          await page.waitForTimeout(700);
          await page.keyboard.press(key);
        }
        await page.waitForTimeout(700);
      },
    },
    {
      name: "result",
      path: async () => {
        const { checks } = await ask(contract.getChild, { params: { id: child("Edda L.") } });
        const ended = checks.find((one) => one.endedAt !== null && one.kind === "card");
        return `/check/${ended?.sittingId}/result?child=${child("Edda L.")}`;
      },
    },
    { name: "gaps", path: () => `/gaps?class=${kiln}` },
    {
      name: "groups",
      path: () => `/groups/new?class=${kiln}`,
      before: async (page) => {
        const propose = page.getByRole("button", { name: /^Propose/ }).first();
        if (await propose.isVisible()) await propose.click();
        await page.waitForTimeout(6000);
      },
    },
    {
      name: "group",
      path: async () => `/groups/${(await ask(contract.getSession, { params: { id: planned } })).groupId}`,
      before: async (page) => {
        await page.locator("[data-day]").nth(2).click();
        await page.mouse.move(640, 40);
      },
    },
    { name: "session", path: () => `/sessions/${planned}` },
    {
      name: "shared",
      phone: true,
      path: async () => {
        const endsOn = new Date(Date.now() + 7 * 86_400_000).toISOString().replace(/T.*/, "");
        return `/shared/${(await ask(contract.shareSession, { params: { id: planned }, body: { endsOn } })).token}`;
      },
    },
    {
      name: "words",
      path: () => `/words?tool=look&for=class:${kiln}`,
      before: async (page) => {
        await page
          .getByLabel("A word or a text")
          .fill("The narrowboat came round the bend. Ducks swam off into the reeds, and the lock keeper waved.");
        await page.waitForTimeout(1500);
      },
    },
    { name: "people", path: () => "/settings/people" },
    { name: "texts", path: () => `/texts?for=class:${kiln}` },
    { name: "text", path: () => `/texts/the-fish-shop-cat?for=child:${child("Gwen A.")}` },
    {
      name: "reading",
      path: async () => {
        const [newest] = await ask(contract.listReadings, { params: { id: child("Wren I.") } });
        return `/texts/${newest?.textId}/read?child=${child("Wren I.")}&reading=${newest?.id}`;
      },
    },
    {
      name: "week",
      path: () => "/week/timetable",
      before: async (page) => {
        await page.getByRole("button", { name: "Make it anew" }).click();
        await page.waitForTimeout(4000);
        await page.getByRole("button", { name: "Kingfishers", exact: true }).first().click();
      },
    },
    { name: "child", path: () => `/child/${child("Gwen A.")}` },
    {
      name: "teach",
      path: () => `/sessions/${planned}/teach`,
      before: async (page) => {
        await page.getByRole("button", { name: "Begin" }).click();
        await page
          .getByRole("list", { name: "Parts" })
          .getByRole("button", { name: /^Read words/ })
          .click();
        for (const key of ["1", "1", "3"]) await page.keyboard.press(key);
      },
    },
    {
      name: "board",
      path: () => `/sessions/${planned}/teach`,
      // What children see of a chain, in a second window.
      before: async (page) => {
        const { id, plan, version } = (await (
          await page.request.get(`${server.base}/api/sessions/${planned}`)
        ).json()) as { id: string; plan: object; version: number };
        const parts = [{ kind: "chain", items: ["rain", "train", "tray"], minutes: 3, how: "Change one sound." }];
        await page.request.patch(`${server.base}/api/sessions/${id}`, {
          headers: { origin: server.base },
          data: { version, plan: { ...plan, parts } },
        });
        await page.goto(`${server.base}/sessions/${planned}/teach`);
        await page.getByRole("button", { name: "Begin" }).click();
        await page.keyboard.press("1");
        await page.getByRole("button", { name: "What the children see" }).click();
        await page.getByRole("button", { name: "Show it on this screen" }).click();
      },
    },
  ];
  for (const { name, path, before, phone } of pictures) {
    if (only.length > 0 && !only.includes(name)) continue;
    const viewport = phone ? { width: 390, height: 844 } : { width, height };
    const context = await browser.newContext({ viewport, locale: "en-GB", serviceWorkers: "block" });
    await context.request.post(`${server.base}/api/come-in`, { data: { role: "lead" } });
    const page = await context.newPage();
    await page.goto(server.base + (await path()), { waitUntil: "networkidle" });
    await page.getByRole("status", { name: "Loading" }).first().waitFor({ state: "detached" });
    await before?.(page);
    await page.waitForTimeout(600);
    await page.screenshot({ path: join(into, `${name}.png`) });
    await context.close();
    console.log(`${name}.png`);
  }
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
