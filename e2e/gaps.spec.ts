import { readFileSync } from "node:fs";
import { classNamed, expect, expectAccessible, makeClass, post, printed, test } from "./school.ts";

test("the map: filters, sorting, evidence behind a mark, by mouse and by keyboard", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const { id } = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByText(/All classes: 4\d children/)).toBeVisible();
  await page.getByLabel("Class").selectOption("Kiln");
  await expect(page).toHaveURL(new RegExp(`class=${id}`));
  await expect(page.getByText(/Kiln: \d+ children/)).toBeVisible();

  const { columns, rows } = await school.get<{
    columns: { step: number; title: string }[];
    rows: { cells: string }[];
  }>(`/api/gaps?classId=${id}`);
  const open = columns.find((column, at) => column.step > 5 && rows.some((row) => row.cells[at * 3] === "g"));
  const spellings = columns.filter((column) => column.step === open?.step).length;
  await page.getByLabel("Step").selectOption({ label: `${open?.step}. ${open?.title}` });
  await expect(page.getByText(new RegExp(`^Kiln: \\d+ children, ${spellings} spelling`))).toBeVisible();
  await expectAccessible(page);
  const everyone = (await page.getByText(/^Kiln: \d+ children/).textContent()) ?? "";
  await page.getByLabel("State").selectOption("gap");
  await expect(page.getByText(everyone)).toHaveCount(0);
  await expect(page.locator("[role=gridcell][data-state=gap]").first()).toBeVisible();
  await page.goto(`${school.base}/gaps?class=${id}&sort=gaps`);
  const sums = (await page.getByRole("rowheader").locator("span").allTextContents()).map(Number);
  expect(sums).toEqual([...sums].sort((one, other) => other - one));

  const cell = page.locator("[role=gridcell][data-state=gap]").first();
  await cell.click();
  const sheet = page.getByRole("dialog");
  await expect(
    sheet.getByRole("list", { name: "Answers, newest first" }).getByRole("listitem").first(),
  ).toContainText(/marked by/);
  await expectAccessible(page);
  await page.keyboard.press("Escape");

  await page.getByRole("grid").focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toBeVisible();
});

test("the map in CSV has every child and spelling, and prints wide", async ({ page, school }) => {
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByRole("grid")).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "CSV" }).click(),
  ]);
  const lines = readFileSync(await file.path(), "utf8")
    .trim()
    .split("\r\n");
  const { rows } = await school.get<{ rows: unknown[] }>("/api/gaps");
  expect(rows.length).toBeGreaterThan(40);
  expect(lines).toHaveLength(rows.length + 2);
  expect(lines[0]).toContain("ea=ee");
  expect(new Set(lines.map((line) => line.split(",").length)).size).toBe(1);
  const { id } = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/gaps?class=${id}&step=s11`);
  await expect(page.getByRole("grid")).toBeVisible();
  expect(await printed(page)).toEqual({ pages: 1, wide: true });
});

test("five hundred children by all spellings: only what is seen is drawn, and it scrolls", async ({
  page,
  emptySchool: school,
}) => {
  const classId = await makeClass(school, "All", "s32");
  for (let part = 0; part < 4; part++) {
    await post(school, "/api/children/import", {
      children: Array.from({ length: 125 }, (_, at) => ({
        id: crypto.randomUUID(),
        classId,
        name: `Child ${part * 125 + at}`,
        note: "",
      })),
    });
  }
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByText("500 children, 13", { exact: false })).toBeVisible();
  const cells = () => page.locator("[role=gridcell]").count();
  expect(await cells()).toBeLessThan(3000);
  const grid = page.getByRole("grid");
  await grid.evaluate((frame) => frame.scrollTo(1e6, 1e6));
  await expect(page.getByRole("rowheader", { name: "Child 99" })).toBeVisible();
  expect(await cells()).toBeGreaterThan(100);
  const head = await page.getByRole("columnheader").first().boundingBox();
  const frame = await grid.boundingBox();
  expect(Math.round((head?.y ?? 0) - (frame?.y ?? 0))).toBeLessThanOrEqual(2);
});
