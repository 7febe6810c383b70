import { childNamed, expect, test } from "./school.ts";

/** The keyboard alone, and what is said to those who listen. */

test("focus comes back to what opened a dialog, goes on when a child is taken out, and to the heading of a new page", {
  tag: "@main",
}, async ({ page, school }) => {
  await page.goto(`${school.base}/groups`);
  await page.getByRole("link", { name: "Open", exact: true }).first().focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1 })).toBeFocused();
  await expect(page.locator("[aria-live=polite]", { hasText: "Group" })).toHaveCount(1);
  const plan = page.getByRole("button", { name: "Plan a session" });
  await plan.focus();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(plan).toBeFocused();
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(plan).toBeFocused();
  const out = page.getByRole("button", { name: /^Take .* out$/ });
  const second = await out.nth(1).getAttribute("aria-label");
  await out.first().focus();
  await page.keyboard.press("Enter");
  await expect(out.first()).toHaveAttribute("aria-label", second ?? "");
  await expect(out.first()).toBeFocused();
  await page.getByRole("button", { name: "Undo" }).click();
});

test("moving a child goes on to the next, and a drag speaks of names", async ({ page, school }) => {
  await page.goto(`${school.base}/groups/new`);
  const places = page.getByRole("combobox", { name: /^Group of / });
  await expect(places.nth(1)).toBeVisible();
  const next = await places.nth(1).getAttribute("aria-label");
  await places.first().selectOption({ label: "no group" });
  await expect(page.getByRole("combobox", { name: next ?? "", exact: true })).toBeFocused();
  const handle = page.getByRole("button", { name: /^Drag / }).first();
  const name = ((await handle.getAttribute("aria-label")) ?? "").slice("Drag ".length);
  await handle.focus();
  await page.keyboard.press("Space");
  await expect(
    page.getByText(new RegExp(`(Picked up|^)\\s*${name.replace(".", "\\.")}( is over|\\.)`)),
  ).toBeAttached();
  await page.keyboard.press("Escape");
  await expect(page.getByText(`${name} is where it was.`)).toBeAttached();
});

test("cells of the gap map have names, the active one exists, and a child's link does not reload", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/gaps`);
  const grid = page.getByRole("grid");
  await grid.focus();
  await page.keyboard.press("End");
  for (let times = 0; times < 4; times++) await page.keyboard.press("PageDown");
  const active = async () => (await grid.getAttribute("aria-activedescendant")) ?? "";
  await expect(page.locator(`#${await active()}`)).toHaveAttribute(
    "aria-label",
    /^.+, \S+ \/.+\/: (gap|secure|unsteady|not sure yet|not checked|not taught)$/,
  );
  await grid.evaluate((frame) => frame.scrollTo(0, 0));
  await expect(page.locator(`#${await active()}`)).toHaveCount(1);
  await page.evaluate(() => Object.assign(window, { stays: true }));
  const link = grid.getByRole("link").first();
  await link.focus();
  await page.keyboard.press("Enter");
  await expect(page).toHaveTitle("Child · Keen Sapling");
  expect(await page.evaluate(() => "stays" in window)).toBe(true);
});

test("letters as keys can need Alt or be switched off, and the list of keys says so in words", async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Gwen A.");
  await page.goto(`${school.base}/settings`);
  await page.getByLabel("Alt and a letter").check();
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByRole("grid")).toBeVisible();
  await page.keyboard.press("g");
  await page.keyboard.press("w");
  await expect(page).toHaveTitle("Gaps · Keen Sapling");
  await page.keyboard.press("?");
  const keys = page.getByRole("dialog", { name: "Keys" });
  await expect(keys).toContainText("arrow keys");
  await expect(keys).toContainText("Alt G, Alt W");
  await expect(keys).not.toContainText("ArrowRight");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+g");
  await page.keyboard.press("Alt+w");
  await expect(page).toHaveTitle("Words · Keen Sapling");
  await page.evaluate(() => localStorage.setItem("keen-letter-keys", "off"));
  await page.goto(`${school.base}/child/${child.id}`);
  await expect(page.getByRole("heading", { name: "Gwen A." })).toBeVisible();
  for (const key of ["g", "w", "Alt+g", "Alt+w"]) await page.keyboard.press(key);
  await expect(page).toHaveTitle("Child · Keen Sapling");
});

test("the palette finds a class, a session, a plan, a word and things to do", async ({ page, school }) => {
  await page.goto(school.base);
  await expect(page.getByRole("heading", { name: "Today" })).toBeVisible();
  const find = async (typed: string, option: RegExp | string) => {
    await page.keyboard.press("Control+k");
    await page.getByRole("combobox", { name: "Find a child, a class" }).fill(typed);
    await page.getByRole("option", { name: option }).first().click();
  };
  await find("kiln", /^Kiln/);
  await expect(page.getByRole("heading", { name: "Kiln" })).toBeVisible();
  await find("add a class", "Add a class");
  await expect(page.getByRole("dialog", { name: "Add a class" })).toBeVisible();
  await page.keyboard.press("Escape");
  await find("train", "Look at train");
  await expect(page.getByLabel("A word or a text")).toHaveValue("train");
  await find("first look", /^First look/);
  await expect(page).toHaveURL(/plan=/);
  await find("plan a session", /^Plan a session for/);
  await expect(page.getByRole("dialog", { name: "Plan a session" })).toBeVisible();
  await page.keyboard.press("Escape");
  await find("dark", "Dark");
  await expect(page.locator("html")).toHaveClass(/dark/);
});

test("a child's link and the save bar never hide what has the focus", async ({ page, school }) => {
  await page.setViewportSize({ width: 820, height: 700 });
  await page.goto(`${school.base}/groups/new`);
  const places = page.getByRole("combobox", { name: /^Group of / });
  await expect(places.first()).toBeVisible();
  const bar = page.getByRole("button", { name: "Save these groups" });
  for (let at = 0; at < (await places.count()); at += 3) {
    await places.nth(at).focus();
    const [field, foot] = [await places.nth(at).boundingBox(), await bar.boundingBox()];
    expect((field?.y ?? 0) + (field?.height ?? 0)).toBeLessThanOrEqual((foot?.y ?? 0) + 1);
  }
});
