import type { Page } from "@playwright/test";
import { childNamed, expect, put, type School, test } from "./school.ts";

/** Nothing twice, nothing lost: double clicks, slow and lost answers, leaving, the way back, undo. */

interface Row {
  readonly id: string;
  readonly name: string;
}

const sessions = (school: School) => school.get<{ id: string }[]>("/api/sessions");
const groups = (school: School) => school.get<Row[]>("/api/groups");

/** Answers to writes come late. */
async function slow(page: Page, path: string, ms = 900): Promise<void> {
  await page.route(`**${path}`, async (route) => {
    if (route.request().method() === "GET") return route.continue();
    const response = await route.fetch();
    await new Promise((done) => setTimeout(done, ms));
    await route.fulfill({ response });
  });
}

test("a double click on a slow line plans one session, adds one class and begins one check", async ({
  page,
  school,
}) => {
  const before = (await sessions(school)).length;
  const [group] = await groups(school);
  await slow(page, "/api/sessions");
  await page.goto(`${school.base}/groups/${group?.id}`);
  await page.getByRole("button", { name: "Plan a session" }).click();
  const fill = page.getByRole("button", { name: "Fill it" });
  await fill.dblclick();
  await expect(fill).toHaveAttribute("aria-busy", "true");
  await fill.click();
  await expect(page).toHaveURL(/\/sessions\//);
  expect(await sessions(school)).toHaveLength(before + 1);

  await slow(page, "/api/classes");
  await page.goto(`${school.base}/class`);
  await page.getByRole("button", { name: "Add a class" }).click();
  await page.getByLabel("Name").fill("Rope walk");
  await page.getByLabel("Name").press("Enter");
  await page.getByLabel("Name").press("Enter");
  await expect(page.getByRole("heading", { name: "Rope walk" })).toBeVisible();
  const { classes } = await school.get<{ classes: Row[] }>("/api/school");
  expect(classes.filter((one) => one.name === "Rope walk")).toHaveLength(1);

  const child = await childNamed(school, "Alba T.");
  const open = async () =>
    (await school.get<{ openSittings: { children: string[] }[] }>("/api/today")).openSittings.filter(({ children }) =>
      children.includes("Alba T."),
    ).length;
  const checks = await open();
  await slow(page, "/api/sittings");
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByRole("button", { name: "Begin the check" }).dblclick();
  await expect(page).toHaveURL(/\/check\/[0-9a-f-]{36}/);
  expect(await open()).toBe(checks + 1);
});

test("what is sent again after the answer was lost is made once", async ({ page, school }) => {
  let lost = 0;
  await page.route("**/api/children", async (route) => {
    if (route.request().method() !== "POST" || lost > 0) return route.continue();
    lost++;
    await route.fetch();
    await route.abort();
  });
  await page.goto(`${school.base}/class`);
  await page.getByRole("button", { name: "Add a child" }).click();
  await page.getByLabel("First name and initial").fill("Zeno Q.");
  await page.getByRole("button", { name: "Add the child" }).click();
  await expect(page.getByRole("alert")).toContainText("What you typed is still here");
  await page.getByRole("button", { name: "Add the child" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const children = await school.get<Row[]>("/api/children");
  expect(children.filter((one) => one.name === "Zeno Q.")).toHaveLength(1);
});

test("leaving asks where something would be lost, and the way back closes a dialog first", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/groups`);
  await page.getByRole("link", { name: "Make groups" }).first().click();
  const first = page.getByRole("combobox", { name: /^Group of / }).first();
  await first.selectOption({ label: "no group" });
  await page.getByRole("link", { name: "Texts" }).click();
  const question = page.getByRole("dialog", { name: "Leave without saving?" });
  await expect(question).toBeVisible();
  await question.getByRole("button", { name: "Stay here" }).click();
  await expect(page).toHaveURL(/\/groups\/new/);
  await page.goBack();
  await expect(question).toBeVisible();
  await question.getByRole("button", { name: "Leave without saving" }).click();
  await expect(page).toHaveURL(/\/groups$/);

  await page.getByRole("link", { name: "Class", exact: true }).click();
  await page.getByRole("button", { name: "Add a child" }).click();
  await expect(page.getByRole("dialog", { name: "Add a child" })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(page).toHaveURL(/\/class/);

  // Something was typed: beside it nothing closes, and the way back asks.
  await page.getByRole("button", { name: "Add a child" }).click();
  await page.getByLabel("First name and initial").fill("Ada");
  await page.mouse.click(5, 5);
  await expect(page.getByLabel("First name and initial")).toHaveValue("Ada");
  await page.goBack();
  await expect(question).toBeVisible();
  await question.getByRole("button", { name: "Stay here" }).click();
  await expect(page.getByLabel("First name and initial")).toHaveValue("Ada");
});

test("taking out, removing and archiving can be taken back", async ({ page, school }) => {
  const [group] = await groups(school);
  const members = async () =>
    (await school.get<{ members: Row[] }>(`/api/groups/${group?.id}`)).members.map((one) => one.name);
  const before = await members();
  await page.goto(`${school.base}/groups/${group?.id}`);
  await page
    .getByRole("button", { name: /^Take .* out$/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(members).toEqual(before);

  const planned = (await school.get<{ id: string; state: string }[]>("/api/sessions")).find(
    (one) => one.state === "planned",
  );
  await page.goto(`${school.base}/sessions/${planned?.id}`);
  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("button", { name: "Remove this session" }).click();
  await expect(page).toHaveURL(/\/sessions$/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("The session is back.")).toBeVisible();
  expect((await sessions(school)).map((one) => one.id)).toContain(planned?.id);

  const presetId = crypto.randomUUID();
  const { sections } = (await school.get<{ sections: object[] }[]>("/api/presets"))[0] ?? { sections: [] };
  await put(school, `/api/presets/${presetId}`, {
    version: 0,
    name: "Monday look",
    purpose: "",
    sections,
  });
  const child = await childNamed(school, "Bram O.");
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByRole("button", { name: "Monday look" }).click();
  await page.getByRole("button", { name: "Remove “Monday look”" }).click();
  await expect(page.getByRole("button", { name: "Monday look" })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "Monday look", exact: true })).toBeVisible();

  await page.goto(`${school.base}/class`);
  await page.getByRole("button", { name: "Edit Bram O." }).click();
  await page.getByRole("button", { name: "Archive" }).click();
  await expect(page.getByRole("link", { name: "Bram O." })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("link", { name: "Bram O.", exact: true })).toBeVisible();
});

test("a save of many groups that fails half-way says which are saved, and saves the rest", async ({
  page,
  school,
}) => {
  const before = await groups(school);
  await page.goto(`${school.base}/groups/new`);
  const names = page.getByLabel("Name of the group");
  await expect(names.nth(1)).toBeVisible();
  const wanted = await names.evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  let writes = 0;
  await page.route("**/api/groups/*", (route) =>
    route.request().method() !== "GET" && ++writes === 2 ? route.abort() : route.continue(),
  );
  await page.getByRole("button", { name: "Save these groups" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Not saved" })).toContainText(`Saved: ${wanted[0]}.`);
  await page.getByRole("button", { name: "Save these groups" }).click();
  await expect(page).toHaveURL(/\/groups$/);
  // Those that go on from a running group are its next state, the others are new.
  const fresh = wanted.filter((name) => !before.some((group) => group.name === name));
  expect(await groups(school)).toHaveLength(before.length + fresh.length);
});
