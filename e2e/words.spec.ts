import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { childNamed, classNamed, expect, expectAccessible, printed, type School, test } from "./school.ts";

const page1 =
  "The heron stands on one leg and thinks of fish. “Quick!” said Tam, but the fish had gone. Three ducklings weren't listening; they chased the rope maker along the towpath at 9 o'clock.";

interface Named {
  readonly id: string;
  readonly name: string;
}

async function openFor(page: Page, school: School, key: string, tool = "look"): Promise<void> {
  await page.goto(`${school.base}/words?tool=${tool}&for=${key}`);
  await expect(page.getByRole("heading", { name: "Words", exact: true })).toBeVisible();
}

async function listed(page: Page): Promise<string[]> {
  const names = await page
    .getByRole("button", { name: /^Take out / })
    .evaluateAll((all) => all.map((one) => one.getAttribute("aria-label") ?? ""));
  return names.map((name) => name.replace("Take out ", ""));
}

test("a word stands large with its brackets, sounds, parts and readings", { tag: "@main" }, async ({
  page,
  school,
}) => {
  await page.goto(school.base);
  await expect(page.getByRole("heading", { name: "Today" })).toBeVisible();
  await page.keyboard.press("g");
  await page.keyboard.press("w");
  await expect(page).toHaveURL(/\/words/);
  await page.getByLabel("A word or a text").fill("smiled");
  const word = page.getByRole("region", { name: "The word smiled" });
  await expect(word.getByText("smile -d")).toBeVisible();
  await expect(word.getByText("CCVCC")).toBeVisible();
  await word.getByRole("button", { name: "Show the sounds" }).click();
  await expect(word.getByRole("list", { name: "Sounds" }).getByRole("listitem")).toHaveCount(5);
  await expect(word.getByText("/aɪ/")).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel("A word or a text").fill("read");
  const readings = page.getByRole("group", { name: "Readings" }).getByRole("button");
  await expect(readings).toHaveCount(2);
  await readings.nth(1).click();
  await expect(readings.nth(1)).toHaveAttribute("aria-pressed", "true");
});

test("a misread and a spelling are explained unit by unit", async ({ page, school }) => {
  await openFor(page, school, "all");
  await page.getByLabel("A word or a text").fill("chunk");
  await page.getByLabel("A child read it as").fill("shunk");
  await expect(page.getByRole("list", { name: "What the misread says" })).toContainText("ch /tʃ/ was read as /ʃ/.");
  await page.getByLabel("A child wrote it as").fill("chuk");
  await expect(page.getByRole("list", { name: "What the spelling says" })).toContainText("Nothing stands for /ŋ/");
  await page.getByLabel("A child read it as").fill("<b>🙂");
  await expect(page.getByRole("list", { name: "What the misread says" }).getByRole("listitem").first()).toBeVisible();
  await expectAccessible(page);
});

test("a pasted page says what a class can read, what stands in the way, and the same for each child", {
  tag: "@main",
}, async ({ page, school }) => {
  const kiln = await classNamed(school, "Kiln");
  await openFor(page, school, `class:${kiln.id}`);
  await page.getByLabel("A word or a text").fill(page1);
  await expect(page.getByRole("heading", { name: "For Kiln" })).toBeVisible();
  await expect(page.getByText(/\d+% of 32 running words can be read/)).toBeVisible();
  await expect(page.getByRole("table", { name: "In the way, most often first" })).toContainText("listening");
  const rows = page.getByRole("row").filter({ has: page.getByRole("rowheader") });
  const children = await school.get<{ classId: string; archived: boolean }[]>("/api/children");
  const here = children.filter((child) => child.classId === kiln.id && !child.archived).length;
  expect(await rows.count()).toBeGreaterThanOrEqual(here);
  await expect(page.getByLabel("The text in its sounds")).toContainText("9");
  await expectAccessible(page);
  await page.getByLabel("Being taught").selectOption("st=s");
  await expect(page.getByText(/Practises st 1 times/)).toBeVisible();
});

