import { expect, expectAccessible, test } from "./school.ts";

test("an invitation is sent: without a mail server the letter waits in the outbox, is handed over, and goes with its link", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/settings/people`);
  await page.getByRole("button", { name: "Add a person" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Name").fill("Miss Aldous");
  await sheet.getByLabel("Role").selectOption({ label: "Teacher" });
  await sheet.getByRole("button", { name: "Add" }).click();
  const invite = async (to: string) => {
    await page.getByRole("button", { name: /^(Invite|New link): Miss Aldous$/ }).click();
    await sheet.getByLabel("Or send it by e-mail to").fill(to);
    await sheet.getByLabel("Or send it by e-mail to").press("Enter");
  };
  await invite("aldous@school.example");
  await expect(sheet.getByRole("status")).toContainText("the letter lies in the outbox");
  const link = await sheet.getByRole("textbox", { name: "The link" }).inputValue();
  await expectAccessible(page);
  await page.keyboard.press("Escape");

  const outbox = page.getByRole("list", { name: "Outbox" });
  await expect(outbox).toContainText("aldous@school.example");
  const letter = decodeURIComponent(
    (await outbox
      .getByRole("link", { name: "Open the letter to Miss Aldous in a mail program" })
      .getAttribute("href")) ?? "",
  );
  expect(letter).toMatch(/^mailto:aldous@school\.example\?subject=/);
  expect(letter).toContain(link);
  await page.reload();
  await expect(outbox.getByRole("listitem")).toHaveCount(1);
  await expectAccessible(page);

  // A new link ends the one before, and its letter with it.
  await invite("aldous@other.example");
  await expect(sheet.getByRole("status")).toContainText("the letter lies in the outbox");
  await page.keyboard.press("Escape");
  await expect(outbox.getByRole("listitem")).toHaveCount(1);
  await expect(outbox).toContainText("aldous@other.example");
  await outbox.getByRole("button", { name: "Take the letter to Miss Aldous out" }).press("Enter");
  await expect(outbox).toHaveCount(0);
});
