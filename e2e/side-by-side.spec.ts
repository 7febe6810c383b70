import type { Page } from "@playwright/test";
import { addDays, lightFormat } from "date-fns";
import { marksAlone, part, sit, sitting } from "./checking.ts";
import {
  childNamed,
  comeInAs,
  expect,
  expectAccessible,
  marksWithoutWait,
  patch,
  put,
  type School,
  test,
} from "./school.ts";

/** Two people change one thing on two devices: nothing of either is lost without a word. */

interface Group {
  readonly id: string;
  readonly name: string;
  readonly members: { readonly name: string }[];
  readonly targets: readonly string[];
  readonly history: { readonly name: string }[];
}

async function openGroup(school: School): Promise<Group> {
  const [first] = await school.get<Group[]>("/api/groups");
  if (!first) throw new Error("no group");
  return school.get<Group>(`/api/groups/${first.id}`);
}

/** A page that does not hear of what others change until it asks again. */
async function pageOn(page: Page, school: School, path: string): Promise<Page> {
  await page.goto(school.base + path);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  return page;
}

const choiceOn = (page: Page) => page.getByRole("dialog", { name: "Changed by someone else meanwhile" });

test("two people edit one group on two devices: both are shown, and what is chosen is kept", async ({
  page,
  school,
  browser,
}) => {
  const group = await openGroup(school);
  const [taken] = group.members;
  const path = `/groups/${group.id}`;
  const mine = await pageOn(page, school, path);
  const context = await browser.newContext();
  await comeInAs(context, school, "lead");
  const theirs = await pageOn(await context.newPage(), school, path);

  // They rename it and take a child out; my page still shows the group as it was.
  await theirs.getByRole("button", { name: "Rename" }).click();
  await theirs.getByRole("dialog").getByLabel("Name").fill("Reed cutters");
  await theirs.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(theirs.getByRole("heading", { level: 1, name: "Reed cutters" })).toBeVisible();
  await theirs.getByRole("button", { name: `Take ${taken?.name} out` }).click();
  await expect(theirs.getByText(`${taken?.name} is taken out of Reed cutters.`)).toBeVisible();

  await mine.getByLabel(`Add a target to ${group.name}`).selectOption("oa=oa");
  const choice = choiceOn(mine);
  await expect(choice).toContainText(`Yours${group.name}`);
  await expect(choice).toContainText("TheirsReed cutters");
  await expect(choice.getByRole("button", { name: "Leave theirs" })).toBeVisible();
  await expectAccessible(mine);
  // By keyboard: both, which is my name, the children of both and the targets of both.
  await choice.getByRole("button", { name: "Keep the children and targets of both" }).press("Enter");
  await expect(choice).toHaveCount(0);
  await expect(mine.getByRole("heading", { level: 1, name: group.name })).toBeVisible();
  let kept = await openGroup(school);
  expect(kept.members.map((one) => one.name).sort()).toEqual(group.members.map((one) => one.name).sort());
  expect(kept.targets).toEqual([...group.targets, "oa=oa"]);

  // Now their page is the older one: leaving mine changes nothing, and shows them the group as it is.
  await theirs.getByRole("button", { name: "Rename" }).click();
  await theirs.getByRole("dialog").getByLabel("Name").fill("Late herons");
  await theirs.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await choiceOn(theirs).getByRole("button", { name: "Leave theirs" }).click();
  await expect(theirs.getByRole("heading", { level: 1, name: group.name })).toBeVisible();
  expect((await openGroup(school)).name).toBe(group.name);

  // And mine instead is written onto what stands there.
  await mine.getByRole("button", { name: "Take oa out of the targets" }).click();
  await expect(mine.getByText("oa is no target any more.")).toBeVisible();
  await theirs.getByLabel(`Add a target to ${group.name}`).selectOption("ar=ar");
  await choiceOn(theirs).getByRole("button", { name: "Save mine instead" }).click();
  await expect(choiceOn(theirs)).toHaveCount(0);
  kept = await openGroup(school);
  expect(kept.targets).toEqual([...group.targets, "oa=oa", "ar=ar"]);
  // Every state of either is in the history.
  expect(kept.history.map((one) => one.name)).toContain("Reed cutters");
  await context.close();
});

