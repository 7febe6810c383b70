import { expect, expectAccessible, test } from "./school.ts";

test("why a mark is what it is: the chance, what moved it most, how it went, and every answer", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/gaps`);
  const cell = page.locator("[role=gridcell][data-state=gap]").first();
  await expect(cell).toHaveAccessibleName(/: gap, \d+%$/);
  const named = (await cell.getAttribute("aria-label")) ?? "";
  const percent = /(\d+)%$/.exec(named)?.[1] ?? "";
  await cell.click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByText(`${percent}% likely to be said at sight today`)).toBeVisible();
  await expect(sheet.getByText(/A gap: surely under a half, after \d+ misses\./)).toBeVisible();
  await expect(sheet.getByRole("heading", { name: "What moved it most" })).toBeVisible();
  const chart = sheet.getByRole("img", { name: /^The chance over time, from \d+% to \d+% today$/ });
  await expect(chart.locator("svg")).toBeVisible();
  const answers = sheet.getByRole("list", { name: "Answers, newest first" }).getByRole("listitem");
  await expect(answers.first()).toContainText(/\d+% → \d+%/);
  await expect(sheet).toContainText(/missed/);
  await expectAccessible(page);
});

test("a shared screen has no names, and the most doubtful stand first when asked", async ({ page, school }) => {
  const { rows } = await school.get<{ rows: { name: string; cells: string }[] }>("/api/gaps");
  const doubts = rows.map(({ name, cells }) => ({ name, count: cells.match(/o\d\d/g)?.length ?? 0 }));
  const most = Math.max(...doubts.map(({ count }) => count));
  const first = doubts.filter(({ count }) => count === most).map(({ name }) => name);
  const [top = ""] = [...first].sort((one, other) => one.localeCompare(other));
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByRole("rowheader").first()).toContainText(rows[0]?.name ?? "");
  await page.getByLabel("Children in order of").selectOption("doubt");
  await expect(page.getByRole("rowheader").first()).toContainText(top);
  await page.getByLabel("hide names").check();
  await expect(page.getByRole("rowheader").first()).toContainText("Child 1");
  for (const { name } of rows) await expect(page.getByRole("grid")).not.toContainText(name);
  await page.reload();
  await expect(page.getByLabel("hide names")).toBeChecked();
  await expect(page.getByRole("rowheader").first()).toContainText("Child 1");
});

test("what the school calls secure is laid over the same chances, by keys, and bad figures change nothing", async ({
  page,
  school,
}) => {
  const secure = async () => {
    const { rows } = await school.get<{ rows: { cells: string }[] }>("/api/gaps");
    return rows.flatMap(({ cells }) => cells.match(/s\d\d/g) ?? []).length;
  };
  const before = await secure();
  await page.goto(`${school.base}/settings`);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Secure means" }) });
  const save = panel.getByRole("button", { name: "Save" });
  await expect(save).toBeDisabled();
  await panel.getByRole("radio", { name: "By its chance" }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(panel.getByRole("radio", { name: "Right at once on different days" })).toBeChecked();
  await panel.getByLabel("Days", { exact: true }).fill("9");
  await save.press("Enter");
  await expect(panel.getByRole("alert")).toContainText("days between 1 and 5");
  expect(await secure()).toBe(before);
  await panel.getByLabel("Days", { exact: true }).fill("3");
  await save.press("Enter");
  await expect(page.getByText("Saved. The map, groups and plans follow it; no mark is changed.")).toBeVisible();
  await expect.poll(secure).not.toBe(before);
  await expectAccessible(page);
  await page.goto(`${school.base}/gaps`);
  await page.locator("[role=gridcell][data-state=secure]").first().click();
  await expect(page.getByRole("dialog")).toContainText(
    "Secure here means right at once on the last 3 days on which it was asked.",
  );
  await page.goto(`${school.base}/settings`);
  await panel.getByRole("radio", { name: "By its chance" }).check();
  await save.click();
  await expect.poll(secure).toBe(before);
});

test("a second look asks these cards and no others, and what was asked today is not asked again", async ({
  page,
  school,
}) => {
  const looks = await school.get<{ id: string; name: string; cards: { gpc: string }[] }[]>("/api/second-looks");
  expect(looks.length).toBeGreaterThan(5);
  for (const { cards } of looks) expect(cards.length).toBeLessThanOrEqual(12);
  await page.goto(school.base);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Worth a second look" }) });
  await expectAccessible(page);
  const ask = panel.getByRole("link", { name: /^Ask .* again$/ }).first();
  const name = /^Ask (.*) again$/.exec((await ask.getAttribute("aria-label")) ?? "")?.[1] ?? "";
  const look = looks.find((one) => one.name === name);
  await ask.click();
  await expect(page).toHaveURL(/\/check\?child=/);
  await page.getByRole("button", { name: "Begin the check" }).click();
  await expect(page).toHaveURL(/\/check\/[0-9a-f-]+/);
  const sittingId = /check\/([0-9a-f-]+)/.exec(page.url())?.[1] ?? "";
  const { checks } = await school.get<{ checks: { kind: string; items: string[] }[] }>(`/api/sittings/${sittingId}`);
  expect(checks.map((check) => check.kind)).toEqual(["card"]);
  expect([...(checks[0]?.items ?? [])].sort()).toEqual(look?.cards.map(({ gpc }) => gpc).sort());
});

test("how sure the tool is: each way of judging on the same cards, and what was said beside what came", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/help`);
  await page.getByRole("link", { name: "how sure the tool is" }).click();
  await expect(page.getByRole("heading", { name: "How sure is the tool", level: 1 })).toBeVisible();
  const rows = page.getByRole("region", { name: "Ways of judging" }).getByRole("row");
  await expect(rows).toHaveCount(5);
  await expect(rows.nth(1)).toContainText("The model");
  await expect(page.getByRole("img", { name: /What was said/ }).locator("svg")).toBeVisible();
  await expectAccessible(page);
});

