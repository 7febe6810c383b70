import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { codeOf } from "../demo/authenticator.ts";
import { part, sit, stored } from "./checking.ts";
import { comeInAs, expect, expectAccessible, test } from "./school.ts";
import { emptyFolder, freePort, startServer } from "./server.ts";
import { device, invited, passphrase, setUpAddress, setUpSchool } from "./signing-in.ts";

// Set-up and sign-in: a server of its own, whose first words are read.
test.use({ alone: true });

const other = "seven green ladders sleep";

test("a school is set up by the printed address, people come in by their links, sign out and in, and are taken out", async ({
  browser,
}) => {
  test.setTimeout(150_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-people-"));
  cpSync(emptyFolder, folder, { recursive: true });
  const server = await startServer(folder, await freePort());
  try {
    // The first one at its machine may use it; the address that was printed sets it up.
    const address = await setUpAddress(server);
    const base = new URL(address).origin;
    const lead = await device(browser);
    await lead.goto(address);
    await expect(lead.getByRole("heading", { name: "Set up your school" })).toBeVisible();
    await expect(lead.getByLabel("Time zone")).not.toHaveValue("");
    await expectAccessible(lead);
    await lead.getByLabel("Your name").fill("Mrs Quill");
    await lead.getByLabel("The school’s name").fill("Marlpit Lock School");
    await lead.getByLabel("Choose a passphrase").fill("passwordpassword");
    await lead.getByRole("button", { name: "Set up the school" }).click();
    await expect(lead.getByText(/among the first that would be tried/)).toBeVisible();
    await expect(lead.getByLabel("Your name")).toHaveValue("Mrs Quill");
    await lead.getByLabel("Choose a passphrase").fill(passphrase);
    await lead.getByLabel("Choose a passphrase").press("Enter");
    await expect(lead.getByRole("heading", { name: "Today" })).toBeVisible();
    await expect(lead.getByRole("link", { name: "Mrs Quill lead" })).toBeVisible();

    // From now on everyone signs in, at this machine too.
    const teacher = await device(browser);
    await teacher.goto(`${base}/gaps`);
    await expect(teacher.getByRole("heading", { name: "Sign in" })).toBeVisible();
    await expectAccessible(teacher);
    await teacher.goto(address);
    await expect(teacher.getByText(/used already/)).toBeVisible();

    await lead.goto(`${base}/settings/people`);
    await expect(lead.getByRole("heading", { name: "Leads", exact: true })).toBeVisible();
    await expectAccessible(lead);
    const link = await invited(lead, "Mr Tolley", "Teacher");
    await expect(lead.getByText("has a link, not used yet")).toBeVisible();
    await teacher.goto(link);
    await expect(teacher.getByRole("heading", { name: "Welcome, Mr Tolley" })).toBeVisible();
    await expectAccessible(teacher);
    await teacher.getByLabel("Choose a passphrase").fill(passphrase);
    await teacher.getByRole("button", { name: "Come in" }).click();
    await expect(teacher.getByRole("link", { name: "Mr Tolley teacher" })).toBeVisible();
    await teacher.goto(`${base}/settings/people`);
    await expect(teacher.getByText(/This is for a lead of the school/)).toBeVisible();

    // Out, and in again by name and passphrase.
    await teacher.goto(base);
    await teacher.getByRole("button", { name: "Sign out" }).click();
    await expect(teacher.getByLabel("Your name")).toBeVisible();
    await teacher.getByLabel("Your name").fill("Mr Tolley");
    await teacher.getByLabel("Passphrase").fill("not this one");
    await teacher.getByLabel("Passphrase").press("Enter");
    await expect(teacher.getByText(/No one of this school has this name and passphrase/)).toBeVisible();
    await teacher.getByLabel("Passphrase").fill(passphrase);
    await teacher.getByLabel("Passphrase").press("Enter");
    await expect(teacher.getByRole("heading", { name: "Today" })).toBeVisible();

    // Another passphrase, and where one is signed in.
    await teacher.goto(`${base}/settings/mine`);
    await expect(teacher.getByText(/^this device, since/)).toBeVisible();
    await expectAccessible(teacher);
    await teacher.getByLabel("The one of now").fill(passphrase);
    await teacher.getByLabel("The new one").fill(other);
    await teacher.getByRole("button", { name: "Change it" }).click();
    await expect(teacher.getByText("Changed. Your other devices are signed out.")).toBeVisible();

    // Taken out while the page is open: the next thing that it asks leads to the door.
    await lead.reload();
    await lead.getByRole("button", { name: "Take Mr Tolley out" }).click();
    await lead.getByRole("button", { name: "Take out", exact: true }).click();
    await expect(lead.getByText("Mr Tolley is out.")).toBeVisible();
    await teacher.getByRole("link", { name: "Groups" }).click();
    await expect(teacher.getByRole("heading", { name: "Sign in" })).toBeVisible();

    // Marks carry names: the one of who left is no one else's, and whoever returns is who they were.
    await lead.getByRole("button", { name: "Add a person" }).click();
    await lead.getByRole("dialog").getByLabel("Name").fill("Mr Tolley");
    await lead.getByRole("dialog").getByRole("button", { name: "Add", exact: true }).click();
    await expect(lead.getByText(/who left, had this name.* Another person needs another name\./)).toBeVisible();
    await lead.keyboard.press("Escape");
    await lead.getByRole("button", { name: "Bring Mr Tolley back" }).click();
    await expect(lead.getByText("Mr Tolley is here again. Say what is theirs, and invite them.")).toBeVisible();
    await expect(lead.getByRole("button", { name: "Invite: Mr Tolley" })).toBeVisible();
    await expect(lead.getByText("Left the school")).toHaveCount(0);

    await lead.goto(`${base}/settings/trail`);
    for (const deed of ["set the school up", "tried to sign in", "took a person out"])
      await expect(lead.getByRole("cell", { name: deed }).first()).toBeVisible();
    await expectAccessible(lead);
    await lead.getByLabel("What", { exact: true }).selectOption({ label: "tried to sign in" });
    await expect(lead.getByRole("row")).toHaveCount(2);
    expect(server.said()).not.toContain("Tolley");
  } finally {
    await server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
});

test("a school wants a second factor of its leads: whoever has none sees nothing but where it is set up", async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-people-"));
  cpSync(emptyFolder, folder, { recursive: true });
  const server = await startServer(folder, await freePort());
  const factorOf = (page: Page) =>
    page.locator("section").filter({ has: page.getByRole("heading", { name: "Second factor", exact: true }) });
  /** Sets a second factor up on the page where one's own signing in is. */
  const setUp = async (page: Page) => {
    const panel = factorOf(page);
    await panel.getByLabel("Your passphrase").fill(passphrase);
    await panel.getByRole("button", { name: "Set it up" }).click();
    const secret = (await panel.locator("code").textContent()) ?? "";
    await panel.getByLabel("Six figures").fill(codeOf(secret));
    await panel.getByRole("button", { name: "It shows this code" }).click();
    await expect(page.getByText("Set up. Each sign-in asks for a code from now on.")).toBeVisible();
    return secret;
  };
  try {
    const { base, lead } = await setUpSchool(server, browser);
    await lead.goto(`${base}/settings/people`);
    const wanted = lead.getByLabel("Leads sign in with a code of an authenticator app as well, or by a passkey");
    await expect(wanted).toBeDisabled();
    const link = await invited(lead, "Mr Tolley", "Lead");
    await lead.getByRole("link", { name: "your own" }).click();
    await setUp(lead);
    await lead.goto(`${base}/settings/people`);
    await wanted.check();
    await expect(lead.getByText("Leads sign in with a second factor from now on.", { exact: false })).toBeVisible();
    await expectAccessible(lead);

    const other = await device(browser);
    await other.goto(link);
    await other.getByLabel("Choose a passphrase").fill(passphrase);
    await other.getByRole("button", { name: "Come in" }).click();
    await expect(
      other.getByText("Leads of your school sign in with a second factor.", { exact: false }),
    ).toBeVisible();
    await expect(other.getByRole("navigation", { name: "Places" })).toHaveCount(0);
    await expectAccessible(other);
    await other.goto(`${base}/gaps`);
    await expect(other).toHaveURL(/\/settings\/mine$/);
    const secret = await setUp(other);
    await expect(other.getByRole("navigation", { name: "Places" })).toBeVisible();
    await other.goto(`${base}/settings/people`);
    await expect(other.getByRole("heading", { name: "Leads", exact: true })).toBeVisible();
    // Out, and in again: the code is asked for.
    await other.getByRole("button", { name: "Sign out" }).click();
    await other.getByLabel("Your name").fill("Mr Tolley");
    await other.getByLabel("Passphrase").fill(passphrase);
    await other.getByLabel("Passphrase").press("Enter");
    await other.getByLabel("Six figures").fill(codeOf(secret));
    await other.keyboard.press("Enter");
    await expect(other.getByRole("heading", { name: "Leads", exact: true })).toBeVisible();
    await other.goto(`${base}/settings/mine`);
    await factorOf(other).getByLabel("Your passphrase").fill(passphrase);
    await other.getByRole("button", { name: "Do without it again" }).click();
    await expect(other.getByText(/wants a second factor of its leads/)).toBeVisible();
  } finally {
    await server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
});

test("where nothing is real one comes in as a role, and sees what it sees", async ({ page, school }) => {
  test.setTimeout(120_000);
  await page.context().clearCookies();
  await page.goto(`${school.base}/groups`);
  await expect(page.getByRole("heading", { name: "Look around" })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: "Come in as an assistant" }).click();
  const places = page.getByRole("navigation", { name: "Places" });
  await expect(places.getByRole("link", { name: "Sessions" })).toBeVisible();
  await expect(places.getByRole("link", { name: "Gaps" })).toHaveCount(0);
  await page.goto(school.base);
  await expect(page.getByRole("heading", { name: "Groups and their next step" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Check" })).toHaveCount(0);
  await expectAccessible(page);
  // By its address a page that is not theirs says whose it is.
  await page.goto(`${school.base}/gaps`);
  await expect(page.getByText(/This is for a teacher of the school/).first()).toBeVisible();

  await comeInAs(page.context(), school, "teacher");
  await page.goto(school.base);
  await expect(places.getByRole("link", { name: "Gaps" })).toBeVisible();
  const { classes } = await school.get<{ classes: { id: string; name: string }[] }>("/api/school");
  const kiln = classes.find((one) => one.name === "Kiln");
  const [foreign] = await school.get<{ id: string; name: string }[]>(`/api/children?classId=${kiln?.id}`);
  await page.goto(`${school.base}/child/${foreign?.id}`);
  await expect(page.getByText(/another class or group/).first()).toBeVisible();
  await expect(page.getByText(foreign?.name ?? "")).toHaveCount(0);
});

test("a shared tablet is let in once, people come in by a code, and it locks by itself, with no line too", async ({
  page,
  school,
}) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.clock.install();
  await page.goto(`${school.base}/settings/people`);
  await page.getByLabel("What this device is called").fill("Reading room tablet");
  await page.getByRole("button", { name: "Let this device in" }).click();
  await expect(page.getByText("this device, 0 codes", { exact: false })).toBeVisible();
  await page.goto(`${school.base}/settings/mine`);
  await page.getByLabel("A code of 4 figures or more").fill("1234");
  await page.getByRole("button", { name: "Set the code" }).click();
  await expect(page.getByText("This would be tried first.")).toBeVisible();
  await page.getByLabel("A code of 4 figures or more").fill("4711");
  await page.getByRole("button", { name: "Set the code" }).click();
  await expect(page.getByText("Set. You come in by it on this device.")).toBeVisible();

  await page.goto(`${school.base}/class`);
  const child = page.getByRole("link", { name: "Alba T." }).first();
  await expect(child).toBeVisible();
  // Touched, it stays open; left alone, it locks.
  await page.clock.runFor("04:00");
  await page.keyboard.press("Shift");
  await page.clock.runFor("04:00");
  await expect(child).toBeVisible();
  await page.clock.runFor("05:10");
  await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
  await expect(page.getByText("Alba T.")).toHaveCount(0);
  await expectAccessible(page);
  await page.reload();
  await page.getByRole("button", { name: "Mrs Quill" }).click();
  await page.getByLabel("Your code on this device").fill("0815");
  await page.getByLabel("Your code on this device").press("Enter");
  await expect(page.getByText(/This is not your code on this device/)).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel("Your code on this device").fill("4711");
  await page.getByLabel("Your code on this device").press("Enter");
  await expect(child).toBeVisible();

  // Without a line nothing can be read either, in the middle of a check, and nothing names a child on the device any more;
  // the mark that waits stays.
  const { id: sittingId } = await sit(school, ["Alba T."], [part("card", { most: 10 })], "Locked");
  await page.goto(`${school.base}/check/${sittingId}`);
  await expect(page.getByRole("heading", { name: /^Alba T\./ })).toBeVisible();
  expect(await isKeptOn(page, "Alba T.")).toBe(true);
  await expect(page.getByRole("link", { name: "Mrs Quill lead" })).toBeVisible();
  await page.context().setOffline(true);
  await page.keyboard.press("1");
  await page.clock.runFor("00:01");
  await expect(page.getByRole("heading", { name: /^Alba T\./ })).toBeVisible();
  await page.clock.runFor("05:10");
  await expect(page.getByRole("heading", { name: "Locked" })).toBeVisible();
  await expect(page.getByText("Alba T.")).toHaveCount(0);
  await expect.poll(() => isKeptOn(page, "Alba T.")).toBe(false);
  expect(await stored(school, sittingId)).toEqual([]);
  await page.context().setOffline(false);
  await page.clock.runFor("00:10");
  await expect(page.getByRole("heading", { name: "Who is it?" })).toBeVisible();
  await page.getByRole("button", { name: "Mrs Quill" }).click();
  await page.getByLabel("Your code on this device").fill("4711");
  await page.getByLabel("Your code on this device").press("Enter");
  await expect(page.getByRole("heading", { name: /^Alba T\./ })).toBeVisible();
  await page.clock.runFor("00:10");
  await expect.poll(async () => (await stored(school, sittingId)).length).toBe(1);
});

/** Whether a name stands in anything that a browser keeps for the pages of a school. */
async function isKeptOn(page: Page, child: string): Promise<boolean> {
  return page.evaluate(async (child) => {
    const [{ name = "" } = {}] = await indexedDB.databases();
    const db = await new Promise<IDBDatabase>((done) => {
      const asked = indexedDB.open(name);
      asked.onsuccess = () => done(asked.result);
    });
    const all: unknown[] = [];
    for (const store of db.objectStoreNames)
      all.push(
        await new Promise<unknown[]>((done) => {
          const asked = db.transaction(store).objectStore(store).getAll();
          asked.onsuccess = () => done(asked.result);
        }),
      );
    db.close();
    return JSON.stringify([all, { ...localStorage }, { ...sessionStorage }]).includes(child);
  }, child);
}