test("taking a child out and undoing it meets no one else's change: it is my own", async ({ page, school }) => {
  const group = await openGroup(school);
  const [taken] = group.members;
  await pageOn(page, school, `/groups/${group.id}`);
  await page.getByRole("button", { name: `Take ${taken?.name} out` }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: `Take ${taken?.name} out` })).toBeVisible();
  await expect(choiceOn(page)).toHaveCount(0);
  expect((await openGroup(school)).members.map((one) => one.name)).toEqual(group.members.map((one) => one.name));
});

test("the settings of the school are asked about as well", async ({ page, school }) => {
  await pageOn(page, school, "/settings");
  const { version, checks } = await school.get<{ version: number; checks: object }>("/api/school");
  await fetch(`${school.base}/api/school/checks`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ version, checks: { ...checks, exceptionWay: "wholes" } }),
  });
  await page.getByLabel("letter name and sound", { exact: true }).check();
  const choice = choiceOn(page);
  await expect(choice).toContainText("Exception words");
  await expect(choice).toContainText("Theirsread and spelled as wholes");
  await choice.getByRole("button", { name: "Leave theirs" }).click();
  await expect(page.getByLabel("read and spelled as wholes")).toBeChecked();
  await expect(page.getByLabel("the sound", { exact: true })).toBeChecked();
});

test("a child that a colleague moved meanwhile", async ({ page, school }) => {
  const [child] = await school.get<{ id: string; name: string; version: number }[]>("/api/children");
  const path = `/api/children/${child?.id}`;
  await pageOn(page, school, `/child/${child?.id}`);
  await page.getByRole("button", { name: "Edit" }).click();
  await page.getByLabel("Note").fill("Sits at the front.");
  await patch(school, path, { version: child?.version, note: "Glasses are due." });
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  const choice = choiceOn(page);
  await expect(choice).toContainText("YoursSits at the front.");
  await expect(choice).toContainText("TheirsGlasses are due.");
  await choice.getByRole("button", { name: "Save mine instead" }).click();
  await expect(choice).toHaveCount(0);
  expect((await school.get<{ child: { note: string } }>(path)).child.note).toBe("Sits at the front.");
});

test("three people change one thing: whoever is being asked when the third saves is asked once more", async ({
  page,
  school,
  browser,
}) => {
  const children = await school.get<{ id: string; name: string }[]>("/api/children");
  const child = children.find((one) => one.name === "Betsy R.");
  const path = `/api/children/${child?.id}`;
  const noteKept = async () => (await school.get<{ child: { note: string } }>(path)).child.note;
  const [second, third] = [await browser.newContext(), await browser.newContext()];
  await comeInAs(second, school, "teacher");
  await comeInAs(third, school, "lead");
  const pages = [page, await second.newPage(), await third.newPage()] as const;
  const notes = ["Sits at the front.", "Glasses are due.", "Reads with Cleo on Mondays."] as const;
  // All three open the same sheet before anyone saves.
  for (const [at, one] of pages.entries()) {
    await pageOn(one, school, `/child/${child?.id}`);
    await one.getByRole("button", { name: "Edit" }).click();
    await one.getByLabel("Note").fill(notes[at] ?? "");
  }
  const [first, teacher, last] = pages;
  const save = (one: Page) => one.getByRole("dialog").getByRole("button", { name: "Save", exact: true }).click();
  await save(first);
  await expect.poll(noteKept).toBe(notes[0]);
  await save(teacher);
  await expect(choiceOn(teacher)).toContainText(`Theirs${notes[0]}`);
  // While the teacher still looks at both, the third is asked too, and saves.
  await save(last);
  await expect(choiceOn(last)).toContainText(`Theirs${notes[0]}`);
  await choiceOn(last).getByRole("button", { name: "Save mine instead" }).click();
  await expect(choiceOn(last)).toHaveCount(0);
  await expect.poll(noteKept).toBe(notes[2]);
  // What the teacher chose was chosen over what is no more: it is asked anew, and nothing is written meanwhile.
  await choiceOn(teacher).getByRole("button", { name: "Save mine instead" }).click();
  await expect(choiceOn(teacher)).toContainText(`Theirs${notes[2]}`);
  expect(await noteKept()).toBe(notes[2]);
  await choiceOn(teacher).getByRole("button", { name: "Leave theirs" }).click();
  await expect(choiceOn(teacher)).toHaveCount(0);
  for (const one of pages) {
    await one.reload();
    await expect(one.getByText(notes[2])).toBeVisible();
  }
  await second.close();
  await third.close();
});

