import { expect, makeClass, post, put, test } from "./school.ts";

test("groups of a whole school: the lists on the cards are filled when they are reached, a child moves, all are saved", async ({
  page,
  emptySchool: school,
}) => {
  const classId = await makeClass(school, "All", "s6");
  const children = Array.from({ length: 130 }, (_, at) => ({
    ...{ id: crypto.randomUUID(), classId, note: "" },
    name: `Child ${at + 1}`,
  }));
  await post(school, "/api/children/import", { children });
  // What is put first for a class counts as a need of all who do not have it yet.
  await put(school, `/api/classes/${classId}/next`, { gpc: "b=b", how: "pinned", until: null });
  await page.goto(`${school.base}/groups/new`);
  const groups = page.locator("section[aria-label]").filter({ has: page.getByLabel("Name of the group") });
  await expect(groups).toHaveCount(26);
  const card = groups.first().getByRole("listitem").first();
  const place = card.getByRole("combobox");
  await expect(place.getByRole("option")).toHaveCount(1);
  await place.focus();
  await expect(place.getByRole("option")).toHaveCount(27);
  const name = (await place.getAttribute("aria-label")) ?? "";
  const last = await groups.last().getByLabel("Name of the group").inputValue();
  await place.selectOption({ label: last });
  // "Group of Child 1" begins "Group of Child 12" as well.
  const moved = groups.last().getByLabel(name, { exact: true });
  await expect(moved).toHaveValue(/./);
  await expect(moved.getByRole("option")).toHaveText([last]);
  const add = groups.first().getByLabel(/^Add a target to /);
  await expect(add.getByRole("option")).toHaveCount(1);
  await add.hover();
  await page.mouse.down();
  await expect.poll(() => add.getByRole("option").count()).toBeGreaterThan(50);
  await page.mouse.up();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Save these groups" }).click();
  await expect(page.getByText("26 groups are saved.", { exact: false })).toBeVisible();
  const saved = await school.get<{ members: unknown[] }[]>("/api/groups");
  expect(saved.reduce((sum, { members }) => sum + members.length, 0)).toBe(130);
});
