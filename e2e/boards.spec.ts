import type { Locator, Page } from "@playwright/test";
import { expect, expectAccessible, test } from "./school.ts";
import { answersOf, begin, groupNamed, lookOf, now, part, setChecks, withParts } from "./teaching.ts";

const boxes = (face: Page | Locator) => face.getByRole("list", { name: "Boxes" }).getByRole("listitem");
const tile = (face: Page | Locator, text: string) =>
  face.getByRole("button", { name: new RegExp(`^${text}(, |$)`) }).first();

/** Drags by mouse from one thing to another. */
async function drag(page: Page, from: Locator, to: Locator): Promise<void> {
  const [one, other] = [await from.boundingBox(), await to.boundingBox()];
  if (!one || !other) throw new Error("Nothing to drag.");
  await page.mouse.move(one.x + one.width / 2, one.y + one.height / 2);
  await page.mouse.down();
  await page.mouse.move(other.x + other.width / 2, other.y + other.height / 2, { steps: 8 });
  await page.mouse.up();
}

test("tiles are laid on boxes by mouse and by keys on another device, looked at, and what was built is what was written", async ({
  page,
  school,
  browser,
}) => {
  const id = await withParts(school, "Brick hods", [{ kind: "build", items: ["ship", "rain"] }]);
  await begin(page, school, id);
  const other = await (await browser.newContext()).newPage();
  await other.goto(await lookOf(page, school));
  // The word is heard: it stands on the adult's side alone, in boxes on both.
  await expect(boxes(other)).toHaveCount(3);
  await expect(other.getByTestId("say")).toHaveCount(0);
  await expect(now(page).getByTestId("say")).toHaveText("ship");
  await expectAccessible(other);
  await expectAccessible(page);

  await drag(other, tile(other, "sh"), boxes(other).nth(0));
  await expect(boxes(other).nth(0)).toContainText("sh");
  await expect(boxes(now(page)).nth(0)).toContainText("sh");
  // By keys: a tile, then a box; pressed twice it takes the first that is free.
  await tile(other, "p").focus();
  await other.keyboard.press("Enter");
  await other.getByRole("button", { name: "box 2, empty" }).focus();
  await other.keyboard.press("Enter");
  await expect(boxes(now(page)).nth(1)).toContainText("p");
  await tile(other, "i").focus();
  await other.keyboard.press("Enter");
  await other.keyboard.press("Enter");
  await expect(boxes(now(page)).nth(2)).toContainText("i");
  await expect(other.getByRole("button", { name: /right|not yet/ })).toHaveCount(0);
  await now(page).getByRole("button", { name: "Check" }).click();
  await expect(other.getByRole("button", { name: "sh, in box 1, right" })).toBeVisible();
  await expect(other.getByRole("button", { name: "p, in box 2, not yet" })).toBeVisible();
  await expectAccessible(other);
  // Marked as it stands, what was built is kept as what was written.
  const group = await groupNamed(school, "Brick hods");
  const [first] = group.members;
  await page.getByRole("button", { name: `${first?.name}: not yet` }).click();
  await expect
    .poll(async () => (await answersOf(school, group, id)).map(({ outcome, heard }) => [outcome, heard]))
    .toEqual([["wrong", "shpi"]]);
  // Put right: the two change places, one by way of the table.
  await tile(other, "i").press("Enter");
  await tile(other, "p").press("Enter");
  await expect(boxes(other).nth(1)).toContainText("i");
  await tile(other, "p").press("Enter");
  await tile(other, "p").press("Enter");
  await expect(now(page)).toContainText("all lies right");
  await expect(other.getByRole("button", { name: "p, in box 3, right" })).toBeVisible();
  // The next word begins with all tiles beside the boxes.
  await now(page).getByRole("button", { name: "Next" }).click();
  await expect(other.getByRole("button", { name: /^box \d, empty$/ })).toHaveCount(3);
  await other.context().close();
});

test("in a chain the word before lies there; a sort goes to its columns; both in a second window", async ({
  page,
  school,
  context,
}) => {
  const id = await withParts(school, "Lock keepers", [
    { kind: "chain", items: ["sip", "ship", "shin"] },
    { kind: "sort", items: ["ee: see, feet", "ea: sea, eat"] },
  ]);
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  await expect(boxes(face)).toHaveCount(3);
  await now(page).getByRole("button", { name: "Next" }).click();
  await expect(boxes(face)).toContainText(["s", "i", "p"]);
  // One tile takes the place of another, which lies beside the boxes then.
  await drag(face, tile(face, "sh"), boxes(face).nth(0));
  await expect(boxes(face)).toContainText(["sh", "i", "p"]);
  await expect(now(page)).toContainText("all lies right");
  await expect(tile(face, "s")).toBeVisible();

  await part(page, /^Sort/);
  const columns = face.getByRole("list", { name: "Columns" }).getByRole("listitem");
  await expect(columns).toHaveCount(2);
  await expectAccessible(face);
  for (let turn = 0; turn < 4; turn++) {
    const word = (await face.locator("[data-tile]").textContent()) ?? "";
    const heading = word.includes("ee") ? "ee" : "ea";
    await face.locator("[data-tile]").press("Enter");
    await face.getByRole("button", { name: `Put into ${heading}` }).press("Enter");
    await expect(now(page)).toContainText("all lies right");
    await now(page).getByRole("button", { name: "Next" }).click();
    // It stays in its column when the next comes.
    if (turn < 3) await expect(columns.filter({ hasText: heading })).toContainText(word);
  }
  await expect(now(page)).toContainText("This part is done.");
});

