import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { childNamed, classNamed, expect, expectAccessible, printed, test } from "./school.ts";

/** Pastes into a field, as from another program. */
async function paste(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).evaluate((field, pasted) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData("text/plain", pasted);
    field.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
  }, text);
}

test("the shelf has texts in the order in which they climb, and for readers those that fit first, with the reason", async ({
  page,
  school,
}) => {
  const texts = await school.get<{ title: string }[]>("/api/texts");
  expect(texts.length).toBeGreaterThanOrEqual(36);
  await page.goto(`${school.base}/texts`);
  const titles = page.getByRole("row").getByRole("rowheader").getByRole("link");
  await expect(titles).toHaveText(texts.map((text) => text.title));
  await expectAccessible(page);
  const { name } = await classNamed(school, "Towpath");
  await page.getByLabel("For", { exact: true }).selectOption({ label: name });
  await expect(titles.first()).not.toHaveText(texts[0]?.title ?? "");
  const rows = await page.getByRole("row").allTextContents();
  const shares = rows.slice(1).map((row) => Number(/(\d+)%/.exec(row)?.[1]));
  const alone = shares.filter((share) => share >= 97).length;
  expect(alone).toBeGreaterThan(5);
  expect(shares.slice(0, alone).every((share) => share >= 97)).toBe(true);
  expect(rows[1]).toContain("To read alone.");
  expect(rows.at(-1)).toMatch(/Not yet\. \d+ of \d+ words cannot be read yet: /);
});

test("when what lays the texts does not load that is told, a reading goes on without it, and it is tried again", async ({
  page,
  school,
}) => {
  await page.route(/texts\.worker/, (route) => route.abort());
  const child = await childNamed(school, "Wilf Y.");
  await page.goto(`${school.base}/texts/ants-on-the-sand/read?child=${child.id}`);
  await expect(page.getByRole("button", { name: "Start Space" })).toBeVisible();
  const { id } = await classNamed(school, "Towpath");
  await page.goto(`${school.base}/texts?for=class:${id}`);
  await expect(page.getByRole("alert")).toContainText("What works this out could not be loaded. Nothing was changed");
  await page.unroute(/texts\.worker/);
  const readers = page.getByLabel("For", { exact: true });
  await readers.selectOption("all");
  await readers.selectOption(`class:${id}`);
  await expect(page.getByRole("row").nth(1)).toContainText("To read alone.");
});

test("a text stands large for the child, with its brackets, and prepared for a child", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Wilf Y.");
  await page.goto(`${school.base}/texts?for=child:${child.id}`);
  await page.getByRole("link", { name: "The Lane Is a Lake" }).click();
  const text = page.getByRole("region", { name: "The text" });
  await expect(text.getByText("It rains and it rains.", { exact: false })).toBeVisible();
  const size = () =>
    text
      .locator("p")
      .first()
      .evaluate((one) => Number.parseFloat(getComputedStyle(one).fontSize));
  expect(await size()).toBe(24);
  await page.getByLabel("Size").fill("40");
  expect(await size()).toBe(40);
  await page.getByRole("button", { name: "With brackets" }).click();
  await expect(text.locator(".bracketed").first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "Before reading" })).toBeVisible();
  await expect(page.getByText("drain: a hole or pipe", { exact: false })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Questions" })).toBeVisible();
  await expect(page.getByText("Why is the lane a lake?")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "As the child reads it" }).click();
  await page.getByLabel("Size").fill("20");
  expect(await printed(page)).toEqual({ pages: 1, wide: false });
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save as Markdown" }).click(),
  ]);
  expect(readFileSync(await saved.path(), "utf8")).toMatch(
    /^# The Lane Is a Lake\n\nIt rains[\s\S]*## Questions[\s\S]*## Words/,
  );
  const { name } = await classNamed(school, "Towpath");
  await page.getByLabel("For", { exact: true }).selectOption({ label: name });
  await expect(page.getByText(/^\d+ of 24 can read it alone\./)).toBeVisible();
  await expect(page.getByRole("region", { name: "Each child" }).getByRole("row")).toHaveCount(25);
  await expectAccessible(page);
  await page.goto(`${school.base}/texts/no-such-text`);
  await expect(page.getByRole("heading", { name: "There is no such text" })).toBeVisible();
});

