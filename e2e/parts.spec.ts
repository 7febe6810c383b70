import type { Page } from "@playwright/test";
import { expect, expectAccessible, type School, test } from "./school.ts";

interface Part {
  readonly kind: string;
  readonly minutes: number;
  readonly items: readonly string[];
  readonly marks?: boolean;
}
interface Session {
  readonly plan: { readonly target: string; readonly focus?: readonly string[]; readonly parts: readonly Part[] };
}

const sessionOf = (school: School, page: Page) =>
  school.get<Session>(`/api/sessions/${new URL(page.url()).pathname.split("/").at(-1)}`);
const kindsOf = async (school: School, page: Page) =>
  (await sessionOf(school, page)).plan.parts.map(({ kind }) => kind);

/** Plans a session of the group, about what is named so. */
async function plan(page: Page, school: School, about: RegExp) {
  const groups = await school.get<{ id: string; name: string }[]>("/api/groups");
  await page.goto(`${school.base}/groups/${groups.find(({ name }) => name === "Lock keepers")?.id}`);
  await page.getByRole("button", { name: "Plan a session" }).click();
  const choice = page.getByRole("dialog").getByLabel("About");
  await expect(choice).toBeEnabled();
  const wanted = (await choice.locator("option").allTextContents()).find((one) => about.test(one)) ?? "";
  await choice.selectOption(wanted);
  await page.getByRole("button", { name: "Fill it" }).click();
  await page.waitForURL(/\/sessions\/[\w-]{36}$/);
  return wanted;
}

test("a session about a pair that is mixed up: planned from the group, named on the list and on its card", async ({
  page,
  school,
}) => {
  const name = await plan(page, school, /told apart/);
  await expect(page.getByText(`about ${name}`)).toBeVisible();
  const { plan: made } = await sessionOf(school, page);
  expect(made.focus?.[0]).toMatch(/^contrast (sound|spelling) /);
  const pairs = made.parts.find(({ kind }) => kind === "pairs")?.items ?? [];
  expect(pairs.length).toBeGreaterThan(0);
  await expect(page.getByRole("region", { name: "Pairs" })).toContainText(pairs[0] ?? "?");
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("article", { name: "Session card" })).toContainText(name);
  await page.emulateMedia({ media: "screen" });
  await page.goto(`${school.base}/sessions`);
  await expect(page.getByRole("row").filter({ hasText: name })).not.toHaveCount(0);
  // The days ahead know it too: it is about that, and not about a spelling.
  await page.getByRole("row").filter({ hasText: name }).getByRole("link").click();
  await page.getByRole("button", { name: "Change day or target" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByLabel("About")).toHaveValue(made.focus?.join("|") ?? "");
  await expectAccessible(page);
  await sheet.getByLabel("About").selectOption("a spelling");
  await sheet.getByRole("button", { name: "Fill anew" }).click();
  await expect(page.getByText("Filled anew from the word list.")).toBeVisible();
  expect((await sessionOf(school, page)).plan.focus).toBeUndefined();
});

test("parts of one session: moved, taken out and brought back, added, without marks; kept as a routine for others", async ({
  page,
  school,
}) => {
  await plan(page, school, /a spelling/);
  const first = await kindsOf(school, page);
  const at = first.indexOf("readWords");
  const edit = async (title: string) => page.getByRole("button", { name: `Edit ${title}` }).click();
  // Marks off: the words stand without brackets.
  const words = page.getByRole("region", { name: "Read words" });
  await expect(words.locator(".bracketed").first()).toBeVisible();
  await edit("Read words");
  await words.getByLabel("marks under the sounds").uncheck();
  await expect(words.getByRole("button", { name: "Read words earlier" })).toBeDisabled();
  await words.getByRole("button", { name: "Save" }).click();
  await expect(words.locator(".bracketed")).toHaveCount(0);
  expect((await sessionOf(school, page)).plan.parts[at]?.marks).toBe(false);
  // A place later, and out of it; undone it is back where it was.
  await edit("Read words");
  await words.getByRole("button", { name: "Read words later" }).click();
  await expect.poll(async () => (await kindsOf(school, page)).indexOf("readWords")).toBe(at + 1);
  const moved = await kindsOf(school, page);
  await edit("Read words");
  await words.getByRole("button", { name: "Take Read words out" }).click();
  await expect(words).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => kindsOf(school, page)).toEqual(moved);
  await expect(words).toBeVisible();
  // Another part, filled for these children.
  await page.getByLabel("Add a part").selectOption("Phrases and pictures");
  const phrases = page.getByRole("region", { name: "Phrases and pictures" });
  await expect(phrases).toContainText("Lay out the pictures.");
  const made = (await sessionOf(school, page)).plan.parts.at(-1);
  expect(made?.items.length).toBeGreaterThan(2);
  await expectAccessible(page);
  await page.reload();
  await expect(phrases).toContainText(made?.items[0] ?? "?");
  // What is laid out for it: strips without the answers, and the pictures.
  await page.getByRole("link", { name: "To lay out" }).click();
  const shown = /\((\w+)\)$/.exec(made?.items[0] ?? "")?.[1] ?? "?";
  await expect(page.getByRole("img", { name: shown, exact: true })).toBeVisible();
  await expect(page.getByRole("region", { name: "Sentence strips" })).toContainText(
    (made?.items[0] ?? "").replace(/ \(.*/, ""),
  );
  await page.getByRole("link", { name: "The session" }).click();
  // Its parts become a routine.
  await page.getByRole("button", { name: "Change day or target" }).click();
  await page.getByRole("button", { name: "Keep its parts as a routine" }).click();
  await page.getByRole("dialog").getByLabel("Name").fill("Fridays on the towpath");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("“Fridays on the towpath” is kept.")).toBeVisible();
  await page.goto(`${school.base}/sessions/routines`);
  await page.getByRole("button", { name: "Fridays on the towpath" }).click();
  const list = page.locator("ol").filter({ hasText: "Phrases and pictures" }).getByRole("listitem");
  await expect(list).toHaveCount(moved.length + 1);
  await expect(list.filter({ hasText: "Read words" })).toContainText("without marks");
});
