import { childNamed, classNamed, expect, expectAccessible, printed, test } from "./school.ts";

interface SessionRow {
  readonly id: string;
  readonly groupId: string;
  readonly groupName: string;
  readonly state: string;
}

test("children, groups and sessions are found by typing, and tables are ordered by their heads", async ({
  page,
  school,
}) => {
  const kiln = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/class/${kiln.id}`);
  const names = () => page.locator("tbody th a").allTextContents();
  await expect.poll(async () => (await names()).length).toBe(24);
  const byName = await names();
  const head = (name: string) => page.getByRole("columnheader", { name });
  await head("Child").getByRole("button").click();
  await head("Child").getByRole("button").click();
  await expect(head("Child")).toHaveAttribute("aria-sort", "descending");
  expect(await names()).toEqual([...byName].reverse());
  await head("Last checked").getByRole("button").press("Enter");
  await expect(head("Last checked")).toHaveAttribute("aria-sort", "ascending");
  await page.getByLabel("Search the children").fill("glasses");
  await expect(page.getByText("1 found")).toBeVisible();
  expect(await names()).toEqual(["Bram O."]);
  await page.getByLabel("Search the children").fill("zz");
  await expect(page.getByText("Nothing has “zz”.")).toBeVisible();
  await expectAccessible(page);

  const groups = await school.get<{ name: string; members: { name: string }[] }[]>("/api/groups");
  const group = groups[0];
  await page.goto(`${school.base}/groups`);
  await page.getByLabel("Search the groups").fill(group?.members[0]?.name.toLowerCase() ?? "");
  await expect(page.getByRole("heading", { level: 2, name: group?.name ?? "" })).toBeVisible();
  expect(await page.getByRole("heading", { level: 2 }).count()).toBeLessThan(groups.length);

  const sessions = await school.get<SessionRow[]>("/api/sessions");
  await page.goto(`${school.base}/sessions`);
  await page.getByLabel("Search the sessions").fill(group?.name ?? "");
  const mine = sessions.filter((one) => one.groupName === group?.name).length;
  await expect(page.getByText(`${mine} found`)).toBeVisible();
  expect(await page.locator("tbody tr").count()).toBe(mine);
});

test("a session is copied to another day, a spelling of it is changed in a row, a report is taken out and put back", async ({
  page,
  school,
}) => {
  const sessions = await school.get<SessionRow[]>("/api/sessions");
  const held = sessions.find((one) => one.state === "held");
  await page.goto(`${school.base}/sessions/${held?.id}`);
  await page.getByRole("button", { name: "Copy", exact: true }).click();
  await expectAccessible(page);
  await page.getByLabel("On", { exact: true }).fill("2099-01-07");
  await page.getByRole("button", { name: "Copy to this day" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(page.getByText("Nothing yet. Share the card", { exact: false })).toBeVisible();
  const [before, copy] = await Promise.all(
    [held?.id, page.url().split("/").at(-1)].map((id) =>
      school.get<{ plan: object; heldOn: string }>(`/api/sessions/${id}`),
    ),
  );
  expect(copy?.plan).toEqual(before?.plan);
  expect(copy?.heldOn).toBe("2099-01-07");

  const teach = page.getByRole("region", { name: "Teach", exact: true });
  await teach.getByRole("button", { name: "Edit Teach" }).click();
  const add = teach.getByLabel("Add a spelling to Teach");
  expect((await add.locator("option").allTextContents()).filter((option) => /=|schwa/.test(option))).toEqual([]);
  await add.selectOption({ value: "igh=igh" });
  await expectAccessible(page);
  await teach.getByRole("button", { name: "Save" }).click();
  await expect(teach.getByText("igh", { exact: true })).toBeVisible();
  await teach.getByRole("button", { name: "Edit Teach" }).click();
  await teach.getByRole("button", { name: "Take igh out of this part" }).click();
  await teach.getByRole("button", { name: "Save" }).click();
  await expect(teach.getByText("igh", { exact: true })).toHaveCount(0);

  await page.goto(`${school.base}/sessions/${held?.id}`);
  const out = page.getByRole("button", { name: /^Take out what/ });
  await expect(out.first()).toBeVisible();
  const reports = await out.count();
  await out.first().click();
  await expect(out).toHaveCount(reports - 1);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(out).toHaveCount(reports);
});

test("a reading and a child print as pages for people: no buttons, the name, one or two sheets", async ({
  page,
  school,
}) => {
  const wren = await childNamed(school, "Wren I.");
  const [reading] = await school.get<{ id: string; textId: string; title: string }[]>(
    `/api/children/${wren.id}/readings`,
  );
  await page.goto(`${school.base}/texts/${reading?.textId}/read?child=${wren.id}&reading=${reading?.id}`);
  await expect(page.getByRole("heading", { name: "What this reading says" }).first()).toBeVisible();
  expect((await printed(page)).pages).toBeLessThanOrEqual(2);
  await page.evaluate(() => dispatchEvent(new Event("beforeprint")));
  await page.emulateMedia({ media: "print" });
  await expect(page.getByText(`Wren I.: ${reading?.title}`)).toBeVisible();
  await expect(page.getByText("Words correct per minute").first()).toBeVisible();
  await expect(page.locator("button:visible, input:visible, select:visible, textarea:visible")).toHaveCount(0);

  // A print is on paper again.
  await page.emulateMedia({ media: null });
  await page.goto(`${school.base}/child/${wren.id}`);
  await expect(page.getByRole("heading", { name: "Checks" })).toBeVisible();
  // Everything is there before it is printed.
  await expect(page.getByRole("heading", { name: "Notes" })).toBeVisible();
  const next = page.locator("section").filter({ has: page.getByRole("heading", { name: "Worth teaching next" }) });
  await expect(next.getByRole("listitem").first()).toBeVisible();
  expect((await printed(page)).pages).toBeLessThanOrEqual(2);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("heading", { level: 1, name: "Wren I." })).toBeVisible();
  await expect(page.locator("button:visible:not(.prints), input:visible")).toHaveCount(0);
  await expect(page.getByRole("link", { name: "Check", exact: true })).toBeHidden();
});

test("the map prints its spellings in letters of at least 8 points", async ({ page, school }) => {
  const kiln = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/gaps?class=${kiln.id}`);
  await expect(page.getByRole("grid").or(page.getByRole("table")).first()).toBeVisible();
  await page.evaluate(() => dispatchEvent(new Event("beforeprint")));
  await page.emulateMedia({ media: "print" });
  const sizes = await page
    .locator(".only-print th span")
    .evaluateAll((spans) => spans.map((span) => (Number.parseFloat(getComputedStyle(span).fontSize) * 72) / 96));
  expect(sizes.length).toBeGreaterThan(40);
  expect(Math.min(...sizes)).toBeGreaterThanOrEqual(7.99);
  expect((await printed(page)).wide).toBe(true);
});
