import type { Page } from "@playwright/test";
import { expect, expectAccessible, test } from "./school.ts";
import { answersOf, begin, groupNamed, marksHere, now, part, plan, routinesBy } from "./teaching.ts";

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

test("one tap a child, what was said, undo, a child who leaves, a smaller step; the children's screen follows", async ({
  page,
  school,
  context,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  await expectAccessible(page);
  await expect(face.getByTestId("card")).toHaveText((await now(page).getByTestId("card").textContent()) ?? "?");
  await part(page, /^Read words/);
  const children = page.getByRole("list", { name: "Children" }).last();
  const turn = () => children.locator('[aria-current="true"]');
  const whose = async () =>
    ((await turn().getByRole("checkbox").getAttribute("aria-label")) ?? "").replace(" is here", "");
  const first = await whose();
  const word = (await now(page).getByTestId("card").locator(".sr-only").textContent()) ?? "";
  await expect(face.getByTestId("card").locator(".sr-only")).toHaveText(word);
  // Marks under the sounds are help; without them the children see the word alone.
  const stands = now(page).getByLabel("How the word stands");
  await stands.selectOption("sound by sound");
  const hidden = face.getByTestId("card").locator(".invisible");
  await expect(hidden.first()).toBeAttached();
  const sound = now(page).getByRole("button", { name: "Next sound" });
  while (await sound.isEnabled()) await sound.tap();
  await expect(hidden).toHaveCount(0);
  await stands.selectOption("sounds apart");
  const wide = await face.getByTestId("card").evaluate((one) => one.scrollWidth);
  await now(page).getByLabel("slide together").fill("100");
  await expect.poll(() => face.getByTestId("card").evaluate((one) => one.scrollWidth)).toBeLessThan(wide);
  await stands.selectOption("no marks");
  await expect(face.getByTestId("card")).toHaveText(word);
  await turn()
    .getByRole("button", { name: `${first}: not yet` })
    .tap();
  await expect.poll(whose).not.toBe(first);
  await page.getByLabel(`${first} said for ${word}`).fill("zap");
  await page.getByRole("button", { name: "Keep" }).tap();
  await expect
    .poll(async () => (await answersOf(school, group, id)).map(({ outcome, heard, help }) => [outcome, heard, help]))
    .toEqual([["wrong", "zap", "none"]]);
  // A second who stumbles: a smaller step is offered, and taken.
  const second = await whose();
  await turn()
    .getByRole("button", { name: `${second}: with help` })
    .tap();
  await page.getByRole("button", { name: "Take the smaller step" }).tap();
  await expect(now(page).getByTestId("card").locator(".sr-only")).toHaveCount(1);
  await expect(page.getByText("Two of them stumble")).toHaveCount(0);
  // Undone, the mark is out of the answers too.
  const third = await whose();
  await turn()
    .getByRole("button", { name: `${third}: got it` })
    .tap();
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(3);
  await page.getByRole("button", { name: /^Undo/ }).tap();
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(2);
  await expect.poll(whose).toBe(third);
  // Who leaves is asked nothing more, and came all the same.
  await page.getByRole("checkbox", { name: `${first} is here` }).uncheck();
  for (let at = 0; at < 4; at++) {
    expect(await whose()).not.toBe(first);
    await now(page).getByRole("button", { name: "Next" }).tap();
  }
  // What is written is heard first, and shown to put it right.
  await part(page, /^Write words/);
  await expect(face.getByTestId("card")).toHaveCount(0);
  await now(page).getByRole("button", { name: "Show it" }).tap();
  await expect(face.getByTestId("card")).toBeVisible();
  await now(page).getByRole("button", { name: "Everyone else got it" }).tap();
  await expect(face.getByTestId("card")).toHaveCount(0);
  // A pause shows the children nothing; a reload goes on from where it was.
  await part(page, /^Teach/);
  await expect(face.getByTestId("card")).toBeVisible();
  await page.getByRole("button", { name: /^Pause/ }).tap();
  await expect(face.getByTestId("card")).toHaveCount(0);
  await page.reload();
  await page.getByRole("region", { name: "Now" }).getByRole("button", { name: "Go on" }).tap();
  await expect(now(page).getByRole("heading", { name: "Teach" })).toBeVisible();
  await page.getByRole("button", { name: "End the session" }).tap();
  await expect(page.getByText("3 children came")).toBeVisible();
  // Ended too soon, it goes on.
  await page.getByRole("button", { name: "Go on with the session" }).tap();
  await expect(now(page)).toBeVisible();
  await page.getByRole("button", { name: "End the session" }).tap();
  const note = page.getByLabel("For whoever plans the next");
  await expect(note).toHaveValue(new RegExp(`${first.replace(".", "\\.")} stumbled over ${word} \\(said “zap”\\)`));
  await note.fill(`${await note.inputValue()} The bell rang early.`);
  await page.getByRole("button", { name: "Send what happened" }).tap();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
  await expect(page.getByText("The bell rang early.")).toBeVisible();
  // What it changed, for the teacher.
  await page.locator("summary").filter({ hasText: first }).tap();
  await expect(page.getByText(/This session spoke of \d+ skills?/)).toBeVisible();
});

/** Where a finger taps next: the mark of the child whose turn it is, else what goes on below; brought into sight. */
const toTap = (page: Page, outcome: string) =>
  page.evaluate((mark) => {
    const here = document.querySelector('section[aria-label="Now"]');
    const buttons = [...(here?.querySelectorAll("button") ?? [])];
    const isOver = /This part is done|Nothing is planned/.test(here?.textContent ?? "");
    const button = isOver
      ? buttons.at(-1)
      : (document.querySelector(`[aria-label="Children"] [aria-current="true"] button[aria-label$="${mark}"]`) ??
        buttons.find((one) => one.textContent === "Everyone else got it"));
    if (!button) return null;
    button.scrollIntoView({ block: "nearest" });
    const { x, y, width, height } = button.getBoundingClientRect();
    return { x: x + width / 2, y: y + height / 2, name: button.textContent };
  }, outcome);

test("a whole session of each routine that ships, by touch alone: every mark is there once", async ({
  page,
  school,
}) => {
  test.setTimeout(300_000);
  const group = await groupNamed(school, "Brick hods");
  for (const routine of routinesBy("touch")) {
    const id = await plan(school, group, { routine });
    await page.goto(`${school.base}/sessions/${id}/teach`);
    await page.getByRole("button", { name: "Begin" }).tap();
    for (let tap = 0; tap < 300; tap++) {
      const next = await toTap(page, tap % 4 === 3 ? "not yet" : "got it");
      if (!next) throw new Error("Nothing is to be tapped.");
      await page.touchscreen.tap(next.x, next.y);
      if (next.name === "End the session") break;
    }
    await expect(page.getByRole("heading", { name: "What happened" })).toBeVisible();
    const here = await marksHere(page, id);
    expect(here.length, routine).toBeGreaterThan(10);
    await page.getByRole("button", { name: "Send what happened" }).tap();
    await page.waitForURL(new RegExp(`/sessions/${id}$`));
    await expect
      .poll(async () => (await answersOf(school, group, id)).map((one) => one.id).sort())
      .toEqual(here.sort());
  }
});
