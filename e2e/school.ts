import dns from "node:dns";
import { cpSync, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import AxeBuilder from "@axe-core/playwright";
import { type BrowserContext, test as base, expect, type Page } from "@playwright/test";
import {
  emptyFolder,
  filledFolder,
  freePort,
  type RunningServer,
  SCHOOLS_WITHOUT_DATA,
  schoolTaken,
  slugOfFile,
  startServer,
} from "./server.ts";

// A browser knows that every NAME.localhost is this machine; Node asks the system, which may not.
const here = (host: string) => (host.endsWith(".localhost") ? "127.0.0.1" : host);
const lookUp = dns.lookup;
const lookUpLater = dns.promises.lookup;
dns.lookup = ((host: string, ...rest: [never]) => lookUp(here(host), ...rest)) as typeof dns.lookup;
dns.promises.lookup = ((host: string, ...rest: [never]) =>
  lookUpLater(here(host), ...rest)) as typeof dns.promises.lookup;

export interface School {
  readonly base: string;
  /** GET of the API, as JSON. */
  get<T>(path: string): Promise<T>;
  /** Ends the server with -9. */
  kill(): Promise<void>;
  /** Starts it again on the same folder and port. */
  start(): Promise<void>;
}

async function openSchool(template: string): Promise<School & { close(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), "keen-e2e-"));
  cpSync(template, folder, { recursive: true });
  const port = await freePort();
  let server: RunningServer = await startServer(folder, port);
  return {
    base: server.base,
    get: async (path) => (await fetch(server.base + path)).json(),
    kill: () => server.kill(),
    start: async () => {
      server = await startServer(folder, port);
    },
    close: async () => {
      // Its folder goes: there is nothing to put in order.
      await server.kill();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A device on which a card takes its mark at once. */
export function marksWithoutWait(context: BrowserContext): Promise<unknown> {
  return context.addInitScript(() => {
    if (localStorage.getItem("keen-mark-wait") === null) localStorage.setItem("keen-mark-wait", "0");
  });
}

/** Signs a browser in at a demo school, as its page does at the press of a button. */
export async function comeInAs(
  context: BrowserContext,
  school: Pick<School, "base">,
  role: "lead" | "teacher" | "assistant" | "observer",
): Promise<void> {
  const { base } = school;
  const told = await context.request.post(`${base}/api/come-in`, { data: { role }, headers: { origin: base } });
  if (!told.ok()) throw new Error(`Not let in as ${role}: ${await told.text()}`);
}

/** A school of the server that all tests share; undefined when a test has taken it before. */
function takeSchool(slug: string): (School & { close(): Promise<void> }) | undefined {
  mkdirSync(schoolTaken, { recursive: true });
  try {
    mkdirSync(join(schoolTaken, slug));
  } catch {
    return undefined;
  }
  const base = `http://${slug}.localhost:${process.env.KEEN_E2E_PORT}`;
  const never = () =>
    Promise.reject(new Error("Other tests stand on this server: the file says test.use({ alone: true })"));
  return {
    base,
    get: async (path) => (await fetch(base + path)).json(),
    kill: never,
    start: never,
    close: async () => undefined,
  };
}

interface Kept {
  readonly file: string;
  readonly school: Awaited<ReturnType<typeof openSchool>>;
}

/**
 * `school`: the demo school, one a file. `emptySchool`: one that no one has set up yet, one a test. Both stand on the server
 * of all tests; a file whose tests end their server, with `test.use({ alone: true })`, has servers of its own. So has one
 * whose worker was begun anew after a failure: it finds nothing that a test before has left.
 */
export const test = base.extend<
  { school: School; emptySchool: School; alone: boolean },
  { schools: { kept: Kept | undefined } }
>({
  alone: [false, { option: true }],
  // Tests mark faster than people do; what a card does with a mark that comes too soon has a test of its own.
  context: async ({ context }, use) => {
    await marksWithoutWait(context);
    await use(context);
  },
  // A worker goes on to the next file; the school does not, so that what a file does to its school no other one finds.
  schools: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the pattern
    async ({}, use) => {
      const schools: { kept: Kept | undefined } = { kept: undefined };
      await use(schools);
      await schools.kept?.school.close();
    },
    { scope: "worker" },
  ],
  school: [
    async ({ schools, alone, context }, use, { file }) => {
      if (schools.kept?.file !== file) {
        await schools.kept?.school.close();
        schools.kept = undefined;
        const shared = alone ? undefined : takeSchool(slugOfFile(file));
        schools.kept = { file, school: shared ?? (await openSchool(filledFolder)) };
      }
      await comeInAs(context, schools.kept.school, "lead");
      await use(schools.kept.school);
    },
    { timeout: 60_000 },
  ],
  emptySchool: async ({ alone }, use) => {
    let school: (School & { close(): Promise<void> }) | undefined;
    for (const slug of alone ? [] : SCHOOLS_WITHOUT_DATA) school ??= takeSchool(slug);
    school ??= await openSchool(emptyFolder);
    await use(school);
    await school.close();
  },
});

export { expect };

/** The long run (`npm run test:long`): everything, where `npm test -- all` takes a part that has each thing once. */
export const isLong = Boolean(process.env.KEEN_LONG);

/** Colours of text on what is behind it that axe has found good in this process, with the letters' size and weight. */
const goodColours = new Set<string>();

/** All colours of text on the page, each once: what axe looks at letter by letter to tell their contrast. */
function coloursOn(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const behind = new Map<Element, string>();
    const of = (element: Element | null): string => {
      if (!element) return "";
      const known = behind.get(element);
      if (known !== undefined) return known;
      const { backgroundColor, backgroundImage, opacity, position } = getComputedStyle(element);
      const isWhole = !/^rgba|\//.test(backgroundColor) && backgroundImage === "none" && opacity === "1";
      // A colour that lets something through, a picture, and what is laid over the rest are told with what they stand in.
      const own = [
        backgroundColor === "rgba(0, 0, 0, 0)" ? "" : backgroundColor,
        backgroundImage === "none" ? "" : backgroundImage,
        opacity === "1" ? "" : opacity,
        position === "absolute" || position === "fixed" ? "laid over" : "",
      ];
      const told = isWhole ? backgroundColor : [...own, of(element.parentElement)].filter(Boolean).join(" ");
      behind.set(element, told);
      return told;
    };
    const found = new Set<string>();
    const read = new Set<Element>(document.querySelectorAll("input, select, textarea"));
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (node.parentElement && node.textContent?.trim()) read.add(node.parentElement);
    for (const on of read) {
      // What is for screen readers alone is one pixel.
      if (!on.checkVisibility() || on.getBoundingClientRect().width <= 1) continue;
      const { color, fontSize, fontWeight } = getComputedStyle(on);
      const isLarge = Number.parseFloat(fontSize) >= (Number(fontWeight) >= 700 ? 18.66 : 24);
      found.add(`${color} ${isLarge ? "large" : "small"} on ${of(on)}`);
    }
    return [...found];
  });
}

