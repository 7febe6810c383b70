import type { Page } from "@playwright/test";
import { part as checkPart, marksAlone, sit } from "./checking.ts";
import { childNamed, expect, expectAccessible, test } from "./school.ts";
import { answersOf, begin, groupNamed, lookOf, now, part, setLetters, withParts } from "./teaching.ts";

const wide = (face: Page) => face.getByTestId("card").evaluate((card) => card.scrollWidth);
const track = (face: Page) => face.getByRole("slider", { name: "Slide the sounds together" });

test.describe("on a tablet of the children's own", () => {
  test.use({ viewport: { width: 1024, height: 768 } });

  test("a child slides the sounds of a word together with a finger and by keys; the adult sees it, and can part them again", async ({
    page,
    school,
    browser,
  }) => {
    const id = await withParts(school, "Brick hods", [{ kind: "blend", items: ["rain", "ship"] }]);
    await begin(page, school, id);
    const away = await browser.newContext({ viewport: { width: 1024, height: 768 }, hasTouch: true });
    const face = await away.newPage();
    await face.goto(await lookOf(page, school));
    await expect(track(face)).toHaveAttribute("aria-valuetext", "apart");
    await expectAccessible(face);
    const apart = await wide(face);
    const line = await track(face).boundingBox();
    if (!line) throw new Error("No line to slide along.");
    // A finger that rests on the knob, and moves along the line at its pace.
    const touch = await away.newCDPSession(face);
    const at = (share: number) => ({ x: line.x + 36 + (line.width - 72) * share, y: line.y + line.height / 2 });
    await touch.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [at(0)] });
    const widths: number[] = [];
    for (let step = 1; step <= 10; step++) {
      await touch.send("Input.dispatchTouchEvent", { type: "touchMove", touchPoints: [at(step / 10)] });
      await face.waitForTimeout(40);
      widths.push(await wide(face));
    }
    await touch.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
    await expect(track(face)).toHaveAttribute("aria-valuetext", "together");
    expect(new Set(widths).size).toBeGreaterThan(4);
    await expect.poll(() => wide(face)).toBeLessThan(apart);
    const slider = now(page).getByLabel("slide together");
    await expect(slider).toHaveValue("100");
    // By keys too, a step at a time.
    await track(face).focus();
    await face.keyboard.press("ArrowLeft");
    await expect(slider).toHaveValue("95");
    // What the adult does comes to the child's screen, and stays there.
    await slider.fill("0");
    await expect(track(face)).toHaveAttribute("aria-valuetext", "apart");
    await expect.poll(() => wide(face)).toBe(apart);
    // The next word begins apart, whatever was done with the one before.
    await face.keyboard.press("End");
    await expect(slider).toHaveValue("100");
    await now(page).getByRole("button", { name: "Next" }).click();
    await expect(face.getByTestId("card").locator(".sr-only")).toHaveText("ship");
    await expect(track(face)).toHaveAttribute("aria-valuetext", "apart");
    // Words that stand whole have no line.
    await now(page).getByLabel("How the word stands").selectOption("marks");
    await expect(track(face)).toHaveCount(0);
    await away.close();
  });
});

test("on the same tablet turned round the letters slide too, and the adult's side is as it was left by the child", async ({
  page,
  school,
}) => {
  const id = await withParts(school, "Brick hods", [{ kind: "blend", items: ["rain"] }]);
  await begin(page, school, id);
  await page.getByRole("button", { name: "What the children see" }).click();
  await page.getByRole("button", { name: "Show it on this screen" }).click();
  await track(page).focus();
  await page.keyboard.press("End");
  await expect(track(page)).toHaveAttribute("aria-valuetext", "together");
  await page.keyboard.press("Escape");
  await expect(now(page).getByLabel("slide together")).toHaveValue("100");
});

