import { childNamed, comeInAs, expect, expectAccessible, test } from "./school.ts";
import { groupNamed } from "./teaching.ts";

test("a note on a child is written for its colleagues, shows on Today until it is read, and is taken away and brought back", async ({
  page,
  school,
  browser,
}) => {
  const child = await childNamed(school, "Betsy R.");
  await page.goto(`${school.base}/child/${child.id}`);
  const notes = page.locator("section", { has: page.getByRole("heading", { name: "Notes", exact: true }) });
  await expect(notes.getByText("No note is here.")).toBeVisible();
  await notes.getByRole("button", { name: "Write a note" }).press("Enter");
  await expect(notes.getByRole("textbox", { name: "Note" })).toBeFocused();
  await expect(notes.getByRole("button", { name: "Keep the note" })).toBeDisabled();
  await page.keyboard.type("Ask her about the new boat. She reads best after a chat.");
  await expect(notes.getByLabel("For").locator("option").first()).toHaveText("everyone who teaches Betsy R.");
  await expectAccessible(page);
  await notes.getByRole("button", { name: "Keep the note" }).press("Enter");
  const kept = notes.getByRole("listitem").filter({ hasText: "Ask her about the new boat." });
  await expect(kept).toContainText("Mrs Quill · today");
  await expectAccessible(page);

  const away = await browser.newContext();
  await comeInAs(away, school, "teacher");
  const other = await away.newPage();
  await other.goto(school.base);
  const fresh = other.getByRole("list", { name: "New notes" }).getByRole("listitem");
  const its = fresh.filter({ hasText: "Ask her about the new boat." });
  await expect(its).toContainText("Betsy R. · Mrs Quill, today");
  await expectAccessible(other);
  // Opened, it is read.
  await its.getByRole("link", { name: "Betsy R." }).click();
  await expect(other.getByText("new · ")).toBeVisible();
  await expect(other.getByRole("button", { name: /^Take away the note/ })).toHaveCount(0);
  await other.goto(school.base);
  await expect(other.getByRole("heading", { name: "Groups and their next step" })).toBeVisible();
  await expect(its).toHaveCount(0);
  await away.close();

  await kept.getByRole("button", { name: "Take away the note of Mrs Quill" }).click();
  await expect(kept).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(kept).toHaveCount(1);
});

test("a note for one colleague, until a day: an assistant finds it on Today and at the group; without a line nothing of it is lost", async ({
  page,
  school,
  browser,
  context,
}) => {
  const group = await groupNamed(school, "Brick hods");
  await page.goto(`${school.base}/groups/${group.id}`);
  const notes = page.locator("section", { has: page.getByRole("heading", { name: "Notes", exact: true }) });
  await notes.getByRole("button", { name: "Write a note" }).click();
  await notes.getByRole("textbox", { name: "Note" }).fill("Thank you for standing in.");
  const { people } = await school.get<{ people: { name: string; role: string }[] }>("/api/people");
  const name = people.find(({ role }) => role === "assistant")?.name ?? "";
  await notes.getByLabel("For").selectOption({ label: name });
  const { today } = await school.get<{ today: string }>("/api/school");
  await notes.getByLabel("Until").fill(today);
  await context.setOffline(true);
  await notes.getByRole("button", { name: "Keep the note" }).click();
  await expect(notes.getByText("What you wrote stands here still.", { exact: false })).toBeVisible();
  await expect(notes.getByRole("textbox", { name: "Note" })).toHaveValue("Thank you for standing in.");
  await context.setOffline(false);
  await notes.getByRole("button", { name: "Keep the note" }).click();
  await expect(notes.getByRole("listitem").filter({ hasText: "Thank you for standing in." })).toContainText(
    `for ${name}`,
  );

  const away = await browser.newContext();
  await comeInAs(away, school, "assistant");
  const other = await away.newPage();
  await other.goto(school.base);
  const its = other.getByRole("list", { name: "New notes" }).getByRole("listitem").filter({ hasText: "standing in" });
  await expect(its).toContainText("for you");
  await its.getByRole("button", { name: /^Seen: Brick hods/ }).click();
  await expect(its).toHaveCount(0);
  await other.goto(`${school.base}/groups/${group.id}`);
  await expect(other.getByText("Thank you for standing in.")).toBeVisible();
  await expectAccessible(other);
  await away.close();
});