test("children tell where they hear it, spot what hides, and answer yes or no; the adult sees what was tapped", async ({
  page,
  school,
  context,
}) => {
  const id = await withParts(school, "Brick hods", [
    { kind: "hear", items: ["day (at the end)"] },
    { kind: "teach", items: ["ay=ai"] },
    { kind: "yesNo", items: ["Can Dad fit in the cot? (no: a cot is for a baby)"] },
  ]);
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  await expect(now(page).getByTestId("say")).toHaveText("day");
  await expect(face.getByText("day")).toHaveCount(0);
  await face.getByRole("button", { name: "at the start" }).click();
  await expect(now(page)).toContainText("tapped “at the start”, not so");
  await face.getByRole("button", { name: "at the end" }).click();
  await expect(now(page)).toContainText("tapped “at the end”, right");
  await expectAccessible(face);

  await part(page, /^Teach/);
  await expect(face.getByTestId("card")).toHaveText("ay");
  await page.keyboard.press("h");
  await expect(face.getByRole("list", { name: "Choices" }).getByRole("listitem")).toHaveCount(6);
  await face.getByRole("button", { name: "ay", exact: true }).click();
  await expect(now(page)).toContainText("tapped “ay”, right");
  await now(page).getByRole("button", { name: "Hide it again" }).click();
  await expect(now(page)).not.toContainText("tapped");
  await now(page).getByRole("button", { name: "Show it alone" }).click();
  await expect(face.getByTestId("card")).toHaveText("ay");

  await part(page, /^Yes or no/);
  await expect(face.getByTestId("passage")).toHaveText("Can Dad fit in the cot?");
  await face.getByRole("button", { name: "no", exact: true }).click();
  await expect(now(page)).toContainText("tapped “no”, right");
  // The same tablet, turned round.
  await page.getByRole("button", { name: "What the children see" }).click();
  await page.getByRole("button", { name: "Show it on this screen" }).click();
  await expect(page.getByTestId("passage").last()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "To the adult's side" }).click();
  await expect(page.getByRole("button", { name: "To the adult's side" })).toHaveCount(0);
});

test("a text is read and its words marked: it is a reading of that child; one that is gone is said, and the session goes on", async ({
  page,
  school,
  context,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await withParts(school, "Brick hods", [
    { kind: "text", items: ["The Hen and the Bed"] },
    { kind: "text", items: ["The Lost Barge"] },
  ]);
  // On the plan already.
  await page.goto(`${school.base}/sessions/${id}`);
  await expect(page.getByRole("link", { name: "The Hen and the Bed" })).toBeVisible();
  await expect(page.getByText("No text of this name is on the shelf.")).toHaveCount(1);
  await expectAccessible(page);
  await page.goto(`${school.base}/sessions/${id}/materials`);
  await expect(page.getByText("the text “The Lost Barge”, which is not on the shelf")).toBeVisible();

  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  await expect(face.getByTestId("passage")).toContainText("Ben had a hen.");
  await expectAccessible(page);
  const [first, second] = group.members;
  const words = now(page).getByRole("region", { name: "The Hen and the Bed" });
  await words.getByRole("button", { name: "bin" }).click();
  await now(page).getByLabel("Said for bin").fill("bun");
  await words.getByRole("button", { name: "hat" }).click();
  await now(page).getByRole("button", { name: "Told" }).click();
  // Kept over a reload.
  await page.reload();
  await expect(words.getByRole("button", { name: /^bin , marked/ })).toBeVisible();
  await page.getByRole("button", { name: `${first?.name}: with help` }).click();
  await page.getByRole("button", { name: `${second?.name}: got it` }).click();
  await part(page, /^Text/);
  await page.getByRole("list", { name: "Parts" }).getByRole("button", { name: /^Text/ }).last().click();
  await expect(now(page)).toContainText("No text of this name is on the shelf.");
  await now(page).getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "End the session" }).click();
  await page.getByRole("button", { name: "Send what happened" }).click();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
  const readings = async (childId: string | undefined) =>
    (
      await school.get<{ title: string; marks: { kind: string; heard: string | null }[] }[]>(
        `/api/children/${childId}/readings`,
      )
    )
      .filter(({ title }) => title === "The Hen and the Bed")
      .map(({ marks }) => marks.map(({ kind, heard }) => `${kind} ${heard}`));
  expect(await readings(first?.childId)).toEqual([["misread bun", "told null"]]);
  expect(await readings(second?.childId)).toEqual([[]]);
});

