import { z } from "zod";
import { done, id, instant, line } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { typedPassphrase } from "./people.ts";

/** So many passkeys a person may have. */
export const MOST_PASSKEYS = 10;

/** Bytes in letters, as browsers write them. */
const bytes = z
  .string()
  .max(20_000)
  .regex(/^[\w-]+$/);
/** What a browser is to be asked with; made and read by the libraries for it on both sides. */
const ofBrowser = <T extends object>() => z.custom<T>((value) => typeof value === "object" && value !== null);
const credential = {
  id: bytes,
  rawId: bytes,
  type: z.literal("public-key"),
  authenticatorAttachment: z.enum(["platform", "cross-platform"]).optional(),
  /** Nothing is asked of extensions, and nothing is read of them. */
  clientExtensionResults: z.unknown().transform(() => ({})),
};

/** A passkey that a browser has just made. */
const madePasskey = z.object({
  ...credential,
  response: z.object({
    clientDataJSON: bytes,
    attestationObject: bytes,
    transports: z.array(z.string().max(20)).max(10).optional(),
  }),
});
export type MadePasskey = z.infer<typeof madePasskey>;

/** A passkey that a browser shows to sign in. */
const shownPasskey = z.object({
  ...credential,
  response: z.object({
    clientDataJSON: bytes,
    authenticatorData: bytes,
    signature: bytes,
    userHandle: bytes.optional(),
  }),
});
export type ShownPasskey = z.infer<typeof shownPasskey>;

/**
 * Begins with a passkey: what the browser is asked to make, within five minutes. Refused (422) for a wrong passphrase, on a
 * device that several people use, and where the address has no name.
 */
export const beginPasskey = {
  method: "POST",
  path: "/api/me/passkeys/begin",
  may: { by: "observer" },
  body: z.object({ passphrase: typedPassphrase }),
  answer: ofBrowser<PublicKeyCredentialCreationOptionsJSON>(),
} as const satisfies Endpoint;

/** Keeps a passkey. The same once more is told as success. Refused (422) for one that was not asked for, or too late. */
export const addPasskey = {
  method: "POST",
  path: "/api/me/passkeys",
  may: { by: "observer" },
  body: z.object({ id, name: line(60), made: madePasskey }),
  answer: done,
} as const satisfies Endpoint;

/** One's passkeys, the newest first. */
export const listPasskeys = {
  method: "GET",
  path: "/api/me/passkeys",
  may: { by: "observer" },
  answer: z.array(z.object({ id, name: z.string(), madeAt: instant, usedAt: instant.nullable() })),
} as const satisfies Endpoint;

/** Takes a passkey away: it opens nothing any more. Said again it changes nothing. */
export const removePasskey = {
  method: "DELETE",
  path: "/api/me/passkeys/:id",
  may: { by: "observer" },
  params: z.object({ id }),
  answer: done,
} as const satisfies Endpoint;

/** What the browser is asked to show, within five minutes, by whoever wants to sign in. */
export const askForPasskey = {
  method: "POST",
  path: "/api/sign-in/passkey/begin",
  may: { by: "door" },
  answer: ofBrowser<PublicKeyCredentialRequestOptionsJSON>(),
} as const satisfies Endpoint;

/**
 * Signs in by a passkey, with no name, passphrase or code: the device has made sure of who holds it. Refused (401) in the same
 * words whatever is wrong with it, and (429) for a while after too many tries.
 */
export const signInByPasskey = {
  method: "POST",
  path: "/api/sign-in/passkey",
  may: { by: "door" },
  body: z.object({ shown: shownPasskey, keep: z.boolean() }),
  answer: done,
} as const satisfies Endpoint;
