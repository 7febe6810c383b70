import type { Page } from "@playwright/test";
import { expect, expectAccessible, post, printed, type School, test } from "./school.ts";

interface BlockSession {
  readonly on: string;
  readonly points: readonly { readonly gpc: string }[];
  readonly by: string;
  readonly sessionId: string | null;
}

const groupId = async (school: School, name: string) =>
  (await school.get<{ id: string; name: string }[]>("/api/groups")).find((one) => one.name === name)?.id ?? "";
const sessionsOf = async (school: School, id: string) =>
  (await school.get<{ sessions: BlockSession[] }>(`/api/groups/${id}/block`)).sessions;
const gpcsOf = ({ points }: BlockSession) => points.map(({ gpc }) => gpc);
const panel = (page: Page) => page.getByRole("heading", { name: "The next weeks" }).locator("../..");
const tile = (page: Page, on: string) => page.locator(`[data-day="${on}"]`);
const kept = async (page: Page, work: () => Promise<unknown>) => {
  const saved = page.waitForResponse((one) => one.url().includes("/block/days") && one.request().method() === "PUT");
  await work();
  expect((await saved).ok()).toBe(true);
};

test("the weeks of a group: what was, what comes and why; changed by keys, by mouse, and given back", async ({
  page,
  school,
}) => {
  const id = await groupId(school, "Brick hods");
  const worked = await sessionsOf(school, id);
  const free = worked.filter(({ by }) => by === "tool");
  const at = worked.findIndex(
    (first, place) => first.by === "tool" && first.points.length > 0 && worked[place + 1]?.by === "tool",
  );
  const [one, other] = worked.slice(at, at + 2);
  const third = free.find(({ on }) => on > (other?.on ?? ""));
  if (!one || !other || !third) throw new Error("too few sessions ahead");
  await page.goto(`${school.base}/groups/${id}`);
  await expect(panel(page).getByRole("list", { name: "Sessions so far" }).getByRole("link")).not.toHaveCount(0);
  await tile(page, one.on).click();
  const chosen = page.getByRole("region", { name: "This session" });
  await expect(chosen).toContainText("by then, as it is foreseen.");
  await chosen.getByText("Each child's cards").click();
  await expect(chosen.getByRole("listitem").filter({ hasText: "Edda L." })).not.toHaveCount(0);
  await expectAccessible(page);

  // By keys: the arrows go along, Alt and an arrow changes its place with the next.
  await tile(page, one.on).focus();
  await page.keyboard.press("ArrowRight");
  await expect(tile(page, other.on)).toBeFocused();
  await page.keyboard.press("ArrowLeft");
  await kept(page, () => page.keyboard.press("Alt+ArrowRight"));
  await expect(tile(page, other.on)).toBeFocused();
  const swapped = await sessionsOf(school, id);
  expect(gpcsOf(swapped.find(({ on }) => on === other.on) as BlockSession)).toEqual(gpcsOf(one));
  expect(gpcsOf(swapped.find(({ on }) => on === one.on) as BlockSession)).toEqual(gpcsOf(other));
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await sessionsOf(school, id)).map(gpcsOf)).toEqual(worked.map(gpcsOf));

  // Review alone, as a teacher says; then given back.
  await tile(page, third.on).click();
  await kept(page, () => chosen.getByLabel("Teach", { exact: true }).selectOption("review"));
  await expect(chosen).toContainText("Nothing new");
  await page.reload();
  await tile(page, third.on).click();
  await expect(tile(page, third.on)).toHaveAccessibleName(/review alone, as a teacher said$/);
  await kept(page, () => chosen.getByRole("button", { name: "As the tool works it out" }).click());
  await expect.poll(async () => (await sessionsOf(school, id)).map(gpcsOf)).toEqual(worked.map(gpcsOf));

  // Dragged onto another day.
  const [from, to] = [await tile(page, one.on).boundingBox(), await tile(page, other.on).boundingBox()];
  if (!from || !to) throw new Error("Not on the screen");
  await kept(page, async () => {
    await page.mouse.move(from.x + 20, from.y + 60);
    await page.mouse.down();
    await page.mouse.move(from.x + 40, from.y + 60, { steps: 4 });
    await page.mouse.move(to.x + 50, to.y + 50, { steps: 8 });
    await page.mouse.up();
  });
  await expect
    .poll(async () => gpcsOf((await sessionsOf(school, id)).find(({ on }) => on === other.on) as BlockSession))
    .toEqual(gpcsOf(one));
});