test("a device with a voice says what is only heard, once the school wants it, and can be silenced", async ({
  page,
  school,
}) => {
  await page.addInitScript(() => {
    const said: string[] = [];
    const voices = [{ lang: "de-DE" }, { lang: "en-GB" }];
    class Utterance {
      readonly text: string;
      constructor(text: string) {
        this.text = text;
      }
    }
    const synth = {
      getVoices: () => voices,
      speak: (one: { text: string; lang: string }) => said.push(`${one.lang} ${one.text}`),
      cancel: () => {},
      addEventListener: () => {},
      removeEventListener: () => {},
    };
    Object.defineProperty(window, "speechSynthesis", { value: synth });
    Object.assign(window, { said, SpeechSynthesisUtterance: Utterance });
  });
  const id = await withParts(school, "Brick hods", [
    { kind: "hear", items: ["day (at the end)"] },
    { kind: "readWords", items: ["rain"] },
  ]);
  await begin(page, school, id);
  await expect(now(page).getByTestId("say")).toBeVisible();
  const say = now(page).getByRole("button", { name: "Say it" });
  await expect(say).toHaveCount(0);
  await page.getByRole("button", { name: "What the children see" }).click();
  await expect(page.getByLabel(/^This device says/)).toHaveCount(0);
  await page.goto(`${school.base}/settings`);
  await page.getByRole("radio", { name: "by the device's voice too" }).check();
  await expect
    .poll(async () => (await school.get<{ checks: { deviceVoice: boolean } }>("/api/school")).checks.deviceVoice)
    .toBe(true);
  await page.goto(`${school.base}/sessions/${id}/teach`);
  await expect(say).toBeVisible();
  const silence = async (speaks: boolean) => {
    await page.getByRole("button", { name: "What the children see" }).click();
    await page.getByLabel(/^This device says/).setChecked(speaks);
    await page.keyboard.press("Escape");
  };
  await silence(false);
  await expect(say).toHaveCount(0);
  await silence(true);
  await say.click();
  expect(await page.evaluate(() => (window as unknown as { said: string[] }).said)).toEqual(["en-GB day"]);
  // What is read is not said.
  await part(page, /^Read words/);
  await expect(now(page).getByTestId("card")).toBeVisible();
  await expect(now(page).getByRole("button", { name: "Say it" })).toHaveCount(0);
});

test("the letters are the school's: printed ones stand on both sides, on another device too, and after a reload", async ({
  page,
  school,
  browser,
}) => {
  await setChecks(school, { letterShapes: "printed" });
  const id = await withParts(school, "Brick hods", [{ kind: "readWords", items: ["rain"] }]);
  await begin(page, school, id);
  const family = (at: Page) => at.getByTestId("card").evaluate((card) => getComputedStyle(card).fontFamily);
  await expect.poll(() => family(page)).toMatch(/^"Atkinson Hyperlegible"/);
  const other = await (await browser.newContext()).newPage();
  await other.goto(await lookOf(page, school));
  await expect.poll(() => family(other)).toMatch(/^"Atkinson Hyperlegible"/);
  // The letters come after the page.
  await expect.poll(() => other.evaluate(() => document.fonts.check('40px "Atkinson Hyperlegible"'))).toBe(true);
  await other.context().close();
  // A choice of the lead under Settings, taken back there.
  await page.goto(`${school.base}/settings`);
  await expect(page.getByRole("radio", { name: "as books print them" })).toBeChecked();
  await expectAccessible(page);
  await page.getByRole("radio", { name: "as they are written by hand" }).check();
  await expect.poll(() => page.evaluate(() => document.documentElement.dataset.letters)).toBe("written");
});

test("letters stand larger and further apart for the child whose turn it is, as its teacher set it", async ({
  page,
  school,
  context,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const [first, second] = group.members;
  await page.goto(`${school.base}/child/${first?.childId}`);
  await page.getByRole("button", { name: "Edit", exact: true }).click();
  await page.getByLabel("Letters on the children's screen").selectOption("much larger");
  await page.getByLabel("Letters stand").selectOption("further apart");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const id = await withParts(school, "Brick hods", [{ kind: "readSentence", items: ["A cat sat.", "A dog ran."] }]);
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  const lettersOf = () =>
    face.getByTestId("passage").evaluate((text) => {
      const { fontSize, letterSpacing } = getComputedStyle(text);
      return { size: Number.parseFloat(fontSize), gap: Number.parseFloat(letterSpacing) || 0 };
    });
  await expect(page.locator('[aria-current="true"]').getByText(first?.name ?? "")).toBeVisible();
  const its = await lettersOf();
  await page.keyboard.press("ArrowRight");
  await expect(page.locator('[aria-current="true"]').getByText(second?.name ?? "")).toBeVisible();
  await expect(face.getByTestId("passage")).toHaveText("A dog ran.");
  const usual = await lettersOf();
  expect(its.size).toBeCloseTo(usual.size * 1.5, 0);
  expect([its.gap > 0, usual.gap]).toEqual([true, 0]);
});
