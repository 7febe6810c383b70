import type { Page } from "@playwright/test";
import { comeInAs, expect, expectAccessible, test } from "./school.ts";
import {
  answersOf,
  begin,
  groupNamed,
  lookOf,
  marksHere,
  now,
  part,
  plan,
  routinesBy,
  withParts,
} from "./teaching.ts";

// The server is ended in the middle of one of these.
test.use({ alone: true, serviceWorkers: "allow" });

/** Goes through the part that runs by keys; every third is missed at first. */
async function throughPart(page: Page): Promise<void> {
  for (let turn = 0; turn < 80; turn++) {
    if (
      await now(page)
        .getByText(/This part is done|Nothing is planned/)
        .isVisible()
    )
      return;
    await page.keyboard.press(turn % 3 === 2 ? "3" : "1");
    if (turn % 3 === 2) await page.keyboard.press("ArrowRight");
  }
  throw new Error("The part has no end.");
}

test("a whole session of each routine that ships, by keys alone: another device follows, every mark is there once, and the report is written", async ({
  page,
  school,
  browser,
}) => {
  test.setTimeout(300_000);
  const group = await groupNamed(school, "Brick hods");
  const other = await (await browser.newContext()).newPage();
  /** What stands on the adult's side stands on the other device too. */
  const follows = () =>
    expect(async () => {
      const shown = await now(page).getByTestId("card").allTextContents();
      expect(await other.getByTestId("card").allTextContents()).toEqual(shown);
    }).toPass({ timeout: 15_000 });
  for (const routine of routinesBy("keys")) {
    const id = await plan(school, group, { routine });
    const { plan: made } = await school.get<{ plan: { parts: readonly { kind: string }[] } }>(`/api/sessions/${id}`);
    await page.goto(`${school.base}/sessions/${id}/teach`);
    await page.getByRole("button", { name: "Begin" }).focus();
    await page.keyboard.press("Enter");
    await other.goto(await lookOf(page, school));
    for (const [at] of made.parts.entries()) {
      await follows();
      await throughPart(page);
      if (at < made.parts.length - 1) await page.keyboard.press("ArrowDown");
    }
    await page.getByRole("button", { name: "End the session" }).first().focus();
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("For whoever plans the next")).toHaveValue(/stumbled over/);
    const here = await marksHere(page, id);
    expect(here.length, routine).toBeGreaterThan(10);
    await page.getByRole("button", { name: "Send what happened" }).click();
    await page.waitForURL(new RegExp(`/sessions/${id}$`));
    await expect
      .poll(async () => (await answersOf(school, group, id)).map((one) => one.id).sort())
      .toEqual(here.sort());
    const session = await school.get<{ reports: readonly { came: string[]; note: string }[] }>(`/api/sessions/${id}`);
    expect(session.reports[0]?.came).toHaveLength(group.members.length);
    expect(session.reports[0]?.note).toContain("stumbled over");
    await expect(other.getByRole("heading", { name: "That was all." })).toBeVisible();
  }
  await other.context().close();
});

test("without a line in the middle, and with the server killed: what was marked stands, and is there once", async ({
  page,
  school,
  context,
}) => {
  test.setTimeout(120_000);
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  await begin(page, school, id);
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await page.keyboard.press("1");
  await page.keyboard.press("3");
  await context.setOffline(true);
  await part(page, /^Read words/);
  await page.keyboard.press("1");
  await page.keyboard.press("2");
  await page.reload();
  await expect(now(page).getByRole("heading", { name: "Read words" })).toBeVisible();
  await page.keyboard.press("3");
  await context.setOffline(false);
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(5);
  await school.kill();
  await part(page, /^Last look/);
  await page.keyboard.press("1");
  await page.keyboard.press("1");
  await school.start();
  const here = await marksHere(page, id);
  expect(here).toHaveLength(7);
  await expect
    .poll(async () => (await answersOf(school, group, id)).map((one) => one.id).sort(), { timeout: 30_000 })
    .toEqual(here.sort());
});

