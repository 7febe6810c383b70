import { part, saved, sit } from "./checking.ts";
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

test("a spelling is dragged by mouse to another step", { tag: "@main" }, async ({ page, school }) => {
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

test("letters taught as one unit: added to a step, shown with the words that are split otherwise, asked and told on the map", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/orders`);
  await page.getByRole("button", { name: "Copy Words from week one", exact: true }).click();
  await expect(page.getByText("To teach letters as one unit, add them to a step", { exact: false })).toBeVisible();
  const add = page.getByLabel("Add a spelling to step 13", { exact: true });
  await add.fill("n+zq");
  await add.press("Enter");
  await expect(
    page.getByText("A unit of your own is made of spellings that this tool knows", { exact: false }),
  ).toBeVisible();
  await add.fill("nk");
  await add.press("Enter");
  await add.fill("s+t");
  await add.press("Enter");
  const step = page.getByRole("list", { name: "Spellings of step 13", exact: true });
  await expect(step.getByRole("button", { name: "Move nk as in tank", exact: true })).toBeVisible();
  const units = page.locator("section", { has: page.getByRole("heading", { name: "Letters taught as one unit" }) });
  await expect(units.getByText(/n and k as one, in \d{2,} words: .*think/)).toBeVisible();
  await expect(units.getByText(/Split otherwise in \d+ words.*listen \(l i st e n\)/)).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel("Name", { exact: true }).fill("Ours with units");
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByRole("button", { name: "Saved" })).toBeVisible();

  // A split of the school that cuts one says so.
  await page.goto(`${school.base}/words`);
  await page.getByLabel("A word or a text").fill("stink");
  const word = page.getByRole("region", { name: "The word stink" });
  await expect(word.getByText("Taught as one")).toBeVisible();
  await word.getByRole("button", { name: "Correct the split" }).click();
  await page.getByLabel("Units, with a space between").fill("st i n k");
  await expect(page.getByText(/Your school teaches .*st as one unit\. Split like this/)).toBeVisible();
  await page.getByRole("button", { name: "Leave it" }).click();

  // The class goes by it: what its children read before speaks of it already; a card asks it.
  await page.goto(`${school.base}/class`);
  await page.getByRole("button", { name: "Edit class" }).click();
  await page.getByLabel("Teaching order").selectOption({ label: "Ours with units" });
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const { id, checks } = await sit(school, ["Bram O."], [part("card", { scope: "picked", picked: ["n+k=ng+k"] })]);
  expect(checks[0]?.items).toEqual(["n+k=ng+k"]);
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByTestId("card")).toHaveText("nk");
  await page.getByRole("button", { name: "Said instead: ng", exact: true }).click();
  await saved(page);
  await page.goto(`${school.base}/gaps`);
  await page.getByLabel("Step or point").selectOption({ label: "13. Long and sink" });
  await page.getByRole("gridcell", { name: /^Bram O\., nk/ }).click();
  await expect(page.getByText(/missed, said “ng”/).first()).toBeVisible();
  await expect(page.getByText(/“thinks” in a text|in “think”/).first()).toBeVisible();
  await expectAccessible(page);
});
