import { expect, expectAccessible, test } from "./school.ts";

/** The part of Make groups of this name, opened. */
async function fold(page: import("@playwright/test").Page, name: string) {
  const part = page.locator("details", { has: page.locator("summary", { hasText: name }) });
  await part.locator("summary").click();
  return part;
}

test("limits and wishes are kept or named, three ways stand side by side, and each says how far it is from the best", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/groups/new`);
  const groups = page.locator("section[aria-label]").filter({ has: page.getByLabel("Name of the group") });
  await expect(groups.first()).toBeVisible();
  const unkept = page.getByRole("list", { name: "What cannot be kept" });
  await expect(unkept.getByText(/^Amos D\. and Eben S\. are to be together/)).toBeVisible();
  await expect(unkept.getByText(/\d+ children have no place: 7 groups hold 35 of the \d+/)).toBeVisible();
  await expect(page.getByText("Too little is known: 0 of", { exact: false })).toBeVisible();
  // Who is kept apart is in no group together.
  for (const group of await groups.all()) {
    const names = await group
      .getByRole("button", { name: /^Drag / })
      .evaluateAll((all) => all.map((one) => one.ariaLabel));
    expect(names.includes("Drag Dario F.") && names.includes("Drag Ugo Z.")).toBe(false);
  }

  const wishes = await fold(page, "Wishes");
  await wishes.getByRole("button", { name: "Take back: Amos D. and Seth G. apart" }).click();
  // What no one has changed by hand follows the wishes.
  await expect(unkept.getByText(/^Amos D\. and Eben S\./)).toHaveCount(0);
  // Who is to be together is in one group, or none of them has a place: there are more children than places.
  await expect
    .poll(async () => {
      const groupOf = (name: string) =>
        groups.evaluateAll(
          (all, label) => all.findIndex((one) => one.querySelector(`[aria-label="${label}"]`) !== null),
          `Drag ${name}`,
        );
      return new Set(await Promise.all(["Amos D.", "Seth G.", "Eben S."].map(groupOf))).size;
    })
    .toBe(1);
  await wishes.getByLabel("Child", { exact: true }).selectOption({ label: "Gil H." });
  await wishes.getByLabel("Wish", { exact: true }).selectOption("alone");
  await wishes.getByRole("button", { name: "Keep this wish" }).click();
  await expect(wishes.getByText("Gil H. by themselves")).toBeVisible();
  const withGil = groups.filter({ has: page.getByRole("button", { name: "Drag Gil H." }) });
  await expect(withGil.getByRole("listitem")).toHaveCount(1);

  // Out of a group by hand, and not back into it by a proposal, until it is let in again.
  const first = groups.first();
  const held = (
    (await first
      .getByRole("button", { name: /^Drag / })
      .first()
      .getAttribute("aria-label")) ?? ""
  ).slice(5);
  const called = await first.getByLabel("Name of the group").inputValue();
  await first.getByRole("button", { name: `Keep ${held} out of this group` }).click();
  await page.getByRole("button", { name: "Propose again" }).click();
  await expect(first.getByLabel("Name of the group")).toHaveValue(called);
  await expect(first.getByRole("button", { name: `Drag ${held}` })).toHaveCount(0);
  await first.getByRole("button", { name: `Let ${held} into ${called} again` }).click();
  await expect(first.getByText("Not here:")).toHaveCount(0);

  const ways = page.getByRole("list", { name: "Proposals" });
  await expect(ways.getByRole("listitem")).toHaveCount(2);
  await ways.getByRole("button", { name: "How far from the best there is?" }).click();
  await expect(ways.getByText(/^No (other )?grouping within these limits meets more/)).toBeVisible();
  await ways.getByRole("button", { name: "Show it", exact: true }).click();
  await expect(ways.getByRole("listitem").nth(1).getByText("shown below")).toBeVisible();
  await expect(page.getByLabel("Name of the group").first()).toHaveValue(/./);
  await expectAccessible(page);
});

test("with no adult there is a sentence, with more there are more groups; the school's way is kept", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/groups/new`);
  await expect(page.getByLabel("Name of the group").first()).toBeVisible();
  const adults = await fold(page, "Adults");
  for (const at of ["A week", "Sessions a week of adult 2", "Sessions a week of adult 3"])
    await adults.getByLabel(at, { exact: true }).fill("0");
  await page.getByRole("button", { name: "Propose again" }).click();
  await expect(
    page.getByText(/children have no place: there is no adult to take a group\. Say who can take one\./),
  ).toBeVisible();
  await adults.getByLabel("A week", { exact: true }).fill("30");
  await page.getByRole("button", { name: "Propose again" }).click();
  await expect(page.getByRole("list", { name: "Proposals" }).getByText("Fewest adults")).toBeVisible();
  await adults.getByRole("button", { name: "Add an adult" }).click();
  await adults.getByLabel("Name of adult 4").fill("Mr Tolley");
  await page.getByRole("button", { name: "Keep this as the school's way" }).click();
  await expect(page.getByText("Groups are made this way in your school from now on.")).toBeVisible();
  await page.reload();
  await expect(page.getByText("4 adults, 17 groups")).toBeVisible();
  // What counts says at once what comes first by it.
  const counts = await fold(page, "What counts");
  const first = counts.getByText(/^Worth most to these children now: /);
  const before = await first.textContent();
  await counts.getByLabel(/^Common words it opens/).fill("0");
  await counts.getByLabel(/^What the class is taught next/).fill("10");
  await expect(first).not.toHaveText(before ?? "");
});