test("a key that is pressed in the moment in which the card appears is its mark", { tag: "@main" }, async ({
  page,
  school,
}) => {
  const id = await plan(school, await groupNamed(school, "Brick hods"));
  await begin(page, school, id);
  await page.keyboard.press("1");
  await expect.poll(async () => (await marksHere(page, id)).length).toBe(1);
  // Told of the card before anything else is: no one presses sooner.
  await page.addInitScript(() => {
    const watch = new MutationObserver(() => {
      if (!document.querySelector('section[aria-label="Now"] [data-testid=card]')) return;
      watch.disconnect();
      dispatchEvent(new KeyboardEvent("keydown", { key: "1", bubbles: true }));
    });
    watch.observe(document, { childList: true, subtree: true });
  });
  await page.reload();
  await expect.poll(async () => (await marksHere(page, id)).length).toBe(2);
});

test("the children's screen on another device by a code; it ends with the session", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  await begin(page, school, id);
  const other = await (await browser.newContext()).newPage();
  await other.goto(await lookOf(page, school));
  await expect(other.getByTestId("card")).toHaveText((await now(page).getByTestId("card").textContent()) ?? "?");
  await page.keyboard.press("1");
  await expect(other.getByTestId("card")).toHaveText((await now(page).getByTestId("card").textContent()) ?? "?");
  // A reload of the adult's side leaves it where it was.
  await page.reload();
  await expect(now(page).getByTestId("card")).toBeVisible();
  await page.keyboard.press("1");
  await expect(other.getByTestId("card")).toHaveText((await now(page).getByTestId("card").textContent()) ?? "?");
  await page.getByRole("button", { name: "End the session" }).click();
  await expect(other.getByTestId("card")).toHaveCount(0);
  await page.getByRole("button", { name: "Send what happened" }).click();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
  await expect(other.getByRole("heading", { name: "That was all." })).toBeVisible();
  await other.context().close();
});

test("an assistant teaches the group that is theirs, no one came, and a part is empty: it goes on all the same", {
  tag: "@main",
}, async ({ page, school, context }) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  const { version, plan: made } = await school.get<{ version: number; plan: { parts: object[] } }>(
    `/api/sessions/${id}`,
  );
  const empty = { kind: "pairs", minutes: 2, items: [], how: "" };
  await (
    await fetch(`${school.base}/api/sessions/${id}`, {
      method: "PATCH",
      headers: { "content-type": "application/json", origin: school.base },
      body: JSON.stringify({ version, plan: { ...made, parts: [empty, ...made.parts] } }),
    })
  ).json();
  await comeInAs(context, school, "assistant");
  await page.goto(`${school.base}/sessions/${id}/teach`);
  for (const { name } of group.members) await page.getByRole("checkbox", { name: `${name} is here` }).uncheck();
  await expect(page.getByText("No one is here yet.")).toBeVisible();
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(now(page)).toContainText("Nothing is planned for this part.");
  await now(page).getByRole("button").last().click();
  await expect(now(page).getByRole("button", { name: "Next" })).toBeVisible();
  await page.getByRole("button", { name: "End the session" }).click();
  await expect(page.getByText("No one came;")).toBeVisible();
  await page.getByRole("button", { name: "Send what happened" }).click();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
});

