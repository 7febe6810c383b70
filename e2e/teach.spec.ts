import type { Page } from "@playwright/test";
import { comeInAs, expect, expectAccessible, test } from "./school.ts";
import { answersOf, begin, groupNamed, lookOf, marksHere, now, part, plan } from "./teaching.ts";

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

const routines = ["usual", "short", "review", "hearing", "changing", "sorting", "reading", "mixed"];
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
  for (const routine of routines) {
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

test.describe("on a tablet, by touch", () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  test("one tap a child, what was said, undo, a child who leaves, a smaller step; the children's screen follows", async ({
    page,
    school,
    context,
  }) => {
    const group = await groupNamed(school, "Brick hods");
    const id = await plan(school, group);
    const face = await context.newPage();
    await face.goto(`${school.base}/face`);
    await begin(page, school, id);
    await expectAccessible(page);
    await expect(face.getByTestId("card")).toHaveText((await now(page).getByTestId("card").textContent()) ?? "?");
    await part(page, /^Read words/);
    const children = page.getByRole("list", { name: "Children" }).last();
    const turn = () => children.locator('[aria-current="true"]');
    const whose = async () =>
      ((await turn().getByRole("checkbox").getAttribute("aria-label")) ?? "").replace(" is here", "");
    const first = await whose();
    const word = (await now(page).getByTestId("card").locator(".sr-only").textContent()) ?? "";
    await expect(face.getByTestId("card").locator(".sr-only")).toHaveText(word);
    // Marks under the sounds are help; without them the children see the word alone.
    const stands = now(page).getByLabel("How the word stands");
    await stands.selectOption("sound by sound");
    const hidden = face.getByTestId("card").locator(".invisible");
    await expect(hidden.first()).toBeAttached();
    const sound = now(page).getByRole("button", { name: "Next sound" });
    while (await sound.isEnabled()) await sound.tap();
    await expect(hidden).toHaveCount(0);
    await stands.selectOption("sounds apart");
    const wide = await face.getByTestId("card").evaluate((one) => one.scrollWidth);
    await now(page).getByLabel("slide together").fill("100");
    await expect.poll(() => face.getByTestId("card").evaluate((one) => one.scrollWidth)).toBeLessThan(wide);
    await stands.selectOption("no marks");
    await expect(face.getByTestId("card")).toHaveText(word);
    await turn()
      .getByRole("button", { name: `${first}: not yet` })
      .tap();
    await expect.poll(whose).not.toBe(first);
    await page.getByLabel(`${first} said for ${word}`).fill("zap");
    await page.getByRole("button", { name: "Keep" }).tap();
    await expect
      .poll(async () =>
        (await answersOf(school, group, id)).map(({ outcome, heard, help }) => [outcome, heard, help]),
      )
      .toEqual([["wrong", "zap", "none"]]);
    // A second who stumbles: a smaller step is offered, and taken.
    const second = await whose();
    await turn()
      .getByRole("button", { name: `${second}: with help` })
      .tap();
    await page.getByRole("button", { name: "Take the smaller step" }).tap();
    await expect(now(page).getByTestId("card").locator(".sr-only")).toHaveCount(1);
    await expect(page.getByText("Two of them stumble")).toHaveCount(0);
    // Undone, the mark is out of the answers too.
    const third = await whose();
    await turn()
      .getByRole("button", { name: `${third}: got it` })
      .tap();
    await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(3);
    await page.getByRole("button", { name: /^Undo/ }).tap();
    await expect.poll(async () => (await answersOf(school, group, id)).length).toBe(2);
    await expect.poll(whose).toBe(third);
    // Who leaves is asked nothing more, and came all the same.
    await page.getByRole("checkbox", { name: `${first} is here` }).uncheck();
    for (let at = 0; at < 4; at++) {
      expect(await whose()).not.toBe(first);
      await now(page).getByRole("button", { name: "Next" }).tap();
    }
    // What is written is heard first, and shown to put it right.
    await part(page, /^Write words/);
    await expect(face.getByTestId("card")).toHaveCount(0);
    await now(page).getByRole("button", { name: "Show it" }).tap();
    await expect(face.getByTestId("card")).toBeVisible();
    await now(page).getByRole("button", { name: "Everyone else got it" }).tap();
    await expect(face.getByTestId("card")).toHaveCount(0);
    // A pause shows the children nothing; a reload goes on from where it was.
    await part(page, /^Teach/);
    await expect(face.getByTestId("card")).toBeVisible();
    await page.getByRole("button", { name: /^Pause/ }).tap();
    await expect(face.getByTestId("card")).toHaveCount(0);
    await page.reload();
    await page.getByRole("region", { name: "Now" }).getByRole("button", { name: "Go on" }).tap();
    await expect(now(page).getByRole("heading", { name: "Teach" })).toBeVisible();
    await page.getByRole("button", { name: "End the session" }).tap();
    await expect(page.getByText("3 children came")).toBeVisible();
    // Ended too soon, it goes on.
    await page.getByRole("button", { name: "Go on with the session" }).tap();
    await expect(now(page)).toBeVisible();
    await page.getByRole("button", { name: "End the session" }).tap();
    const note = page.getByLabel("For whoever plans the next");
    await expect(note).toHaveValue(new RegExp(`${first.replace(".", "\\.")} stumbled over ${word} \\(said “zap”\\)`));
    await note.fill(`${await note.inputValue()} The bell rang early.`);
    await page.getByRole("button", { name: "Send what happened" }).tap();
    await page.waitForURL(new RegExp(`/sessions/${id}$`));
    await expect(page.getByText("The bell rang early.")).toBeVisible();
    // What it changed, for the teacher.
    await page.locator("summary").filter({ hasText: first }).tap();
    await expect(page.getByText(/This session spoke of \d+ skills?/)).toBeVisible();
  });
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

test("an assistant teaches the group that is theirs, no one came, and a part is empty: it goes on all the same", async ({
  page,
  school,
  context,
}) => {
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

test("whoever has the link teaches from a phone, reloads, and all marks come with what they say", async ({
  page,
  school,
  browser,
}) => {
  const group = await groupNamed(school, "Brick hods");
  const id = await plan(school, group);
  const { today } = await school.get<{ today: string }>("/api/school");
  const share = await fetch(`${school.base}/api/sessions/${id}/share`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: school.base },
    body: JSON.stringify({ endsOn: today }),
  });
  const { token } = (await share.json()) as { token: string };
  const away = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const phone = await away.newPage();
  await phone.goto(`${school.base}/shared/${token}`);
  await phone.getByRole("link", { name: "Teach it from here" }).tap();
  await phone.getByRole("button", { name: "Begin" }).tap();
  await expectAccessible(phone);
  const children = phone.getByRole("list", { name: "Children" });
  const mark = (name: RegExp) => children.locator('[aria-current="true"]').getByRole("button", { name }).tap();
  await mark(/got it$/);
  await mark(/not yet$/);
  await part(phone, /^Read words/);
  await mark(/with help$/);
  await phone.reload();
  await expect(now(phone).getByRole("heading", { name: "Read words" })).toBeVisible();
  await mark(/got it$/);
  // Whoever is not signed in has the children's side here or in a second window, by no code.
  await phone.getByRole("button", { name: "What the children see" }).tap();
  await expect(phone.getByRole("button", { name: "Get a code for another device" })).toBeHidden();
  await phone.keyboard.press("Escape");
  await phone.getByRole("button", { name: "End the session" }).tap();
  await phone.getByLabel("Your name").fill("Wyn D.");
  await expectAccessible(phone);
  await phone.getByRole("button", { name: "Send what happened" }).tap();
  await expect(phone.getByText("Thank you. The teacher sees it now, with everything that was marked.")).toBeVisible();
  await away.close();
  const answers = await answersOf(school, group, id);
  expect(answers.map(({ outcome }) => outcome).sort()).toEqual(["right", "right", "right", "wrong"]);
  expect(answers.map(({ help }) => help).sort()).toContain("hint");
  await page.goto(`${school.base}/sessions/${id}`);
  await expect(page.getByText("Wyn D.").first()).toBeVisible();
  // The lead sees that it was opened, and ends it among all links.
  await page.goto(`${school.base}/settings/people`);
  const links = page.getByRole("listitem").filter({ hasText: "opened today" });
  await expect(links).toContainText("Brick hods");
  await expectAccessible(page);
  await links.getByRole("button", { name: /^Switch off the link to Brick hods/ }).click();
  await expect(links).toHaveCount(0);
  expect((await fetch(`${school.base}/api/shared/${token}`)).status).toBe(404);
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
