import { expect, expectAccessible, test } from "./school.ts";

test("a school copies an order, edits it, and what is unknown or doubled is refused in place", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/orders`);
  await expect(page.getByRole("heading", { level: 2 })).toHaveCount(3);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Copy Words from week one" }).click();
  await expect(page.getByRole("heading", { name: "Words from week one, our copy" })).toBeVisible();
  await expectAccessible(page);

  const add = page.getByLabel("Add a spelling to step 1", { exact: true });
  await add.fill("sh");
  await add.press("Enter");
  await expect(page.getByText("sh with this sound is already in step 11 (Ship and chop).")).toBeVisible();
  await add.fill("zq=k");
  await add.press("Enter");
  await expect(page.getByText("zq is not a spelling this tool knows.")).toBeVisible();
  await add.fill("kn");
  await page.getByRole("button", { name: "Remove kn as in knot" }).click();
  await add.press("Enter");
  await expect(page.getByRole("list", { name: "Spellings of step 1", exact: true })).toContainText("kn");

  await page.getByRole("button", { name: "Move step 2, Sand and ants", exact: true }).focus();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByLabel("Title of step 1", { exact: true })).toHaveValue("Sand and ants");
  await expect(page.getByRole("button", { name: "Move step 1, Sand and ants", exact: true })).toBeFocused();
  await page.getByRole("button", { name: "Move kn as in knot", exact: true }).focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowUp");
  await expect(page.getByRole("button", { name: "Move kn as in knot", exact: true })).toBeFocused();
  await expect(page.getByRole("list", { name: "Spellings of step 1", exact: true })).toContainText("kn");
  await page.keyboard.press("ArrowDown");
  await page.getByLabel("Title of step 1", { exact: true }).fill("Pots first");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Title of step 1", { exact: true })).toHaveValue("Pots first");
  await expect(page.getByRole("list", { name: "Spellings of step 2", exact: true })).toContainText("kn");
});

test("a spelling is dragged by mouse to another step", async ({ page, school }) => {
  await page.goto(`${school.base}/orders`);
  await page.getByRole("button", { name: "Copy The alphabet first" }).click();
  const from = page.getByRole("button", { name: "Move b as in boat", exact: true });
  const to = page.getByRole("button", { name: "Move f as in fog", exact: true });
  const start = await from.boundingBox();
  const end = await to.boundingBox();
  if (!start || !end) throw new Error("not on the screen");
  await page.mouse.move(start.x + 8, start.y + 8);
  await page.mouse.down();
  await page.mouse.move(start.x + 30, start.y + 40, { steps: 4 });
  await page.mouse.move(end.x + 8, end.y + 8, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole("list", { name: "Spellings of step 2", exact: true })).toContainText("b");
  await expect(page.getByRole("list", { name: "Spellings of step 1", exact: true })).not.toContainText("b");
});
