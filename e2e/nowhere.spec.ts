import { classNamed, expect, expectAccessible, post, test } from "./school.ts";

const strange = crypto.randomUUID();
/** Addresses under which nothing stands, each with the place where one goes on. */
const nowhere: readonly (readonly [string, RegExp])[] = [
  ["/nowhere", /Go to Today/],
  ["/child/%E0%A4%A", /Go to (Class|Today)/],
  ...["child", "class", "check", "groups", "sessions", "orders", "texts"].flatMap((place) =>
    [strange, "x", "%00", "a%20b", "..%2f..%2fapi", "1".repeat(300)].map(
      (id) =>
        [
          `/${place}/${id}`,
          place === "child" ? /Go to Class/ : /^(Go to|Choose|Add a class|Make|Show|Back)/,
        ] as const,
    ),
  ),
  [`/check/${strange}/result`, /Go to Check/],
  [`/check/${strange}/sheets`, /Go to Check/],
  [`/texts/${strange}/prepare`, /(go|back) to Texts/i],
  [`/texts/${strange}/edit`, /(go|back) to Texts/i],
  [`/texts/the-slow-boat/read?child=${strange}`, /(go|back) to Texts/i],
  [`/texts/${strange}/read?group=${strange}`, /(go|back) to Texts/i],
];

test("an address under which nothing stands is a page in words with the way on", async ({ page, school }) => {
  test.setTimeout(240_000);
  for (const [path, way] of nowhere) {
    await page.goto(school.base + path);
    await expect(page.getByRole("status", { name: "Loading" }), path).toHaveCount(0);
    await expect(page.getByRole("heading", { level: 1 }), path).toBeVisible();
    const main = page.getByRole("main");
    await expect(
      main
        .getByRole("link", { name: way })
        .or(main.getByRole("button", { name: way }))
        .first(),
      path,
    ).toBeVisible();
    await expect(page.getByText(/undefined|\[object|expected string|ZodError|Unexpected/i), path).toHaveCount(0);
  }
  await expectAccessible(page);
  for (const token of ["x", "A".repeat(43), "%00", "%E0%A4%A"]) {
    await page.goto(`${school.base}/shared/${token}`);
    await expect(page.getByRole("alert").or(page.getByText("Not found")).first(), token).toBeVisible();
  }
});

test("a class says how far it is when it is made; a check with nothing to ask leads to its class", async ({
  page,
  emptySchool: school,
}) => {
  await page.goto(school.base);
  await page.getByLabel("What is the school called?").fill("Osier Bank School");
  await page.getByRole("button", { name: "Save the name" }).click();
  await expect(page.getByText("Osier Bank School")).toBeVisible();
  await page.goto(`${school.base}/class?add=1`);
  await page.getByLabel("Name", { exact: true }).fill("Reeds");
  await page.getByLabel("Teaching order").selectOption("The alphabet first");
  await page.getByLabel("Taught up to").selectOption("4. Letters m to p");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Add the class" }).click();
  await expect(page.getByText("Step 4 of", { exact: false })).toBeVisible();
  await expect(page.getByText("Osier Bank School")).toBeVisible();
  const reeds = await classNamed(school, "Reeds");
  expect(reeds).toMatchObject({ stepId: "s4" });

  await page.getByRole("button", { name: "Add a class" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Moorings");
  await page.getByRole("button", { name: "Add the class" }).click();
  const moorings = await classNamed(school, "Moorings");
  const id = crypto.randomUUID();
  await post(school, "/api/children", { id, classId: moorings.id, name: "Ada M.", note: "" });
  await page.goto(`${school.base}/check?child=${id}`);
  await page.getByRole("button", { name: "Follow-up", exact: true }).click();
  await expect(page.getByTestId("size")).toContainText("Nothing to ask");
  await page.getByRole("link", { name: "Say in Moorings how far it has been taught" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Moorings" })).toBeVisible();
});