test("any paste is taken: markup, other scripts, an endless word, and far too much", async ({ page, school }) => {
  await openFor(page, school, "all");
  const box = page.getByLabel("A word or a text");
  let alerted = false;
  page.on("dialog", () => {
    alerted = true;
  });
  for (const text of [
    "<img src=x onerror=alert(1)> cat sat",
    "Ωmega 猫 und Straße 🙂 cat",
    "x".repeat(5000),
    "-- ’ … 12 %",
    "\u202Ecat",
  ]) {
    await box.fill(text);
    await expect(page.getByRole("heading", { name: "Words", exact: true })).toBeVisible();
  }
  await box.fill("the cat sat on the mat ".repeat(4000));
  await expect(page.getByText(/longer than 60,000 letters/)).toBeVisible();
  expect(alerted).toBe(false);
});

test("a split that is put right counts everywhere, can be saved, and goes again", async ({ page, school }) => {
  await openFor(page, school, "all");
  const box = page.getByLabel("A word or a text");
  await box.fill("Snorvel");
  await expect(page.getByText("not in the word list, split by rule: worth a look")).toBeVisible();
  await page.getByRole("button", { name: "Correct the split" }).click();
  const units = page.getByLabel("Units, with a space between");
  await units.fill("s n or v");
  await expect(page.getByText(/Every letter of “snorvel” belongs to exactly one/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Save for our school" })).toBeDisabled();
  await units.fill("s n or v e l");
  await page.getByLabel("Sound of e").selectOption("schwa");
  await page.getByLabel("Why (for colleagues)").fill("the name of our barge");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save for our school" }).click();
  await expect(page.getByText("split by your school")).toBeVisible();
  await page.reload();
  await box.fill("Snorvel");
  await expect(page.getByText("split by your school")).toBeVisible();
  await page.getByRole("tab", { name: "Our words" }).click();
  await expect(page.getByText("the name of our barge")).toBeVisible();
  await expectAccessible(page);
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as text" }).click();
  expect(readFileSync(await (await saving).path(), "utf8")).toBe("s n or v e=schwa l|3|h5|Snorvel\n");
  await page.getByRole("button", { name: "Change the split of Snorvel" }).click();
  await page.getByRole("button", { name: "Go back to the word list's split" }).click();
  await expect(page.getByText("Words that your school splits another way")).toBeVisible();
});

test("words for a group: readable, with the target, edited, saved as a file and put into a session", async ({
  page,
  school,
}) => {
  const groups = await school.get<Named[]>("/api/groups");
  const sessions = await school.get<{ id: string; groupId: string; state: string }[]>("/api/sessions");
  const planned = sessions.find((session) => session.state === "planned");
  const group = groups.find((one) => one.id === planned?.groupId);
  await openFor(page, school, `group:${group?.id}`, "find");
  await expect(page.getByRole("button", { name: /^Take out / }).first()).toBeVisible();
  await page.getByLabel("How many").selectOption("9");
  await expect.poll(async () => (await listed(page)).length).toBeLessThanOrEqual(9);
  const target = await page.getByLabel("With", { exact: true }).inputValue();
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "CSV" }).click();
  const csv = readFileSync(await (await saving).path(), "utf8")
    .replace("\uFEFF", "")
    .trim()
    .split(/\r?\n/);
  expect(csv[0]).toBe("word,units,syllables,shape");
  for (const row of csv.slice(1)) expect(row).toContain(target);
  const before = await listed(page);
  await page.getByRole("button", { name: `Take out ${before[0]}`, exact: true }).click();
  await page.getByLabel("Add words").fill("plodge");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/“plodge” has|Not in the word list.*plodge/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Take out plodge" }).click();
  const kept = await listed(page);
  expect(kept).toEqual(before.slice(1));
  await page.getByRole("button", { name: "Put into a session" }).click();
  await page.getByLabel("Session", { exact: true }).selectOption(planned?.id ?? "");
  await page.getByLabel("Part").selectOption("writeWords");
  await page.getByRole("button", { name: "Add to the session" }).click();
  await expect(page).toHaveURL(new RegExp(`/sessions/${planned?.id}`));
  const { plan } = await school.get<{ plan: { parts: { kind: string; items: string[] }[] } }>(
    `/api/sessions/${planned?.id}`,
  );
  const written = plan.parts.find((part) => part.kind === "writeWords")?.items ?? [];
  expect(kept.filter((word) => !written.includes(word))).toEqual([]);
});

