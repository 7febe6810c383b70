import { asked, marksAlone, part, saved, sit, sitting, stored } from "./checking.ts";
import { expect, expectAccessible, test } from "./school.ts";

const face = (item: string) => item.split("=")[0] ?? "";

test("all that the child knows: one card a spelling, a tick a sound, one press a card, one undo", {
  tag: "@main",
}, async ({ page, school }) => {
  await marksAlone(school, { severalSounds: "all" });
  const { id } = await sit(school, ["Alba T."], [part("card", { strategy: "inOrder" })]);
  const items = (await sitting(school, id)).checks[0]?.items ?? [];
  expect(new Set(items.map(face)).size).toBe(items.length);
  await page.goto(`${school.base}/check/${id}`);
  const said = page.getByRole("group", { name: "Which of its sounds were said" });
  // On to the first card that has several.
  let before = 0;
  await asked(page);
  while (!(await said.isVisible())) {
    const card = await asked(page);
    await page.keyboard.press("1");
    before += 1;
    await expect(page.getByTestId("card")).not.toHaveText(card);
  }
  await expectAccessible(page);
  const card = await asked(page);
  const sounds = said.getByRole("button");
  const count = await sounds.count();
  expect(count).toBeGreaterThan(1);
  // The second sound was said, the first was not.
  await page.keyboard.press("x");
  await expect(sounds.nth(1)).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("1");
  await expect(page.getByTestId("card")).not.toHaveText(card);
  await saved(page);
  const its = (await stored(school, id)).slice(before);
  expect(its.map(({ item = "" }) => face(item))).toEqual(its.map(() => card));
  expect(its.map(({ outcome }) => outcome)).toEqual(["right", ...Array.from({ length: count - 1 }, () => "none")]);
  // One press back, and once more: all of them this time.
  await page.keyboard.press("u");
  await expect(page.getByTestId("card")).toHaveText(card);
  await saved(page);
  await page.reload();
  await expect(page.getByTestId("card")).toHaveText(card);
  await page.keyboard.press("1");
  await expect(page.getByTestId("card")).not.toHaveText(card);
  await saved(page);
  const log = await stored(school, id);
  const taken = new Set(log.flatMap(({ voids }) => voids ?? []));
  const stands = log.filter((one) => one.item && !taken.has(one.id)).slice(before);
  expect(stands.map(({ outcome }) => outcome)).toEqual(Array.from({ length: count }, () => "right"));
});

test("any taught sound will do: another one is a press, and a mark for that sound", async ({ page, school }) => {
  await marksAlone(school, { severalSounds: "any" });
  const { id } = await sit(school, ["Alba T."], [part("card", { strategy: "inOrder" })]);
  await page.goto(`${school.base}/check/${id}`);
  const other = page.getByRole("button", { name: /^Said instead: / }).filter({ hasText: "taught too" });
  await asked(page);
  while (!(await other.first().isVisible())) {
    const card = await asked(page);
    await page.keyboard.press("1");
    await expect(page.getByTestId("card")).not.toHaveText(card);
  }
  const card = await asked(page);
  await page.keyboard.press("q");
  await expect(page.getByTestId("card")).not.toHaveText(card);
  await saved(page);
  const last = (await stored(school, id)).at(-1);
  expect(last).toMatchObject({ outcome: "right" });
  expect(face(last?.item ?? "")).toBe(card);
  expect((await sitting(school, id)).checks[0]?.items).not.toContain(last?.item);
});

test("in a word: the spelling that is meant stands out, on the child's side as on the desk", async ({
  page,
  school,
  context,
}) => {
  await marksAlone(school, { severalSounds: "word" });
  const picked = ["ea=ee", "ea=e", "a_e=ai", "s=s"];
  const { id } = await sit(school, ["Alba T."], [part("card", { scope: "picked", picked, strategy: "inOrder" })]);
  await page.goto(`${school.base}/check/${id}`);
  const child = await context.newPage();
  await child.goto(`${school.base}/face`);
  for (const gpc of picked.slice(0, 2)) {
    const word = await asked(page);
    expect(word).toContain("ea");
    expect(word.length).toBeGreaterThan(2);
    await expect(page.getByTestId("card").locator(".asked")).toHaveText("ea");
    await expect(child.getByTestId("card").locator(".asked")).toHaveText("ea");
    if (gpc === "ea=ee") await expectAccessible(page);
    await page.keyboard.press("1");
    await saved(page);
    expect((await stored(school, id)).at(-1)).toMatchObject({ item: gpc, outcome: "right" });
  }
});

test("the school says which way, and a check that begins follows it", async ({ page, school }) => {
  await page.goto(`${school.base}/settings`);
  const way = page.getByRole("group", { name: /One spelling, several sounds/ });
  await way.getByRole("radio", { name: "any taught sound will do" }).check();
  await expect(page.getByText("Saved. Checks that begin now follow it")).toBeVisible();
  const { checks } = await school.get<{ checks: { severalSounds: string } }>("/api/school");
  expect(checks.severalSounds).toBe("any");
  const { id } = await sit(school, ["Alba T."], [part("card")]);
  const items = (await sitting(school, id)).checks[0]?.items ?? [];
  expect(items.length).toBe(new Set(items.map(face)).size);
});

test("the other way round: every way of writing a sound, with a tick each", async ({ page, school }) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Alba T."], [{ ...part("write", { strategy: "inOrder" }), every: true }]);
  await page.goto(`${school.base}/check/${id}`);
  const written = page.getByRole("group", { name: "Which ways were written" });
  let before = 0;
  let said = await asked(page);
  while (!(await written.isVisible())) {
    await page.keyboard.press("1");
    before += 1;
    await expect(page.getByTestId("say")).not.toHaveText(said);
    said = await asked(page);
  }
  expect(said).toMatch(/^Every way you know of writing /);
  await expectAccessible(page);
  const count = await written.getByRole("button").count();
  await page.keyboard.press("z");
  await page.keyboard.press("1");
  await expect(page.getByTestId("say")).not.toHaveText(said);
  await saved(page);
  const its = (await stored(school, id)).slice(before);
  expect(its.map(({ kind, outcome }) => `${kind} ${outcome}`)).toEqual([
    "write right",
    ...Array.from({ length: count - 1 }, () => "write none"),
  ]);
});
