import { asked, marksAlone, part, saved, sit, stored } from "./checking.ts";
import { expect, expectAccessible, isLong, test } from "./school.ts";

const FAST_MARKS = isLong ? 600 : 150;
const five = part("card", { scope: "picked", picked: ["b=b", "d=d", "m=m", "sh=sh", "t=t"] });

test("a check by keyboard: marks, undo, note, reload in the middle, a second round, and what it says", {
  tag: "@main",
}, async ({ page, school }) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Quin E."], [five]);
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByTestId("card")).toBeVisible();
  await expectAccessible(page);
  expect(
    await page.getByTestId("card").evaluate((card) => Number.parseFloat(getComputedStyle(card).fontSize)),
  ).toBeGreaterThanOrEqual(200);
  const first = await asked(page);
  await page.keyboard.press("1");
  const second = await asked(page);
  expect(second).not.toBe(first);
  await page.keyboard.press("q");
  await expect(page.getByText("3 of 5")).toBeVisible();
  await expect(page.getByText(`Before: ${second}`, { exact: false })).toContainText("said");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByTestId("card")).toHaveText(second);
  await page.keyboard.press("5");
  await page.keyboard.press("n");
  await page.getByRole("textbox", { name: "Note" }).fill("rubbed both eyes");
  await page.keyboard.press("Enter");
  await saved(page);
  const third = await asked(page);
  await page.reload();
  await expect(page.getByTestId("card")).toHaveText(third);
  await expect(page.getByText("3 of 5")).toBeVisible();
  await page.keyboard.press("4");
  await page.getByLabel("What was said or written").fill("oink");
  await page.keyboard.press("Enter");
  await page.keyboard.press("2");
  await page.keyboard.press("3");
  await expect(page.getByText("2 of 5 were right at once.")).toBeVisible();

  await page.getByRole("button", { name: "Go round again with these 3" }).click();
  await expect(page.getByText("Round 2, 1 of 3")).toBeVisible();
  for (let card = 0; card < 3; card++) await page.keyboard.press(" ");
  await expect(page.getByText("All of it was right at once.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "What this check says: Quin E." })).toBeVisible();
  await expect(page.getByText("2 of 5 right at once, 1 slow, 2 missed.")).toBeVisible();
  await expect(page.getByText("2 of the missed came right in a later round.")).toBeVisible();
  await expect(page.getByText("said “oink”")).toBeVisible();
  await expect(page.getByText("rubbed both eyes")).toBeVisible();
  await expectAccessible(page);

  const log = await stored(school, id);
  expect(
    log.filter((entry) => entry.outcome !== "note" && entry.outcome !== "stop").map((entry) => entry.outcome),
  ).toEqual(["right", "wrong", "void", "none", "wrong", "slow", "ownWay", "right", "right", "right"]);
  expect(log.find((entry) => entry.heard === "oink")).toBeDefined();
  expect(log.find((entry) => entry.outcome === "note")?.text).toBe("rubbed both eyes");
  expect(log.find((entry) => entry.outcome === "stop")?.why).toBe("done");
  expect(new Set(log.map((entry) => entry.id)).size).toBe(log.length);
});

test("the child's window follows the desk and never shows a mark", async ({ page, school, context }) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Ravi K."], [five]);
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await page.keyboard.press("v");
  await expectAccessible(page);
  const [face] = await Promise.all([
    context.waitForEvent("page"),
    page.getByRole("button", { name: "Open a second window" }).click(),
  ]);
  await page.bringToFront();
  await page.keyboard.press("Escape");
  for (const key of ["1", "5", "2"]) {
    await expect(face.getByTestId("card")).toHaveText(await asked(page));
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
  await expect(face.getByTestId("card")).toHaveText(await asked(page));
  await page.getByRole("button", { name: "Stop here" }).click();
  await expect(page.getByRole("dialog")).toContainText("Everything so far is kept.");
  await page.getByRole("button", { name: /^Enough for Ravi K\./ }).click();
  await expect(page.getByText("2 of 5 not asked", { exact: false })).toBeVisible();
  await expect(page.getByText("the child was tired or upset", { exact: false })).toBeVisible();
  await page.getByRole("link", { name: "Check others" }).click();
  await page.goto(`${school.base}/check/${id}`);
  await page.getByRole("button", { name: "Go on with it" }).click();
  await expect(page.getByText("4 of 5")).toBeVisible();
});

test("a mark changes the card before the network has answered", { tag: "@main" }, async ({ page, school }) => {
  const { id } = await sit(school, ["Wren I."], [five]);
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
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
  await saved(page);
});

test(`${FAST_MARKS} marks from a fast marker: each card within a frame, none lost, none doubled`, async ({
  page,
  school,
}) => {
  test.setTimeout(180_000);
  await marksAlone(school);
  const { id, checks } = await sit(
    school,
    ["Vera I."],
    [part("card", { most: 60 }), part("names", { cases: "both", most: 52 })],
  );
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  const of = checks[0]?.items.length ?? 0;
  const rounds = Math.ceil(FAST_MARKS / of);
  const late: number[] = [];
  for (let round = 1; round <= rounds; round++) {
    late.push(
      ...(await page.evaluate(async (count) => {
        const seen = () => document.querySelector("main p[aria-live=off]")?.textContent;
        const frame = () => new Promise(requestAnimationFrame);
        const counts: number[] = [];
        for (let mark = 0; mark < count; mark++) {
          const before = seen();
          dispatchEvent(new KeyboardEvent("keydown", { key: "2", bubbles: true }));
          let frames = 0;
          while (seen() === before && frames < 60) {
            await frame();
            frames++;
          }
          counts.push(frames);
          await frame();
        }
        return counts;
      }, of)),
    );
    if (round < rounds) await page.getByRole("button", { name: /^Go round again/ }).click();
  }
  expect(late.length).toBeGreaterThanOrEqual(FAST_MARKS);
  expect(late.filter((frames) => frames > 1)).toEqual([]);
  await expect(page.getByText("all marks saved")).toBeVisible({ timeout: 60_000 });
  const log = await stored(school, id);
  expect(log).toHaveLength(of * rounds);
  expect(new Set(log.map((entry) => `${entry.item} ${entry.pass}`)).size).toBe(of * rounds);
});
