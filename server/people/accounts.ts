import { randomUUID } from "node:crypto";
import type { IncomingHttpHeaders } from "node:http";
import { fromNodeHeaders } from "better-auth/node";
import { and, eq, inArray, isNull, ne, not, or, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import { HttpProblem, unfit } from "../frame/problem.ts";
import { forgettingPeople, type Signals } from "../frame/signals.ts";
import type { Db } from "../store/opened.ts";
import * as t from "../store/tables/accounts.ts";
import { authOf, secretOf } from "./better-auth.ts";
import { openPasskeys, type Passkeys } from "./passkeys.ts";

/** Seconds for which a sign-in need not be looked up again, if another process ended it and could not say so. */
const KNOWN_S = 5;
const MOST_KNOWN = 2000;

/** Who a request is signed in as. */
interface SignedIn {
  readonly accountId: string;
  readonly signInId: string;
  readonly secondFactor: boolean;
  /** With a passkey, which is two factors in one. */
  readonly byPasskey: boolean;
}

/** Cookies for the answer, each as a `Set-Cookie` line. */
type Cookies = readonly string[];

interface Device {
  readonly id: string;
  readonly device: string;
  readonly since: string;
  readonly usedAt: string;
  readonly here: boolean;
}

/** Accounts of the whole server. What an account is in a school, its membership, is not known here. */
export interface Accounts {
  /** Who has signed in on the device that asks. */
  who(headers: IncomingHttpHeaders): Promise<SignedIn | undefined>;
  /** As `who`, and lengthens a sign-in that is kept. */
  renewed(headers: IncomingHttpHeaders): Promise<{ signedIn: SignedIn | undefined; cookies: Cookies }>;
  /** Makes an account with no passphrase. @returns its id */
  make(): Promise<string>;
  /** Takes an account away, with its passphrase and sign-ins. */
  remove(accountId: string): Promise<void>;
  /**
   * Sets a passphrase where someone may who does not know the one of before: a second factor is off, passkeys go, all sign-ins
   * end.
   */
  reset(accountId: string, passphrase: string): Promise<void>;
  /**
   * The first step of a sign-in. @param accountId undefined takes as long as a wrong passphrase
   * @throws HttpProblem 401
   */
  signIn(asked: SignInAsked): Promise<{ second: boolean; cookies: Cookies }>;
  /** The second step. @throws HttpProblem 401 */
  second(headers: IncomingHttpHeaders, code: string): Promise<Cookies>;
  /** Signs an account in without a passphrase: whoever calls this has made sure of who it is. */
  begin(accountId: string, headers: IncomingHttpHeaders, how?: Vouched): Promise<Cookies>;
  /** Makes sure of a person who is signed in. @throws HttpProblem 422 when the passphrase is wrong */
  sure(headers: IncomingHttpHeaders, passphrase: string): Promise<void>;
  readonly passkeys: Passkeys;
  /** A hash of a code, slow to guess; and whether a code is the one of a hash. */
  hash(code: string): Promise<string>;
  verify(hash: string, code: string): Promise<boolean>;
  /** Ends the sign-in of the device that asks. */
  end(headers: IncomingHttpHeaders): Promise<Cookies>;
  /** Ends the sign-ins of an account, but for the one given. */
  endAll(accountId: string, but?: string): Promise<void>;
  devices(accountId: string, signInId: string): Promise<Device[]>;
  endDevice(accountId: string, id: string): Promise<void>;
  /** @throws HttpProblem 422 when the one of before is wrong */
  changePassphrase(headers: IncomingHttpHeaders, before: string, passphrase: string): Promise<Cookies>;
  /** @throws HttpProblem 422 when the passphrase is wrong */
  beginSecondFactor(headers: IncomingHttpHeaders, passphrase: string): Promise<{ address: string; secret: string }>;
  /** @throws HttpProblem 422 when the code is wrong */
  confirmSecondFactor(headers: IncomingHttpHeaders, code: string): Promise<Cookies>;
  /** @throws HttpProblem 422 when the passphrase is wrong */
  endSecondFactor(headers: IncomingHttpHeaders, passphrase: string): Promise<Cookies>;
  /** Of these accounts, those that have a second factor. */
  withSecondFactor(accountIds: readonly string[]): Promise<ReadonlySet<string>>;
}

/** How a sign-in that someone vouches for began, and whether it outlives the browser. */
interface Vouched {
  readonly keep: boolean;
  readonly byPasskey?: boolean;
}

interface SignInAsked {
  readonly accountId: string | undefined;
  readonly passphrase: string;
  /** Whether it outlives the browser. */
  readonly keep: boolean;
  readonly headers: IncomingHttpHeaders;
}

/** A code of an app holds for its own half minute, the one before and the one after. */
const CODE_HOLDS_S = 90;

/** What the library refuses, as it names it. */
const codeOf = (error: unknown): string =>
  String((error as { body?: { code?: unknown } } | undefined)?.body?.code ?? "");

const wrong = () =>
  new HttpProblem(
    401,
    "Not signed in",
    "No one of this school has this name and passphrase. Look at both; the lead can let you in again with a new link.",
  );

const refusing = <T>(work: Promise<T>, problem: () => Error): Promise<T> =>
  work.catch((error: unknown) => {
    // Only what the library itself refuses: a database that is away is not a wrong passphrase.
    throw codeOf(error) ? problem() : error;
  });

const badPassphrase = () =>
  unfit("This is not your passphrase. Nothing was changed.", [
    { field: "passphrase", says: "This is not your passphrase." },
  ]);
const badCode = () =>
  unfit("This is not the code that the app shows now. Wait for the next one and type it.", [
    { field: "code", says: "Not the code of now." },
  ]);

/**
 * Opens the accounts of a server.
 * @param db in the role that sees accounts and no school
 */
export async function openAccounts(db: Db, origin: string, signals: Signals): Promise<Accounts> {
  const auth = authOf({ db, secret: await secretOf(db, "sign-in"), origin });
  const context = await auth.$context;
  const cookieName = context.authCookies.sessionToken.name;
  const known = new LRUCache<string, { readonly is: SignedIn | undefined }>({ max: MOST_KNOWN, ttl: KNOWN_S * 1000 });
  const forget = forgettingPeople(signals, () => known.clear());
  const cookiesOf = (headers: Headers): Cookies => headers.getSetCookie();
  /** Takes a code as used; false for one that was used while it holds. Of two at the same moment one comes first. */
  const isFirstUse = async (accountId: string, code: string) => {
    const held = sql`${t.twoFactor.usedAt} > now() - make_interval(secs => ${CODE_HOLDS_S})`;
    const used = await db
      .update(t.twoFactor)
      .set({ usedCode: code, usedAt: sql`now()` })
      .where(
        and(
          eq(t.twoFactor.userId, accountId),
          or(isNull(t.twoFactor.usedCode), ne(t.twoFactor.usedCode, code), not(held)),
        ),
      )
      .returning({ id: t.twoFactor.id });
    return used.length > 0;
  };
  /** The cookie of a sign-in, undefined where there is none, so that nothing is asked. */
  const tokenIn = ({ cookie = "" }: IncomingHttpHeaders) =>
    cookie.includes(`${cookieName}=`)
      ? cookie
          .split(";")
          .find((one) => one.trim().startsWith(`${cookieName}=`))
          ?.trim()
      : undefined;
  const asSignedIn = (
    found: {
      session: { id: string; byPasskey?: unknown };
      user: { id: string; twoFactorEnabled?: unknown };
    } | null,
  ): SignedIn | undefined =>
    found
      ? {
          accountId: found.user.id,
          signInId: found.session.id,
          secondFactor: found.user.twoFactorEnabled === true,
          byPasskey: found.session.byPasskey === true,
        }
      : undefined;
  const own = async (accountId: string) => (await context.internalAdapter.listSessions(accountId)) ?? [];

  return {
    who: async (headers) => {
      const token = tokenIn(headers);
      if (!token) return undefined;
      const before = known.get(token);
      if (before) return before.is;
      const is = asSignedIn(
        await auth.api.getSession({ headers: fromNodeHeaders(headers), query: { disableRefresh: true } }),
      );
      known.set(token, { is });
      return is;
    },
    renewed: async (headers) => {
      if (!tokenIn(headers)) return { signedIn: undefined, cookies: [] };
      const { headers: told, response } = await auth.api.getSession({
        headers: fromNodeHeaders(headers),
        returnHeaders: true,
      });
      return { signedIn: asSignedIn(response), cookies: cookiesOf(told) };
    },
    make: async () => {
      const id = randomUUID();
      const now = new Date();
      const made = { id, name: "", email: `${id}@people.invalid`, username: id, createdAt: now, updatedAt: now };
      await db.insert(t.user).values(made);
      return id;
    },
    remove: async (accountId) => {
      await db.delete(t.user).where(eq(t.user.id, accountId));
      forget();
    },
    reset: async (accountId, passphrase) => {
      const password = await context.password.hash(passphrase);
      const now = new Date();
      const made = {
        userId: accountId,
        accountId,
        providerId: "credential",
        password,
        createdAt: now,
        updatedAt: now,
      };
      await db.transaction(async (tx) => {
        await tx.delete(t.account).where(eq(t.account.userId, accountId));
        await tx.insert(t.account).values({ id: randomUUID(), ...made });
        await tx.delete(t.twoFactor).where(eq(t.twoFactor.userId, accountId));
        await tx.delete(t.passkeys).where(eq(t.passkeys.userId, accountId));
        await tx.update(t.user).set({ twoFactorEnabled: false }).where(eq(t.user.id, accountId));
        await tx.delete(t.session).where(eq(t.session.userId, accountId));
      });
      forget();
    },
    signIn: async ({ accountId, passphrase, keep, headers }) => {
      const { headers: told, response } = await refusing(
        auth.api.signInUsername({
          body: { username: accountId ?? "no-one", password: passphrase, rememberMe: keep },
          headers: fromNodeHeaders(headers),
          returnHeaders: true,
        }),
        wrong,
      );
      return { second: "twoFactorRedirect" in (response ?? {}), cookies: cookiesOf(told) };
    },
    second: async (headers, code) => {
      const { headers: told, response } = await refusing(
        auth.api.verifyTOTP({ body: { code }, headers: fromNodeHeaders(headers), returnHeaders: true }),
        () =>
          new HttpProblem(
            401,
            "Not signed in",
            "This is not the code that the app shows now, or the first step was too long ago. Type the next code, or begin again.",
          ),
      );
      if (await isFirstUse(response.user.id, code)) return cookiesOf(told);
      await context.internalAdapter.deleteSession(response.token);
      throw new HttpProblem(
        401,
        "Not signed in",
        "This code was used already. Wait until the app shows another, and type that.",
      );
    },
    hash: (code) => context.password.hash(code),
    verify: (hash, code) => context.password.verify({ hash, password: code }),
    begin: async (accountId, headers, { keep, byPasskey = false } = { keep: true }) => {
      const { headers: told } = await auth.api.signInVouched({
        body: { userId: accountId, keep, byPasskey },
        headers: fromNodeHeaders(headers),
        returnHeaders: true,
      });
      return cookiesOf(told);
    },
    sure: async (headers, passphrase) => {
      await refusing(
        auth.api.verifyPassword({ body: { password: passphrase }, headers: fromNodeHeaders(headers) }),
        badPassphrase,
      );
    },
    passkeys: openPasskeys(db, await secretOf(db, "passkey")),
    end: async (headers) => {
      const { headers: told } = await auth.api.signOut({ headers: fromNodeHeaders(headers), returnHeaders: true });
      forget();
      return cookiesOf(told);
    },
    endAll: async (accountId, but) => {
      const going = (await own(accountId)).filter(({ id }) => id !== but);
      for (const { token } of going) await context.internalAdapter.deleteSession(token);
      forget();
    },
    devices: async (accountId, signInId) =>
      (await own(accountId))
        .map((one) => ({
          id: one.id,
          device: one.userAgent ?? "",
          since: new Date(one.createdAt).toISOString(),
          usedAt: new Date(one.updatedAt).toISOString(),
          here: one.id === signInId,
        }))
        .sort((one, other) => Number(other.here) - Number(one.here) || other.usedAt.localeCompare(one.usedAt)),
    endDevice: async (accountId, id) => {
      const found = (await own(accountId)).find((one) => one.id === id);
      if (found) await context.internalAdapter.deleteSession(found.token);
      forget();
    },
    changePassphrase: async (headers, before, passphrase) => {
      const { headers: told } = await refusing(
        auth.api.changePassword({
          body: { currentPassword: before, newPassword: passphrase, revokeOtherSessions: true },
          headers: fromNodeHeaders(headers),
          returnHeaders: true,
        }),
        badPassphrase,
      );
      forget();
      return cookiesOf(told);
    },
    beginSecondFactor: async (headers, passphrase) => {
      const begun = await refusing(
        auth.api.enableTwoFactor({ body: { password: passphrase }, headers: fromNodeHeaders(headers) }),
        badPassphrase,
      );
      const totpURI = "totpURI" in begun ? begun.totpURI : "";
      return { address: totpURI, secret: new URL(totpURI).searchParams.get("secret") ?? "" };
    },
    confirmSecondFactor: async (headers, code) => {
      const { headers: told } = await refusing(
        auth.api.verifyTOTP({ body: { code }, headers: fromNodeHeaders(headers), returnHeaders: true }),
        badCode,
      );
      forget();
      return cookiesOf(told);
    },
    endSecondFactor: async (headers, passphrase) => {
      const { headers: told } = await refusing(
        auth.api.disableTwoFactor({
          body: { password: passphrase },
          headers: fromNodeHeaders(headers),
          returnHeaders: true,
        }),
        badPassphrase,
      );
      forget();
      return cookiesOf(told);
    },
    withSecondFactor: async (accountIds) => {
      if (accountIds.length === 0) return new Set();
      const found = await db
        .select({ id: t.user.id })
        .from(t.user)
        .where(and(inArray(t.user.id, [...accountIds]), eq(t.user.twoFactorEnabled, true)));
      return new Set(found.map(({ id }) => id));
    },
  };
}