test("words are of an age that the youngest of a class knows; a later one is asked for, and is marked with what it means", async ({
  page,
  school,
}) => {
  const { classes } = await school.get<{ classes: { id: string; name: string }[] }>("/api/school");
  const kiln = classes.find(({ name }) => name === "Kiln");
  await openFor(page, school, `class:${kiln?.id}`, "find");
  const age = page.getByLabel("Words that children know");
  await expect(age).toHaveValue("5");
  await page.getByLabel("With", { exact: true }).selectOption("");
  await page.getByLabel("How common").selectOption("5");
  await page.getByLabel("How many").selectOption("40");
  const late = page.getByText(/^Say what it means, these children may not know it: /);
  await expect.poll(async () => (await listed(page)).length).toBe(40);
  await expect(late).toHaveCount(0);
  const young = await listed(page);
  await age.selectOption("12");
  await expect.poll(() => listed(page)).not.toEqual(young);
  await page.getByLabel("Add words").fill("canopy kelp");
  await page.keyboard.press("Enter");
  await expect(late).toContainText("canopy (a roof of cloth or leaves)");
  await expectAccessible(page);
  await openFor(page, school, `class:${kiln?.id}`, "sentences");
  await page.getByLabel("Kind").selectOption("question");
  await page.getByLabel("How many").selectOption("40");
  await expect(
    page
      .getByRole("list", { name: "Sentences" })
      .getByText(/^\((yes|no)[:,] /)
      .first(),
  ).toBeVisible();
});

test("a chain changes one unit a step and says so; when there is none it says why", async ({ page, school }) => {
  const kiln = await classNamed(school, "Kiln");
  await openFor(page, school, `class:${kiln.id}`, "chain");
  const steps = page.getByRole("list", { name: "The chain" }).getByRole("listitem");
  await expect(steps).toHaveCount(10);
  await page.getByLabel("Words", { exact: true }).fill("6");
  await expect(steps).toHaveCount(6);
  await page.getByLabel("Begin with").fill("dog");
  await expect(steps.first()).toContainText("dog");
  await expect(steps.first()).toContainText("begin");
  await expect(steps.nth(1)).toContainText(/ to |add|take out/);
  await expectAccessible(page);
  await page.getByLabel("Begin with").fill("xylophone");
  await expect(page.getByText(/“xylophone” cannot be read/)).toBeVisible();
  await page.getByLabel("Begin with").fill("");
  await page.getByLabel("Words", { exact: true }).fill("99");
  await expect(page.getByText("A chain has 6 to 20 words.")).toBeVisible();
});

test("sorts, pairs, made-up words, four choices and sentences are made for the child that was chosen", async ({
  page,
  school,
}) => {
  const [child] = await school.get<Named[]>("/api/children");
  const key = `child:${(await childNamed(school, child?.name ?? "")).id}`;
  await openFor(page, school, "all", "sort");
  await expect(page.getByRole("heading", { name: "ai as in drain" })).toBeVisible();
  await page.getByLabel("Sort", { exact: true }).selectOption("pairs");
  await page.getByLabel("Sound", { exact: true }).selectOption("i");
  await page.getByLabel("Against").selectOption("e");
  expect(
    await page.getByRole("list", { name: "Pairs of words" }).getByRole("listitem").count(),
  ).toBeGreaterThanOrEqual(6);
  await expectAccessible(page);
  await page.getByRole("tab", { name: "Made-up words" }).click();
  await expect(page.getByText(/None of the 3,\d+ made-up words is a word/)).toBeVisible();
  await expect.poll(async () => (await listed(page)).length).toBe(12);
  await page.getByLabel("For", { exact: true }).selectOption(key);
  await expect.poll(async () => (await listed(page)).length).toBeGreaterThan(0);
  await expect(page.getByText(/cannot be read yet/)).toHaveCount(0);
  await page.getByRole("tab", { name: "Four choices" }).click();
  await expect(page.getByRole("columnheader", { name: "The child marks one of these" })).toBeVisible();
  await expect(page.getByText(/ taken for /).first()).toBeVisible();
  await expectAccessible(page);
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "CSV" }).click();
  const csv = readFileSync(await (await saving).path(), "utf8");
  expect(csv).toMatch(/^\uFEFFspoken,choice 1,says 1,choice 2/);
  // Each row says of one choice that it is right; the words themselves may be "bright".
  for (const row of csv.trim().split(/\r?\n/).slice(1))
    expect(row.split(",").filter((said, at) => at > 0 && at % 2 === 0 && said === "right")).toHaveLength(1);
  await page.getByRole("tab", { name: "Sentences" }).click();
  await expect(page.getByRole("list", { name: "Sentences" }).getByRole("listitem").first()).toBeVisible();
  await page.getByLabel("Kind").selectOption("question");
  await expect(page.getByRole("list", { name: "Sentences" }).getByRole("listitem").first()).toContainText("?");
  await expectAccessible(page);
});