test("a child who needs its group no longer leaves with one press, and the groups stand as they were on a day before", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/groups`);
  const changes = page.locator("section", {
    has: page.getByRole("heading", { name: "Changes that the answers speak for" }),
  });
  await expect(changes.getByText(/no longer needs Kingfishers: none of its 4 targets/)).toBeVisible();
  await expectAccessible(page);
  const other = changes.getByRole("button", { name: /^Not now: (?!Flora)/ }).first();
  const name = (await other.getAttribute("aria-label"))?.replace("Not now: ", "") ?? "";
  // One key on what is proposed puts it off.
  const row = changes.getByRole("listitem").filter({ has: page.getByRole("button", { name: `Not now: ${name}` }) });
  await row.locator('[aria-keyshortcuts="n"]').first().focus();
  await page.keyboard.press("n");
  await expect(changes.getByRole("button", { name: `Not now: ${name}` })).toHaveCount(0);
  await changes.getByRole("button", { name: "Leaves: Flora J." }).click();
  await expect(page.getByText("Flora J.: out of Kingfishers; looked at again in two weeks.")).toBeVisible();
  const card = page
    .getByRole("listitem")
    .filter({ has: page.getByRole("link", { name: "Kingfishers", exact: true }) });
  await expect(card.getByText("Flora J.", { exact: false })).toHaveCount(0);
  await page.reload();
  await expect(changes.getByRole("button", { name: `Not now: ${name}` })).toHaveCount(0);
  await page.getByRole("link", { name: "Kingfishers", exact: true }).click();
  await expect(page.getByText("Flora J. needs it no longer.")).toBeVisible();

  await page.goto(`${school.base}/groups`);
  await page.getByRole("button", { name: "As they were on …" }).click();
  const { today } = await school.get<{ today: string }>("/api/school");
  const before = new Date(Date.parse(today) - 3 * 86_400_000).toISOString().split("T")[0] ?? "";
  await page.getByLabel("As they were on").fill(before);
  await expect(page.getByRole("list", { name: /^Groups on / }).getByText("Flora J.", { exact: false })).toBeVisible();
  await page.getByRole("button", { name: "As they are now" }).click();
  await expect(page.getByRole("list", { name: /^Groups on / })).toHaveCount(0);
  await page.getByRole("link", { name: "Whole school" }).click();
  await expect(
    page
      .getByRole("row")
      .filter({ hasText: "Kingfishers" })
      .getByText(/\d+ of \d+/),
  ).toBeVisible();
  await expectAccessible(page);
});

test("what is worth teaching next says why, and is put first, put off, struck out and taken back", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/class`);
  const next = page.locator("section", { has: page.getByRole("heading", { name: "Worth teaching next" }) });
  const rows = next.getByRole("list").first().getByRole("listitem");
  await expect(rows.first().getByText(/\d+ of 24 need it; would open about \d+ common words: /)).toBeVisible();
  await expectAccessible(page);
  const name = (await rows.first().locator(".font-semibold").textContent()) ?? "";
  const last = (await rows.nth(2).locator(".font-semibold").textContent()) ?? "";
  await next.getByLabel(`What to do with ${name}`).selectOption("struck");
  await expect(next.getByRole("list", { name: "What was said of it" }).getByText("struck out").first()).toBeVisible();
  await expect(rows.first().locator(".font-semibold")).not.toHaveText(name);
  await next.getByLabel(`What to do with ${last}`).selectOption("pinned");
  await expect(rows.first().locator(".font-semibold")).toHaveText(last);
  await expect(rows.first().getByText("first", { exact: true })).toBeVisible();
  await page.reload();
  await expect(rows.first().locator(".font-semibold")).toHaveText(last);
  const backs = next.getByRole("button", { name: /^Take back: / });
  while ((await backs.count()) > 0) {
    const label = (await backs.first().getAttribute("aria-label")) ?? "";
    await next.getByRole("button", { name: label, exact: true }).click();
    await expect(next.getByRole("button", { name: label, exact: true })).toHaveCount(0);
  }
  await expect(rows.first().locator(".font-semibold")).toHaveText(name);
});

