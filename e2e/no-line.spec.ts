import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { asked, marksAlone, part, saved, sit, sitting, stored } from "./checking.ts";
import { childNamed, comeInAs, expect, expectAccessible, makeClass, marksWithoutWait, post, test } from "./school.ts";

// The server is ended in the middle of it.
test.use({ alone: true });

test.use({ serviceWorkers: "allow" });

/** The application is on the device: from here on no line is needed. */
async function readyWithoutLine(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
}

test.describe("on a tablet", () => {
  test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

  test("six children in a row without a line: reloads, skips and comes back, reads every result, and loses nothing", async ({
    page,
    school,
    context,
  }) => {
    test.setTimeout(240_000);
    await marksAlone(school);
    const names = ["Alba T.", "Bram O.", "Dario F.", "Edda L.", "Fitz R.", "Gwen A."];
    const picked = ["ch u n k", "s t o p", "?m o p t"];
    const words = part("words", { scope: "picked", picked, strategy: "inOrder" });
    const { id, checks } = await sit(
      school,
      names,
      [part("card", { scope: "picked", picked: ["b=b", "d=d"] }), words],
      "Table by the window",
    );
    await page.goto(`${school.base}/check/${id}`);
    await asked(page);
    await readyWithoutLine(page);
    const tap = async (name: RegExp) => {
      await asked(page);
      await page.getByRole("group", { name: "Mark", exact: true }).getByRole("button", { name }).tap();
    };
    const next = (name: RegExp) => page.getByRole("main").getByRole("button", { name }).tap();
    const child = (name: string) => page.getByRole("navigation", { name: "Children" }).getByRole("button", { name });
    const whole = async (last: boolean) => {
      await tap(/^Right at once/);
      await tap(/^No answer/);
      await next(/^Next: Read words/);
      await page.getByRole("button", { name: "Said instead: shunk" }).tap();
      await page.getByRole("button", { name: "Said instead: top" }).tap();
      await tap(/^Sounded out/);
      if (!last) await next(/^Next child/);
    };
    await whole(false);
    await context.setOffline(true);
    await expect(child("Bram O.")).toHaveAttribute("aria-current", "true");
    await child("Dario F.").tap();
    await tap(/^Right at once/);
    await page.reload();
    await expect(
      page
        .getByText("11 marks kept on this device until the server answers")
        .or(page.getByText(/^\d+ marks? kept on this device/)),
    ).toBeVisible();
    await expect(child("Dario F.")).toHaveAttribute("aria-current", "true");
    await expect(page.getByText("2 of 2")).toBeVisible();
    await tap(/^No answer/);
    await next(/^Next: Read words/);
    await page.getByRole("button", { name: "Said instead: shunk" }).tap();
    await page.getByRole("button", { name: "Said instead: top" }).tap();
    await tap(/^Sounded out/);
    await next(/^Next child/);
    for (const name of ["Edda L.", "Fitz R.", "Gwen A."]) {
      await expect(child(name)).toHaveAttribute("aria-current", "true");
      await whole(false);
    }
    await expect(child("Bram O.")).toHaveAttribute("aria-current", "true");
    await whole(true);
    await next(/^See what this check says/);
    for (const name of names) {
      await child(name).tap();
      await expect(page.getByRole("heading", { name: `What this check says: ${name}` })).toBeVisible();
      await expect(page.getByText("ch /tʃ/ was read as /ʃ/.", { exact: false })).toBeVisible();
      await expect(
        page.getByText("It is the first sound of a cluster that fell away.", { exact: false }),
      ).toBeVisible();
    }
    await page.reload();
    await page.getByRole("button", { name: "All together" }).tap();
    await expect(page.getByRole("row")).toHaveCount(13);
    await context.setOffline(false);
    await expect.poll(async () => (await sitting(school, id)).endedAt, { timeout: 30_000 }).not.toBeNull();
    const { checks: kept } = await sitting(school, id);
    expect(kept).toHaveLength(checks.length);
    for (const check of kept) {
      const marks = check.answers.filter((entry) => entry.outcome !== "stop");
      expect(marks.map((entry) => entry.outcome)).toEqual(
        check.kind === "card" ? ["right", "none"] : ["wrong", "wrong", "sounded"],
      );
      expect(check.answers.filter((entry) => entry.outcome === "stop")).toHaveLength(1);
    }
    // What the ended check kept on this device is gone once the server has it.
    await page.reload();
    await expect(page.getByRole("heading", { name: /^What this check says/ })).toBeVisible();
    const left = () =>
      page.evaluate(
        () =>
          new Promise<number>((done) => {
            const open = indexedDB.open("keen-sapling");
            open.onsuccess = () => {
              const count = open.result.transaction("marks").objectStore("marks").count();
              count.onsuccess = () => done(count.result);
            };
          }),
      );
    await expect.poll(left).toBe(0);
  });
});

