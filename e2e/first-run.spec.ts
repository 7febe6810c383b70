import { expect, expectAccessible, test } from "./school.ts";

// The server is ended in the middle of it.
test.use({ alone: true });

const places: readonly [string, string, string][] = [
  ["/", "It begins with a class", "Set up the first class"],
  ["/class", "A class has a name", "Add a class"],
  ["/check", "It begins with a class list", "Go to Class"],
  ["/gaps", "It begins with children in a class", "Go to Class"],
  ["/groups", "A group is a few children with the same gaps", "Make groups"],
  ["/groups/new", "No child is in these classes yet", "Go to Class"],
  ["/sessions", "A session is planned from a group", "Go to Groups"],
];

test("each place that is empty says what it is for and offers the one action that fills it", async ({
  page,
  emptySchool,
}) => {
  test.setTimeout(120_000);
  for (const [path, words, action] of places) {
    await page.goto(emptySchool.base + path);
    await expect(page.getByText(words)).toBeVisible();
    await expect(
      page
        .getByRole("main")
        .getByRole(/^(Add|Set)/.test(action) && path === "/class" ? "button" : "link", { name: action })
        .first(),
    ).toBeVisible();
    await expectAccessible(page);
  }
});

test("a form that is refused says why at its field and keeps what was typed", async ({ page, emptySchool }) => {
  await page.goto(`${emptySchool.base}/class`);
  await page.getByRole("button", { name: "Add a class" }).click();
  await page.getByRole("button", { name: "Add the class" }).click();
  await expect(page.getByText("A class needs a name.")).toBeVisible();
  await page.getByLabel("Name").fill("Kiln");
  await page.getByLabel("Teaching order").selectOption({ label: "The alphabet first" });
  await expect(
    page.getByText("children learn letter names and a keyword from the start", { exact: false }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Add the class" }).click();
  await page.getByRole("button", { name: "Add a class" }).click();
  await page.getByLabel("Name").fill("kiln");
  await page.getByRole("button", { name: "Add the class" }).click();
  await expect(page.getByText("Choose another name.")).toBeVisible();
  await expect(page.getByLabel("Name")).toHaveValue("kiln");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});

test("when the server is away a form says so, keeps its words, and works when it is back", async ({
  page,
  emptySchool,
}) => {
  await page.goto(`${emptySchool.base}/class`);
  await page.getByRole("button", { name: "Add a class" }).click();
  await page.getByLabel("Name").fill("Rope walk");
  await emptySchool.kill();
  await page.getByRole("button", { name: "Add the class" }).click();
  await expect(page.getByText(/^The server cannot be reached\. .*What you typed is still here\.$/)).toBeVisible();
  await emptySchool.start();
  await page.getByRole("button", { name: "Add the class" }).click();
  await expect(page.getByRole("heading", { name: "Rope walk" })).toBeVisible();
});

test("a page that is older than the application loads anew by itself, and says so when that does not help", async ({
  page,
  emptySchool,
}) => {
  await page.goto(emptySchool.base);
  await expect(page.getByText("It begins with a class")).toBeVisible();
  let missing = 1;
  await page.route(/assets\/help-.*\.js/, (route) =>
    missing-- > 0 ? route.fulfill({ status: 404 }) : route.continue(),
  );
  await page.getByRole("link", { name: "Help" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Help" })).toBeVisible();

  await page.route(/assets\/orders-.*\.js/, (route) => route.fulfill({ status: 404 }));
  await page.getByRole("link", { name: "Teaching orders" }).click();
  await expect(page.getByRole("heading", { name: "This place could not be shown" })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Go to Today" }).click();
  await expect(page).toHaveTitle("Today · Keen Sapling");
});
