import { expect, expectAccessible, test } from "./school.ts";

interface GroupRow {
  readonly id: string;
  readonly name: string;
  readonly members: { readonly name: string }[];
  readonly targets: readonly string[];
}

async function groupNamed(school: { get<T>(path: string): Promise<T> }, name: string): Promise<GroupRow> {
  const found = (await school.get<GroupRow[]>("/api/groups")).find((group) => group.name === name);
  if (!found) throw new Error(`No group ${name}`);
  return found;
}

test("a group is renamed, its targets changed, a child put in, and closed; its history tells", async ({
  page,
  school,
}) => {
  const group = await groupNamed(school, "Kingfishers");
  await page.goto(`${school.base}/groups/${group.id}`);
  await page.getByRole("button", { name: "Rename" }).click();
  await page.getByRole("dialog").getByLabel("Name").fill("Herons");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Herons" })).toBeVisible();

  await page.getByLabel("Add a target to Herons").selectOption("oa=oa");
  await expect(page.getByRole("button", { name: "Take oa out of the targets" })).toBeVisible();
  await page.getByRole("button", { name: "Take oa out of the targets" }).click();
  await expect(page.getByRole("button", { name: "Take oa out of the targets" })).toHaveCount(0);

  await page.getByLabel("Add a child").selectOption({ label: "Nell T." });
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("link", { name: "Nell T." })).toBeVisible();
  await expect(page.getByText(`${group.members.length + 1} children`, { exact: false })).toBeVisible();

  await page.getByRole("button", { name: "Close group" }).click();
  await expect(page.getByText("This group is closed; its history stays.", { exact: false })).toBeVisible();
  await page.goto(`${school.base}/groups`);
  await expect(page.getByRole("heading", { name: "Herons" })).toHaveCount(0);
  await page.getByRole("button", { name: "Show 1 closed" }).click();
  await page.getByRole("link", { name: "Herons" }).click();
  await page.getByRole("button", { name: "Open again" }).click();
  await expect(page.getByRole("button", { name: "Plan a session" })).toBeVisible();
  const { history } = await school.get<{ history: { name: string }[] }>(`/api/groups/${group.id}`);
  expect(history.slice(0, 4).map((version) => version.name)).toEqual(["Herons", "Herons", "Herons", "Herons"]);
  expect(history.at(-1)?.name).toBe("Kingfishers");
});

test("a group works on what is no spelling: chosen on its page, told wherever its targets stand, planned, taken out again", async ({
  page,
  school,
}) => {
  const needs = await school.get<{ children: { id: string; name: string; needs: { id: string }[] }[] }>(
    "/api/other-needs",
  );
  const start = /^blend CC[^.]*[CV]V?C?$/;
  const who = needs.children
    .filter((child) => child.needs.some(({ id }) => start.test(id) && !id.endsWith("CC")))
    .slice(0, 2);
  expect(who).toHaveLength(2);
  const group = await groupNamed(school, "Brick hods");
  const name = "blending a cluster at the start";
  await page.goto(`${school.base}/groups/${group.id}`);
  const worksOn = page.getByRole("main");
  await worksOn.getByLabel("Add a target to Brick hods").selectOption({ label: name });
  await expect(worksOn.getByRole("button", { name: `Take ${name} out of the targets` })).toBeVisible();
  await expect(worksOn).toContainText(`None is known to need ${name}`);
  for (const child of who) {
    await page.getByLabel("Add a child").selectOption({ label: child.name });
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await expect(page.getByRole("link", { name: child.name, exact: true })).toBeVisible();
  }
  await expect(worksOn).toContainText(
    new RegExp(`${who.length} of ${group.members.length + who.length} need [^;.]*${name}`),
  );
  // It has days of its own in the weeks ahead.
  await expect(
    page
      .getByRole("group", { name: "Weeks" })
      .getByRole("button", { name: /blending/ })
      .first(),
  ).toBeVisible();
  await expectAccessible(page);

  for (const path of ["/groups", "/"]) {
    await page.goto(`${school.base}${path}`);
    await expect(
      page.getByRole("listitem").filter({ hasText: "Brick hods" }).filter({ hasText: name }),
    ).toBeVisible();
  }
  await page.goto(`${school.base}/groups`);
  await page.getByLabel("Search the groups").fill("cluster");
  await expect(page.getByRole("heading", { name: "Brick hods" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Rope walk" })).toHaveCount(0);

  await page.goto(`${school.base}/groups/${group.id}`);
  await worksOn.getByRole("button", { name: `Take ${name} out of the targets` }).click();
  await expect(worksOn.getByRole("button", { name: `Take ${name}` })).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(worksOn.getByRole("button", { name: `Take ${name} out of the targets` })).toBeVisible();
});

test("a session is planned, moved, filled anew for another target, and removed", async ({ page, school }) => {
  const group = await groupNamed(school, "Rope walk");
  await page.goto(`${school.base}/groups/${group.id}?plan=1`);
  const other = group.targets[1] ?? "";
  await page
    .getByRole("dialog")
    .getByLabel("Teach")
    .selectOption(group.targets[0] ?? "");
  await page.getByRole("button", { name: "Fill it" }).click();
  await expect(page.getByRole("region", { name: "Teach" })).toContainText(
    group.targets[0]?.split("=")[0]?.replace("_", "–") ?? "",
  );
  await expectAccessible(page);
  const id = page.url().split("/").at(-1) ?? "";

  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("dialog").getByLabel("Day", { exact: true }).fill("2027-01-11");
  await page.getByRole("button", { name: "Move to this day" }).click();
  await expect(page.getByText("Mon 11 Jan", { exact: false }).first()).toBeVisible();
  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("dialog").getByLabel("Teach").selectOption(other);
  await page.getByRole("button", { name: "Fill anew" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  expect((await school.get<{ plan: { target: string } }>(`/api/sessions/${id}`)).plan.target).toBe(other);

  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("button", { name: "Remove this session" }).click();
  await expect(page).toHaveTitle("Sessions · Keen Sapling");
  expect((await fetch(`${school.base}/api/sessions/${id}`)).status).toBe(404);
});

test("the teacher says what happened, and Today, the group and the map know it", async ({ page, school }) => {
  const group = await groupNamed(school, "Lock keepers");
  const sessions = await school.get<{ id: string; groupId: string; state: string }[]>("/api/sessions");
  const planned = sessions.find((session) => session.groupId === group.id && session.state === "planned");
  await page.goto(`${school.base}/sessions/${planned?.id}`);
  await page.getByRole("button", { name: "Say what happened" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByLabel("Your name")).toHaveValue("Mrs Quill");
  await sheet.getByLabel("Your name").fill("");
  await expect(sheet.getByRole("button", { name: "Send what happened" })).toBeDisabled();
  await sheet.getByLabel("Your name").fill("Ms Harrow");
  await sheet.getByRole("combobox").first().selectOption("no answer");
  await sheet.getByLabel("What was reached").selectOption("It did not begin");
  await sheet.getByRole("button", { name: "Send what happened" }).click();
  await expect(page.getByText("Ms Harrow, today")).toBeVisible();
  await expect(page.getByText(/it did not begin/)).toBeVisible();
  await page.getByRole("navigation", { name: "Places" }).getByRole("link", { name: "Today" }).click();
  await expect(page.getByText("with Ms Harrow, today", { exact: false })).toBeVisible();
  await expect(page.getByRole("link", { name: "Ms Harrow held a session with Lock keepers" })).toBeVisible();
});
