import { randomBytes } from "node:crypto";
import type { Request } from "express";
import { endDevice, letDeviceIn, listDevices, setLock, setMyCode, signInByCode } from "#contract";
import { mustAgree } from "../frame/again.ts";
import { HttpProblem, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

const COOKIE = "keen.device";
/** The longest that browsers keep a cookie. */
const KEPT_S = 400 * 86_400;
/** Wrong codes of one person on one device; their passphrase works all the while. */
const MOST_WRONG = 5;
const MINUTES = 15;

const done = { done: true as const };

/** What a shared device keeps, if the one that asks is one. */
function tokenOf({ headers: { cookie = "" } }: Pick<Request, "headers">): string | undefined {
  const found = cookie.split(";").find((one) => one.trim().startsWith(`${COOKIE}=`));
  return found?.split("=")[1]?.trim();
}

/** The shared device that asks, in this school. */
export async function deviceThatAsks(school: School, request: Pick<Request, "headers">) {
  const token = tokenOf(request);
  return token === undefined ? undefined : school.devices.byToken(token);
}

/** Devices that several people use: let in by a lead, entered by a code that is worth nothing elsewhere. */
export function deviceRoutes({ serve, accounts, openTries, secureCookies }: Domain): void {
  const apart = { apart: true } as const;
  const wrongCodes = openTries({ of: "code", most: MOST_WRONG, minutes: MINUTES, what: "codes" });

  serve(letDeviceIn, async ({ body: { id, name }, school, now, cookies }) => {
    const token = randomBytes(24).toString("base64url");
    if (await school.devices.letIn({ id, name, token, at: now.toISOString() }))
      cookies([
        `${COOKIE}=${token}; Path=/; Max-Age=${KEPT_S}; HttpOnly; SameSite=Lax${secureCookies ? "; Secure" : ""}`,
      ]);
    return done;
  });

  serve(listDevices, async ({ school, request }) => {
    const here = await deviceThatAsks(school, request);
    const devices = await school.devices.list();
    return {
      lockMinutes: (await school.settings.read()).lockMinutes,
      devices: devices.map((one) => ({ ...one, here: one.id === here?.id })),
    };
  });

  serve(endDevice, async ({ params: { id }, school }) => {
    await school.devices.end(id);
    return done;
  });

  serve(setLock, async ({ body: { version, lockMinutes }, school }) => {
    if (await school.settings.change({ lockMinutes }, version)) return { ...done, version: version + 1 };
    const before = await school.settings.read();
    const theirs = { lockMinutes: before.lockMinutes };
    mustAgree("the settings", { version: before.version, mine: { lockMinutes }, theirs });
    return { ...done, version: before.version };
  });

  serve(
    setMyCode,
    async ({ body: { code }, actor, school, request, now }) => {
      const device = await deviceThatAsks(school, request);
      if (!device || !actor.memberId)
        throw unfit("A code is for a device that the lead has let in as a shared one, and this is none.");
      if (/^(\d)\1+$/.test(code) || "0123456789876543210".includes(code))
        throw unfit("This code would be tried first.", [{ field: "code", says: "This would be tried first." }]);
      const hash = await accounts.hash(code);
      const { memberId, name: by } = actor;
      await school.together(async () => {
        await school.devices.setCode(device.id, memberId, hash);
        await school.trail.write({ at: now.toISOString(), memberId, by, did: "device" });
      });
      return done;
    },
    apart,
  );

  serve(
    signInByCode,
    async ({ body: { memberId, code }, school, request, now, cookies }) => {
      const device = await deviceThatAsks(school, request);
      const wrong = new HttpProblem(
        401,
        "Not signed in",
        "This is not your code on this device. Your passphrase works too.",
      );
      if (!device) throw wrong;
      const found = await wrongCodes.lookUp(`${device.id} ${memberId}`, async () => {
        const kept = await school.devices.codeOf(device.id, memberId);
        const right = kept?.accountId && (await accounts.verify(kept.hash, code));
        if (right) return { ...kept, accountId: kept.accountId ?? "" };
        const by = kept?.name ?? "no one of this name";
        await school.trail.write({
          at: now.toISOString(),
          memberId: kept ? memberId : null,
          by,
          did: "sign-in-failed",
        });
        return undefined;
      });
      if (!found) throw wrong;
      await school.together(async () => {
        await school.devices.used(device.id, now.toISOString());
        await school.trail.write({ at: now.toISOString(), memberId, by: found.name, did: "sign-in" });
      });
      cookies(await accounts.begin(found.accountId, request.headers, { keep: false }));
      return done;
    },
    apart,
  );
}
