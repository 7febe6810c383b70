import type { Page } from "@playwright/test";
import { childNamed, classNamed, expect, expectAccessible, type School, test } from "./school.ts";

async function addresses(school: School): Promise<Record<string, string>> {
  const [first] = await school.get<{ id: string }[]>("/api/sessions");
  const [group] = await school.get<{ id: string }[]>("/api/groups");
  const child = await childNamed(school, "Gwen A.");
  const kiln = await classNamed(school, "Kiln");
  const inGroup = await childNamed(school, "Hari S.");
  const { checks } = await school.get<{ checks: { kind: string; sittingId: string }[] }>(
    `/api/children/${inGroup.id}`,
  );
  const paper = checks.find((check) => check.kind === "paper");
  return {
    Today: "/",
    Class: `/class/${kiln.id}`,
    "Class list": "/import",
    Child: `/child/${child.id}`,
    Check: `/check?child=${child.id}`,
    Gaps: "/gaps",
    Groups: "/groups",
    Group: `/groups/${group?.id}`,
    "Make groups": "/groups/new",
    Week: "/week",
    Timetable: "/week/timetable",
    "Hours and rooms": "/week/hours?of=adults",
    Routines: "/sessions/routines",
    Sessions: "/sessions",
    Session: `/sessions/${first?.id}`,
    Materials: `/sessions/${first?.id}/materials`,
    Teach: `/sessions/${first?.id}/teach`,
    "Teaching orders": "/orders",
    Settings: "/settings",
    "New school year": "/settings/year",
    Sheets: `/check/${paper?.sittingId}/sheets`,
    Result: `/check/${paper?.sittingId}/result`,
    Words: "/words",
    Texts: "/texts",
    Text: "/texts/the-slow-boat",
    "Write a text": "/texts/new",
    "Before reading": "/texts/the-slow-boat/prepare",
    Numbers: "/numbers",
    Help: "/help",
    "Not found": "/nowhere",
  };
}

async function settled(page: Page): Promise<void> {
  await expect(page.getByRole("status", { name: "Loading" })).toHaveCount(0);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
}

/** Where most of a day is spent; all other places take a minute and a half. */
const mainPlaces = ["Today", "Gaps", "Session"];

const looked =
  "by its address, named in the title, without an axe violation, light and dark, no wider than a tablet or a phone, and nothing under 12 px";

test(`the places that most of a day is spent in, each ${looked}`, { tag: "@main" }, async ({ page, school }) => {
  await lookAt(page, school, (place) => mainPlaces.includes(place));
});

test(`every other place ${looked}`, async ({ page, school }) => {
  test.setTimeout(300_000);
  await lookAt(page, school, (place) => !mainPlaces.includes(place));
});

async function lookAt(page: Page, school: School, wanted: (place: string) => boolean): Promise<void> {
  for (const [place, path] of Object.entries(await addresses(school))) {
    if (!wanted(place)) continue;
    await page.goto(school.base + path);
    await page.waitForLoadState("networkidle");
    await settled(page);
    await expect(page).toHaveTitle(`${place} · Keen Sapling`);
    await expectAccessible(page);
    await page.addStyleTag({ content: "* { transition: none !important; }" });
    await page.evaluate(() => document.documentElement.classList.add("dark"));
    await expectAccessible(page, ["color-contrast"]);
    await page.setViewportSize({ width: 820, height: 1180 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(820);
    await page.setViewportSize({ width: 390, height: 844 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
    await page.setViewportSize({ width: 1280, height: 800 });
    expect(await tooSmall(page), path).toEqual([]);
  }
}

/** Text on the screen that is smaller than 12 px, as it is shown. */
function tooSmall(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found = new Set<string>();
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const on = node.parentElement;
      if (!on?.checkVisibility() || !node.textContent?.trim() || on.closest(".sr-only, svg, script, style")) continue;
      if (Number.parseFloat(getComputedStyle(on).fontSize) < 11.99) found.add(node.textContent.trim());
    }
    return [...found].slice(0, 5);
  });
}

test("a larger letter size of the browser makes every page's letters larger", { tag: "@main" }, async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/class`);
  await settled(page);
  const size = () => page.evaluate(() => Number.parseFloat(getComputedStyle(document.body).fontSize));
  expect(await size()).toBe(15);
  const session = await page.context().newCDPSession(page);
  await session.send("Emulation.setDefaultFontSizeOverride" as never, { fontSize: 24 } as never).catch(async () => {
    // An older browser has no such command: what the root's size is a share of is changed instead.
    await page.addStyleTag({ content: ":root { font-size: calc(24px * 0.9375) !important; }" });
  });
  expect(await size()).toBeGreaterThan(20);
});

test("a device that is set to dark gets the dark page", async ({ page, school }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await page.goto(school.base);
  await settled(page);
  await expect(page.locator("html")).toHaveClass(/dark/);
});

test("on an upright tablet the marks of a check are in reach", { tag: "@main" }, async ({ page, school }) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  const { openSittings } = await school.get<{ openSittings: { id: string }[] }>("/api/today");
  await page.goto(`${school.base}/check/${openSittings[0]?.id}`);
  await expect(page.getByRole("button", { name: /^Right at once/ })).toBeInViewport();
  await expect(page.getByRole("button", { name: /^No answer/ })).toBeInViewport();
  await page.getByRole("button", { name: /^Right, slow/ }).click();
  await expect(page.getByText("8 of 14")).toBeVisible();
});

test("keys, the sheet of keys, the palette, back and forward", { tag: "@main" }, async ({ page, school }) => {
  await page.goto(school.base);
  await settled(page);
  await page.keyboard.press("g");
  await page.keyboard.press("a");
  await expect(page).toHaveTitle("Gaps · Keen Sapling");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("Teaching orders");
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+k");
  await page.getByPlaceholder("Find a child, a class, a word, a text, something to do").fill("gwen");
  await expect(page.getByRole("option", { name: /Gwen A\./ })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Gwen A." })).toBeVisible();
  expect(page.url()).not.toContain("Gwen");
  await page.goBack();
  await expect(page).toHaveTitle("Gaps · Keen Sapling");
  await page.goForward();
  await expect(page).toHaveTitle("Child · Keen Sapling");
});

test("the first load of Today sends at most 200 kB of compressed JavaScript", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const session = await page.context().newCDPSession(page);
  await session.send("Network.enable");
  const scripts = new Set<string>();
  let bytes = 0;
  session.on("Network.responseReceived", ({ requestId, response }) => {
    if (/\.js(\?|$)/.test(response.url)) scripts.add(requestId);
  });
  session.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) bytes += encodedDataLength;
  });
  await page.goto(school.base);
  await settled(page);
  await page.waitForLoadState("networkidle");
  expect(scripts.size).toBeGreaterThan(0);
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThanOrEqual(200_000);
});

test("Today leads on: an open check is gone on with from where it stopped", { tag: "@main" }, async ({
  page,
  school,
}) => {
  await page.goto(school.base);
  const row = page.getByRole("listitem").filter({ hasText: "Follow-up with Cleo W. and Mabel C." });
  await row.getByRole("link", { name: "Go on" }).click();
  await expect(page.getByText(/^\d+ of 14$/)).toBeVisible();
});