test("a text of ours: pasted with its markup as text, marked while it is written, kept in versions, removed", async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Gwen A.");
  await page.goto(`${school.base}/texts?for=child:${child.id}`);
  await page.getByRole("link", { name: "Add a text" }).click();
  const text = page.getByLabel("Text", { exact: true });
  await paste(page, "Text", "a cat ".repeat(350_000));
  await expect(page.getByRole("alert")).toContainText("That has 2,100,000 characters; a text has at most 20,000.");
  await expect(text).toHaveValue("");
  await paste(
    page,
    "Text",
    "# The mud pump\n\nMeg had a pump. <script>window.hacked = 1</script>\n\nA yacht sat in **mud**.\n\n## Questions\n\n- who, found: Who had a pump? | Meg @ Meg had a pump",
  );
  await expect(page.getByLabel("Title")).toHaveValue("The mud pump");
  await expect(text).toHaveValue("Meg had a pump. <script>window.hacked = 1</script>\n\nA yacht sat in mud.");
  await expect(page.getByRole("textbox", { name: "Question 1" })).toHaveValue("Who had a pump?");
  await expect(page.getByText("For Gwen A.", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "yacht", exact: true }).click();
  await expect(page.getByText("Read as wholes here", { exact: false })).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByLabel("Title")).toHaveValue("The mud pump");
  await page.getByRole("button", { name: "Save this text" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "The mud pump" })).toBeVisible();
  await expect(page.getByText("<script>window.hacked = 1</script>", { exact: false })).toBeVisible();
  expect(await page.evaluate(() => "hacked" in window)).toBe(false);

  await page.getByRole("link", { name: "Change it" }).click();
  await text.fill("…");
  await expect(page.getByText("Write or paste at least one sentence.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Save this text" })).toBeDisabled();
  await text.fill("Meg had a pump.\n\nIt hid in mud.");
  await page.getByRole("button", { name: "Save this text" }).click();
  await page.getByRole("link", { name: "Change it" }).click();
  await expect(page.getByText("as it is now")).toBeVisible();
  await page.getByRole("button", { name: "Put version 1 into the form" }).click();
  await expect(text).toHaveValue(/A yacht sat in mud/);

  // Someone else keeps another version meanwhile: nothing is written over, nothing of the form is lost.
  const own = (await school.get<{ id: string; own: boolean; title: string }[]>("/api/texts")).find(
    (one) => one.title === "The mud pump",
  );
  const other = { title: "The mud pump", exceptions: [], body: "Other words.", questions: [], words: [] };
  await fetch(`${school.base}/api/texts/${own?.id}`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ content: other, version: 2, savedAt: new Date().toISOString(), savedBy: "Mr Wade" }),
  });
  await page.getByRole("button", { name: "Save this text" }).click();
  const choice = page.getByRole("dialog", { name: "Changed by someone else meanwhile" });
  await expect(choice).toContainText("A yacht sat in mud");
  await expect(choice).toContainText("Other words.");
  await expect(choice.getByRole("button", { name: "Keep mine as a text of its own" })).toBeVisible();
  await choice.getByRole("button", { name: "Leave theirs" }).click();
  await expect(page.getByText("Other words.")).toBeVisible();
  await page.getByRole("button", { name: "Remove it" }).click();
  await expect(page.getByRole("dialog")).toContainText("all its 3 versions");
  await page.getByRole("dialog").getByRole("button", { name: "Remove it" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Texts" })).toBeVisible();
  await expect(page.getByRole("link", { name: "The mud pump" })).toHaveCount(0);
});

