import { asked, marksAlone, part, saved, sit, sitting, stored } from "./checking.ts";
import { expect, expectAccessible, test } from "./school.ts";

const plan = () => part("seek", { blocks: ["three", "fourStart", "fourEnd"], madeUp: false });

test("a plan asks only what is in doubt: by keys, with a line why, the same after a reload, and says what it left out", async ({
  page,
  school,
}) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Alba T."], [plan()]);
  const begun = await sitting(school, id);
  const may = begun.checks[0]?.items.length ?? 0;
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await expect(page.getByText(/^0 items asked · something that will come right$/)).toBeVisible();
  await expectAccessible(page);
  const done = page.getByText(/items? asked, \d+ right at once\. (The rest is clear|The time is over)\./);
  let marked = 0;
  while (marked < 90) {
    const card = page.getByTestId("card").or(page.getByTestId("say")).first();
    await expect(card.or(done).first()).toBeVisible();
    if (await done.isVisible()) break;
    if (marked === 4) {
      // Another adult, or a reload, lands on the same item.
      const text = await asked(page);
      const why = await page.getByText(/^\d+ items asked · /).textContent();
      await saved(page);
      await page.reload();
      expect(await asked(page)).toBe(text);
      await expect(page.getByText(why ?? "")).toBeVisible();
    }
    await page.keyboard.press(marked % 5 === 3 ? "5" : "1");
    marked += 1;
    await expect(
      page.getByText(`${marked} item${marked === 1 ? "" : "s"} asked`, { exact: false }).first(),
    ).toBeVisible();
  }
  await expect(done).toBeVisible();
  expect(marked).toBeLessThan(may / 2);
  await expect(page.getByText(/^\d+ cards were not asked:$/)).toBeVisible();
  await expect(page.getByText(/surely known by what was marked before/)).toBeVisible();
  await expectAccessible(page);
  await saved(page);
  const log = await stored(school, id);
  expect(log).toHaveLength(marked);
  for (const { kind, item = "" } of log)
    expect(kind).toBe(item.includes("=") ? "card" : item.includes(" ") ? "words" : "exception");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /What this check says: Alba T\./ })).toBeVisible();
  await expect(page.getByText(/\d+ of \d+ right at once/)).toBeVisible();
  await expect(page.getByRole("heading", { name: "Not asked" })).toBeVisible();
  // What it changed on the map is what the map says now.
  const changed = page.locator("section", { has: page.getByRole("heading", { name: "What changed on the map" }) });
  const lines = changed.getByRole("listitem");
  await expect(lines.first()).toContainText(/\d+%.*\d+%/);
  const { rows, columns } = await school.get<{
    rows: { name: string; cells: string }[];
    columns: { gpc: string }[];
  }>("/api/gaps");
  const cells = rows.find(({ name }) => name === "Alba T.")?.cells ?? "";
  const { changes } = await school.get<{
    changes: { skill: string; before: { chance: number }; after: { chance: number; state: string } }[];
  }>(`/api/children/${begun.children[0]?.id}/changes?sittingId=${id}`);
  expect(changes.length).toBeGreaterThan(0);
  for (const { skill, after } of changes.filter((one) => one.skill.startsWith("say "))) {
    const at = columns.findIndex(({ gpc }) => `say ${gpc}` === skill);
    expect(Math.abs(Number(cells.slice(at * 3 + 1, at * 3 + 3)) / 100 - after.chance)).toBeLessThan(0.011);
  }
});

test("undo brings the item before back, and without a line the device still chooses", { tag: "@main" }, async ({
  page,
  school,
  context,
}) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Bram O."], [plan()]);
  await page.goto(`${school.base}/check/${id}`);
  const first = await asked(page);
  await page.keyboard.press("1");
  await expect(page.getByText(/^1 item asked/)).toBeVisible();
  const second = await asked(page);
  await context.setOffline(true);
  await page.keyboard.press("5");
  await expect(page.getByText(/^2 items asked/)).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByText(/^1 item asked/)).toBeVisible();
  expect(await asked(page)).toBe(second);
  await page.keyboard.press("u");
  await expect(page.getByText(/^0 items asked/)).toBeVisible();
  expect(await asked(page)).toBe(first);
  await page.keyboard.press("1");
  await page.keyboard.press("5");
  await expect(page.getByText(/^2 items asked/)).toBeVisible();
  await context.setOffline(false);
  await saved(page);
});

test("the plan is one tap on Check, says how long it takes at most, and its choices are the school's", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/check`);
  await page.getByRole("checkbox", { name: /Alba T\./ }).check();
  await page.getByRole("button", { name: "Find out in five minutes" }).click();
  const row = page.getByRole("listitem").filter({ hasText: "Only what is in doubt" });
  await expect(row).toContainText("at most 5 min");
  await row.getByRole("button", { name: /Change/ }).click();
  await row.getByLabel("Minutes at most").fill("3");
  await row.getByRole("button", { name: "Exception words" }).click();
  await expect(row).toContainText("spelling cards, words · at most 3 min");
  await expectAccessible(page);
});
