import type { Locator, Page } from "@playwright/test";
import { addDays, formatISO, parseISO, startOfISOWeek } from "date-fns";
import { comeInAs, expect, expectAccessible, post, printed, put, type School, test } from "./school.ts";

interface Meeting {
  readonly id: string;
  readonly groupId: string;
  readonly groupName: string;
  readonly adultName: string;
  readonly on: string;
  readonly from: number;
  readonly cancelled: boolean;
  readonly sequence: number;
}

const written = (day: Date) => formatISO(day, { representation: "date" });
const later = (day: string, days: number) => written(addDays(parseISO(day), days));
/** The first week after this one: the timetable has all of its sessions. */
async function nextMonday(school: School): Promise<string> {
  const { today } = await school.get<{ today: string }>("/api/school");
  return written(startOfISOWeek(addDays(parseISO(today), 7)));
}
const meetings = async (school: School, from: string, to: string) =>
  (await school.get<{ meetings: Meeting[] }>(`/api/meetings?from=${from}&to=${to}`)).meetings;

/** What stands on a slot of a painted week. */
const slot = (page: Page, at: string) => page.getByRole("button", { name: new RegExp(`^${at} to `) });
/** Until everything that was drawn is kept. */
const kept = async (page: Page, work: () => Promise<unknown>) => {
  const saved = page.waitForResponse((one) => one.url().includes("/week") && one.request().method() === "PUT");
  await work();
  expect((await saved).ok()).toBe(true);
};
async function stroke(page: Page, from: Locator, to: Locator): Promise<void> {
  const [first, last] = [await from.boundingBox(), await to.boundingBox()];
  if (!first || !last) throw new Error("Not on the screen");
  await page.mouse.move(first.x + 10, first.y + 10);
  await page.mouse.down();
  await page.mouse.move(last.x + 10, last.y + 10, { steps: 8 });
  await page.mouse.up();
}

test("hours are drawn by a stroke, by a column, by keys, and from files, and are there after a reload", {
  tag: "@main",
}, async ({ page, school }) => {
  await page.goto(`${school.base}/week/hours?of=adults`);
  await page.getByRole("button", { name: /^Ms Harrow/ }).click();
  await expect(slot(page, "Wednesday 9:00")).toHaveAccessibleName(/: free$/);
  await expectAccessible(page);
  await kept(page, () => stroke(page, slot(page, "Wednesday 9:00"), slot(page, "Wednesday 9:30")));
  await expect(slot(page, "Wednesday 9:00")).toHaveAccessibleName(/: not free$/);
  await expect(slot(page, "Wednesday 9:30")).toHaveAccessibleName(/: not free$/);
  await page.getByRole("button", { name: "free", exact: true }).click();
  await kept(page, () => page.getByRole("button", { name: "All of Tuesday" }).click());
  await expect(slot(page, "Tuesday 13:45")).toHaveAccessibleName(/: free$/);
  // By keys: Space draws and clears, Shift with an arrow draws on.
  await slot(page, "Monday 9:00").focus();
  await kept(page, () => page.keyboard.press("Space"));
  await kept(page, () => page.keyboard.press("Shift+ArrowDown"));
  await expect(slot(page, "Monday 9:30")).toBeFocused();
  await expect(slot(page, "Monday 9:30")).toHaveAccessibleName(/: free$/);
  await kept(page, () => page.keyboard.press("Space"));
  await expect(slot(page, "Monday 9:30")).toHaveAccessibleName(/: not free$/);
  await kept(page, () => page.keyboard.press("z"));
  await expect(slot(page, "Monday 9:30")).toHaveAccessibleName(/: free$/);
  await kept(page, () => page.getByLabel("to", { exact: true }).selectOption("all"));
  await expect(slot(page, "Friday 9:30")).toHaveAccessibleName(/: free$/);
  await page.reload();
  await page.getByRole("button", { name: /^Ms Harrow/ }).click();
  await expect(slot(page, "Thursday 9:00")).toHaveAccessibleName(/: free$/);
  await expect(slot(page, "Thursday 10:00")).toHaveAccessibleName(/: not free$/);

  // What they have already, from a table with a line that cannot be read, and from a calendar.
  const file = page.getByLabel("A calendar of what they have already, as a file");
  const table = "day,from,to,what\nThursday,9:00,9:25,Duty\nFunday,9:00,9:25,Duty\n";
  await kept(page, () => file.setInputFiles({ name: "busy.csv", mimeType: "text/csv", buffer: Buffer.from(table) }));
  await expect(page.getByText("1 time read.")).toBeVisible();
  await expect(page.getByText("Line 3: “Funday” is no day.")).toBeVisible();
  await expect(slot(page, "Thursday 9:00")).toHaveAccessibleName(/: not free$/);
  const day = (await nextMonday(school)).replaceAll("-", "");
  const calendar = `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nthis line is broken\r\nSUMMARY:Duty\r\nDTSTART:20260105T093000\r\nDTEND:20260105T095500\r\nRRULE:FREQ=WEEKLY\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:b\r\nSUMMARY:Visit\r\nDTSTART:${day}T100000\r\nDTEND:${day}T110000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`;
  await kept(page, () =>
    file.setInputFiles({ name: "busy.ics", mimeType: "text/calendar", buffer: Buffer.from(calendar) }),
  );
  await expect(page.getByText("Visit, Monday 10:00: in 1 of 4 weeks.")).toBeVisible();
  await expect(slot(page, "Monday 9:30")).toHaveAccessibleName(/: not free$/);
});

