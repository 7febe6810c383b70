import { readFileSync } from "node:fs";
import { childNamed, classNamed, expect, expectAccessible, test } from "./school.ts";

// Erasing makes a dump of all that a server has at once; that of the other tests has many schools.
test.use({ alone: true });

async function textOf(download: { path(): Promise<string> }): Promise<string> {
  return readFileSync(await download.path(), "utf8");
}

test("a pasted list says per row what will happen, takes the good rows and hands back the rest", {
  tag: "@main",
}, async ({ page, school }) => {
  const { id } = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/import?class=${id}`);
  const rows = [
    "\uFEFFname;class;note",
    '"Zed ""Z"" A.";kiln;"semi;colon"',
    ";Kiln;",
    "Alba T.;Kiln;",
    "Moss P.;Moon;",
    "Fern Q.;Towpath;a;b;c",
    `${"x".repeat(61)};Kiln;`,
    "Ivy =S.;Kiln;=1+1",
    "ivy =s.;Kiln;",
  ];
  await page.getByLabel("Rows", { exact: true }).fill(rows.join("\r\n"));
  const table = page.getByRole("table", { name: "What each row will become" });
  await expect(table.getByText("no name")).toBeVisible();
  await expect(table.getByText("already in this class")).toBeVisible();
  await expect(table.getByText("no class is called “Moon”")).toBeVisible();
  await expect(table.getByText("2 more fields than columns")).toBeVisible();
  await expect(table.getByText("61 characters, 60 at most")).toBeVisible();
  await expect(table.getByText("same child as line 8")).toBeVisible();
  await expect(table.getByText("goes in")).toHaveCount(2);
  await expectAccessible(page);

  const [rest] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Download these with the reasons" }).click(),
  ]);
  const back = await textOf(rest);
  expect(back.trim().split("\r\n")).toHaveLength(7);
  expect(back).toContain("no class is called");

  await page.getByRole("button", { name: "Take 2 children" }).click();
  await expect(page.getByText("2 children are in.")).toBeVisible();
  await page.getByRole("link", { name: "See the class" }).click();
  await expect(page.getByRole("link", { name: 'Zed "Z" A.', exact: true })).toBeVisible();

  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export CSV" }).click(),
  ]);
  const csv = await textOf(file);
  expect(csv).toContain(`Ivy =S.,Kiln,"'=1+1"`);
  await page.goto(`${school.base}/import`);
  await page.getByLabel("Rows", { exact: true }).fill(csv);
  await expect(page.getByText(/26 rows need a look/)).toBeVisible();
  await expect(table.getByText("already in this class").first()).toBeVisible();
});

test("when what reads the rows does not load that is told, and they stand there still", async ({ page, school }) => {
  await page.route(/roster\.worker/, (route) => route.abort());
  await page.goto(`${school.base}/import`);
  const rows = page.getByLabel("Rows", { exact: true });
  await rows.fill("name\tclass\nPip O.\tKiln");
  await expect(page.getByRole("alert")).toContainText("What works this out could not be loaded. Nothing was changed");
  await expect(page.getByText("Every row is good.")).toHaveCount(0);
  await page.unroute(/roster\.worker/);
  await rows.fill(`${await rows.inputValue()}\nQuin R.\tKiln`);
  await expect(page.getByRole("button", { name: "Take 2 children" })).toBeEnabled();
});

test("five thousand rows go in from a file, with a bar, while the page stays alive", async ({
  page,
  emptySchool,
}) => {
  test.setTimeout(120_000);
  const { orders } = await emptySchool.get<{ orders: { id: string }[] }>("/api/school");
  const made = await fetch(`${emptySchool.base}/api/classes`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ id: crypto.randomUUID(), name: "Big", yearGroup: "", orderId: orders[0]?.id }),
  });
  expect(made.status).toBe(200);
  const list = ["Name\tClass", ...Array.from({ length: 5000 }, (_, at) => `Child ${at}\tBig`)].join("\n");
  await page.goto(`${emptySchool.base}/import`);
  await page
    .getByLabel("Or a CSV file")
    .setInputFiles({ name: "list.tsv", mimeType: "text/tab-separated-values", buffer: Buffer.from(list) });
  await page.getByRole("button", { name: "Take 5,000 children" }).click();
  await expect(page.getByRole("progressbar", { name: "Children taken" })).toBeVisible();
  await expect(page.getByText("5,000 children are in.")).toBeVisible({ timeout: 60_000 });
  expect(await emptySchool.get<unknown[]>("/api/children")).toHaveLength(5000);
});

test("a child is edited, archived, brought back, exported and erased, and leaves nothing behind", async ({
  page,
  school,
}) => {
  const child = await childNamed(school, "Perry J.");
  const { id: classId } = await classNamed(school, "Kiln");
  await page.goto(`${school.base}/class/${classId}`);
  await page.getByRole("button", { name: "Edit Perry J." }).click();
  await page.getByLabel("First name and initial").fill("Alba T.");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Already in this class.")).toBeVisible();
  await page.getByLabel("First name and initial").fill("Perry Jo");
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByRole("button", { name: "Edit Perry Jo" }).click();
  await page.getByRole("button", { name: "Archive" }).click();
  await expect(page.getByRole("link", { name: "Perry Jo", exact: true })).toHaveCount(0);
  await page.getByRole("button", { name: "Show 1 archived" }).click();
  await page.getByRole("button", { name: "Bring back" }).click();
  await page.getByRole("button", { name: "Show the class" }).first().click();
  await page.getByRole("link", { name: "Perry Jo", exact: true }).click();
  await expectAccessible(page);

  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Export JSON" }).click(),
  ]);
  const kept = JSON.parse(await textOf(file)) as { format: string; answers: unknown[] };
  expect(kept.format).toBe("keen-sapling child 3");
  expect(kept.answers.length).toBeGreaterThan(50);

  await page.getByRole("button", { name: "Erase" }).click();
  await expect(page.getByText(`${kept.answers.length} answers,`, { exact: false })).toBeVisible();
  await expect(page.getByRole("dialog").getByRole("button", { name: "Erase" })).toBeDisabled();
  await page.getByLabel(/Yes, erase everything/).check();
  await page.getByRole("dialog").getByRole("button", { name: "Erase" }).click();
  await expect(page.getByRole("heading", { name: "Kiln" })).toBeVisible();
  expect((await fetch(`${school.base}/api/children/${child.id}`)).status).toBe(404);
  for (const path of ["/api/groups", "/api/gaps", "/api/today", "/api/sessions"]) {
    expect(JSON.stringify(await school.get(path))).not.toContain(child.id);
  }
});
