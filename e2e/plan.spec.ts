import { asked } from "./checking.ts";
import { childNamed, expect, expectAccessible, test } from "./school.ts";

test("a check is planned: who, which parts, how long; changed, kept for the school, begun from again, removed", async ({
  page,
  school,
}) => {
  const [bram, hari] = [await childNamed(school, "Bram O."), await childNamed(school, "Hari S.")];
  await page.goto(`${school.base}/check`);
  await expect(page.getByRole("heading", { name: "Not checked for longest" })).toBeVisible();
  await page.getByLabel("Find a child").fill("bram");
  await page.getByRole("checkbox", { name: /^Bram O\./ }).click();
  await expect(page.getByText("glasses are due in December", { exact: false })).toBeVisible();
  await page.getByLabel("Find a child").fill("");
  await page.getByRole("checkbox", { name: /^Hari S\./ }).click();
  await expect(page.getByRole("checkbox", { name: /^Hari S\./ })).toBeChecked();
  expect(page.url()).toContain(`child=${bram.id}&child=${hari.id}`);
  await expect(page.getByRole("button", { name: "Follow-up" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByTestId("size")).toHaveText(/^\d+ items, about \d+ minutes? for all at their own pace$/);
  await expectAccessible(page);

  await page.getByRole("button", { name: "Change part 1" }).click();
  await page.getByLabel("Kind").selectOption({ label: "Hear and find" });
  await page.getByLabel("Among how many (4 to 9)").fill("4");
  await page.getByRole("button", { name: "Close part 1" }).click();
  await page.getByRole("button", { name: "Change part 2" }).click();
  for (const shape of ["Four, cluster at the end", "Four, cluster at the start"])
    await page.getByRole("group", { name: "Shapes" }).getByRole("button", { name: shape }).click();
  await page
    .getByRole("group", { name: "Shapes" })
    .getByRole("button", { name: /^Two syllables/ })
    .click();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Close part 2" }).click();
  await expect(page.getByText("3 sounds, two syllables, 3 each", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "Move part 2 up" }).click();
  await page.getByRole("button", { name: "Save as a plan" }).click();
  await page.getByRole("button", { name: "Save as a new plan" }).click();
  await expect(page.getByText("Give it a name.")).toBeVisible();
  await page.getByLabel("Name", { exact: true }).fill("Rope walk look");
  await page.getByLabel("What it is for").fill("Before the group meets.");
  await page.getByRole("button", { name: "Save as a new plan" }).click();
  await expect(page.getByRole("button", { name: "Rope walk look", exact: true })).toHaveAttribute(
    "aria-pressed",
    "true",
  );

  const gwen = await childNamed(school, "Gwen A.");
  await page.goto(`${school.base}/check?child=${gwen.id}`);
  await page.getByRole("button", { name: "Rope walk look", exact: true }).click();
  await expect(page.getByText("Before the group meets.")).toBeVisible();
  const parts = page.getByRole("list", { name: "Parts" }).getByRole("listitem");
  await expect(parts).toHaveCount(2);
  await expect(parts.nth(0)).toContainText("Read words");
  await expect(parts.nth(1)).toContainText("among 4");
  await page.getByRole("button", { name: "Begin the check" }).click();
  await expect(page.getByRole("heading", { name: /^Gwen A\. · Read words/ })).toBeVisible();

  await page.goto(`${school.base}/check?child=${gwen.id}`);
  await page.getByRole("button", { name: "Rope walk look", exact: true }).click();
  await page.getByRole("button", { name: "Remove “Rope walk look”" }).click();
  await expect(page.getByRole("button", { name: "Rope walk look", exact: true })).toHaveCount(0);
});

test("spellings are picked by hand, and a plan that has nothing to ask says so", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Dilys M.");
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByRole("button", { name: "Remove part 2" }).click();
  await page.getByRole("button", { name: "Change part 1" }).click();
  await page.getByLabel("What", { exact: true }).selectOption({ label: "picked by hand" });
  await expect(page.getByTestId("size")).toContainText("Nothing to ask");
  await expect(page.getByRole("button", { name: "Begin the check" })).toBeDisabled();
  const pick = page.getByRole("group", { name: /^Picked by hand/ });
  for (const spelling of [/^b \/b/, /^ai /]) await pick.getByRole("button", { name: spelling }).first().click();
  await expect(page.getByTestId("size")).toContainText("2 items");
  await page.getByRole("button", { name: "Begin the check" }).click();
  await asked(page);
  await page.keyboard.press("1");
  await expect(page.getByText("2 of 2")).toBeVisible();
  await expect(page.getByText("all marks saved")).toBeVisible();
  const newest = async (gpc: string) =>
    (
      await school.get<{ pieces: { by: string }[] }>(
        `/api/children/${child.id}/evidence?gpc=${encodeURIComponent(gpc)}`,
      )
    ).pieces[0]?.by;
  expect([await newest("b=b"), await newest("ai=ai")]).toContain("Mrs Quill");
});