test("a class's lessons hold for its children, until one differs", async ({ page, school }) => {
  await page.goto(`${school.base}/week/hours?of=classes`);
  await page.getByRole("button", { name: "Towpath" }).click();
  await page.getByLabel("Another lesson").fill("Boat club");
  await page.getByRole("button", { name: "Draw with it" }).click();
  await kept(page, () => slot(page, "Monday 10:50").click());
  await expect(slot(page, "Monday 10:50")).toHaveAccessibleName(/: Boat club$/);
  await page.getByLabel("How often a child may miss Boat club").selectOption({ label: "once a week" });
  await expectAccessible(page);
  await page.getByRole("tab", { name: "Children" }).click();
  await page.getByLabel("Search the children").fill("amos");
  await expect(slot(page, "Monday 10:50")).toHaveAccessibleName(/: Boat club$/);
  const saved = () => page.waitForResponse((one) => one.url().includes("/hours") && one.request().method() === "PUT");
  let put = saved();
  await slot(page, "Monday 10:50").click();
  expect((await put).ok()).toBe(true);
  await expect(slot(page, "Monday 10:50")).toHaveAccessibleName(/: not here$/);
  await expectAccessible(page);
  put = saved();
  await page.getByRole("button", { name: "As its class again" }).click();
  expect((await put).ok()).toBe(true);
  await expect(slot(page, "Monday 10:50")).toHaveAccessibleName(/: Boat club$/);
});