test("the children's screen is closed, and all but one child leave: each is said, and the session goes on", async ({
  page,
  school,
  context,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await withParts(school, "Brick hods", [
    { kind: "readWords", items: ["rain", "ship", "chat"], who: "together" },
  ]);
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  await begin(page, school, id);
  await expect(face.getByTestId("card")).toContainText("rain");
  const gone = page.getByText("The children's screen was closed", { exact: false });
  await expect(gone).toHaveCount(0);
  await face.close({ runBeforeUnload: true });
  await expect(gone).toBeVisible();
  await page.keyboard.press("1");
  const again = await context.newPage();
  await again.goto(`${school.base}/face`);
  await expect(again.getByTestId("card")).toContainText("ship");
  await expect(gone).toHaveCount(0);
  const [first, ...others] = group.members;
  for (const { name } of others) await page.getByRole("checkbox", { name: `${name} is here` }).uncheck();
  await expect(page.getByText(`Only ${first?.name} is here`, { exact: false })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("1");
  // Together it weighs little; alone it is the child's own answer, here with the marks under its sounds.
  await expect
    .poll(async () =>
      (await answersOf(school, group, id)).map(({ item, help }) => `${item?.replaceAll(" ", "")} ${help}`).sort(),
    )
    .toEqual([...group.members.map(() => "rain together"), "ship hint"].sort());
});

test("letters stand for the child in a check and in a reading as they do in a session", async ({
  page,
  school,
  context,
}) => {
  await marksAlone(school);
  const child = await childNamed(school, "Nico V.");
  await setLetters(school, child.id, { letterSize: "largest", letterSpacing: "wider" });
  const face = await context.newPage();
  await face.goto(`${school.base}/face`);
  const lettersOf = (what: "card" | "passage") =>
    face
      .getByTestId(what)
      .evaluate((one) => Number.parseFloat(getComputedStyle(one.closest("[style*=spacing]") ?? one).letterSpacing));
  const { id } = await sit(
    school,
    ["Nico V.", "Mabel C."],
    [checkPart("words", { scope: "picked", picked: ["m=m", "a=a", "t=t", "s=s"], blocks: ["three"], madeUp: false })],
  );
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByRole("heading", { name: "Nico V." })).toBeVisible();
  await expect.poll(() => lettersOf("card")).toBeGreaterThan(0);
  await page.goto(`${school.base}/texts/the-fish-shop-cat/read?child=${child.id}`);
  await expect(face.getByTestId("passage")).toContainText("Fleck");
  expect(await lettersOf("passage")).toBeGreaterThan(0);
  const other = await childNamed(school, "Gwen A.");
  await page.goto(`${school.base}/texts/the-fish-shop-cat/read?child=${other.id}`);
  await expect.poll(() => lettersOf("passage")).toBeNaN();
});

test("twelve children in the dark: every one is marked by one tap, nothing lies over another, and all can be read", async ({
  page,
  school,
}) => {
  await page.emulateMedia({ colorScheme: "dark" });
  const group = await groupNamed(school, "Brick hods");
  const others = (await school.get<{ id: string; archived: boolean }[]>("/api/children")).filter(
    ({ id, archived }) => !archived && !group.members.some(({ childId }) => childId === id),
  );
  const members = [...group.members.map(({ childId }) => childId), ...others.map(({ id }) => id)].slice(0, 12);
  const now12 = await school.get<{ id: string; version: number; name: string; targets: string[] }>(
    `/api/groups/${group.id}`,
  );
  const saved = await fetch(`${school.base}/api/groups/${group.id}`, {
    method: "PUT",
    headers: { "content-type": "application/json", origin: school.base },
    body: JSON.stringify({
      ...{ versionId: crypto.randomUUID(), version: now12.version, name: now12.name, targets: now12.targets },
      ...{ at: new Date().toISOString(), why: "All of them once." },
      members: members.map((childId) => ({ childId, locked: false })),
    }),
  });
  expect(saved.status).toBe(200);
  const id = await withParts(school, "Brick hods", [
    { kind: "readWords", items: ["rain", "ship"] },
    { kind: "hear", items: ["day (at the end)"] },
  ]);
  await begin(page, school, id);
  const children = page.getByRole("list", { name: "Children" }).last().getByRole("listitem");
  await expect(children).toHaveCount(12);
  await expectAccessible(page);
  const boxes = await children.evaluateAll((all) => all.map((one) => one.getBoundingClientRect().toJSON()));
  for (const [at, one] of boxes.entries())
    for (const other of boxes.slice(at + 1))
      expect(
        one.right <= other.left + 1 ||
          other.right <= one.left + 1 ||
          one.bottom <= other.top + 1 ||
          other.bottom <= one.top + 1,
      ).toBe(true);
  await part(page, /^Hear it/);
  await children
    .first()
    .getByRole("button", { name: /not yet$/ })
    .click();
  await now(page).getByRole("button", { name: "Everyone else got it" }).click();
  await page.getByRole("button", { name: "End the session" }).first().click();
  await expect(page.getByText("12 children came")).toBeVisible();
  await expectAccessible(page);
});
