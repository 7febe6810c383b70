import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, expectAccessible, test } from "./school.ts";
import { emptyFolder, freePort, startServer } from "./server.ts";
import { passphrase, setUpSchool } from "./signing-in.ts";

// A school that is set up: in one where nothing is real no one signs in.
test.use({ alone: true });

/** Gives a browser a device that holds passkeys, as a telephone does. @returns what makes it refuse, or not any more */
async function holding(page: Page): Promise<(unlocks: boolean) => Promise<unknown>> {
  const chrome = await page.context().newCDPSession(page);
  await chrome.send("WebAuthn.enable");
  const { authenticatorId } = await chrome.send("WebAuthn.addVirtualAuthenticator", {
    options: {
      ...{ protocol: "ctap2", transport: "internal", hasResidentKey: true, hasUserVerification: true },
      ...{ isUserVerified: true, automaticPresenceSimulation: true },
    },
  });
  return (isUserVerified) => chrome.send("WebAuthn.setUserVerified", { authenticatorId, isUserVerified });
}

test("a passkey is made, opens the school with nothing typed, is enough where two factors are wanted, and is taken away", async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-passkeys-"));
  cpSync(emptyFolder, folder, { recursive: true });
  const server = await startServer(folder, await freePort());
  try {
    const { base, lead } = await setUpSchool(server, browser);
    const unlocks = await holding(lead);
    await lead.goto(`${base}/settings/mine`);
    const panel = lead
      .locator("section")
      .filter({ has: lead.getByRole("heading", { name: "Passkeys", exact: true }) });
    const make = async (name: string, typed: string) => {
      await panel.getByLabel("What to call it").fill(name);
      await panel.getByLabel("Your passphrase").fill(typed);
      await panel.getByRole("button", { name: "Make one on this device" }).click();
    };
    await make("My tablet", "not this one at all");
    await expect(panel.getByText("This is not your passphrase.")).toBeVisible();
    await expectAccessible(lead);
    await make("My tablet", passphrase);
    await expect(panel.getByText("not used yet", { exact: false })).toBeVisible();
    await make("Once more", passphrase);
    await expect(lead.getByText("This device has a passkey of yours already.")).toBeVisible();

    const signIn = lead.getByRole("button", { name: "Use a passkey of this device" });
    const comeIn = async () => {
      await lead.getByRole("button", { name: "Sign out" }).first().click();
      await expect(lead.getByRole("heading", { name: "Sign in" })).toBeVisible();
      await signIn.click();
    };
    // Someone else holds the device: it does not unlock, and says no more.
    await unlocks(false);
    await comeIn();
    await expect(lead.getByText("No passkey was shown.", { exact: false })).toBeVisible();
    await expectAccessible(lead);
    await unlocks(true);
    await signIn.press("Enter");
    await expect(panel.getByText("last used today", { exact: false })).toBeVisible();

    // Two factors in one: a lead may ask them of all, and is not shut out.
    await lead.goto(`${base}/settings/people`);
    await lead.getByLabel("Leads sign in with a code of an authenticator app as well, or by a passkey").check();
    await expect(lead.getByText("Leads sign in with a second factor from now on.", { exact: false })).toBeVisible();
    await lead.goto(`${base}/class`);
    await expect(lead.getByRole("navigation", { name: "Places" })).toBeVisible();

    await lead.goto(`${base}/settings/mine`);
    await panel.getByRole("button", { name: "Take the passkey My tablet away" }).click();
    await expect(lead.getByText("Taken away. It opens nothing any more.")).toBeVisible();
    await comeIn();
    await expect(lead.getByText("This passkey opens nothing here", { exact: false })).toBeVisible();
    await lead.getByLabel("Your name").fill("Mrs Quill");
    await lead.getByLabel("Passphrase").fill(passphrase);
    await lead.getByLabel("Passphrase").press("Enter");
    await expect(lead.getByText("come in by it.", { exact: false })).toBeVisible();
  } finally {
    await server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
});