test("a timetable is made, changed by hand and by keys, told why not, and put into use", async ({ page, school }) => {
  await page.goto(`${school.base}/week/timetable`);
  await page.getByRole("button", { name: "Make it anew" }).click();
  const told = page.getByRole("status").filter({ hasText: "have a place" });
  await expect(told).toContainText(/No timetable keeps more|points more at most/, { timeout: 15_000 });
  await expect(told).toContainText("8 of 8 sessions");
  await expectAccessible(page);

  // Taken up by a press: places light up, the others say why not.
  const board = page.getByRole("region", { name: "Timetable" });
  const session = board.getByRole("button", { name: "Kingfishers", exact: true }).first();
  await session.press("Enter");
  await expect(session).toHaveAttribute("aria-pressed", "true");
  await expect(board.getByText("Kingfishers has a session that day already.").first()).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await expect(session).toHaveAttribute("aria-pressed", "false");
  await expect(session).toBeFocused();
  const cellOf = (name: string) => board.locator("td", { has: page.getByRole("button", { name, exact: true }) });
  const before = await cellOf("Kingfishers").first().innerText();
  await session.press("Enter");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
  await page.keyboard.press("z");
  await expect.poll(() => cellOf("Kingfishers").first().innerText()).toBe(before);

  // Dragged with the mouse to a place that is free.
  const from = await session.boundingBox();
  if (!from) throw new Error("Not on the screen");
  const placesOf = (name: string) =>
    board
      .getByRole("button", { name, exact: true })
      .evaluateAll((all) =>
        all.map((one) => `${one.closest("tr")?.rowIndex}, ${(one.closest("td") as HTMLTableCellElement).cellIndex}`),
      );
  const stood = await placesOf("Kingfishers");
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y + 20, { steps: 4 });
  const lit = await board.getByRole("button", { name: /^Here/ }).first().boundingBox();
  if (!lit) throw new Error("No place lights up");
  await page.mouse.move(lit.x + 12, lit.y + 8, { steps: 10 });
  await expect(board.locator("[data-over=true]")).toHaveCount(1);
  await page.mouse.up();
  await expect(board.getByRole("button", { name: /^Here/ })).toHaveCount(0);
  const stands = await placesOf("Kingfishers");
  expect(stands).toHaveLength(2);
  expect(stands.filter((one) => stood.includes(one))).toHaveLength(1);

  // What is kept where it is stays when the rest is made anew.
  const keep = { name: "Keep it here when the timetable is made anew" };
  const moved = stands.find((one) => !stood.includes(one)) ?? "";
  const [row = 0, column = 0] = moved.split(", ").map(Number);
  // The first cell of a line is its time.
  const cell = board.locator("tr").nth(row).locator("td, th").nth(column);
  const chip = cell.locator("div", { has: page.getByRole("button", { name: "Kingfishers", exact: true }) }).last();
  await chip.getByRole("button", keep).click();
  await page.keyboard.press("m");
  await expect(told).toContainText(/No timetable keeps more|points more at most/, { timeout: 15_000 });
  await expect(cell).toContainText("Kingfishers");
  await expect(board.getByRole("button", keep)).toHaveCount(7);
  await page.getByRole("button", { name: "Use this timetable" }).click();
  await expect(page.getByText(/^In use from /)).toBeVisible();
  await page.reload();
  await expect(told).toContainText("8 of 8 sessions");
  await expect(board.getByRole("button", keep)).toHaveCount(7);
});

test("when what makes a timetable does not load that is told, what stands stays, and a press tries again", async ({
  page,
  school,
}) => {
  await page.route(/week\.worker/, (route) => route.abort());
  await page.goto(`${school.base}/week/timetable`);
  const board = page.getByRole("region", { name: "Timetable" });
  const sessions = board.getByRole("button", { name: "Kingfishers", exact: true });
  await expect(sessions.first()).toBeVisible();
  const before = await sessions.count();
  const anew = page.getByRole("button", { name: "Make it anew" });
  await anew.click();
  await expect(page.getByText("What works this out could not be loaded. Nothing was changed")).toBeVisible();
  await expect(sessions).toHaveCount(before);
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  await page.unroute(/week\.worker/);
  await anew.click();
  await expect(page.getByRole("status").filter({ hasText: "have a place" })).toBeVisible();
});

