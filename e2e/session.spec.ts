import { devices } from "@playwright/test";
import { expect, expectAccessible, printed, test } from "./school.ts";

interface SessionRow {
  readonly id: string;
  readonly groupName: string;
  readonly state: string;
}

test("a session is edited, a word that breaks the rule is marked, and the card prints on one page", {
  tag: "@main",
}, async ({ page, school }) => {
  const rows = await school.get<SessionRow[]>("/api/sessions");
  const planned = rows.find((row) => row.state === "planned");
  await page.goto(`${school.base}/sessions/${planned?.id}`);
  await expect(page.getByText("15 minutes", { exact: false }).first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Edit Read words" }).click();
  await page.getByLabel("Words, with a space between").fill("mat daughter ship");
  await expect(page.getByText(/“daughter” has augh.* which not all of them can read/)).toBeVisible();
  await page.getByLabel("Minutes").fill("4");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("16 minutes", { exact: false }).first()).toBeVisible();
  await page.reload();
  await expect(page.getByRole("region", { name: "Read words" }).getByText("“daughter” has augh")).toBeVisible();
  expect(await printed(page)).toEqual({ pages: 1, wide: false });
});

test("a colleague opens the link on a phone, hands back what happened, and it reaches group and answers", async ({
  page,
  school,
  browser,
}) => {
  const rows = await school.get<SessionRow[]>("/api/sessions");
  const planned = rows.filter((row) => row.state === "planned").at(0);
  await page.goto(`${school.base}/sessions/${planned?.id}`);
  await page.getByRole("button", { name: "Share" }).click();
  await page.getByRole("button", { name: "Make a link" }).click();
  const link = await page.getByLabel("The link, shown this once").inputValue();
  expect(link).toMatch(/\/shared\/[\w-]{43}$/);
  await expectAccessible(page);

  const { viewport, userAgent, hasTouch, isMobile, deviceScaleFactor } = devices["Pixel 5"];
  const hand = await browser.newContext({ viewport, userAgent, hasTouch, isMobile, deviceScaleFactor });
  const phone = await hand.newPage();
  await phone.goto(link);
  await expect(phone.getByText("Read words")).toBeVisible();
  await expectAccessible(phone);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  await phone.getByRole("button", { name: "Say what happened" }).click();
  await phone.getByLabel("Your name").fill("Wyn D.");
  const children = await phone.getByRole("checkbox").count();
  await phone.getByRole("checkbox").last().uncheck();
  await phone.getByRole("combobox").first().selectOption("right at once");
  await phone.getByLabel("What was reached").selectOption("Write words");
  await phone.getByLabel("Note").fill("The ducks came by.");
  await expectAccessible(phone);
  await phone.getByRole("button", { name: "Send what happened" }).click();
  await expect(phone.getByText("Thank you.")).toBeVisible();

  await page.reload();
  await expect(page.getByText("Wyn D., today")).toBeVisible();
  await expect(page.getByText(`${children - 1} of ${children} came, reached: write words`)).toBeVisible();
  await expect(page.getByText("The ducks came by.")).toBeVisible();
  const session = await school.get<{ members: { id: string }[]; plan: { target: string } }>(
    `/api/sessions/${planned?.id}`,
  );
  const seen = await school.get<{ pieces: { by: string }[] }>(
    `/api/children/${session.members[0]?.id}/evidence?gpc=${encodeURIComponent(session.plan.target)}`,
  );
  expect(seen.pieces[0]?.by).toBe("Wyn D.");

  const group = await school.get<{ groupId: string }>(`/api/sessions/${planned?.id}`);
  await page.goto(`${school.base}/groups/${group.groupId}`);
  await expect(page.getByText(`Wyn D.: ${children - 1} came. The ducks came by.`)).toBeVisible();
  await page.goBack();

  await page.getByRole("button", { name: "Share" }).click();
  await page.getByRole("button", { name: "Switch the link off" }).click();
  await phone.goto(link);
  await expect(phone.getByText("This link does not work any more")).toBeVisible();
  await hand.close();
});
