import { readFileSync } from "node:fs";
import { expect, expectAccessible, test } from "./school.ts";

interface Group {
  readonly id: string;
  readonly name: string;
  readonly routine: string;
}

test("a routine is copied, changed by keys and by hand, given to a group, and a session is held by it", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/sessions/routines`);
  await page.getByRole("button", { name: /^By ear first/ }).click();
  await expect(page.getByText("20 minutes in 8 parts.", { exact: false })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Copy and change" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Marlpit way");
  await page.getByLabel("Minutes of part 2, Hear it").fill("4");
  await page.getByRole("button", { name: "Move part 2, Hear it up" }).press("Enter");
  await page.getByLabel("In your own words: part 1, Hear it").fill("Use the blue box.");
  await page.getByRole("button", { name: "Remove part 8, Last look" }).click();
  await page.getByLabel("Add a part").selectOption({ label: "Chain" });
  await page.getByLabel("Add a part").selectOption({ label: "Made-up words" });
  await expect(page.getByText("23 minutes in all.")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("heading", { name: "Marlpit way" })).toBeVisible();

  // A routine of no minutes is refused with a sentence, and what was typed stays.
  await page.getByRole("button", { name: "Change", exact: true }).click();
  for (const field of await page.getByLabel(/^Minutes of part/).all()) await field.fill("0");
  await expect(page.getByRole("alert")).toHaveText("A routine of no minutes cannot be held.");
  await expect(page.getByRole("button", { name: "Save" })).toBeDisabled();
  await page.getByRole("button", { name: "Leave as it was" }).click();

  const groups = await school.get<Group[]>("/api/groups");
  const group = groups.find(({ name }) => name === "Lock keepers");
  await page.goto(`${school.base}/groups/${group?.id}?plan=1`);
  const called = page.getByLabel("Sessions are held as");
  if (await page.getByRole("dialog").isVisible()) await page.keyboard.press("Escape");
  await called.selectOption({ label: "Marlpit way, 23 minutes" });
  await expect
    .poll(async () => (await school.get<Group[]>("/api/groups")).find(({ id }) => id === group?.id)?.routine)
    .toMatch(/^[0-9a-f]{8}-/);

  // A session that is filled anew follows it; the next time another is chosen for this session alone.
  const sessions = await school.get<{ id: string; groupId: string; state: string }[]>("/api/sessions");
  const planned = sessions.find(({ groupId, state }) => groupId === group?.id && state === "planned");
  await page.goto(`${school.base}/sessions/${planned?.id}`);
  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("button", { name: "Fill anew" }).click();
  await expect(page.getByText("Filled anew from the word list.")).toBeVisible();
  await expect(page.getByRole("region", { name: "Chain" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Hear it" })).toContainText("Use the blue box.");
  await expect(page.getByRole("region", { name: "Hear it" })).toContainText(
    /\((at the start|in the middle|at the end|not there)\)/,
  );
  // Each child has cards of its own.
  await expect(page.getByRole("region", { name: "Revisit" })).toContainText("Fitz R.");
  await expectAccessible(page);
  // One part with others, and back again.
  const words = page.getByRole("region", { name: "Read words" });
  const before = await words.innerText();
  await page.getByRole("button", { name: "Others for Read words" }).click();
  await expect.poll(() => words.innerText()).not.toBe(before);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => words.innerText()).toBe(before);
  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByLabel("Held as").selectOption({ label: "Short, 10 minutes" });
  await page.getByRole("button", { name: "Fill anew" }).click();
  await expect(page.getByRole("region", { name: "Chain" })).toHaveCount(0);
  await expect(page.getByText(/10 minutes, with/)).toBeVisible();
});

test("a routine goes out as a file and comes in again; what cannot be read of another is named", {
  tag: "@main",
}, async ({ page, school }) => {
  await page.goto(`${school.base}/sessions/routines`);
  await page.getByRole("button", { name: /^Sort the spellings/ }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Keep as Markdown" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("sort-the-spellings-20-minutes.md");
  const text = readFileSync(await file.path(), "utf8");
  expect(text).toContain("- Sort: 4 min, all together.");
  const bring = (content: string) =>
    page
      .getByLabel("A routine as a file")
      .setInputFiles({ name: "routine.md", mimeType: "text/markdown", buffer: Buffer.from(content) });
  await bring("just words");
  await expect(page.getByRole("status").first()).toContainText("No part of a session stands in this file.");
  await bring(`${text}- Sing: 3 min\n`);
  await expect(page.getByRole("status").first()).toContainText("Left out: - Sing: 3 min.");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("button", { name: /^Sort the spellings, 20 minutes ours/ })).toBeVisible();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("button", { name: /^Sort the spellings, 20 minutes ours/ })).toHaveCount(0);
});