test("when it cannot be done, the rules that stand against each other are told, and what giving up each would allow", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/week/hours?of=groups`);
  const kept = page.waitForResponse((one) => one.url().includes("/api/school/week") && one.ok());
  await page.getByLabel("Sessions a week of Lock keepers").fill("6");
  await kept;
  await page.goto(`${school.base}/week/timetable`);
  await page.getByRole("button", { name: "Make it anew" }).click();
  const why = page.getByRole("heading", { name: "What stands against each other" }).locator("../..");
  await expect(why).toBeVisible({ timeout: 30_000 });
  await expect(why).toContainText("Lock keepers has 6 sessions a week, on days of its own.");
  await expect(why).toContainText("No fewer rules are in each other's way.");
  await expect(why).toContainText("with one fewer");
  await expect(page.getByText("No place yet:")).toBeVisible();
  await expectAccessible(page);
});

test("someone is away: one key, and the change that touches fewest children is proposed, kept, and taken back by hand", async ({
  page,
  school,
}) => {
  const monday = later(await nextMonday(school), 7);
  const before = await meetings(school, monday, later(monday, 4));
  const who = before[0]?.adultName ?? "";
  await page.goto(`${school.base}/week?week=${monday}`);
  await expect(page.getByRole("table", { name: "The week, by days" })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("a");
  const sheet = page.getByRole("dialog", { name: "Away, closed, a trip" });
  await sheet.getByLabel("Who or what is not there").selectOption({ label: who });
  await sheet.getByLabel("From").fill(monday);
  await sheet.getByLabel("To", { exact: true }).fill(later(monday, -1));
  await expect(sheet.getByText("This lies before the first day.")).toBeVisible();
  await sheet.getByLabel("To", { exact: true }).fill(later(monday, 4));
  await sheet.getByRole("button", { name: "Propose what changes" }).click();
  await expect(sheet.getByRole("status")).toContainText("change", { timeout: 15_000 });
  await expectAccessible(page);
  await sheet.getByRole("button", { name: "Change these" }).click();
  await expect(sheet).toHaveCount(0);
  const after = await meetings(school, monday, later(monday, 4));
  expect(after.filter((one) => one.adultName === who && !one.cancelled)).toEqual([]);
  expect(after.length).toBe(before.length);

  // One that does not meet, taken back.
  const meets = after.find((one) => !one.cancelled);
  await page.reload();
  const cancel = page.getByRole("button", { name: `${meets?.groupName} does not meet on this day` }).first();
  await cancel.click();
  await expect(page.getByText(`${meets?.groupName} does not meet.`)).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect
    .poll(async () => (await meetings(school, monday, later(monday, 4))).filter(({ cancelled }) => !cancelled).length)
    .toBe(after.filter(({ cancelled }) => !cancelled).length);
});

test("a week of one adult is printed on a page, kept as a file, and read under an address that can be ended", async ({
  page,
  school,
}) => {
  const monday = later(await nextMonday(school), 14);
  await page.goto(`${school.base}/week?week=${monday}`);
  await page.getByLabel("Whose week").selectOption({ label: "Jo P." });
  await expect(page.getByRole("heading", { name: "Week of Jo P." })).toBeVisible();
  await expect(page.getByRole("table", { name: "The week, by days" })).not.toContainText("Wyn D.");
  expect((await printed(page)).pages).toBe(1);
  await page.getByRole("button", { name: "Calendar …" }).click();
  const sheet = page.getByRole("dialog", { name: "Calendar of Jo P." });
  await expectAccessible(page);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    sheet.getByRole("link", { name: "Keep it as a calendar file" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("week.ics");
  await sheet.getByRole("button", { name: "Make a private address" }).click();
  const address = await sheet.getByLabel("Private address").inputValue();
  const read = async () => {
    const told = await fetch(address);
    return { status: told.status, text: await told.text() };
  };
  const open = await read();
  expect(open.text).toContain("BEGIN:VCALENDAR");
  expect(open.text).not.toMatch(/Fitz|Dario/);
  await sheet.getByRole("button", { name: "End it" }).click();
  await expect.poll(async () => (await read()).status).toBe(404);
});

test("Today shows whoever takes sessions theirs, in order, without who is absent", async ({
  page,
  context,
  school,
}) => {
  const { today } = await school.get<{ today: string }>("/api/school");
  const [some] = (await meetings(school, today, later(today, 28))).filter(
    (one) => one.groupName === "Lock keepers" && !one.cancelled,
  );
  const { grouping } = await school.get<{ grouping: { adults: { id: string; name: string }[] } }>("/api/grouping");
  const jo = grouping.adults.find(({ name }) => name === "Jo P.");
  if (!some || !jo) throw new Error("Lock keepers have no session");
  const { groupName: _, adultName: __, ...meeting } = some as Meeting & Record<string, unknown>;
  const { members: ___, roomName: ____, byHand: _____, ...bare } = meeting as Record<string, unknown>;
  await post(school, "/api/meetings/changes", { changes: [{ ...bare, adultId: jo.id, on: today, from: 1, to: 21 }] });
  const groups = await school.get<{ id: string; members: { childId: string; name: string }[] }[]>("/api/groups");
  const child = groups.find(({ id }) => id === some.groupId)?.members[0];
  await put(school, `/api/children/${child?.childId}/absent`, { absent: true });
  await comeInAs(context, school, "assistant");
  await page.goto(`${school.base}/`);
  const panel = page.getByRole("heading", { name: "Your sessions today" }).locator("../..");
  await expect(panel).toContainText(some.groupName);
  await expect(panel).toContainText(`absent: ${child?.name}`);
  await expectAccessible(page);
  // The week of an assistant shows and changes nothing.
  await page.goto(`${school.base}/week`);
  await expect(page.getByRole("table", { name: "The week" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Away, closed, a trip …" })).toHaveCount(0);
  await expectAccessible(page);
});

test("a school that has said nothing is led from the day to the timetable; what cannot be is a sentence", async ({
  page,
  emptySchool: school,
}) => {
  await page.goto(`${school.base}/week/timetable`);
  await page.getByRole("link", { name: "Set up the day" }).click();
  await page.getByLabel("To", { exact: true }).fill("8:00");
  await expect(page.getByText("Ends before it begins.")).toBeVisible();
  await page.getByLabel("To", { exact: true }).fill("11:00");
  await page.getByRole("button", { name: "Make 4 times a day" }).click();
  await expect(page.getByRole("table", { name: "Times for sessions" })).toBeVisible();
  const add = page.getByRole("button", { name: "Add", exact: true });
  await page.getByLabel("Begins").fill("9:10");
  await page.getByLabel("Ends").fill("9:20");
  await add.click();
  await expect(page.getByRole("alert")).toContainText("Monday 9:00 and Monday 9:10 overlap from 9:10 to 9:20");
  await page.getByLabel("Begins").fill("12:00");
  await page.getByLabel("Ends").fill("12:00");
  await add.click();
  await expect(page.getByRole("alert")).toContainText("Monday 12:00 has no length");
  await page.getByRole("tab", { name: "Terms and days off" }).click();
  const terms = page.getByRole("heading", { name: "Terms", exact: true }).locator("../..");
  await terms.getByLabel("Name of the term").fill("Spring");
  await terms.getByLabel("First day").fill("2027-03-26");
  await terms.getByLabel("Last day").fill("2027-01-05");
  await terms.getByRole("button", { name: "Add" }).click();
  await expect(terms.getByRole("alert")).toHaveText("Spring ends before it begins. Swap the two days.");
  await terms.getByLabel("Last day").fill("2027-03-27");
  await terms.getByRole("button", { name: "Add" }).click();
  await expect(terms.getByRole("button", { name: "Remove Spring" })).toBeVisible();
  await page.getByRole("tab", { name: "Rooms" }).click();
  await page.getByLabel("Add a room").fill("Toll house");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Toll house" })).toBeVisible();
  await expectAccessible(page);
  await page.goto(`${school.base}/week/timetable`);
  await expect(page.getByText("No adult takes groups yet", { exact: false })).toBeVisible();
  await page.goto(`${school.base}/week`);
  await expect(page.getByText("There is no school in this week: no term.")).toBeVisible();
});
