import { expect, expectAccessible, patch, test } from "./school.ts";

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
