import type { Page } from "@playwright/test";
import { asked, marksAlone, part, saved, sit, sitting } from "./checking.ts";
import { comeInAs, expect, marksWithoutWait, test } from "./school.ts";

const CARDS = 50;

/** Marks every card of the children of a sitting, by key, as fast as the desk shows the next. */
async function markAll(page: Page, children: readonly string[], keys: readonly string[]): Promise<void> {
  for (const [at, name] of children.entries()) {
    await expect(page.getByRole("heading", { name: new RegExp(`^${name.replace(".", "\\.")}`) })).toBeVisible();
    for (let card = 1; card <= CARDS; card++) {
      await expect(page.getByText(`${card} of ${CARDS}`, { exact: true })).toBeVisible();
      await page.keyboard.press(keys[card % keys.length] as string);
    }
    if (at < children.length - 1)
      await page
        .getByRole("main")
        .getByRole("button", { name: /^Next child/ })
        .click();
  }
}

test("two people mark 200 cards each without a line: all arrive, none twice, each under its person", async ({
  browser,
  school,
}) => {
  test.setTimeout(240_000);
  await marksAlone(school);
  const map = await school.get<{ columns: { gpc: string }[] }>("/api/gaps");
  const picked = [...new Set(map.columns.map(({ gpc }) => gpc))].slice(0, CARDS);
  expect(picked).toHaveLength(CARDS);
  const deck = [part("card", { scope: "picked", picked, stopAfter: 0 } as never)];
  const devices = await Promise.all(
    (
      [
        ["lead", ["Alba T.", "Bram O.", "Dario F.", "Edda L."]],
        ["teacher", ["Amos D.", "Betsy R.", "Caleb N.", "Dilys M."]],
      ] as const
    ).map(async ([role, children]) => {
      const context = await browser.newContext();
      await marksWithoutWait(context);
      await comeInAs(context, school, role);
      const { me } = (await (await context.request.get(`${school.base}/api/me`)).json()) as { me: { name: string } };
      const { id } = await sit(school, children, deck, `Deck of the ${role}`);
      const page = await context.newPage();
      await page.goto(`${school.base}/check/${id}`);
      await asked(page);
      return { context, page, id, children, who: me.name };
    }),
  );
  expect(new Set(devices.map(({ who }) => who)).size).toBe(2);
  for (const { context } of devices) await context.setOffline(true);
  await Promise.all([
    markAll(devices[0]?.page as Page, devices[0]?.children ?? [], ["1", "5"]),
    markAll(devices[1]?.page as Page, devices[1]?.children ?? [], ["1", "2", "5"]),
  ]);
  for (const { page, id } of devices) {
    await expect(page.getByText(/^20\d marks on this device, waiting for a connection$/)).toBeVisible();
    expect((await sitting(school, id)).checks.flatMap(({ answers }) => answers)).toEqual([]);
  }
  // Both come back in the same moment.
  await Promise.all(devices.map(({ context }) => context.setOffline(false)));
  for (const { page, id, who, children, context } of devices) {
    await saved(page);
    const { checks } = await sitting(school, id);
    const marks = checks.flatMap(({ answers }) => answers.filter((one) => one.item));
    expect(marks.length).toBe(CARDS * children.length);
    expect(new Set(marks.map((one) => one.id)).size).toBe(marks.length);
    expect(new Set(marks.map((one) => one.markedBy))).toEqual(new Set([who]));
    for (const { answers } of checks) expect(new Set(answers.flatMap(({ item }) => item ?? [])).size).toBe(CARDS);
    await context.close();
  }
});