test("sessions ahead are filled with words, two points where the minutes allow; fewer weeks, a slot too short", async ({
  page,
  school,
}) => {
  const id = await groupId(school, "Brick hods");
  await page.goto(`${school.base}/groups/${id}`);
  const long = page.waitForResponse((one) => one.url().includes("/routine") && one.ok());
  await page.getByLabel("Sessions are held as").selectOption({ label: "By ear first, 20 minutes" });
  await long;
  await page.getByLabel("Weeks ahead").selectOption("3");
  await expect.poll(async () => (await sessionsOf(school, id)).length).toBeLessThanOrEqual(9);
  const before = await sessionsOf(school, id);
  const next = before.slice(0, 2).filter(({ sessionId }) => sessionId === null);
  expect(next.length).toBeGreaterThan(0);
  await page.getByRole("button", { name: /^Fill the next/ }).click();
  await expect(page.getByText(/sessions? filled\.$/)).toBeVisible();
  const after = await sessionsOf(school, id);
  for (const one of next) {
    const filled = after.find(({ on }) => on === one.on);
    expect(filled?.by).toBe("session");
    expect(filled && gpcsOf(filled)).toEqual(gpcsOf(one));
  }
  // Two points, as the teacher chooses, where the tool has none or others.
  const two = after.findLast(({ by }) => by === "tool");
  await tile(page, two?.on ?? "").click();
  const chosen = page.getByRole("region", { name: "This session" });
  const [, first = "", second = ""] = await chosen
    .getByLabel("Teach", { exact: true })
    .getByRole("option")
    .evaluateAll((all) => all.map((one) => (one as HTMLOptionElement).value));
  await kept(page, () => chosen.getByLabel("Teach", { exact: true }).selectOption(first));
  await kept(page, () => chosen.getByLabel("and", { exact: true }).selectOption(second));
  await expect(chosen.getByRole("button", { name: "Fill this session" })).not.toHaveAttribute("aria-busy", "true");
  await chosen.getByRole("button", { name: "Fill this session" }).click();
  await page.getByRole("link", { name: "Open its plan" }).click();
  await expect(page.getByRole("region", { name: "Teach" })).toContainText("Then the same with");
  await expectAccessible(page);
  // Its card has both, each child's own cards, and is one page.
  expect(await printed(page)).toEqual({ pages: 1, wide: false });
  // A routine that takes longer than its time is told; the rest of the plan stands.
  await page.goto(`${school.base}/groups/${id}`);
  await page.getByLabel("Sessions are held as").selectOption({ label: "A bit of all, 30 minutes" });
  await expect(panel(page)).toContainText(/Its routine takes 30 minutes; the time on .* has \d+\./);
  await expect(tile(page, next[0]?.on ?? "")).toBeVisible();
});

test("what a session needs on the table is laid out on paper, for it alone or for its week", async ({
  page,
  school,
}) => {
  const id = await groupId(school, "Lock keepers");
  const [first, second] = (await sessionsOf(school, id)).filter(({ by }) => by === "tool");
  if (!first || !second) throw new Error("too few sessions ahead");
  const ids = [crypto.randomUUID(), crypto.randomUUID()];
  for (const [at, on] of [first.on, first.on].entries())
    await post(school, "/api/sessions", {
      ...{ id: ids[at], groupId: id, heldOn: on, target: null, seed: at + 1 },
      routine: at === 0 ? "sorting" : "hearing",
    });
  await page.goto(`${school.base}/sessions/${ids[0]}`);
  await page.getByRole("link", { name: "To lay out" }).click();
  const list = page.getByRole("region", { name: "List" });
  await expect(list).toContainText(/\d+ cards/);
  await expect(list).toContainText(/mat to sort on/);
  await expect(list).not.toContainText("tile");
  await expectAccessible(page);
  const alone = await printed(page);
  expect([alone.pages > 2, alone.wide]).toEqual([true, false]);
  await page.getByLabel("For", { exact: true }).selectOption("week");
  await expect(list).toContainText(/\d+ tiles/);
  await expect(list).toContainText(/rows of \d+ boxes/);
  await expect(page.getByRole("region", { name: "Boxes" })).toContainText("Perry J.");
  await page.reload();
  await expect(list).toContainText(/\d+ tiles/);
  expect((await printed(page)).pages).toBeGreaterThan(alone.pages);
});
