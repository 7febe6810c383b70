import { readFileSync, writeFileSync } from "node:fs";
import { asked, marksAlone, part, saved, sit, sitting } from "./checking.ts";
import { expect, expectAccessible, printed, test } from "./school.ts";

const names = ["Linus B.", "Mabel C.", "Oona H."];

test("sheets are printed, ringed answers are entered by one key each, read from CSV, and say what was confused", async ({
  page,
  school,
}, info) => {
  await marksAlone(school);
  const { id, checks } = await sit(
    school,
    names,
    [part("paper", { most: 8, strategy: "inOrder" })],
    "Thursday sheet",
  );
  await page.goto(`${school.base}/check/${id}`);
  await page.getByRole("link", { name: "Print the sheets" }).click();
  await expect(page.getByRole("region", { name: /^Sheet/ })).toHaveCount(4);
  const words = await page.getByRole("region", { name: "Sheet of Linus B." }).getByRole("listitem").count();
  expect(words).toBe(8);
  await expectAccessible(page);
  expect(await printed(page)).toEqual({ pages: 4, wide: false });
  await page.getByRole("link", { name: "Enter the answers" }).click();

  const cell = (child: string, at: number) =>
    page
      .getByRole("row", { name: new RegExp(`^${child.replace(".", "\\.")}`) })
      .getByRole("cell")
      .nth(at + 1)
      .getByRole("button");
  await cell("Linus B.", 0).focus();
  for (const key of ["1", "2", "3", "4", "0", "x", "1", "2"]) await page.keyboard.press(key);
  await expect(cell("Mabel C.", 0)).toBeFocused();
  await page.keyboard.press("4");
  await page.keyboard.press("Backspace");
  await expect(cell("Mabel C.", 0)).toBeFocused();
  await expect(cell("Mabel C.", 0)).toHaveText("");
  await expectAccessible(page);
  await saved(page);

  const { checks: after } = await sitting(school, id);
  const linus = after[0];
  const stands = (linus?.answers ?? []).filter((entry) => entry.outcome !== "void");
  expect(stands).toHaveLength(8);
  for (const [at, entry] of stands.slice(0, 4).entries()) {
    const chosen = linus?.setup.sheet[entry.item ?? ""]?.[at];
    expect(entry.outcome).toBe(chosen?.from === undefined ? "right" : "wrong");
    if (chosen?.from !== undefined) expect(entry.heard).toBe(chosen.text);
  }
  expect(stands[4]?.outcome).toBe("none");
  expect(stands[5]?.tags).toEqual(["doubled"]);

  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save as CSV" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8");
  const [head = "", first = ""] = text.split("\r\n");
  expect(head.split(",")).toHaveLength(9);
  expect(first).toContain("blank");
  const file = info.outputPath("ringed.csv");
  writeFileSync(file, `${head}\r\nMabel C.,${Array(8).fill("2").join(",")}\r\nOona H.,1,blank,x,9\r\nNobody,1\r\n`);
  await page.getByLabel("CSV of ringed answers").setInputFiles(file);
  await expect(page.getByRole("alert")).toContainText("“9” is no choice for");
  await expect(page.getByRole("alert")).toContainText("“Nobody” is not in this check.");
  await expect(cell("Mabel C.", 7)).toHaveText(/^2 /);
  await expect(cell("Oona H.", 2)).toHaveText("two");
  await page.getByRole("link", { name: "All answers are in: show the results" }).click();
  await page
    .getByRole("navigation", { name: "Children" })
    .getByRole("button", { name: /^Linus B\./ })
    .click();
  await expect(page.getByText("left blank", { exact: false })).toBeVisible();
  await expect(page.getByText("two were ringed", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "All together" }).click();
  await expect(page.getByRole("row")).toHaveCount(4);
  await saved(page).catch(() => {});
  await expect.poll(async () => (await sitting(school, id)).endedAt).not.toBeNull();
  expect(checks).toHaveLength(3);
});

test("results of a whole sitting print and go out as CSV that no spreadsheet runs", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const { id } = await sit(school, ["Tilda N."], [part("card", { scope: "picked", picked: ["b=b", "d=d"] })]);
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await page.keyboard.press("4");
  await page.getByLabel("What was said or written").fill("=1+1");
  await page.keyboard.press("Enter");
  await page.keyboard.press("1");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^What this check says/ })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save as CSV" }).click(),
  ]);
  const lines = readFileSync(await download.path(), "utf8").split("\r\n");
  expect(lines[0]).toBe("\uFEFFchild,check,day,asked,item,outcome,heard,seconds,failed,says,markedBy");
  expect(lines).toHaveLength(4);
  expect(lines.join("\n")).toContain("'=1+1");
  expect(await printed(page)).toEqual({ pages: 1, wide: false });
});
