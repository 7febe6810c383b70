import { acceptInvitation, comeIn, getInvitation, signIn, signInSecond, signOut, whoAsks } from "#contract";
import { isTimeZone } from "#core/ledger";
import { isHere } from "../frame/network.ts";
import { HttpProblem, notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { deviceThatAsks } from "./device-routes.ts";
import { refuseCommon } from "./passphrase.ts";

/** Wrong passphrases of one name, and from one address; the right person is never kept out for longer. */
const MOST_OF_NAME = 20;
const MOST_FROM_ADDRESS = 60;
const MINUTES = 5;

const gone = () =>
  new HttpProblem(
    404,
    "This link does not work any more",
    "It was used already, its last day has passed, or a newer one was made. Ask the lead of your school for a new one.",
  );

/** The invitation that a link is, while it can be used. @throws HttpProblem 404 */
async function open(school: School, token: string, now: Date) {
  const found = await school.invitations.byToken(token);
  if (!found || found.usedAt !== null || found.endsAt <= now.toISOString()) throw gone();
  const member = found.memberId === null ? undefined : await school.people.find(found.memberId);
  if (found.memberId !== null && (!member || member.removedAt !== null)) throw gone();
  return { id: found.id, endsAt: found.endsAt, member };
}

/** What stands at the door of a school: who asks, signing in and out, links to come in with. */
export function doorRoutes({ serve, accounts, entrance, openTries }: Domain): void {
  // Accounts are reached outside of a school's transaction, so that each of these is several.
  const how = { apart: true } as const;
  const ofName = openTries({ of: "name", most: MOST_OF_NAME, minutes: MINUTES, what: "passphrases for this name" });
  const fromHere = openTries({ of: "sign-in", most: MOST_FROM_ADDRESS, minutes: MINUTES, what: "passphrases" });

  serve(
    whoAsks,
    async ({ actor: { schoolId }, school, request, cookies }) => {
      const renewed = await accounts.renewed(request.headers);
      cookies(renewed.cookies);
      const { ready, demo, name } = await entrance.how(schoolId);
      const actor = await entrance.memberOf(request);
      const { memberId, as } = actor ?? {};
      const device = await deviceThatAsks(school, request);
      return {
        device: device
          ? {
              name: device.name,
              lockMinutes: (await school.settings.read()).lockMinutes,
              people: await school.devices.peopleOn(device.id),
            }
          : null,
        school: { name },
        me:
          !actor || as === "visitor" || as === undefined
            ? null
            : {
                id: memberId ?? null,
                name: actor.name,
                role: as,
                way: memberId ? ("signed-in" as const) : ("machine" as const),
                secondFactor: renewed.signedIn?.secondFactor ?? false,
                byPasskey: renewed.signedIn?.byPasskey ?? false,
                lacksSecond: actor.lacksSecond ?? false,
              },
        // From elsewhere it is entered by signing in, as any other.
        demo: demo && isHere(request),
        ready,
      };
    },
    how,
  );

  serve(
    signIn,
    async ({ body: { name, passphrase, keep }, actor: { schoolId }, school, request, now, cookies }) => {
      const from = request.ip ?? "";
      const told = await fromHere.guess(from, () =>
        ofName.guess(`${schoolId} ${name.toLowerCase()}`, async () => {
          const member = await school.people.accountNamed(name);
          const deed = {
            at: now.toISOString(),
            memberId: member?.id ?? null,
            by: member?.name ?? "no one of this name",
          };
          try {
            const accountId = member?.accountId ?? undefined;
            const done = await accounts.signIn({ accountId, passphrase, keep, headers: request.headers });
            if (!done.second) await school.trail.write({ ...deed, did: "sign-in" });
            return done;
          } catch (error) {
            if (error instanceof HttpProblem) await school.trail.write({ ...deed, did: "sign-in-failed" });
            throw error;
          }
        }),
      );
      cookies(told.cookies);
      return { second: told.second };
    },
    how,
  );

  serve(
    signInSecond,
    async ({ body: { code }, school, request, now, cookies }) => {
      const lines = await fromHere.guess(request.ip ?? "", () => accounts.second(request.headers, code));
      const cookie = lines.map((line) => line.split(";")[0]).join("; ");
      const is = await accounts.who({ cookie });
      const member = is && (await school.people.byAccount(is.accountId));
      await school.trail.write({
        at: now.toISOString(),
        memberId: member?.id ?? null,
        by: member?.name ?? "",
        did: "sign-in",
      });
      cookies(lines);
      return { done: true as const };
    },
    how,
  );

  serve(
    signOut,
    async ({ school, request, now, cookies }) => {
      const actor = await entrance.memberOf(request);
      if (actor?.memberId)
        await school.trail.write({
          at: now.toISOString(),
          memberId: actor.memberId,
          by: actor.name,
          did: "sign-out",
        });
      cookies(await accounts.end(request.headers));
      return { done: true as const };
    },
    how,
  );

  serve(
    comeIn,
    async ({ body: { role }, actor: { schoolId }, school, request, now, cookies }) => {
      // From elsewhere a school where nothing is real is not entered either: its machine has an address and a load.
      if (!(await entrance.how(schoolId)).demo || !isHere(request)) throw notFound("page");
      const member = (await school.people.list()).find((one) => one.role === role);
      if (!member) throw notFound("person");
      const accountId = member.accountId ?? (await accounts.make());
      if (member.accountId === null) await school.people.setAccount(member.id, accountId);
      entrance.changed();
      const deed = { at: now.toISOString(), memberId: member.id, by: member.name, did: "sign-in" as const };
      await school.trail.write(deed);
      cookies(await accounts.begin(accountId, request.headers));
      return { done: true as const };
    },
    how,
  );

  serve(
    getInvitation,
    async ({ params: { token }, school, now }) => {
      const { member, endsAt } = await open(school, token, now);
      const { name, timeZone } = await school.settings.read();
      return {
        school: { name, timeZone: await school.settings.zone(), zoneChosen: timeZone !== null },
        who: member ? { name: member.name, role: member.role } : null,
        endsAt,
      };
    },
    how,
  );

  serve(
    acceptInvitation,
    async ({ params: { token }, body: { passphrase, setUp }, school, request, now, cookies }) => {
      const { id, member } = await open(school, token, now);
      if (member === undefined && setUp === null)
        throw unfit("Say who you are and what the school is called.", [
          { field: "setUp", says: "Please fill this in." },
        ]);
      if (setUp && !isTimeZone(setUp.timeZone))
        throw unfit(`${setUp.timeZone} is not a time zone that this server knows.`, [
          { field: "setUp.timeZone", says: "Choose one of the list, for example Europe/London." },
        ]);
      refuseCommon(passphrase, [member?.name ?? setUp?.name ?? "", setUp?.school ?? ""]);
      // The account is whole before anyone becomes it, so that whatever breaks off leaves the link as it was.
      const accountId = await accounts.make();
      await accounts.reset(accountId, passphrase);
      const before = await school.together(async () => {
        if (!(await school.invitations.use(id, now.toISOString()))) throw gone();
        const memberId = member?.id ?? crypto.randomUUID();
        const by = member?.name ?? setUp?.name ?? "";
        if (!member && setUp) {
          const made = { name: setUp.name, role: "lead" as const, classIds: [], groupIds: [], typedNames: [] };
          if (await school.people.add(memberId, made))
            throw unfit("This name stands for someone else of this school.", [
              { field: "setUp.name", says: "Someone of the school has, or had, this name." },
            ]);
          await school.settings.change({ name: setUp.school, timeZone: setUp.timeZone }, null);
        }
        await school.trail.write({ at: now.toISOString(), memberId, by, did: member ? "passphrase" : "set-up" });
        return school.people.setAccount(memberId, accountId);
      });
      if (before) await accounts.remove(before);
      entrance.changed();
      cookies(await accounts.begin(accountId, request.headers));
      return { done: true as const };
    },
    how,
  );
}
