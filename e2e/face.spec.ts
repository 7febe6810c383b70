import { asked, marksAlone, part, saved, sit, stored } from "./checking.ts";
import { expect, expectAccessible, test } from "./school.ts";

// The server is ended in the middle of it.
test.use({ alone: true });

test("another device shows the cards by a code, keeps the last one without a line, comes back, and ends with the check", async ({
  page,
  school,
  browser,
}) => {
  test.setTimeout(120_000);
  await marksAlone(school);
  const { id } = await sit(
    school,
    ["Nico V."],
    [part("card", { scope: "picked", picked: ["b=b", "d=d", "m=m", "sh=sh", "t=t"] })],
  );
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await page.getByRole("button", { name: /^Child sees/ }).click();
  await page.getByRole("button", { name: "Get a code for another device" }).click();
  const code = ((await page.getByRole("status").last().textContent()) ?? "").replace(/\D/g, "");
  expect(code).toMatch(/^\d{6}$/);
  await expect(page.getByRole("img", { name: "The code, to be read by a camera" })).toBeVisible();
  await page.keyboard.press("Escape");

  const elsewhere = await browser.newContext({ viewport: { width: 1024, height: 768 } });
  const face = await elsewhere.newPage();
  await face.goto(`${school.base}/look`);
  await expect(face.getByLabel("Code")).toBeVisible();
  await expectAccessible(face);
  await face.getByLabel("Code").fill("12");
  await face.getByRole("button", { name: "Show" }).click();
  await expect(face.getByText("A code has six figures.")).toBeVisible();
  await face.getByLabel("Code").fill(code === "123456" ? "123457" : "123456");
  await face.getByRole("button", { name: "Show" }).click();
  await expect(face.getByText("This code leads to no check.", { exact: false })).toBeVisible();
  await face.getByLabel("Code").fill(`${code.slice(0, 3)} ${code.slice(3)}`);
  await face.getByRole("button", { name: "Show" }).click();
  await expect(face.getByTestId("card")).toHaveText(await asked(page));
  await expect(face.getByRole("link")).toHaveCount(0);
  await expect(face.getByRole("button")).toHaveCount(0);
  await expectAccessible(face);
  await page.keyboard.press("1");
  await expect(face.getByTestId("card")).toHaveText(await asked(page));

  const last = await asked(page);
  await school.kill();
  await page.keyboard.press("5");
  await expect(face.getByTestId("card")).toHaveText(last);
  await school.start();
  await expect(face.getByTestId("card")).toHaveText(await asked(page), { timeout: 20_000 });
  for (const _ of [3, 4, 5]) {
    await asked(page);
    await page.keyboard.press("1");
  }
  await page.keyboard.press("Enter");
  await expect(face.getByRole("heading", { name: "That was all." })).toBeVisible();
  expect((await fetch(`${school.base}/api/faces/${code}`)).status).toBe(404);
  await elsewhere.close();
});

test("hear and find: the child taps on another device, on the second window and on the desk; the taps are the answers", async ({
  page,
  school,
  browser,
  context,
}) => {
  await marksAlone(school);
  const { id } = await sit(
    school,
    ["Mabel C."],
    [part("find", { scope: "picked", picked: ["b=b", "m=m", "t=t", "s=s"], choices: 4 })],
  );
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByTestId("choices").getByRole("button")).toHaveCount(4);
  await expectAccessible(page);
  await page.getByRole("button", { name: /^Child sees/ }).click();
  await page.getByRole("button", { name: "Get a code for another device" }).click();
  const code = ((await page.getByRole("status").last().textContent()) ?? "").replace(/\D/g, "");
  const [second] = await Promise.all([
    context.waitForEvent("page"),
    page.getByRole("button", { name: "Open a second window" }).click(),
  ]);
  await page.keyboard.press("Escape");
  const wanted = async () =>
    /· (\S+) for /.exec(
      (await page
        .getByText(/^Say: /)
        .locator("..")
        .textContent()) ?? "",
    )?.[1] ?? "";

  const elsewhere = await browser.newContext({ hasTouch: true });
  const face = await elsewhere.newPage();
  await face.goto(`${school.base}/look?code=${code}`);
  const right = await wanted();
  await face.getByRole("button", { name: right, exact: true }).tap();
  await expect(page.getByText("2 of 4")).toBeVisible();
  const next = await wanted();
  const wrong =
    (await second.getByTestId("choices").getByRole("button").allTextContents()).find((one) => one !== next) ?? "";
  await second.getByRole("button", { name: wrong, exact: true }).click();
  await expect(page.getByText(`pointed to ${wrong}, not ${next}.`, { exact: false })).toBeVisible();
  await page
    .getByTestId("choices")
    .getByRole("button", { name: await wanted(), exact: true })
    .click();
  await expect(page.getByText("4 of 4")).toBeVisible();
  await page.keyboard.press("q");
  await saved(page);
  const log = await stored(school, id);
  expect(log.slice(0, 3).map((entry) => [entry.outcome, entry.heard ?? null])).toEqual([
    ["right", null],
    ["wrong", wrong],
    ["right", null],
  ]);
  expect(log).toHaveLength(4);
  await elsewhere.close();
});
