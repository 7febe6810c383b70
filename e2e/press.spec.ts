import type { Page } from "@playwright/test";
import { asked, marksAlone, part, saved, sit, sitting, stored } from "./checking.ts";
import { expect, type School, test } from "./school.ts";

/** A mark needs a press of its own, and falls on nothing that no one has seen. */

const five = part("card", { scope: "picked", picked: ["b=b", "d=d", "m=m", "sh=sh", "t=t"] });

async function openDesk(page: Page, school: School, wait: number): Promise<string> {
  await marksAlone(school);
  const { id } = await sit(school, ["Quin E."], [five]);
  await page.addInitScript((ms) => localStorage.setItem("keen-mark-wait", String(ms)), wait);
  await page.clock.install();
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByTestId("card")).toBeVisible();
  return id;
}

async function marks(school: School, id: string): Promise<readonly string[]> {
  return (await stored(school, id)).map((entry) => entry.outcome);
}

test("a held key and a second tap mark one card each", { tag: "@main" }, async ({ page, school }) => {
  const id = await openDesk(page, school, 700);
  await page.clock.fastForward(750);
  // The browser sends a held key again and again, on each card that comes.
  for (let again = 0; again < 8; again++) await page.keyboard.down("1");
  await page.keyboard.up("1");
  await expect(page.getByText("2 of 5")).toBeVisible();
  await page.clock.fastForward(750);
  await page.getByRole("button", { name: "Right at once" }).dblclick();
  await expect(page.getByText("3 of 5")).toBeVisible();
  await saved(page);
  expect(await marks(school, id)).toEqual(["right", "right"]);
});

test("a key held over a card's wait marks no second one, and Enter on a button neither", async ({ page, school }) => {
  const id = await openDesk(page, school, 100);
  await page.clock.fastForward(150);
  for (let again = 0; again < 6; again++) {
    await page.keyboard.down("1");
    await page.clock.fastForward(120);
  }
  await page.keyboard.up("1");
  await expect(page.getByText("2 of 5")).toBeVisible();
  await page.getByRole("button", { name: "Right at once" }).focus();
  for (let again = 0; again < 6; again++) {
    await page.keyboard.down("Enter");
    await page.clock.fastForward(120);
  }
  await page.keyboard.up("Enter");
  await expect(page.getByText("3 of 5")).toBeVisible();
  await saved(page);
  expect(await marks(school, id)).toEqual(["right", "right"]);
});

test("a mark that comes too soon is not stored up, the card moves a little, and undo does not wait", async ({
  page,
  school,
}) => {
  const id = await openDesk(page, school, 700);
  await page.clock.fastForward(750);
  await page.keyboard.press("1");
  const second = await asked(page);
  await page.keyboard.press("5");
  const moving = () => page.evaluate(() => document.getAnimations().length);
  expect(await moving()).toBeGreaterThan(0);
  await page.clock.fastForward(800);
  await expect(page.getByTestId("card")).toHaveText(second);
  await expect(page.getByText("2 of 5")).toBeVisible();
  await page.keyboard.press("1");
  await page.keyboard.press("u");
  await expect(page.getByText("2 of 5")).toBeVisible();
  await saved(page);
  expect([...(await marks(school, id))].sort()).toEqual(["right", "right", "void"]);
});

test("how long a card waits is set for the device", async ({ page, school }) => {
  await page.goto(`${school.base}/settings`);
  await page.getByLabel("after half a second").check();
  await page.reload();
  await expect(page.getByLabel("after half a second")).toBeChecked();
  expect(await page.evaluate(() => localStorage.getItem("keen-mark-wait"))).toBe("500");
});

test("Enter held in a written word says nothing of the words below it", async ({ page, school }) => {
  await page.addInitScript(() => localStorage.setItem("keen-mark-wait", "300"));
  const { id, checks } = await sit(school, ["Quin E."], [part("dictation", { most: 4, sentence: false })]);
  const [first = "", second = ""] = checks[0]?.items ?? [];
  await page.clock.install();
  await page.goto(`${school.base}/check/${id}`);
  await page.getByLabel(`What was written for ${first}`, { exact: true }).fill(first);
  // The second press comes before the next word has been seen, however slow the machine is.
  await page.clock.pauseAt(await page.evaluate(() => Date.now() + 100));
  await page.clock.runFor(500);
  for (let again = 0; again < 5; again++) await page.keyboard.down("Enter");
  await page.keyboard.up("Enter");
  await page.clock.runFor(100);
  await page.keyboard.press("Enter");
  await page.clock.runFor(100);
  await expect(page.getByLabel(`What was written for ${second}`, { exact: true })).toBeFocused();
  await page.clock.resume();
  await saved(page);
  expect((await sitting(school, id)).checks[0]?.answers).toHaveLength(1);
});

test("a key held on a sheet of paper marks its own cell", async ({ page, school }) => {
  const { id } = await sit(school, ["Quin E.", "Alba T."], [part("paper", { most: 6 })]);
  await page.goto(`${school.base}/check/${id}`);
  await page
    .getByRole("button", { name: /: empty$/ })
    .first()
    .focus();
  for (let again = 0; again < 5; again++) await page.keyboard.down("1");
  await page.keyboard.up("1");
  await saved(page);
  expect((await sitting(school, id)).checks.flatMap((check) => check.answers)).toHaveLength(1);
});
