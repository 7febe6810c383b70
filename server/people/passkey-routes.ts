import type { Request } from "express";
import { addPasskey, askForPasskey, beginPasskey, listPasskeys, removePasskey, signInByPasskey } from "#contract";
import type { Actor } from "../frame/actor.ts";
import { originAsked } from "../frame/network.ts";
import { HttpProblem, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { deviceThatAsks } from "./device-routes.ts";
import type { Site } from "./passkeys.ts";
import { mustBeSignedIn, OWN_PASSPHRASE } from "./signed-in.ts";

/** Passkeys from one address that open nothing; a device shows no wrong one by mistake. */
const MOST_FROM_ADDRESS = 60;
const MINUTES = 5;
const done = { done: true as const };

const siteOf = async (school: School, request: Request): Promise<Site> => ({
  name: (await school.settings.read()).name,
  origin: originAsked(request),
});

/** Signing in by what a device holds, in place of a passphrase: one's own passkeys, and the door. */
export function passkeyRoutes({ serve, accounts, openTries }: Domain): void {
  // Accounts are reached outside of a school's transaction.
  const apart = { apart: true } as const;
  const passphrases = openTries(OWN_PASSPHRASE);
  const fromHere = openTries({ of: "passkey", most: MOST_FROM_ADDRESS, minutes: MINUTES, what: "passkeys" });
  const written = (school: School, { memberId, name }: Actor, now: Date) =>
    school.trail.write({ at: now.toISOString(), memberId, by: name, did: "passkey" });

  serve(
    beginPasskey,
    async ({ body: { passphrase }, school, actor, request, now }) => {
      const { accountId } = await mustBeSignedIn(accounts, request.headers);
      if (await deviceThatAsks(school, request))
        throw unfit(
          "Several people use this device, and a passkey opens for whoever can unlock it. Make yours on one of your own.",
        );
      await passphrases.guess(accountId, () => accounts.sure(request.headers, passphrase));
      const site = await siteOf(school, request);
      return accounts.passkeys.begin(accountId, { site, person: actor.name, now });
    },
    apart,
  );

  serve(
    addPasskey,
    async ({ body: { id, name, made }, school, actor, request, now }) => {
      const { accountId } = await mustBeSignedIn(accounts, request.headers);
      const site = await siteOf(school, request);
      if (await accounts.passkeys.add(accountId, { id, name, made, site, now })) await written(school, actor, now);
      return done;
    },
    apart,
  );

  serve(
    listPasskeys,
    async ({ request }) => accounts.passkeys.list((await mustBeSignedIn(accounts, request.headers)).accountId),
    apart,
  );

  serve(
    removePasskey,
    async ({ params: { id }, school, actor, request, now }) => {
      const { accountId } = await mustBeSignedIn(accounts, request.headers);
      if (await accounts.passkeys.remove(accountId, id)) await written(school, actor, now);
      return done;
    },
    apart,
  );

  serve(
    askForPasskey,
    async ({ school, request, now }) => accounts.passkeys.ask(await siteOf(school, request), now),
    apart,
  );

  serve(
    signInByPasskey,
    async ({ body: { shown, keep }, school, request, now, cookies }) => {
      const site = await siteOf(school, request);
      const deed = { at: now.toISOString() };
      const { accountId, member } = await fromHere.guess(request.ip ?? "", async () => {
        const accountId = await accounts.passkeys.whose(shown, site, now);
        // Someone of another school of this server is no one here.
        const member = accountId === undefined ? undefined : await school.people.byAccount(accountId);
        if (accountId !== undefined && member) return { accountId, member };
        await school.trail.write({ ...deed, memberId: null, by: "a passkey of no one here", did: "sign-in-failed" });
        throw new HttpProblem(
          401,
          "Not signed in",
          "This passkey opens nothing here: it was taken away, is of another school, or took too long. Sign in by your name and passphrase.",
        );
      });
      await school.trail.write({ ...deed, memberId: member.id, by: member.name, did: "sign-in" });
      cookies(await accounts.begin(accountId, request.headers, { keep, byPasskey: true }));
      return done;
    },
    apart,
  );
}