test("the teacher knows better: it counts under her name, is shown as such, and one press takes it back", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/gaps`);
  const cell = page.locator("[role=gridcell][data-state=gap]").first();
  const before = (await cell.getAttribute("aria-label")) ?? "";
  const [name = ""] = before.split(/: gap/);
  await cell.click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("button", { name: "I know it is known" })).toBeVisible();
  await expectAccessible(page);
  await sheet.getByRole("button", { name: "I know it is known" }).click();
  await expect(
    sheet.getByText(/A teacher says that it is known; that counts until an answer goes against it/),
  ).toBeVisible();
  await expect(sheet.getByText("known, as the teacher says").first()).toBeVisible();
  await expect(sheet.getByRole("button", { name: "I know it is known" })).toBeHidden();
  await page.keyboard.press("Escape");
  const same = page.getByRole("gridcell", { name: new RegExp(`^${name.replace(/[.*+?^${}()|[\]\\/]/g, "\\$&")}: `) });
  await expect(same.first()).toHaveAccessibleName(/: secure, \d+%$/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(same.first()).toHaveAccessibleName(before);
});

test("the map shows writing and blending too, each with the answers behind a mark", async ({ page, school }) => {
  await page.goto(`${school.base}/gaps`);
  const grid = page.getByRole("grid");
  for (const [of, name, says] of [
    ["spelling", /: (gap|unsteady|secure|not sure yet), \d+%$/, /likely to be written right today/],
    ["blending", /words as CVC: \w/, /likely to be blended right today/],
  ] as const) {
    await page.getByLabel("Map of").selectOption(of);
    const cell = grid.getByRole("gridcell", { name }).first();
    await expect(cell).toBeVisible();
    await cell.click();
    const sheet = page.getByRole("dialog");
    await expect(sheet.getByText(says)).toBeVisible();
    await expect(
      sheet.getByRole("list", { name: "Answers, newest first" }).getByRole("listitem").first(),
    ).toBeVisible();
    await expect(sheet.getByRole("button", { name: "I know it is known" })).toHaveCount(0);
    await expectAccessible(page);
    await page.keyboard.press("Escape");
  }
  await page.reload();
  await expect(page.getByLabel("Map of")).toHaveValue("blending");
});

test("numbers of the school's own are looked for, shown side by side, taken and taken back", async ({
  page,
  school,
}) => {
  test.setTimeout(150_000);
  const cellsOf = async () =>
    (await school.get<{ rows: { cells: string }[] }>("/api/gaps")).rows.map((row) => row.cells);
  const before = await cellsOf();
  await page.goto(`${school.base}/sure`);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Numbers of this school's own" }) });
  await panel.getByRole("button", { name: "Look for numbers of our own" }).click();
  await expect(panel.getByText(/On answers that were kept aside, what was found is/)).toBeVisible({
    timeout: 90_000,
  });
  await panel.getByText(/^\d+ numbers? would be other$/).click();
  await expect(panel.getByRole("table").getByRole("row").nth(1)).toBeVisible();
  await expectAccessible(page);
  // Nothing is changed until the lead agrees.
  expect(await cellsOf()).toEqual(before);
  await panel.getByRole("button", { name: "Go by these" }).click();
  await expect(panel.getByText(/The model goes by numbers that were found on/)).toBeVisible();
  expect(await cellsOf()).not.toEqual(before);
  await panel.getByRole("button", { name: "Go by what ships again" }).click();
  await expect(panel.getByText(/The model goes by the numbers that ship/)).toBeVisible();
  expect(await cellsOf()).toEqual(before);
});
