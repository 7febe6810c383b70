import { type ClassRow, comeInAs, expect, expectAccessible, type School, test } from "./school.ts";

// Erasing makes a dump of all that a server has at once; that of the other tests has many schools.
test.use({ alone: true });

interface OneClass extends ClassRow {
  readonly yearGroup: string;
  readonly stepId: string | null;
  readonly archived: boolean;
  readonly children: number;
}
interface OneChild extends ClassRow {
  readonly classId: string;
  readonly archived: boolean;
}
const classesOf = async (school: School) =>
  (await school.get<{ classes: OneClass[] }>("/api/school")).classes.filter((one) => !one.archived);
const childrenOf = (school: School) => school.get<OneChild[]>("/api/children");

test("a new school year: classes move up, one leaves, one is new, a child changes class; and all of it is taken back", async ({
  page,
  school,
}) => {
  const before = await classesOf(school);
  const [first, last] = [before[0] as OneClass, before.at(-1) as OneClass];
  const child = (await childrenOf(school)).find((one) => one.classId === first.id && !one.archived) as OneChild;

  await page.goto(`${school.base}/settings`);
  await page.getByRole("link", { name: "New school year …" }).click();
  await expect(page.getByRole("heading", { name: "New school year", level: 1 })).toBeFocused();
  // Each year group is one on already.
  await expect(page.getByLabel("Year group").first()).toHaveValue(
    first.yearGroup.replace(/\d+/, (number) => String(Number(number) + 1)),
  );
  await page.getByLabel(`What becomes of ${last.name}`).selectOption("leaves the school");
  await page.getByRole("button", { name: "Add a new class" }).click();
  // The name of a class that goes on cannot be taken.
  await page.getByLabel("Name of the new class").fill(first.name);
  await expect(page.getByText(`Two classes would be called “${first.name}”.`)).toBeVisible();
  await expect(page.getByRole("button", { name: "Begin the new school year …" })).toBeDisabled();
  await page.getByLabel("Name of the new class").fill("Malthouse");

  await page.locator("summary", { hasText: first.name }).press("Enter");
  await page.getByLabel(child.name, { exact: true }).selectOption("into Malthouse");
  const says = `${before.length - 1} class${before.length === 2 ? " goes" : "es go"} on, 1 class is new, 1 child changes class and ${last.children} children leave the school.`;
  await expect(page.getByText(says)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Begin the new school year …" }).click();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Begin the new school year", exact: true }).click();

  await expect(page).toHaveURL(/\/class$/);
  await expect(page.getByRole("navigation", { name: "Classes" })).toContainText("Malthouse 1");
  const after = await classesOf(school);
  expect(after.map((one) => one.name)).not.toContain(last.name);
  // What it was taught goes with a class.
  expect(after.find((one) => one.id === first.id)?.stepId).toBe(first.stepId);
  expect((await childrenOf(school)).filter((one) => one.archived && one.classId === last.id)).toHaveLength(
    last.children,
  );

  await page.goto(`${school.base}/settings/year`);
  await expect(page.getByText("A school year was begun on")).toBeVisible();
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(page.getByText("The school year is taken back.")).toBeVisible();
  await expect(page.getByText("A school year was begun on")).toBeHidden();
  expect(await classesOf(school)).toEqual(before);
  expect((await childrenOf(school)).find((one) => one.id === child.id)).toMatchObject({ classId: first.id });
});

test("a child who left is listed by when it is due, and is erased when it is; other devices drop what they hold", async ({
  page,
  school,
  browser,
}) => {
  const child = (await childrenOf(school)).find((one) => !one.archived) as OneChild;
  // Another device has the child's page.
  const otherDevice = await browser.newContext({ serviceWorkers: "block" });
  await comeInAs(otherDevice, school, "lead");
  const elsewhere = await otherDevice.newPage();
  await elsewhere.goto(`${school.base}/child/${child.id}`);
  await expect(elsewhere.getByRole("heading", { name: child.name, level: 1 })).toBeVisible();
  const held = () =>
    elsewhere.evaluate(
      (id) =>
        new Promise<number>((done) => {
          const opening = indexedDB.open("keen-sapling");
          opening.onsuccess = () => {
            const all = opening.result.transaction("pages").objectStore("pages").getAll();
            all.onsuccess = () => {
              opening.result.close();
              done(all.result.filter((one) => JSON.stringify(one).includes(id)).length);
            };
          };
        }),
      child.id,
    );
  await expect.poll(held).toBeGreaterThan(0);

  await page.goto(`${school.base}/class/${child.classId}`);
  await page.getByRole("button", { name: `Edit ${child.name}` }).click();
  await page.getByRole("button", { name: "Archive" }).click();
  await page.goto(`${school.base}/settings`);
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "Children who left" }) });
  await panel.getByText("1 child who left, not due yet").click();
  await expect(panel.getByRole("listitem")).toContainText(child.name);
  await panel.getByLabel("Months after leaving").fill("0");
  // What is beyond what can be kept is brought back.
  await expect(panel.getByLabel("Months after leaving")).toHaveValue("1");
  await panel.getByLabel("Months after leaving").fill("6");
  await panel.getByLabel("Weeks a backup is kept").fill("3");
  await panel.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved.")).toBeVisible();

  // Six months on.
  await page.route("**/api/leavers", async (route) => {
    const content = await (await route.fetch()).json();
    const leavers = content.leavers.map((one: object) => ({ ...one, due: true }));
    await route.fulfill({ json: { ...content, leavers } });
  });
  await page.reload();
  await panel.getByRole("button", { name: "Erase 1 child …" }).click();
  await expect(page.getByRole("button", { name: "Erase", exact: true })).toBeDisabled();
  await page.getByLabel("Yes, erase everything about this child").check();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Erase", exact: true }).click();
  await expect(page.getByText("1 child is erased.")).toBeVisible();
  await expect(panel).toContainText("Backups from before the last erasing still hold who was erased, until");
  expect((await childrenOf(school)).some((one) => one.id === child.id)).toBe(false);

  await elsewhere.goto(`${school.base}/class`);
  await expect.poll(held).toBe(0);
  await elsewhere.context().close();
});