test("the library goes out as a file and comes in again; of another file each text says what becomes of it", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/texts`);
  await page.getByRole("button", { name: "Files" }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /^Save all \d+ as a file/ }).click(),
  ]);
  const saved = await file.path();
  const library = JSON.parse(readFileSync(saved, "utf8")) as { format: string; texts: object[] };
  expect(library.format).toBe("keen-sapling texts 1");
  expect(library.texts.length).toBeGreaterThan(36);
  const choose = page.getByLabel("Libraries as JSON", { exact: false });
  const json = (content: object) => ({
    name: "texts.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(content)),
  });
  await choose.setInputFiles(json(library));
  await expect(page.getByRole("button", { name: "Nothing new to take" })).toBeDisabled();
  await expectAccessible(page);
  const some = {
    ...library,
    texts: [
      { title: "Six eggs", body: "Six eggs in a box." },
      { title: "Bad", body: "" },
    ],
  };
  await choose.setInputFiles([
    json(some),
    { name: "Tar and tin.txt", mimeType: "text/plain", buffer: Buffer.from("A tin of tar. A lid on it.") },
  ]);
  const list = page.getByRole("list", { name: "What becomes of each text" });
  await expect(list.getByRole("listitem")).toHaveText([/Six eggs\s*new/, /Tar and tin\s*new/, /Bad not taken: body/]);
  await page.getByRole("button", { name: "Take 2" }).click();
  await expect(page.getByText("2 taken.")).toBeVisible();
  await page.getByLabel("Search the shelf").fill("six eggs");
  await expect(page.getByRole("row")).toHaveCount(2);
  await expect(page.getByRole("row", { name: /Six eggs/ })).toContainText("ours");
  await page.getByLabel("Search the shelf").fill("no such words");
  await expect(page.getByText("No text has “no such words”.")).toBeVisible();
});

test("a preparation is changed, kept for these readers alone, printed on a page and shown one thing after another", async ({
  page,
  school,
  context,
}) => {
  const child = await childNamed(school, "Wilf Y.");
  await page.goto(`${school.base}/texts/the-lane-is-a-lake?for=child:${child.id}`);
  await page.getByRole("link", { name: "Change, print or show" }).click();
  const sheet = page.getByRole("region", { name: "The page" });
  await expect(sheet.locator(".bracketed").first()).toBeVisible();
  await page.getByRole("button", { name: /^Take out A comma stands/ }).click();
  await expect(sheet.getByText("A comma stands", { exact: false })).toHaveCount(0);
  await page.getByLabel("Add to: Spellings in focus").fill("qq=zz");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("spelling=sound");
  await page.getByLabel("Add to: Spellings in focus").fill("sh=sh");
  await page.keyboard.press("Enter");
  await page.getByLabel("Add to: Longer words").fill("raindrop");
  await page.keyboard.press("Enter");
  await expect(sheet.getByText("rain·drop", { exact: false })).toBeVisible();
  await page.getByLabel("Add to: Meanings").fill("lane: a narrow road");
  await page.keyboard.press("Enter");
  await page.getByLabel("Note").fill("Bring the picture of the lane.");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("Saved for these readers.")).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(sheet.getByText("Bring the picture of the lane.")).toBeVisible();
  expect(await printed(page)).toEqual({ pages: 1, wide: false });

  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await page.bringToFront();
  await page.getByRole("button", { name: "Show one by one" }).click();
  await expect(face.getByTestId("card")).toBeVisible();
  const first = (await face.getByTestId("card").textContent()) ?? "";
  await page.keyboard.press("ArrowRight");
  await expect(face.getByTestId("card")).not.toHaveText(first);
  await expectAccessible(page);
  await page.keyboard.press("ArrowLeft");
  await expect(face.getByTestId("card")).toHaveText(first);
  await page.keyboard.press("Escape");
  await expect(face.getByTestId("card")).toHaveCount(0);

  await page.getByLabel("For", { exact: true }).selectOption({ label: "Gwen A." });
  await expect(sheet.getByText("Before reading for Gwen A.")).toBeVisible();
  await expect(sheet.getByText("Bring the picture of the lane.")).toHaveCount(0);
  await page.getByLabel("For", { exact: true }).selectOption({ label: "Wilf Y." });
  await page.getByRole("button", { name: "As proposed" }).click();
  await expect(sheet.getByText("Bring the picture of the lane.")).toHaveCount(0);
});
