import { addPasskey, askForPasskey, beginPasskey, signInByPasskey } from "#contract";
import { call, Refused } from "./api.ts";

/** Whether this browser knows passkeys under this address: they are for names, and an address may be a number. */
export const knowsPasskeys = (): boolean =>
  "PublicKeyCredential" in window && !/^[\d.]+$|^\[/.test(window.location.hostname);

/** What a browser refuses of a passkey, in words: it tells no more, so that no page learns who has which. */
function inWords(error: unknown, otherwise: string): unknown {
  if (error instanceof Refused) return error;
  const { name } = error as { name?: unknown };
  if (name === "InvalidStateError") return new Error("This device has a passkey of yours already.");
  return name === "NotAllowedError" || name === "AbortError" ? new Error(otherwise) : error;
}

/** The same in the library's own words, which are narrower than the browser's. */
type OptionsOf<Start extends (asked: never) => unknown> = Parameters<Start>[0] extends { optionsJSON: infer Options }
  ? Options
  : never;

/** Makes a passkey on this device, which asks its holder. @throws Error in words when it was not made */
export async function makePasskey(name: string, passphrase: string): Promise<void> {
  const { startRegistration } = await import("@simplewebauthn/browser");
  const asked = await call(beginPasskey, { body: { passphrase } });
  try {
    const made = await startRegistration({ optionsJSON: asked as OptionsOf<typeof startRegistration> });
    await call(addPasskey, { body: { id: crypto.randomUUID(), name, made } });
  } catch (error) {
    throw inWords(error, "No passkey was made: it was put aside, or took too long.");
  }
}

/** Signs in by a passkey that the device offers. @throws Error in words when none was shown */
export async function comeInByPasskey(keep: boolean): Promise<void> {
  const { startAuthentication } = await import("@simplewebauthn/browser");
  const asked = await call(askForPasskey, {});
  try {
    const shown = await startAuthentication({ optionsJSON: asked as OptionsOf<typeof startAuthentication> });
    await call(signInByPasskey, { body: { shown, keep } });
  } catch (error) {
    throw inWords(
      error,
      "No passkey was shown. If this device has none of yours, sign in by your name and passphrase.",
    );
  }
}
