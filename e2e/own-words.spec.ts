import type { Page } from "@playwright/test";
import sharp from "sharp";
import { classNamed, expect, expectAccessible, type School, test } from "./school.ts";

/** What a school says of words itself: from which age its children know them, and which picture they have. */

async function look(page: Page, school: School, word: string): Promise<void> {
  await page.goto(`${school.base}/words`);
  await page.getByLabel("A word or a text").fill(word);
  await expect(page.getByRole("region", { name: `The word ${word}` })).toBeVisible();
}

/** Adds words to a list for the youngest class. @returns what the list says of words that they do not know */
async function remarkOf(page: Page, school: School, words: string): Promise<string> {
  const { id } = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/words?tool=find&for=class:${id}`);
  await expect(page.getByLabel("Words that children know")).toHaveValue("5");
  await page.getByLabel("Add words").fill(words);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: `Take out ${words.split(" ")[0]}` })).toBeVisible();
  const late = page.getByText(/^Say what it means, these children may not know it: /);
  return (await late.count()) === 0 ? "" : ((await late.textContent()) ?? "");
}

test("a word says what it means and what sounds the same; the school says from which age it is known", async ({
  page,
  school,
}) => {
  await look(page, school, "boughs");
  const word = page.getByRole("region", { name: "The word boughs" });
  await expect(word.getByText("bough: a big branch")).toBeVisible();
  await expect(word.getByText(/^bows \(bow: /)).toBeVisible();
  expect(await remarkOf(page, school, "thus cat")).toContain("thus (so; in this way)");

  await look(page, school, "thus");
  const age = page.getByLabel("Children here know thus");
  await expect(age).toHaveValue("list");
  await age.focus();
  await page.keyboard.type("by 5");
  await expect(page.getByText("Lists and sessions take thus as known by 5, in your school.")).toBeVisible();
  await expectAccessible(page);
  await look(page, school, "cat");
  await page.getByLabel("Children here know cat").selectOption("12");
  await expect(page.getByText("Lists and sessions take cat as known later, in your school.")).toBeVisible();
  const remark = await remarkOf(page, school, "thus cat cats");
  expect(remark).toContain("cat (known later); cats (known later)");
  expect(remark).not.toContain("thus");

  await page.getByRole("tab", { name: "Our words" }).click();
  const ages = page
    .getByRole("listitem")
    .filter({ has: page.getByRole("button", { name: /^Take away the age of/ }) });
  await expect(ages).toHaveText([/^cat.*later/, /^thus.*by 5/]);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Take away the age of cat" }).click();
  await expect(ages).toHaveCount(1);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(ages).toHaveCount(2);
  await page.getByRole("button", { name: "Take away the age of cat" }).click();
  await expect(ages).toHaveCount(1);
  expect(await remarkOf(page, school, "cat thus")).toBe("");
});

test("a picture of the school's own is put in, printed on cards in the place of ours, and taken away", async ({
  page,
  school,
}) => {
  const ring = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><circle cx="450" cy="300" r="200" fill="#c40"/></svg>',
  );
  await look(page, school, "cat");
  const word = page.getByRole("region", { name: "The word cat" });
  await expect(word.getByRole("img", { name: "Picture of cat" })).toHaveText("🐈");
  await word.getByRole("button", { name: "A picture of ours" }).click();
  const sheet = page.getByRole("dialog", { name: "A picture of cat" });
  const file = sheet.getByLabel("File: PNG, JPEG or WebP");
  await file.setInputFiles({ name: "cat.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
  await expect(sheet.getByText("This file is no picture that can be read.", { exact: false })).toBeVisible();
  await expect(sheet.getByRole("button", { name: "Save for our school" })).toBeDisabled();
  const buffer = await sharp(ring).png().toBuffer();
  await file.setInputFiles({ name: "cat.png", mimeType: "image/png", buffer });
  await expect(sheet.getByRole("img", { name: "The new picture of cat" })).toBeVisible();
  await sheet.getByLabel("Who made it").fill("Ms Harrow");
  await expectAccessible(page);
  await sheet.getByRole("button", { name: "Save for our school" }).click();
  await expect(word.getByText("made by Ms Harrow")).toBeVisible();
  await page.reload();
  await look(page, school, "cat");
  await expect(word.getByRole("img", { name: "Picture of cat" })).toHaveAttribute("src", /^data:image\/png/);

  await page.goto(`${school.base}/words?tool=find`);
  await page.evaluate(() => {
    window.print = () =>
      document.body.setAttribute("data-printed", String(document.querySelectorAll(".only-print img").length));
  });
  await page.getByLabel("Add words").fill("cat");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Cards with pictures" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-printed", "1");

  await page.getByRole("tab", { name: "Our words" }).click();
  await expect(page.getByText("made by Ms Harrow")).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Take away the picture of cat" }).click();
  await expect(page.getByText("made by Ms Harrow")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("made by Ms Harrow")).toBeVisible();
  await page.getByRole("button", { name: "Take away the picture of cat" }).click();
  await look(page, school, "cat");
  await expect(word.getByRole("img", { name: "Picture of cat" })).toHaveText("🐈");
});