test("a teaching order: mine becomes a copy beside theirs", async ({ page, school }) => {
  await pageOn(page, school, "/orders");
  await page.getByRole("button", { name: "Copy The alphabet first" }).click();
  await expect(page.getByLabel("Title of step 1", { exact: true })).toBeVisible();
  const id = new URL(page.url()).pathname.split("/").at(-1);
  interface Order {
    readonly id: string;
    readonly version: number;
    readonly content: { readonly name: string; readonly steps: readonly { readonly title: string }[] };
  }
  const { orders } = await school.get<{ orders: Order[] }>("/api/school");
  const order = orders.find((one) => one.id === id) as Order;
  await page.getByLabel("Title of step 1", { exact: true }).fill("Reeds first");
  const [first, ...rest] = order.content.steps;
  const content = { ...order.content, steps: [{ ...first, title: "Herons first" }, ...rest] };
  await put(school, `/api/orders/${id}`, { version: order.version, content });
  await page.getByRole("button", { name: "Save changes" }).click();
  await expect(choiceOn(page)).toContainText("Herons first");
  await choiceOn(page).getByRole("button", { name: "Keep mine as a copy" }).click();
  await expect(page.getByRole("heading", { level: 1, name: `${order.content.name}, our copy` })).toBeVisible();
  await expect(page.getByLabel("Title of step 1", { exact: true })).toHaveValue("Reeds first");
  await pageOn(page, school, `/orders/${id}`);
  await expect(page.getByLabel("Title of step 1", { exact: true })).toHaveValue("Herons first");
});

test("a session whose plan a colleague changed meanwhile", async ({ page, school }) => {
  const [listed] = await school.get<{ id: string; reports: number }[]>("/api/sessions");
  interface Session {
    readonly version: number;
    readonly plan: { readonly parts: readonly { readonly title: string; readonly minutes: number }[] };
  }
  const path = `/api/sessions/${listed?.id}`;
  const session = await school.get<Session>(path);
  await pageOn(page, school, `/sessions/${listed?.id}`);
  await page.getByRole("button", { name: "Edit Read words" }).click();
  await page.getByLabel("Minutes").fill("6");
  const plan = { ...session.plan, parts: session.plan.parts.map((part) => ({ ...part, minutes: 2 })) };
  await patch(school, path, { version: session.version, plan });
  await page.getByRole("button", { name: "Save" }).click();
  await expect(choiceOn(page)).toContainText("Theirs");
  await choiceOn(page).getByRole("button", { name: "Leave theirs" }).click();
  await expect(choiceOn(page)).toHaveCount(0);
  expect((await school.get<Session>(path)).plan.parts.every((part) => part.minutes === 2)).toBe(true);
});

test("two adults mark in one check: each is told of the other and of whom, and both go on", async ({
  page,
  school,
  browser,
}) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Alba T.", "Gil H."], [part("card", { most: 10 })], "Side by side");
  await page.goto(`${school.base}/check/${id}`);
  await expect(page.getByRole("heading", { name: /^Alba T\./ })).toBeVisible();
  const away = await browser.newContext();
  await comeInAs(away, school, "lead");
  await marksWithoutWait(away);
  const second = await away.newPage();
  await second.goto(`${school.base}/check/${id}`);
  await expect(second.getByRole("heading", { name: /^Alba T\./ })).toBeVisible();
  const told = (one: Page) => one.getByRole("status").filter({ hasText: /is marking .* on another device/ });
  await expect(told(page)).toHaveCount(0);

  await second.keyboard.press("1");
  await expect(told(page)).toHaveText(
    /is marking Alba T\. on another device too\. All marks are kept; say who goes on\.$/,
  );
  await expectAccessible(page);
  // Whoever marks is not told of their own marks.
  await expect(told(second)).toHaveCount(0);

  await second.getByRole("navigation", { name: "Children" }).getByRole("button", { name: "Gil H." }).click();
  await expect(second.getByRole("heading", { name: /^Gil H\./ })).toBeVisible();
  await second.keyboard.press("1");
  await expect(told(page)).toHaveText(/is marking Gil H\. on another device\.$/);
  await page.keyboard.press("1");
  await expect(told(second)).toHaveText(/is marking Alba T\. on another device\.$/);
  await expect
    .poll(async () => (await sitting(school, id)).checks.reduce((sum, one) => sum + one.answers.length, 0))
    .toBe(3);
  await away.close();
});