/** No violation of axe's rules for WCAG 2.2 AA on what is on the screen; of these rules alone when some are given. */
export async function expectAccessible(page: Page, rules?: string[]): Promise<void> {
  // No page of ours has frames: then axe need not open a page of its own for each look. No rule reads fetched styles.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"], preload: false });
  const isContrastAlone = rules?.join() === "color-contrast";
  const look = async () => {
    // What is on its way to its place or its colour is not what anyone reads.
    await page.evaluate(() =>
      Promise.all(
        document
          .getAnimations()
          .filter((one) => one.effect?.getComputedTiming().iterations !== Number.POSITIVE_INFINITY)
          .map((one) => one.finished.catch(() => undefined)),
      ),
    );
    const colours = await coloursOn(page);
    const areGood = colours.every((one) => goodColours.has(one));
    // More than half of a look is contrast, of the same few colours every time.
    if (areGood && isContrastAlone) return [];
    if (rules) axe.withRules(rules);
    else axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]);
    if (areGood) axe.disableRules("color-contrast");
    const { violations } = await axe.analyze();
    if (violations.length === 0 && (!rules || isContrastAlone)) for (const one of colours) goodColours.add(one);
    return violations;
  };
  const first = await look();
  // A note that came up while it was looked at is looked at once more, when it stands.
  const violations = first.length > 0 ? await look() : first;
  expect(
    violations.map(
      (one) =>
        `${one.id}: ${one.nodes
          .map((node) => node.target.join(" "))
          .slice(0, 3)
          .join(" | ")}`,
    ),
  ).toEqual([]);
}

export interface ClassRow {
  readonly id: string;
  readonly name: string;
}

export async function classNamed(school: School, name: string): Promise<ClassRow> {
  const { classes } = await school.get<{ classes: ClassRow[] }>("/api/school");
  const found = classes.find((one) => one.name === name);
  if (!found) throw new Error(`No class ${name}`);
  return found;
}

/** POST of the API. Throws with the server's words when it is refused. */
export function post(school: School, path: string, body: object): Promise<void> {
  return write(school, "POST", path, body);
}

/** PUT of the API, as `post`. */
export function put(school: School, path: string, body: object): Promise<void> {
  return write(school, "PUT", path, body);
}

/** PATCH of the API, as `post`. */
export function patch(school: School, path: string, body: object): Promise<void> {
  return write(school, "PATCH", path, body);
}

async function write(school: School, method: string, path: string, body: object): Promise<void> {
  const response = await fetch(school.base + path, {
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
}

/** A class that follows the first order that ships, taught up to the step. @returns its id */
export async function makeClass(school: School, name: string, stepId: string): Promise<string> {
  const { orders } = await school.get<{ orders: { id: string }[] }>("/api/school");
  const id = crypto.randomUUID();
  await post(school, "/api/classes", { id, name, yearGroup: "", orderId: orders[0]?.id });
  const at = new Date().toISOString();
  await post(school, `/api/classes/${id}/taught`, { id: crypto.randomUUID(), stepId, taughtOn: "2026-01-05", at });
  return id;
}

export async function childNamed(school: School, name: string): Promise<ClassRow> {
  const children = await school.get<ClassRow[]>("/api/children");
  const found = children.find((one) => one.name === name);
  if (!found) throw new Error(`No child ${name}`);
  return found;
}

/** How many pages a print of what is on the screen takes, and whether they lie wide. */
export async function printed(page: Page): Promise<{ pages: number; wide: boolean }> {
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  const boxes = [...pdf.matchAll(/\/MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/g)];
  return {
    pages: [...pdf.matchAll(/\/Type\s*\/Page\b(?!s)/g)].length,
    wide: boxes.length > 0 && boxes.every((box) => Number(box[1]) > Number(box[2])),
  };
}
