import type { Browser, Page } from "@playwright/test";
import { expect } from "./school.ts";
import type { RunningServer } from "./server.ts";

/** That people of these tests choose. */
export const passphrase = "otters like cold porridge";

/** A browser of its own. */
export async function device(browser: Browser): Promise<Page> {
  const context = await browser.newContext({
    serviceWorkers: "block",
    permissions: ["clipboard-read", "clipboard-write"],
  });
  return context.newPage();
}

/** The address that a server without a lead prints. */
export async function setUpAddress(server: RunningServer): Promise<string> {
  const printed = () => /http:\S+\/invited\/\S+/.exec(server.said())?.[0] ?? "";
  await expect.poll(printed).not.toBe("");
  return printed();
}

/** Adds someone on the page of people and takes the link that is shown. */
export async function invited(page: Page, name: string, role: string): Promise<string> {
  await page.getByRole("button", { name: "Add a person" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Name").fill(name);
  await sheet.getByLabel("Role").selectOption({ label: role });
  await sheet.getByRole("button", { name: "Add" }).click();
  await page.getByRole("button", { name: `Invite: ${name}` }).click();
  await expect(page.getByRole("dialog").getByRole("img", { name: /to be read by a camera/ })).toBeVisible();
  const link = await page.getByRole("textbox", { name: "The link" }).inputValue();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  return link;
}

/** Sets the school of a server up, whose first words are read, with Mrs Quill as its lead. */
export async function setUpSchool(server: RunningServer, browser: Browser): Promise<{ base: string; lead: Page }> {
  const address = await setUpAddress(server);
  const lead = await device(browser);
  await lead.goto(address);
  await lead.getByLabel("Your name").fill("Mrs Quill");
  await lead.getByLabel("The school’s name").fill("Marlpit Lock School");
  await lead.getByLabel("Choose a passphrase").fill(passphrase);
  await lead.getByLabel("Choose a passphrase").press("Enter");
  await expect(lead.getByRole("heading", { name: "Today" })).toBeVisible();
  return { base: new URL(address).origin, lead };
}