test("a group that was closed since is taught all the same: a sentence says so, and what is marked is kept", async ({
  page,
  school,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  await begin(page, school, id);
  await page.keyboard.press("1");
  await page.goto(`${school.base}/groups/${group.id}`);
  await page.getByRole("button", { name: "Close group" }).click();
  await expect(page.getByText("This group is closed; its history stays.")).toBeVisible();
  await page.goto(`${school.base}/sessions/${id}/teach`);
  await expect(page.getByText("This group is closed; what is marked here is kept all the same.")).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("1");
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(2);
  await page.getByRole("button", { name: "End the session" }).click();
  await page.getByRole("button", { name: "Send what happened" }).click();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
  await page.goto(`${school.base}/groups/${group.id}`);
  await page.getByRole("button", { name: "Open again" }).click();
  await expect(page.getByRole("button", { name: "Close group" })).toBeVisible();
});

test("a child who says it at sight is asked its cards alone; it is said, and the others go on", async ({
  page,
  school,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const [first, second] = group.members;
  const cards = group.members.map(({ childId }) => ({ childId, items: ["s=s"] }));
  const id = await withParts(
    school,
    "Brick hods",
    [
      { kind: "revisit", items: ["s=s"], each: cards },
      { kind: "readWords", items: ["rain", "train", "sail"] },
    ],
    { cardsOnly: [first?.childId] },
  );
  await begin(page, school, id);
  const says = page.getByText(`${first?.name} has it at sight: asked in the cards alone.`);
  const turn = page.getByRole("list", { name: "Children" }).locator('[aria-current="true"]');
  await expect(turn).toContainText(first?.name ?? "?");
  await expect(says).toHaveCount(0);
  await part(page, /^Read words/);
  await expect(says).toBeVisible();
  await expect(turn).toContainText(second?.name ?? "?");
  await expectAccessible(page);
  for (const _ of ["rain", "train", "sail"]) {
    await expect(turn).not.toContainText(first?.name ?? "?");
    await page.keyboard.press("1");
  }
  await expect(now(page)).toContainText("This part is done.");
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(3);
});

test("two adults teach the same session: each is told of the other, all marks are kept, both go on", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  await begin(page, school, id);
  const away = await browser.newContext();
  await comeInAs(away, school, "lead");
  const second = await away.newPage();
  await begin(second, school, id);
  await second.keyboard.press("1");
  const told = page.getByText(/marks this session on another device too/);
  await expect(told).toBeVisible();
  await expect(second.getByText(/marks this session on another device too/)).toHaveCount(0);
  await page.keyboard.press("1");
  await page.keyboard.press("3");
  await expect(second.getByText(/marks this session on another device too/)).toBeVisible();
  await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(3);
  for (const one of [page, second]) {
    await one.getByRole("button", { name: "End the session" }).click();
    await one.getByRole("button", { name: "Send what happened" }).click();
    await one.waitForURL(new RegExp(`/sessions/${id}$`));
  }
  await away.close();
  const { reports } = await school.get<{ reports: readonly object[] }>(`/api/sessions/${id}`);
  expect(reports).toHaveLength(2);
});

test("a page that is closed in the same moment loses no mark", async ({ page, school }) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  await begin(page, school, id);
  for (let marks = 1; marks <= 4; marks++) {
    await page.keyboard.press("1");
    await page.reload();
    await expect(now(page).getByRole("button", { name: "Next" })).toBeVisible();
    await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(marks);
  }
});

test("the next session that is planned says what changes by what was marked, and becomes so; and is brought back", async ({
  page,
  school,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  const day = new Date();
  day.setDate(day.getDate() + 7);
  const next = crypto.randomUUID();
  const heldOn = `${day.getFullYear()}-${String(day.getMonth() + 1).padStart(2, "0")}-${String(day.getDate()).padStart(2, "0")}`;
  await plan(school, group, { id: next, heldOn, seed: 9 });
  await begin(page, school, id);
  // Everything is missed: what was known before is in doubt now.
  for (let turn = 0; turn < 12; turn++) {
    await page.keyboard.press("3");
    await page.keyboard.press("ArrowRight");
  }
  await page.getByRole("button", { name: "End the session" }).click();
  await page.getByRole("button", { name: "Send what happened" }).click();
  await page.waitForURL(new RegExp(`/sessions/${id}$`));
  await page.goto(`${school.base}/sessions/${next}`);
  await expect(page.getByText("Taught since it was planned")).toBeVisible();
  await page.getByRole("button", { name: "What would change here" }).click();
  await expect(page.getByText(/words are others|come to the cards|comes to the cards/).first()).toBeVisible();
  await expectAccessible(page);
  const before = await school.get<{ plan: object }>(`/api/sessions/${next}`);
  await page.getByRole("button", { name: "Change it so" }).click();
  await expect(page.getByText("Changed by what was marked since.")).toBeVisible();
  await expect(page.getByText("Taught since it was planned")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect
    .poll(async () => (await school.get<{ plan: object }>(`/api/sessions/${next}`)).plan)
    .toEqual(before.plan);
});
