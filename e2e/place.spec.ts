import { part, sit, sitting } from "./checking.ts";
import { childNamed, expect, expectAccessible, test } from "./school.ts";

test("a child gets a place of its own in the order, checks follow it, and it goes along with its class again", async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Fitz R.");
  const deck = async () => {
    const { id } = await sit(school, ["Fitz R."], [part("card")]);
    return (await sitting(school, id)).checks[0]?.items ?? [];
  };
  const before = await deck();
  await page.goto(`${school.base}/child/${child.id}`);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Place in the order" }) });
  await expect(panel.getByText(/^With Kiln: step \d+ of \d+, /)).toBeVisible();
  await panel.getByRole("button", { name: "Give it a place of its own" }).click();
  await panel.getByLabel("Taught up to").selectOption({ index: 6 });
  await panel.getByLabel(/A second time through/).check();
  await expectAccessible(page);
  await panel.getByRole("button", { name: "Keep this place" }).click();
  await expect(panel.getByText(/^A place of its own: step 6 of \d+, .*, a second time through\./)).toBeVisible();
  const own = await deck();
  expect(own.length).toBeLessThan(before.length);
  for (const item of own) expect(before).toContain(item);
  await page.reload();
  await expect(panel.getByText(/^A place of its own: step 6/)).toBeVisible();
  await panel.getByRole("button", { name: "Go along with the class again" }).click();
  await expect(panel.getByText(/^With Kiln: step \d+ of \d+, /)).toBeVisible();
  expect((await deck()).toSorted()).toEqual(before.toSorted());
});

test("a group has a place of its own, which its children follow", async ({ page, school }) => {
  const groups = await school.get<{ id: string; name: string; members: { name: string }[] }[]>("/api/groups");
  const group = groups.find(({ name }) => name === "Lock keepers");
  const name = group?.members[0]?.name ?? "";
  await page.goto(`${school.base}/groups/${group?.id}`);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Place in the order" }) });
  await panel.getByRole("button", { name: "Give it a place of its own" }).click();
  await panel.getByLabel("Taught up to").selectOption({ index: 4 });
  await panel.getByRole("button", { name: "Keep this place" }).click();
  await expect(panel.getByText(/^A place of its own: step 4/)).toBeVisible();
  const child = await childNamed(school, name);
  await page.goto(`${school.base}/child/${child.id}`);
  await expect(page.getByText(/^With the group “Lock keepers”: step 4/)).toBeVisible();
});
