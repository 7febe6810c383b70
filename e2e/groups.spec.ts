import { classNamed, expect, expectAccessible, test } from "./school.ts";

test("groups are proposed with a reason, changed by keyboard and mouse, locked and saved with a history", async ({
  page,
  school,
}) => {
  const { id } = await classNamed(school, "Towpath");
  await page.goto(`${school.base}/groups/new?class=${id}`);
  const groups = page.locator("section[aria-label]").filter({ has: page.getByLabel("Name of the group") });
  await expect(groups.first()).toBeVisible();
  await expect(groups.first().getByText(/need/).first()).toBeVisible();
  await expectAccessible(page);
  for (const group of await groups.all()) {
    const size = await group.getByRole("listitem").count();
    expect(size).toBeGreaterThanOrEqual(3);
    expect(size).toBeLessThanOrEqual(5);
  }

  const second = groups.nth(1);
  const secondName = await second.getByLabel("Name of the group").inputValue();
  const mover =
    (
      await groups
        .first()
        .getByRole("button", { name: /^Drag / })
        .first()
        .getAttribute("aria-label")
    )?.replace("Drag ", "") ?? "";
  await groups.first().getByLabel(`Group of ${mover}`).selectOption(secondName);
  await expect(second.getByRole("button", { name: `Drag ${mover}` })).toBeVisible();
  await second.getByRole("button", { name: `Lock ${mover} in this group` }).click();

  const dragged = second.getByRole("button", { name: new RegExp(`^Drag (?!${mover.replace(".", "\\.")}$)`) }).first();
  const name = (await dragged.getAttribute("aria-label")) ?? "";
  await dragged.hover();
  await page.mouse.down();
  const to = await groups.first().boundingBox();
  if (!to) throw new Error("not on the screen");
  await page.mouse.move(to.x + 200, to.y + 160, { steps: 8 });
  await page.mouse.move(to.x + 80, to.y + 120, { steps: 8 });
  // The group says that it would take the child, however busy the machine is.
  await expect(groups.first()).toHaveClass(/border-leaf/);
  await page.mouse.up();
  await expect(groups.first().getByRole("button", { name })).toBeVisible();

  await page.getByRole("button", { name: "Propose again" }).click();
  await expect(page.getByRole("button", { name: "Propose again" })).toBeEnabled();
  await expect(second.getByRole("button", { name: `Drag ${mover}` })).toBeVisible();
  await second.getByLabel("Name of the group").fill("Bargees");
  await page.getByRole("button", { name: "Save these groups" }).click();
  await expect(page.getByRole("heading", { name: "Bargees" })).toBeVisible();

  await page.getByRole("link", { name: "Bargees" }).click();
  await expect(page.getByRole("link", { name: mover })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: `Take ${mover} out` }).click();
  await expect(page.getByRole("button", { name: `Take ${mover} out` })).toHaveCount(0);
  const history = page.locator("section", { has: page.getByRole("heading", { name: "History" }) });
  // The states of before stay: the one that was saved here, and the one without the child, stand on top.
  expect(await history.getByRole("listitem").count()).toBeGreaterThanOrEqual(2);
  await expect(history.getByRole("listitem").nth(1)).toContainText(mover);
  await expect(history.getByRole("listitem").first()).not.toContainText(mover);
});

test("a proposal for all 48 children runs beside the page, which goes on answering", async ({ page, school }) => {
  await page.goto(`${school.base}/groups/new`);
  await expect(page.getByLabel("Name of the group").first()).toBeVisible();
  // What the best could be takes the solver a good while; meanwhile the page ticks on.
  const ticks = await page.evaluate(async () => {
    const status = () => document.querySelector('[aria-label="Proposals"] [role="status"]')?.textContent ?? "";
    const button = [...document.querySelectorAll("button")].find((one) =>
      one.textContent?.startsWith("How far from"),
    );
    button?.click();
    while (!status().startsWith("Working")) await new Promise((done) => setTimeout(done, 0));
    let count = 0;
    while (status().startsWith("Working")) {
      count += 1;
      await new Promise((done) => setTimeout(done, 0));
    }
    return count;
  });
  expect(ticks).toBeGreaterThan(10);
});

test("when what looks for groups does not load that is told, and a press tries again", async ({ page, school }) => {
  await page.route(/groups\.worker/, (route) => route.abort());
  await page.goto(`${school.base}/groups/new`);
  await expect(page.getByText("What works this out could not be loaded. Nothing was changed")).toBeVisible();
  await page.unroute(/groups\.worker/);
  await page.getByRole("button", { name: "Propose groups" }).click();
  await expect(page.getByLabel("Name of the group").first()).toBeVisible();
});

test("a proposal weighs what it would open: no group is for doubled letters only, and each target says which words", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/groups/new`);
  const groups = page.locator("section[aria-label]").filter({ has: page.getByLabel("Name of the group") });
  await expect(groups.first().getByText("Common words it would open for who needs it:")).toBeVisible();
  await expect(
    groups
      .first()
      .getByText(/about \d+: \w+, \w+, \w+/)
      .first(),
  ).toBeVisible();
  const worth = await school.get<{ gpcs: string[]; rows: { opens: number[] }[] }>("/api/worth");
  const mean = (gpc: string) => {
    const at = worth.gpcs.indexOf(gpc);
    return worth.rows.reduce((sum, { opens }) => sum + (opens[at] ?? 0), 0) / worth.rows.length;
  };
  expect(mean("ai=ai")).toBeGreaterThan(mean("dd=d"));
  for (const group of await groups.all()) {
    const text = (await group.getByText(/about \d+/).allTextContents()).map((line) => line.split(" ")[0] ?? "");
    expect(text.length).toBeGreaterThan(0);
    expect(text.some((spelling) => !/^(.)\1$/.test(spelling))).toBe(true);
  }
});
