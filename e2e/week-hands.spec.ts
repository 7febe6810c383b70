import { addDays, formatISO, parseISO, startOfISOWeek } from "date-fns";
import { comeInAs, expect, expectAccessible, post, put, test } from "./school.ts";

const written = (day: Date) => formatISO(day, { representation: "date" });

test.describe("on a tablet", () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  test("hours are drawn with a finger, without the page moving under it", async ({ page, context, school }) => {
    await page.goto(`${school.base}/week/hours?of=adults`);
    await page.getByRole("button", { name: /^Ms Harrow/ }).click();
    const slot = (at: string) => page.getByRole("button", { name: new RegExp(`^${at} to `) });
    await slot("Wednesday 10:00").scrollIntoViewIfNeeded();
    await expect(slot("Wednesday 9:00")).toHaveAccessibleName(/: free$/);
    const before = await page.evaluate(() => scrollY);
    const [first, last] = [await slot("Wednesday 9:00").boundingBox(), await slot("Wednesday 9:30").boundingBox()];
    if (!first || !last) throw new Error("Not on the screen");
    const finger = await context.newCDPSession(page);
    const touch = (type: "touchStart" | "touchMove" | "touchEnd", y?: number) =>
      finger.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: y === undefined ? [] : [{ x: first.x + 20, y }],
      });
    const saved = page.waitForResponse((one) => one.url().includes("/week") && one.request().method() === "PUT");
    await touch("touchStart", first.y + 12);
    for (let step = 1; step <= 6; step++) await touch("touchMove", first.y + 12 + ((last.y - first.y) * step) / 6);
    await touch("touchEnd");
    expect((await saved).ok()).toBe(true);
    await expect(slot("Wednesday 9:00")).toHaveAccessibleName(/: not free$/);
    await expect(slot("Wednesday 9:30")).toHaveAccessibleName(/: not free$/);
    expect(await page.evaluate(() => scrollY)).toBe(before);
    // A press of a finger alone draws one.
    await slot("Tuesday 13:45").tap();
    await page.reload();
    await page.getByRole("button", { name: /^Ms Harrow/ }).click();
    await expect(slot("Wednesday 9:30")).toHaveAccessibleName(/: not free$/);
  });
});

test("days off are read from a table and from a calendar; what is there already, or cannot be read, is told", async ({
  page,
  school,
}) => {
  await page.goto(`${school.base}/week/hours?of=terms`);
  const off = page.getByRole("heading", { name: "Holidays and days off" }).locator("../..");
  const file = off.getByLabel("Holidays and days off, as a file");
  const table = "name,from,to\nBoat race,7/6/2027,\nKiln repair,soon,\n";
  await file.setInputFiles({ name: "off.csv", mimeType: "text/csv", buffer: Buffer.from(table) });
  await expect(off.getByRole("status")).toContainText("1 stretch of days added.");
  await expect(off.getByRole("status")).toContainText("Line 3: “soon” is no day.");
  const calendar =
    "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Boat race\r\nDTSTART;VALUE=DATE:20270607\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:b\r\nSUMMARY:Towpath fair\r\nDTSTART;VALUE=DATE:20270610\r\nDTEND;VALUE=DATE:20270612\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
  await file.setInputFiles({ name: "off.ics", mimeType: "text/calendar", buffer: Buffer.from(calendar) });
  await expect(off.getByRole("status")).toContainText("Boat race is there already.");
  await expect(off.getByRole("button", { name: "Remove Towpath fair" })).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(off.getByText("Thu 10 Jun 2027 to Fri 11 Jun 2027")).toBeVisible();
  await expect(off.getByText("Mon 7 Jun 2027")).toBeVisible();
});

test("a teacher moves a session of their own group for a day, and sees where others are", async ({
  page,
  context,
  school,
}) => {
  const { today } = await school.get<{ today: string }>("/api/school");
  const monday = written(startOfISOWeek(addDays(parseISO(today), 7)));
  await comeInAs(context, school, "teacher");
  await page.goto(`${school.base}/week?week=${monday}`);
  const board = page.getByRole("region", { name: "The week" });
  await expect(board).toBeVisible();
  await expect(page.getByRole("button", { name: "Away, closed, a trip …" })).toHaveCount(0);
  const session = board.locator("button[data-session]").first();
  const name = (await session.innerText()).trim();
  await session.press("Enter");
  await expect(board.getByRole("button", { name: /^Here/ }).first()).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByText(`${name} moved for this week.`)).toBeVisible();
  await page.reload();
  await expect(board.getByText("for this day")).toHaveCount(1);
});

test("whoever stands in for a colleague finds the session on Today, and opens its group", async ({
  page,
  context,
  school,
}) => {
  // Jo takes no group of their own any more, and stands in.
  const { version, grouping } = await school.get<{ version: number; grouping: { adults: object[] } }>(
    "/api/grouping",
  );
  const standsIn = { id: crypto.randomUUID(), name: "Stands in", sessions: 0 };
  await put(school, "/api/school/grouping", {
    version,
    grouping: { ...grouping, adults: [...grouping.adults, standsIn] },
  });
  await page.goto(`${school.base}/settings/people`);
  await page.getByRole("button", { name: "Edit Jo P." }).click();
  const sheet = page.getByRole("dialog", { name: "Jo P." });
  for (const tick of await sheet.getByRole("group", { name: "Their groups" }).getByRole("checkbox").all())
    await tick.uncheck();
  await sheet.getByLabel("In the week they are").selectOption({ label: "Stands in" });
  await expectAccessible(page);
  await sheet.getByRole("button", { name: "Save" }).click();
  await expect(sheet).toHaveCount(0);
  const { today } = await school.get<{ today: string }>("/api/school");
  const to = written(addDays(parseISO(today), 28));
  const { meetings } = await school.get<{ meetings: Record<string, unknown>[] }>(
    `/api/meetings?from=${today}&to=${to}`,
  );
  const { groupName, groupId, ...meeting } = meetings.find(({ cancelled }) => !cancelled) ?? {};
  const { adultName: _, members: __, roomName: ___, byHand: ____, changedAt: _____, ...bare } = meeting;

  await comeInAs(context, school, "assistant");
  await page.goto(`${school.base}/groups/${groupId}`);
  await expect(
    page.getByText("This belongs to another class or group of the school", { exact: false }),
  ).toBeVisible();
  await comeInAs(context, school, "lead");
  await post(school, "/api/meetings/changes", {
    changes: [{ ...bare, groupId, adultId: standsIn.id, on: today, from: 5, to: 25 }],
  });
  await comeInAs(context, school, "assistant");
  await page.goto(`${school.base}/`);
  const panel = page.getByRole("heading", { name: "Your sessions today" }).locator("../..");
  await expect(panel).toContainText(String(groupName));
  await page.goto(`${school.base}/groups/${groupId}`);
  await expect(page.getByRole("heading", { name: String(groupName), level: 1 })).toBeVisible();
});
