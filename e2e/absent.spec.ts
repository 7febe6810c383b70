import { childNamed, expect, expectAccessible, patch, test } from "./school.ts";

test("a child who is absent today: one tap, and checks, sessions and lists follow; one tap more and it is here", async ({
  page,
  school,
}) => {
  const { today } = await school.get<{ today: string }>("/api/school");
  const sessions = await school.get<{ id: string; heldOn: string; reports?: number }[]>("/api/sessions");
  const planned = sessions.find((one) => one.heldOn >= today) ?? sessions[0];
  const path = `/api/sessions/${planned?.id}`;
  const { version } = await school.get<{ version: number }>(path);
  await patch(school, path, { version, heldOn: today });
  const { members } = await school.get<{ members: { id: string; name: string }[] }>(path);
  const [absent, there] = members;
  const { child } = await school.get<{ child: { classId: string } }>(`/api/children/${absent?.id}`);

  await page.goto(`${school.base}/class/${child.classId}`);
  const mark = page.getByRole("button", { name: `${absent?.name} is absent today` });
  await mark.press("Enter");
  await expect(mark).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("row", { name: new RegExp(`^${absent?.name}`) })).toContainText("absent today");
  await expectAccessible(page);

  // A class taken for a check comes without it; it can still be chosen by hand.
  await page.goto(`${school.base}/check`);
  await page.getByLabel("Take a group or a class").selectOption(child.classId);
  await expect(page.getByRole("checkbox", { name: new RegExp(`^${there?.name}`) })).toBeChecked();
  await expect(page.getByRole("checkbox", { name: new RegExp(`^${absent?.name}`) })).not.toBeChecked();
  await page.getByRole("checkbox", { name: new RegExp(`^${absent?.name}`) }).check();

  await page.goto(`${school.base}/sessions/${planned?.id}`);
  const children = page.getByRole("heading", { name: "Children" }).locator("../..");
  await expect(children.getByRole("listitem").filter({ hasText: absent?.name ?? "" })).toContainText(
    "absent that day",
  );
  await page.getByRole("button", { name: "Say what happened" }).click();
  await expect(page.getByRole("checkbox", { name: new RegExp(`^${absent?.name}`) })).not.toBeChecked();
  await expect(page.getByRole("checkbox", { name: new RegExp(`^${there?.name}`) })).toBeChecked();

  await page.goto(`${school.base}/class/${child.classId}`);
  await mark.click();
  await expect(mark).toHaveAttribute("aria-pressed", "false");
});

test("days on which a child was away stand on its page with what it missed; a day is added and taken back", async ({
  page,
  school,
}) => {
  const { id } = await childNamed(school, "Nell T.");
  const { child } = await school.get<{ child: { classId: string } }>(`/api/children/${id}`);
  const { classes } = await school.get<{ classes: { id: string; taughtOn: string | null }[] }>("/api/school");
  const taughtOn = classes.find((one) => one.id === child.classId)?.taughtOn ?? "";
  expect(taughtOn).not.toBe("");
  await page.goto(`${school.base}/child/${id}`);
  await page.getByLabel("Was away on").fill(taughtOn);
  await page.getByRole("button", { name: "Add", exact: true }).click();
  const days = page.getByRole("list", { name: "Days away" });
  await expect(days.getByRole("listitem")).toContainText("missed");
  await expectAccessible(page);
  await page.reload();
  await days.getByRole("button", { name: /^Here on .* after all$/ }).press("Enter");
  await expect(days).toHaveCount(0);
});
