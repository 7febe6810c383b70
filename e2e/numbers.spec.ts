import { comeInAs, expect, expectAccessible, marksWithoutWait, test } from "./school.ts";

test("an observer sees numbers without names and nothing else; the lead sees what they see", async ({
  browser,
  page,
  school,
}) => {
  const context = await browser.newContext();
  await marksWithoutWait(context);
  await comeInAs(context, school, "observer");
  const theirs = await context.newPage();
  await theirs.goto(school.base);
  await expect(theirs).toHaveURL(/\/numbers$/);
  const table = theirs.getByRole("table");
  await expect(table.getByRole("row", { name: /^The whole school about 50 / })).toBeVisible();
  await expect(table.getByRole("row", { name: /^Kiln about 25 about 25 / })).toBeVisible();
  await expect(theirs.getByText("nothing is told of fewer than five", { exact: false })).toBeVisible();
  await expectAccessible(theirs);
  // No number of children on the page is under five or no multiple of it.
  for (const said of await table.getByText(/^about \d+$/).allTextContents())
    expect(Number(said.slice("about ".length)) % 5).toBe(0);

  const places = theirs.getByRole("navigation", { name: "Places" }).getByRole("link");
  await expect(places).toHaveText(["Numbers", "Help"]);
  for (const path of ["/gaps", "/class", "/groups", "/sessions", "/texts"]) {
    await theirs.goto(`${school.base}${path}`);
    await expect(theirs.getByText(/^This is for an? (teacher|assistant) of the school/).first()).toBeVisible();
  }
  const [child] = await school.get<{ id: string; name: string }[]>("/api/children");
  for (const path of [
    "/api/children",
    "/api/gaps",
    "/api/school",
    "/api/today",
    `/api/children/${child?.id}/export`,
  ]) {
    const told = await context.request.get(`${school.base}${path}`);
    expect(told.status(), path).toBe(403);
    expect(await told.text()).not.toContain(child?.name);
  }
  await theirs.goto(`${school.base}/settings/mine`);
  await expect(theirs.getByRole("heading", { name: "Passphrase" })).toBeVisible();
  await context.close();

  await page.goto(`${school.base}/settings/people`);
  await expect(page.getByRole("heading", { name: "Observers" })).toBeVisible();
  await page.getByRole("link", { name: "Numbers" }).click();
  await expect(page.getByRole("row", { name: /^The whole school about 50 / })).toBeVisible();
});

test("someone is made an observer; what is hidden by the role goes with it", { tag: "@main" }, async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/settings/people`);
  await page.getByRole("button", { name: "Add a person" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Name").fill("Dr Burdock");
  await sheet.getByLabel("Role").selectOption({ label: "Observer" });
  await expect(sheet.getByText("Sees numbers of classes and of the school", { exact: false })).toBeVisible();
  await expect(sheet.getByText("Their groups")).toHaveCount(0);
  await expect(sheet.getByLabel("In the week they are")).toHaveCount(0);
  await sheet.getByRole("button", { name: /^(Add|Save)/ }).click();
  await expect(page.getByText("Dr Burdock is added.", { exact: false })).toBeVisible();
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Observers" }) });
  await expect(panel.getByText("Dr Burdock", { exact: true })).toBeVisible();
});
