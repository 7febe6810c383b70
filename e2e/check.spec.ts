import type { Page } from "@playwright/test";
import { childNamed, expect, expectAccessible, makeClass, post, type School, test } from "./school.ts";

interface StoredAnswer {
  readonly id: string;
  readonly outcome: string;
  readonly item?: string;
  readonly heard?: string;
  readonly voids?: string;
}

/** Begins a check of hand-picked spellings and gives its id. */
async function begin(page: Page, school: School, name: string, picked: readonly RegExp[]): Promise<string> {
  const child = await childNamed(school, name);
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByRole("radio", { name: /Picked by hand/ }).check();
  for (const spelling of picked)
    await page
      .getByRole("group", { name: "Spellings to check" })
      .getByRole("button", { name: spelling })
      .first()
      .click();
  await page.getByRole("button", { name: "Begin the check" }).click();
  await expect(page.getByTestId("card")).toBeVisible();
  return page.url().split("/").at(-1) ?? "";
}

async function stored(school: School, id: string): Promise<StoredAnswer[]> {
  return (await school.get<{ answers: StoredAnswer[] }>(`/api/checks/${id}`)).answers;
}

const letters = [/^b \/b/, /^d \/d/, /^m \/m/, /^sh /, /^t \/t/];

test("a check by keyboard: marks, undo, reload in the middle, a second round, and what it says", async ({
  page,
  school,
}) => {
  const id = await begin(page, school, "Quin E.", letters);
  await expectAccessible(page);
  expect(
    await page.getByTestId("card").evaluate((card) => Number.parseFloat(getComputedStyle(card).fontSize)),
  ).toBeGreaterThanOrEqual(200);
  const pressed: { item: string; key: string }[] = [];
  const mark = async (key: string) => {
    const item = (await page.getByTestId("card").textContent()) ?? "";
    await page.keyboard.press(key);
    pressed.push({ item, key });
  };
  await mark("1");
  await mark("q");
  await expect(page.getByText("card 3 of 5")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("card")).toHaveText(pressed[1]?.item ?? "");
  await page.keyboard.press("5");
  await expect(page.getByText("all marks saved")).toBeVisible();
  const third = await page.getByTestId("card").textContent();
  await page.reload();
  await expect(page.getByTestId("card")).toHaveText(third ?? "");
  await expect(page.getByText("card 3 of 5")).toBeVisible();
  await page.keyboard.press("4");
  await page.getByLabel("What was said").fill("oink");
  await page.keyboard.press("Enter");
  await page.keyboard.press("2");
  await page.keyboard.press("3");
  await expect(page.getByText("2 of 5 were right at once.")).toBeVisible();

  await page.getByRole("button", { name: "Go round again with these 3" }).click();
  await expect(page.getByText("card 1 of 3")).toBeVisible();
  for (let card = 0; card < 3; card++) await page.keyboard.press(" ");
  await expect(page.getByText("Every card was right at once.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /says$/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Known at once (2)" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Not known (2)" })).toBeVisible();
  await expect(page.getByText("said “oink”")).toBeVisible();
  await expectAccessible(page);

  const log = await stored(school, id);
  expect(log.map((answer) => answer.outcome)).toEqual([
    "right",
    "wrong",
    "void",
    "none",
    "wrong",
    "slow",
    "ownWay",
    "right",
    "right",
    "right",
  ]);
  expect(log.find((answer) => answer.heard === "oink")).toBeDefined();
  expect(new Set(log.map((answer) => answer.id)).size).toBe(log.length);
});

test("the child's window follows the desk and never shows a mark", async ({ page, school, context }) => {
  await begin(page, school, "Ravi K.", letters);
  const [face] = await Promise.all([
    context.waitForEvent("page"),
    page.getByRole("button", { name: /Child's window/ }).click(),
  ]);
  for (const key of ["1", "5", "2"]) {
    await expect(face.getByTestId("card")).toHaveText((await page.getByTestId("card").textContent()) ?? "");
    expect((await face.locator("main").innerText()).replace("Card", "").trim()).toBe(
      await page.getByTestId("card").innerText(),
    );
    await expectAccessible(face);
    await page.keyboard.press(key);
  }
  await page.keyboard.press("p");
  await expect(face.getByTestId("card")).toHaveCount(0);
  await page.keyboard.press("p");
  await face.reload();
  await expect(face.getByTestId("card")).toHaveText((await page.getByTestId("card").textContent()) ?? "");
  await page.getByRole("button", { name: "Stop here" }).click();
  await expect(page.getByText("stopped with 2 cards to go", { exact: false })).toBeVisible();
});

test("a mark changes the card before the network has answered", async ({ page, school }) => {
  await begin(page, school, "Wren I.", letters);
  await page.route("**/api/answers", async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  const frames = await page.evaluate(async () => {
    const card = () => document.querySelector("[data-testid=card]")?.textContent;
    const before = card();
    dispatchEvent(new KeyboardEvent("keydown", { key: "1", bubbles: true }));
    let count = 0;
    while (card() === before && count < 30) {
      await new Promise(requestAnimationFrame);
      count++;
    }
    return count;
  });
  expect(frames).toBeLessThanOrEqual(1);
  await expect(page.getByText("1 mark being saved")).toBeVisible();
  await expect(page.getByText("all marks saved")).toBeVisible();
});

test("kill -9 during marking loses no mark and doubles none, also across a reload", async ({
  page,
  emptySchool: school,
}) => {
  const classId = await makeClass(school, "Lock", "s4");
  await post(school, "/api/children", { id: crypto.randomUUID(), classId, name: "Ada M.", note: "" });
  const { id: childId } = await childNamed(school, "Ada M.");
  await page.goto(`${school.base}/check?child=${childId}`);
  await page.getByRole("button", { name: "Begin the check" }).click();
  await expect(page.getByText("card 1 of 11")).toBeVisible();
  const id = page.url().split("/").at(-1) ?? "";
  const cards: string[] = [];
  const mark = async (key: string) => {
    cards.push((await page.getByTestId("card").textContent()) ?? "");
    await page.keyboard.press(key);
  };
  for (const key of ["1", "5", "2"]) await mark(key);
  await expect(page.getByText("all marks saved")).toBeVisible();
  await mark("1");
  await school.kill();
  for (const key of ["5", "1", "1"]) await mark(key);
  await expect(page.getByText(/kept on this device until the server answers/)).toBeVisible();
  await school.start();
  const afterStart = await stored(school, id);
  expect(afterStart.length).toBeGreaterThanOrEqual(3);
  await page.reload();
  await expect(page.getByText("card 8 of 11")).toBeVisible();
  await expect(page.getByText("all marks saved")).toBeVisible();
  for (const key of ["1", "1"]) await mark(key);
  await expect(page.getByText("all marks saved")).toBeVisible();
  const log = await stored(school, id);
  expect(log.map((answer) => answer.item?.split("=")[0])).toEqual(cards);
  expect(log.map((answer) => answer.outcome)).toEqual([
    "right",
    "none",
    "slow",
    "right",
    "none",
    "right",
    "right",
    "right",
    "right",
  ]);
});