test("two adults on one check see each other's marks, and no answer is lost", { tag: "@main" }, async ({
  page,
  school,
  browser,
}) => {
  await marksAlone(school);
  const { id } = await sit(
    school,
    ["Rosa M."],
    [part("card", { scope: "picked", picked: ["b=b", "d=d", "m=m", "t=t"] })],
  );
  const elsewhere = await browser.newContext();
  await comeInAs(elsewhere, school, "lead");
  await marksWithoutWait(elsewhere);
  const other = await elsewhere.newPage();
  for (const one of [page, other]) {
    await one.goto(`${school.base}/check/${id}`);
    await asked(one);
  }
  const first = await asked(page);
  expect(await asked(other)).toBe(first);
  await page.keyboard.press("1");
  await expect(other.getByTestId("card")).not.toHaveText(first);
  await expect(other.getByText("2 of 4")).toBeVisible();
  await other.keyboard.press("5");
  await expect(page.getByText("3 of 4")).toBeVisible();
  // Both mark the same card before they hear of each other.
  await page.context().setOffline(true);
  await page.keyboard.press("1");
  await other.keyboard.press("2");
  await saved(other);
  await page.context().setOffline(false);
  await saved(page);
  for (const one of [page, other]) await expect(one.getByText("4 of 4")).toBeVisible();
  const log = await stored(school, id);
  expect(log.map((entry) => entry.outcome).sort()).toEqual(["none", "right", "right", "slow"]);
  await other.context().close();
});

test("marks that the server will not keep stay in a tray: seen, saved as a file, discarded and put back, sent again", async ({
  page,
  school,
}) => {
  await marksAlone(school);
  const { id } = await sit(school, ["Vito Y."], [part("card", { scope: "picked", picked: ["b=b", "d=d", "m=m"] })]);
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  await page.context().setOffline(true);
  for (const key of ["1", "5"]) {
    await asked(page);
    await page.keyboard.press(key);
  }
  await expect(page.getByText("2 marks kept on this device", { exact: false })).toBeVisible();
  // On its way something makes of each mark what this check never asked.
  await page.route("**/api/answers", async (route) => {
    const body = JSON.parse(route.request().postData() ?? "{}") as { answers: object[] };
    await route.continue({
      postData: JSON.stringify({ answers: body.answers.map((one) => ({ ...one, item: "igh=igh" })) }),
    });
  });
  await page.context().setOffline(false);
  const tray = page.getByRole("alert", { name: "Marks that could not be kept" });
  await expect(tray).toContainText("2 marks could not be kept: This item is not in the check.");
  await page.goto(`${school.base}/groups`);
  await expect(tray).toBeVisible();
  await expectAccessible(page);
  await tray.getByRole("button", { name: "Look at them" }).click();
  const sheet = page.getByRole("dialog", { name: "2 marks could not be kept" });
  await expect(sheet.getByRole("listitem")).toHaveCount(2);
  await expectAccessible(page);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    sheet.getByRole("button", { name: "Save as file" }).click(),
  ]);
  const kept = JSON.parse(readFileSync(await file.path(), "utf8"));
  expect(kept.marks.map((mark: { outcome: string }) => mark.outcome).sort()).toEqual(["none", "right"]);
  await sheet.getByRole("button", { name: "Discard" }).click();
  await expect(tray).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(tray).toBeVisible();
  await tray.getByRole("button", { name: "Look at them" }).click();
  await sheet.getByRole("button", { name: "Send again" }).click();
  await expect(tray).toContainText("2 marks could not be kept");
  await page.reload();
  await expect(tray).toContainText("2 marks could not be kept");
});

test("kill -9 during marking loses no mark and doubles none, also across a reload", async ({
  page,
  emptySchool: school,
}) => {
  const classId = await makeClass(school, "Lock", "s4");
  await post(school, "/api/children", { id: crypto.randomUUID(), classId, name: "Ada M.", note: "" });
  await marksAlone(school);
  const { id: childId } = await childNamed(school, "Ada M.");
  await page.goto(`${school.base}/check?child=${childId}`);
  for (const _ of [2, 3, 4]) await page.getByRole("button", { name: "Remove part 2" }).click();
  await page.getByRole("button", { name: "Begin the check" }).click();
  await expect(page.getByText("1 of 11")).toBeVisible();
  await readyWithoutLine(page);
  const id = page.url().split("/").at(-1) ?? "";
  const cards: string[] = [];
  const mark = async (key: string) => {
    cards.push(await asked(page));
    await page.keyboard.press(key);
  };
  for (const key of ["1", "5", "2"]) await mark(key);
  await saved(page);
  await mark("1");
  await school.kill();
  for (const key of ["5", "1"]) await mark(key);
  await expect(page.getByText(/kept on this device until the server answers/)).toBeVisible();
  // The last of them may be on its way to the device's own store when a slow machine is asked to reload.
  await expect.poll(() => marksHeld(page)).toBe(6);
  await page.reload();
  await expect(page.getByText("7 of 11")).toBeVisible();
  await mark("1");
  await school.start();
  expect((await stored(school, id)).length).toBeGreaterThanOrEqual(3);
  await page.reload();
  await expect(page.getByText("8 of 11")).toBeVisible();
  await saved(page);
  for (const key of ["1", "1"]) await mark(key);
  await saved(page);
  const log = await stored(school, id);
  expect(log.map((entry) => entry.item?.split("=")[0])).toEqual(cards);
  expect(log.map((entry) => entry.outcome)).toEqual([
    "right",
    "none",
    "slow",
    "right",
    "none",
    "right",
    "right",
    "right",
    "right",
  ]);
});

/** How many marks lie in the device's own store, sent or not. */
function marksHeld(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        const opening = indexedDB.open("keen-sapling");
        opening.onsuccess = () => {
          const counting = opening.result.transaction("marks").objectStore("marks").count();
          counting.onsuccess = () => {
            opening.result.close();
            done(counting.result);
          };
        };
      }),
  );
}