test("an open check is given to a colleague, whose Today says so first; others see whose it is", async ({
  page,
  school,
  browser,
}) => {
  for (const name of ["First look", "Second look"])
    await sit(school, ["Amos D."], [part("card", { scope: "picked", picked: ["b=b", "d=d"] })], name);
  await page.goto(school.base);
  const row = (of: Page, name: string) => of.getByRole("listitem").filter({ hasText: `${name} with Amos D.` });
  const given = page.getByLabel("First look is given to");
  await given.focus();
  await expect(given.getByRole("option", { name: "Mr Tolley" })).toBeAttached();
  // Whoever has not the child is not among them.
  await expect(given.getByRole("option", { name: "Ms Harrow" })).toHaveCount(0);
  await given.selectOption({ label: "Mr Tolley" });
  await expect(page.getByText("First look is given to Mr Tolley.")).toBeVisible();
  await expect(row(page, "First look")).toContainText("given to Mr Tolley");
  await expectAccessible(page);

  const away = await browser.newContext();
  await comeInAs(away, school, "teacher");
  const theirs = await away.newPage();
  await theirs.goto(school.base);
  await expect(row(theirs, "First look")).toContainText("given to you");
  const waits = theirs.getByRole("listitem").filter({ hasText: / with Amos D\./ });
  await expect(waits.first()).toContainText("First look");
  await away.close();
  await given.selectOption({ label: "for anyone" });
  await expect(row(page, "First look")).not.toContainText("given to");
});

test("a session is given to an assistant who has not its group: it stands on their Today until it is taken back", async ({
  page,
  school,
  browser,
}) => {
  const away = await browser.newContext();
  await comeInAs(away, school, "assistant");
  const theirs = await away.newPage();
  await theirs.goto(school.base);
  const { today } = await school.get<{ today: string }>("/api/school");
  const { id: childId } = await childNamed(school, "Alba T.");
  const group = { id: crypto.randomUUID(), name: "Sluice menders" };
  const version = { versionId: crypto.randomUUID(), version: 0, name: group.name, at: new Date().toISOString() };
  await put(school, `/api/groups/${group.id}`, {
    ...version,
    members: [{ childId, locked: false }],
    targets: ["sh=sh"],
  });
  await expect(theirs.getByRole("heading", { name: "Groups and their next step" })).toBeVisible();
  await expect(theirs.getByRole("link", { name: group.name })).toHaveCount(0);

  await page.goto(`${school.base}/groups/${group.id}?plan=1`);
  await page
    .getByRole("dialog")
    .getByLabel("On")
    .fill(lightFormat(addDays(new Date(today), 1), "yyyy-MM-dd"));
  await page.getByRole("dialog").getByRole("button", { name: "Fill it" }).click();
  await expect(page).toHaveURL(/\/sessions\//);
  const given = page.getByLabel(`${group.name} is given to`);
  await given.focus();
  await given.selectOption({ label: "Jo P." });
  await expect(page.getByText(`${group.name} is given to Jo P.`)).toBeVisible();
  await expect(page.getByText(/^Jo P\. sees this card/)).toBeVisible();
  await expectAccessible(page);

  await theirs.reload();
  const row = theirs.getByRole("listitem").filter({ hasText: /tomorrow, given to you/ });
  await expect(row).toContainText(group.name);
  await row.getByRole("link", { name: "Open card" }).click();
  await expect(theirs.getByText("It is given to you.")).toBeVisible();
  await expectAccessible(theirs);
  await theirs.getByRole("link", { name: "Teach" }).click();
  await expect(theirs).toHaveURL(/\/teach$/);

  await page.getByRole("navigation").getByRole("link", { name: "Sessions" }).click();
  await expect(page.getByRole("row").filter({ hasText: group.name })).toContainText("Jo P.");
  await page.goBack();
  await given.focus();
  await given.selectOption({ label: "whoever takes the group" });
  await expect(page.getByText(`${group.name} is for whoever comes to it.`)).toBeVisible();
  await theirs.goto(school.base);
  await expect(theirs.getByRole("heading", { name: "Groups and their next step" })).toBeVisible();
  await expect(theirs.getByText("given to you")).toHaveCount(0);
  await away.close();
});
