import { createHash, createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import {
  type AuthenticatorTransport,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from "@simplewebauthn/server";
import { and, desc, eq, lt, sql } from "drizzle-orm";
import { type MadePasskey, MOST_PASSKEYS, type ShownPasskey } from "#contract";
import { unfit } from "../frame/problem.ts";
import type { Db } from "../store/opened.ts";
import * as t from "../store/tables/accounts.ts";

/** The pages that a passkey is for: it is worth nothing under another name. */
export interface Site {
  /** Of the school, as the device shows it. */
  readonly name: string;
  /** @example "https://keen.school.example" */
  readonly origin: string;
}

/** Passkeys of accounts. What comes from a browser is checked by the library for it. */
export interface Passkeys {
  /**
   * What the browser is asked to make for an account, whose person has just been made sure of.
   * @throws HttpProblem 422 when the address has no name, and for an account with as many as one may have
   */
  begin(
    accountId: string,
    as: { readonly site: Site; readonly person: string; readonly now: Date },
  ): Promise<PublicKeyCredentialCreationOptionsJSON>;
  /** @returns false when it is there already. @throws HttpProblem 422 for one that was not asked for here and now */
  add(accountId: string, wanted: PasskeyWanted): Promise<boolean>;
  list(accountId: string): Promise<{ id: string; name: string; madeAt: string; usedAt: string | null }[]>;
  /** @returns false when there is none of this id */
  remove(accountId: string, id: string): Promise<boolean>;
  /** What a browser is asked to show. Nothing is kept of it, so that asking costs nothing. */
  ask(site: Site, now: Date): Promise<PublicKeyCredentialRequestOptionsJSON>;
  /** Whose account a passkey opens; undefined for one that is not ours, taken away, too late or shown twice. */
  whose(shown: ShownPasskey, site: Site, now: Date): Promise<string | undefined>;
}

interface PasskeyWanted {
  readonly id: string;
  readonly name: string;
  readonly made: MadePasskey;
  readonly site: Site;
  readonly now: Date;
}

/** Seconds within which a browser answers. */
const HOLDS_S = 300;
const RANDOM = 16;
const TIME = 8;
const STEP = "passkey";

const hostOf = ({ origin }: Site): string => new URL(origin).hostname;
const hasName = (host: string) => !/^[\d.]+$|^\[/.test(host);

const notAsked = () =>
  unfit("This passkey was not asked for here, or it took more than five minutes. Nothing was kept. Begin again.");

/**
 * @param db in the role that sees accounts and no school
 * @param secret of this server, the same in all of its processes
 */
export function openPasskeys(db: Db, secret: string): Passkeys {
  const signed = (head: Buffer, of: string) => createHmac("sha256", secret).update(`${of}\n`).update(head).digest();
  /** Bytes that only this server makes, for one purpose and until a time: random, the time in ms, and a signature. */
  const challengeFor = (of: string, now: Date) => {
    const until = Buffer.alloc(TIME);
    until.writeBigUInt64BE(BigInt(now.getTime() + HOLDS_S * 1000));
    const head = Buffer.concat([randomBytes(RANDOM), until]);
    // A copy: the library asks for bytes that are not shared with others.
    return new Uint8Array(Buffer.concat([head, signed(head, of)]));
  };
  const isOurs = (challenge: string, of: string, now: Date) => {
    const all = Buffer.from(challenge, "base64url");
    const head = all.subarray(0, RANDOM + TIME);
    const [mine, theirs] = [signed(head, of), all.subarray(RANDOM + TIME)];
    if (theirs.length !== mine.length || !timingSafeEqual(mine, theirs)) return false;
    return head.readBigUInt64BE(RANDOM) >= BigInt(now.getTime());
  };
  /** Takes what was signed as used; false for what was used before. Of two at the same moment one comes first. */
  const isFirstUse = async (clientDataJSON: string, now: Date) => {
    const hash = createHash("sha256").update(clientDataJSON).digest("hex");
    const id = hash.slice(0, 32).replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
    await db
      .delete(t.verification)
      .where(and(eq(t.verification.identifier, STEP), lt(t.verification.expiresAt, now)));
    const expiresAt = new Date(now.getTime() + 2 * HOLDS_S * 1000);
    const kept = await db
      .insert(t.verification)
      .values({ id, identifier: STEP, value: "", expiresAt, createdAt: now, updatedAt: now })
      .onConflictDoNothing()
      .returning({ id: t.verification.id });
    return kept.length > 0;
  };
  const of = (accountId: string) => eq(t.passkeys.userId, accountId);
  const transportsOf = (kept: readonly string[]) => [...kept] as AuthenticatorTransport[];

  return {
    begin: async (accountId, { site, person, now }) => {
      if (!hasName(hostOf(site)))
        throw unfit("A passkey is for a name, and this address is a number. Open Keen Sapling by its name.");
      const there = await db.select().from(t.passkeys).where(of(accountId));
      if (there.length >= MOST_PASSKEYS)
        throw unfit(`You have ${MOST_PASSKEYS} passkeys. Take one away that you no longer use.`);
      const asked = await generateRegistrationOptions({
        rpName: site.name || "Keen Sapling",
        rpID: hostOf(site),
        userName: person,
        userID: new TextEncoder().encode(accountId) as Uint8Array<ArrayBuffer>,
        challenge: challengeFor(`make ${accountId}`, now),
        timeout: HOLDS_S * 1000,
        attestationType: "none",
        excludeCredentials: there.map((one) => ({
          id: one.credentialId,
          transports: transportsOf(one.transports),
        })),
        authenticatorSelection: { residentKey: "required", userVerification: "required" },
      });
      // The library's word for it allows extensions that the browser's does not, and none is asked for.
      return asked as PublicKeyCredentialCreationOptionsJSON;
    },
    add: async (accountId, { id, name, made, site, now }) => {
      const [before] = await db.select().from(t.passkeys).where(eq(t.passkeys.id, id));
      if (before?.userId === accountId && before.credentialId === made.id) return false;
      if (before) throw notAsked();
      const { transports = [], ...response } = made.response;
      const told = await verifyRegistrationResponse({
        response: { ...made, response: { ...response, transports: transportsOf(transports) } } as never,
        expectedChallenge: (challenge) => isOurs(challenge, `make ${accountId}`, now),
        expectedOrigin: site.origin,
        expectedRPID: hostOf(site),
        requireUserVerification: true,
        // Whatever the library refuses has this one cause for the person: nothing here asks the database.
      }).catch(() => undefined);
      if (!told?.verified || !(await isFirstUse(made.response.clientDataJSON, now))) throw notAsked();
      const { credential } = told.registrationInfo;
      const kept = await db
        .insert(t.passkeys)
        .values({
          ...{ id, name, userId: accountId, credentialId: credential.id, counter: credential.counter },
          publicKey: Buffer.from(credential.publicKey).toString("base64url"),
          transports: [...(credential.transports ?? [])],
          madeAt: now.toISOString(),
        })
        .onConflictDoNothing()
        .returning({ id: t.passkeys.id });
      if (kept.length === 0) throw notAsked();
      return true;
    },
    list: async (accountId) =>
      db
        .select({
          ...{ id: t.passkeys.id, name: t.passkeys.name, madeAt: t.passkeys.madeAt, usedAt: t.passkeys.usedAt },
        })
        .from(t.passkeys)
        .where(of(accountId))
        .orderBy(desc(t.passkeys.madeAt), desc(t.passkeys.id)),
    remove: async (accountId, id) => {
      const gone = await db
        .delete(t.passkeys)
        .where(and(of(accountId), eq(t.passkeys.id, id)))
        .returning({ id: t.passkeys.id });
      return gone.length > 0;
    },
    ask: async (site, now) => {
      const asked = await generateAuthenticationOptions({
        rpID: hostOf(site),
        challenge: challengeFor("show", now),
        timeout: HOLDS_S * 1000,
        userVerification: "required",
      });
      return asked as PublicKeyCredentialRequestOptionsJSON;
    },
    whose: async (shown, site, now) => {
      const [found] = await db.select().from(t.passkeys).where(eq(t.passkeys.credentialId, shown.id));
      if (!found) return undefined;
      const told = await verifyAuthenticationResponse({
        response: shown as never,
        expectedChallenge: (challenge) => isOurs(challenge, "show", now),
        expectedOrigin: site.origin,
        expectedRPID: hostOf(site),
        requireUserVerification: true,
        credential: {
          id: found.credentialId,
          publicKey: new Uint8Array(Buffer.from(found.publicKey, "base64url")),
          counter: found.counter,
          transports: transportsOf(found.transports),
        },
      }).catch(() => undefined);
      const { userHandle } = shown.response;
      const isTheirs = userHandle === undefined || Buffer.from(userHandle, "base64url").toString() === found.userId;
      if (!told?.verified || !isTheirs) return undefined;
      if (!(await isFirstUse(shown.response.clientDataJSON, now))) return undefined;
      await db
        .update(t.passkeys)
        .set({
          usedAt: now.toISOString(),
          counter: sql`greatest(${t.passkeys.counter}, ${told.authenticationInfo.newCounter})`,
        })
        .where(eq(t.passkeys.id, found.id));
      return found.userId;
    },
  };
}