test("lists print large, on cards and as a sheet", async ({ page, school }) => {
  await openFor(page, school, "all", "find");
  await page.evaluate(() => {
    window.print = () =>
      document.body.setAttribute("data-printed", document.querySelector(".only-print")?.textContent ?? "");
  });
  await expect(page.getByRole("button", { name: /^Take out / })).toHaveCount(12);
  const words = await listed(page);
  await page.getByRole("button", { name: "Cards", exact: true }).click();
  await expect(page.locator("body")).toHaveAttribute("data-printed", words.join(""));
  // A picture is printed in its own font, which is fetched for it.
  await page.getByLabel("Add words").fill("cat");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Cards with pictures" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-printed", /🐈cat$/);
  expect(await page.evaluate(() => document.fonts.check('40px "Noto Emoji"', "🐈"))).toBe(true);
  await openFor(page, school, "all", "choices");
  await expect(page.getByText(/ taken for /).first()).toBeVisible();
  expect((await printed(page)).pages).toBe(1);
});

test("the accent of the school is kept, and bath follows it", async ({ page, school }) => {
  await openFor(page, school, "all", "own");
  await page.getByLabel("Accent of the school").selectOption("long-bath");
  await expect(page.getByText("Saved. What a child says in this accent counts as right.")).toBeVisible();
  await page.getByRole("tab", { name: "Look" }).click();
  await page.getByLabel("A word or a text").fill("path");
  await page.getByRole("button", { name: "Show the sounds" }).click();
  await expect(page.getByRole("list", { name: "Sounds" })).toContainText("/ɑː/");
  await page.getByRole("tab", { name: "Our words" }).click();
  await page.getByLabel("Accent of the school").selectOption("neutral");
});

test("everything works from the keyboard on a tablet held upright", async ({ page, school }) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await openFor(page, school, "all");
  await page.getByRole("tab", { name: "Look" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("tab", { name: "Find words" })).toHaveAttribute("aria-selected", "true");
  await expect(page.getByRole("button", { name: /^Take out / }).first()).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  await page
    .getByRole("button", { name: /^Take out / })
    .first()
    .focus();
  const before = await listed(page);
  await page.keyboard.press("Enter");
  await expect.poll(() => listed(page)).toEqual(before.slice(1));
});
