import { expect, expectAccessible, type School, test } from "./school.ts";
import { answersOf, groupNamed, now, part, plan, withParts } from "./teaching.ts";

/** A link to a session that works today. */
async function linkTo(school: School, id: string): Promise<string> {
  const { today } = await school.get<{ today: string }>("/api/school");
  const share = await fetch(`${school.base}/api/sessions/${id}/share`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: school.base },
    body: JSON.stringify({ endsOn: today }),
  });
  return ((await share.json()) as { token: string }).token;
}

test("whoever has the link teaches from a phone, reloads, and all marks come with what they say", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  const token = await linkTo(school, id);
  const away = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const phone = await away.newPage();
  await phone.goto(`${school.base}/shared/${token}`);
  await phone.getByRole("link", { name: "Teach it from here" }).tap();
  await phone.getByRole("button", { name: "Begin" }).tap();
  await expectAccessible(phone);
  const children = phone.getByRole("list", { name: "Children" });
  const mark = (name: RegExp) => children.locator('[aria-current="true"]').getByRole("button", { name }).tap();
  await mark(/got it$/);
  await mark(/not yet$/);
  await part(phone, /^Read words/);
  await mark(/with help$/);
  await phone.reload();
  await expect(now(phone).getByRole("heading", { name: "Read words" })).toBeVisible();
  await mark(/got it$/);
  // Whoever is not signed in has the children's side here or in a second window, by no code.
  await phone.getByRole("button", { name: "What the children see" }).tap();
  await expect(phone.getByRole("button", { name: "Get a code for another device" })).toBeHidden();
  await phone.keyboard.press("Escape");
  await phone.getByRole("button", { name: "End the session" }).tap();
  await phone.getByLabel("Your name").fill("Wyn D.");
  await expectAccessible(phone);
  await phone.getByRole("button", { name: "Send what happened" }).tap();
  await expect(phone.getByText("Thank you. The teacher sees it now, with everything that was marked.")).toBeVisible();
  await away.close();
  const answers = await answersOf(school, group, id);
  expect(answers.map(({ outcome }) => outcome).sort()).toEqual(["right", "right", "right", "wrong"]);
  expect(answers.map(({ help }) => help).sort()).toContain("hint");
  await page.goto(`${school.base}/sessions/${id}`);
  await expect(page.getByText("Wyn D.").first()).toBeVisible();
  // The lead sees that it was opened, and ends it among all links.
  await page.goto(`${school.base}/settings/people`);
  const links = page.getByRole("listitem").filter({ hasText: "opened today" });
  await expect(links).toContainText("Brick hods");
  await expectAccessible(page);
  await links.getByRole("button", { name: /^Switch off the link to Brick hods/ }).click();
  await expect(links).toHaveCount(0);
  expect((await fetch(`${school.base}/api/shared/${token}`)).status).toBe(404);
});

test("words of a text are marked from a link, are a reading of the child, and go when the report is taken away", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await withParts(school, "Brick hods", [{ kind: "text", items: ["The Hen and the Bed"] }]);
  const token = await linkTo(school, id);
  const away = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const phone = await away.newPage();
  await phone.goto(`${school.base}/shared/${token}/teach`);
  await phone.getByRole("button", { name: "Begin" }).tap();
  const words = now(phone).getByRole("region", { name: "The Hen and the Bed" });
  await words.getByRole("button", { name: "bin" }).tap();
  await now(phone).getByLabel("Said for bin").fill("bun");
  await phone.reload();
  await expect(words.getByRole("button", { name: /^bin , marked/ })).toBeVisible();
  await expectAccessible(phone);
  const [first, second] = group.members;
  await phone.getByRole("button", { name: `${first?.name}: with help` }).tap();
  await phone.getByRole("button", { name: `${second?.name}: got it` }).tap();
  await phone.getByRole("button", { name: "End the session" }).first().tap();
  await phone.getByLabel("Your name").fill("Wyn D.");
  await phone.getByRole("button", { name: "Send what happened" }).tap();
  await expect(phone.getByText("Thank you.", { exact: false })).toBeVisible();
  await away.close();
  const readings = async (childId: string | undefined) =>
    (
      await school.get<{ title: string; markedBy: string; marks: { kind: string; heard: string | null }[] }[]>(
        `/api/children/${childId}/readings`,
      )
    )
      .filter(({ markedBy }) => markedBy === "Wyn D.")
      .map(({ title, marks }) => [title, ...marks.map(({ kind, heard }) => `${kind} ${heard}`)]);
  expect(await readings(first?.childId)).toEqual([["The Hen and the Bed", "misread bun"]]);
  expect(await readings(second?.childId)).toEqual([["The Hen and the Bed"]]);
  await page.goto(`${school.base}/child/${first?.childId}`);
  await expect(page.getByRole("row", { name: /The Hen and the Bed/ }).first()).toBeVisible();
  const { reports } = await school.get<{ reports: { id: string }[] }>(`/api/sessions/${id}`);
  const gone = await fetch(`${school.base}/api/sessions/${id}/reports/${reports[0]?.id}`, {
    method: "DELETE",
    headers: { origin: school.base },
  });
  expect(gone.status).toBe(200);
  expect(await readings(first?.childId)).toEqual([]);
});

test("a link that is ended while someone teaches from it: a sentence, what was marked stays, and a new link sends it", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Rope walk");
  const id = await plan(school, group);
  const token = await linkTo(school, id);
  const away = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const phone = await away.newPage();
  await phone.goto(`${school.base}/shared/${token}`);
  await phone.getByRole("link", { name: "Teach it from here" }).tap();
  await phone.getByRole("button", { name: "Begin" }).tap();
  const children = phone.getByRole("list", { name: "Children" });
  const mark = (name: RegExp) => children.locator('[aria-current="true"]').getByRole("button", { name }).tap();
  await mark(/got it$/);

  await page.goto(`${school.base}/settings/people`);
  await page.getByRole("button", { name: /^Switch off the link to Rope walk/ }).click();
  await expect(page.getByRole("button", { name: /^Switch off the link to Rope walk/ })).toHaveCount(0);
  // The one who teaches goes on, and is told when they hand it back.
  await mark(/not yet$/);
  await phone.getByRole("button", { name: "End the session" }).tap();
  await phone.getByLabel("Your name").fill("Wyn D.");
  await phone.getByRole("button", { name: "Send what happened" }).tap();
  await expect(
    phone.getByText(/was switched off, or its last day has passed\. Ask the teacher/).first(),
  ).toBeVisible();
  expect(await answersOf(school, group, id)).toEqual([]);
  await expectAccessible(phone);
  // Another link to the same session finds what was marked on this device.
  const again = await linkTo(school, id);
  await phone.goto(`${school.base}/shared/${again}/teach`);
  await phone.getByLabel("Your name").fill("Wyn D.");
  await phone.getByRole("button", { name: "Send what happened" }).tap();
  await expect(phone.getByText("Thank you. The teacher sees it now, with everything that was marked.")).toBeVisible();
  expect((await answersOf(school, group, id)).length).toBe(2);
  await away.close();
});