test("what children need besides single spellings stands with its evidence, is struck out and taken back", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/class`);
  const others = page.getByRole("list", { name: "Besides single spellings" }).getByRole("listitem");
  await expect(others.first().getByText(/^\d+ of 24: [A-Z]/)).toBeVisible();
  const called = (await others.first().locator(".font-semibold").textContent()) ?? "";
  await page.getByLabel(`What to do with ${called}`, { exact: true }).selectOption("struck");
  await expect(others.first().locator(".font-semibold")).not.toHaveText(called);
  await page.reload();
  await expect(others.first().locator(".font-semibold")).not.toHaveText(called);
  const backs = page.getByRole("button", { name: `Take back: ${called} struck out`, exact: true });
  while ((await backs.count()) > 0) {
    const left = (await backs.count()) - 1;
    await backs.first().click();
    await expect(backs).toHaveCount(left);
  }
  await expect(others.first().locator(".font-semibold")).toHaveText(called);

  type Rows = { children: { id: string; needs: unknown[] }[] };
  const rows = (await (await page.request.get(`${school.base}/api/other-needs`)).json()) as Rows;
  const needing = new Set(rows.children.flatMap(({ id, needs }) => (needs.length > 0 ? [id] : [])));
  type Groups = { id: string; closed: boolean; members: { childId: string }[] }[];
  const groups = (await (await page.request.get(`${school.base}/api/groups`)).json()) as Groups;
  const group = groups.find((one) => !one.closed && one.members.some(({ childId }) => needing.has(childId)));
  await page.goto(`${school.base}/groups/${group?.id}`);
  const here = page.getByRole("list", { name: "Needed here as well" }).getByRole("listitem");
  await expect(here.first().getByText(/\((missed|slow in) \d+ of \d+, last /)).toBeVisible();
  await expectAccessible(page);
});

test("what is taught as one thing is named, split and joined in an order of the school's own; the map shows a point", async ({
  page,
  school,
}) => {
  const { orders } = await school.get<{ orders: { id: string; content: { name: string } }[] }>("/api/school");
  await page.goto(`${school.base}/orders/${orders[0]?.id}`);
  await page.getByRole("button", { name: "Copy and edit" }).click();
  const points = page.locator("section", { has: page.getByRole("heading", { name: "Taught as one thing" }) });
  await points.getByRole("button", { name: "Rename doubled letters at the end" }).click();
  await points.getByLabel("Name of doubled letters at the end").fill("two at the end");
  await page.keyboard.press("Enter");
  await expect(points.getByText("two at the end", { exact: true })).toBeVisible();
  await points.getByRole("button", { name: "Split ee and ea", exact: true }).click();
  await expect(points.getByText("ee and ea", { exact: true })).toHaveCount(0);
  await points.getByLabel("Tick ai, ay and a–e").check();
  await points.getByLabel("Tick igh and ie").check();
  await points.getByLabel("Join the ticked under the name").fill("long a and long i");
  await points.getByRole("button", { name: "Join 2" }).click();
  await expect(points.getByText("long a and long i", { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(page.getByText("Saved. Checks and gaps follow this order now.")).toBeVisible();
  await page.reload();
  await expect(points.getByText("long a and long i", { exact: true })).toBeVisible();
  await points.getByRole("button", { name: "long a and long i by the rules again" }).click();
  await expect(points.getByText("igh and ie", { exact: true })).toBeVisible();

  await page.goto(`${school.base}/gaps`);
  await page.getByLabel("Step or point").selectOption({ label: "oo, two sounds" });
  await expect(page.getByText(/: 48 children, 2 spellings$/)).toBeVisible();
});

test("a group whose limit is most gets words that some need help with, and the plan says who and with which", async ({
  page,
  school,
}) => {
  const groups = await school.get<{ id: string; name: string }[]>("/api/groups");
  const group = groups.find(({ name }) => name === "Rope walk");
  await page.goto(`${school.base}/groups/${group?.id}`);
  await page.getByLabel("Sessions have words that").selectOption("most can read");
  await expect(page.getByText("A plan says who needs help with which words.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Sessions have words that")).toHaveValue("most");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Plan a session" }).click();
  await page.getByRole("button", { name: "Fill it" }).click();
  const words = page.getByRole("region", { name: "Read words" }).locator(".sr-only");
  await expect(words.first()).toBeAttached();
  const [remark] = await page.getByText(/^\w+ \w\. needs help with /).allTextContents();
  expect(remark).toBeDefined();
  const given = [
    ...(await words.allTextContents()),
    ...(await page.getByRole("region", { name: "Write words" }).locator(".sr-only").allTextContents()),
    ...(await page.getByRole("region", { name: "Write a sentence" }).allTextContents()),
  ].join(" ");
  for (const word of (remark?.split(" needs help with ")[1] ?? "")
    .replace(/ and \d+ more/, "")
    .replace(".", "")
    .split(", "))
    expect(given.toLowerCase()).toContain(word);
});
