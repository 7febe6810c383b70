import { childNamed, expect, test } from "./school.ts";

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

test("a whole check by touch on an upright tablet, with something misheard, a pause and a change of mind", async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Dilys M.");
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByRole("radio", { name: /Picked by hand/ }).tap();
  const pick = page.getByRole("group", { name: "Spellings to check" });
  for (const spelling of [/^b \/b/, /^e \/ɛ/, /^ai /, /^sh /])
    await pick.getByRole("button", { name: spelling }).first().tap();
  await page.getByRole("button", { name: "Begin the check" }).tap();

  const seen: Record<string, string> = {};
  const answers: Record<string, string> = {
    b: "Wrong: said d",
    e: "Right at once",
    ai: "Right, slow",
    sh: "In their own way",
  };
  for (let card = 1; card <= 4; card++) {
    await expect(page.getByText(`card ${card} of 4`)).toBeVisible();
    const shown = (await page.getByTestId("card").textContent()) ?? "";
    const mark = page.getByRole("button", { name: new RegExp(`^${answers[shown]}`) });
    const box = await mark.boundingBox();
    expect(box?.height ?? 0).toBeGreaterThanOrEqual(44);
    expect(box?.width ?? 0).toBeGreaterThanOrEqual(44);
    if (card === 2) {
      await page.getByRole("button", { name: /^Pause/ }).tap();
      await expect(page.getByText("Paused. Everything so far is kept.")).toBeVisible();
      await expect(page.getByTestId("card")).toHaveCount(0);
      await page.getByRole("button", { name: "Go on" }).last().tap();
      await page.getByRole("button", { name: /^No answer/ }).tap();
      await page.getByRole("button", { name: /^Undo/ }).tap();
      await expect(page.getByTestId("card")).toHaveText(shown);
    }
    await mark.tap();
    seen[shown] = answers[shown] ?? "";
  }
  expect(Object.keys(seen).sort()).toEqual(["ai", "b", "e", "sh"]);
  await page.getByRole("button", { name: "See what this check says" }).tap();
  await expect(page.getByRole("heading", { name: "Known at once (2)" })).toBeVisible();
  await expect(page.getByText("said “d” for “b”")).toBeVisible();

  const { answers: kept } = await school.get<{
    answers: { answer: { outcome: string; heard?: string; markedBy: string } }[];
  }>(`/api/children/${child.id}/evidence?gpc=${encodeURIComponent("b=b")}`);
  expect(kept[0]?.answer).toMatchObject({ outcome: "wrong", heard: "d", markedBy: "Teacher" });
});

test("marks carry the name of who marks on this device", async ({ page, school }) => {
  const child = await childNamed(school, "Hope C.");
  await page.goto(`${school.base}/check?child=${child.id}`);
  await page.getByLabel("Marks are by").fill("Mrs Quill");
  await page.getByRole("radio", { name: /Picked by hand/ }).tap();
  await page
    .getByRole("group", { name: "Spellings to check" })
    .getByRole("button", { name: /^m \/m/ })
    .tap();
  await page.getByRole("button", { name: "Begin the check" }).tap();
  await page.getByRole("button", { name: /^Right at once/ }).tap();
  await expect(page.getByText("all marks saved")).toBeVisible();
  const { answers } = await school.get<{ answers: { answer: { markedBy: string } }[] }>(
    `/api/children/${child.id}/evidence?gpc=${encodeURIComponent("m=m")}`,
  );
  expect(answers[0]?.answer.markedBy).toBe("Mrs Quill");
});
