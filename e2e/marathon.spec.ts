import { asked, marksAlone, part, sit, stored } from "./checking.ts";
import { expect, isLong, test } from "./school.ts";

const MARKS = 600;
const A_SECOND = 1000;

test("ten minutes of real time at sixty marks a minute: none later than a frame, none lost, none doubled", async ({
  page,
  school,
}) => {
  test.skip(!isLong, "It takes ten minutes: KEEN_LONG=1 npx playwright test marathon");
  test.setTimeout(15 * 60_000);
  await marksAlone(school);
  const { id, checks } = await sit(school, ["Vera I."], [part("card", { most: 60 })]);
  await page.goto(`${school.base}/check/${id}`);
  await asked(page);
  const cards = checks[0]?.items.length ?? 0;
  const late: number[] = [];
  let began = Date.now();
  for (let mark = 0; mark < MARKS; mark++) {
    // A whole round is behind: the next one begins, and the clock of the marker with it.
    if (mark > 0 && mark % cards === 0) {
      await page.getByRole("button", { name: /^Go round again/ }).click();
      began = Date.now() - mark * A_SECOND;
    }
    await page.waitForTimeout(Math.max(0, began + mark * A_SECOND - Date.now()));
    late.push(
      await page.evaluate(async () => {
        const seen = () => document.querySelector("main p[aria-live=off]")?.textContent;
        const before = seen();
        dispatchEvent(new KeyboardEvent("keydown", { key: "2", bubbles: true }));
        let frames = 0;
        while (seen() === before && frames < 60) {
          await new Promise(requestAnimationFrame);
          frames++;
        }
        return frames;
      }),
    );
  }
  expect(late.filter((frames) => frames > 1)).toEqual([]);
  await expect(page.getByText("all marks saved")).toBeVisible({ timeout: 60_000 });
  const log = await stored(school, id);
  expect(log).toHaveLength(MARKS);
  expect(new Set(log.map((entry) => `${entry.item} ${entry.pass}`)).size).toBe(MARKS);
});
