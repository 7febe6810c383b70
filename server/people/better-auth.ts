import { randomBytes, randomUUID } from "node:crypto";
import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { createAuthEndpoint } from "better-auth/api";
import { setSessionCookie } from "better-auth/cookies";
import { twoFactor, username } from "better-auth/plugins";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { LEAST_PASSPHRASE, MOST_PASSPHRASE } from "#contract";
import type { Db } from "../store/opened.ts";
import * as t from "../store/tables/accounts.ts";

const DAY_S = 86_400;
/** A sign-in that is kept on the device lasts so long after it was last used. */
const KEPT_DAYS = 14;

/** A secret of this server; the first process that asks makes it. */
export async function secretOf(db: Db, name: "sign-in" | "passkey"): Promise<string> {
  const made = randomBytes(32).toString("base64url");
  await db.insert(t.secrets).values({ name, value: made }).onConflictDoNothing();
  const [found] = await db.select().from(t.secrets).where(eq(t.secrets.name, name));
  return found?.value ?? made;
}

/** Signs in whom the caller vouches for. It is called from here alone: none of the library's addresses is served. */
const vouched = () => ({
  id: "vouched",
  endpoints: {
    signInVouched: createAuthEndpoint(
      "/sign-in/vouched",
      { method: "POST", body: z.object({ userId: z.string(), keep: z.boolean(), byPasskey: z.boolean() }) },
      async (ctx) => {
        const found = await ctx.context.internalAdapter.findUserById(ctx.body.userId);
        if (!found) throw new Error("There is no such account");
        const { keep, byPasskey } = ctx.body;
        const made = await ctx.context.internalAdapter.createSession(found.id, !keep, { byPasskey });
        await setSessionCookie(ctx, { session: made, user: found }, !keep);
        return ctx.json({ done: true });
      },
    ),
  },
});

interface AuthWanted {
  readonly db: Db;
  readonly secret: string;
  /** Where the application is reached, with `https` its cookies are only sent under TLS. */
  readonly origin: string;
}

/** The library that signs in, as it is set up here: none of its addresses is served. */
export function authOf({ db, secret, origin }: AuthWanted) {
  return betterAuth({
    appName: "Keen Sapling",
    baseURL: origin,
    secret,
    telemetry: { enabled: false },
    logger: { disabled: true },
    database: drizzleAdapter(db, { provider: "pg", schema: t, transaction: true }),
    // Who may try how often, and from where a write may come, is for the gate to say.
    rateLimit: { enabled: false },
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: LEAST_PASSPHRASE,
      maxPasswordLength: MOST_PASSPHRASE,
    },
    session: {
      expiresIn: KEPT_DAYS * DAY_S,
      updateAge: DAY_S,
      additionalFields: { byPasskey: { type: "boolean", required: false, input: false } },
    },
    plugins: [
      username({
        displayUsername: false,
        minUsernameLength: 1,
        maxUsernameLength: 64,
        usernameValidator: () => true,
      }),
      twoFactor({ issuer: "Keen Sapling" }),
      vouched(),
    ],
    advanced: {
      cookiePrefix: "keen",
      useSecureCookies: origin.startsWith("https:"),
      defaultCookieAttributes: { sameSite: "lax", httpOnly: true },
      disableCSRFCheck: true,
      ipAddress: { disableIpTracking: true },
      database: { generateId: () => randomUUID() },
    },
  });
}
