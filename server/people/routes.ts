import { addDays, formatISO, parseISO } from "date-fns";
import type { Request } from "express";
import {
  addPerson,
  beginSecondFactor,
  bringBackPerson,
  changePassphrase,
  confirmSecondFactor,
  editPerson,
  endInvitation,
  endMyDevice,
  endMyOtherDevices,
  endSecondFactor,
  invitePerson,
  listMyDevices,
  listOutbox,
  listPeople,
  mailInvitation,
  markDemo,
  readTrail,
  removeLetter,
  removePerson,
  setLeadsSecond,
} from "#contract";
import type { Actor } from "../frame/actor.ts";
import { mustAgree, mustBeSame } from "../frame/again.ts";
import { originAsked } from "../frame/network.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";
import { invitingLetter } from "./letters.ts";
import type { MemberBody, NameTaken } from "./members.ts";
import { refuseCommon } from "./passphrase.ts";
import { mustBeSignedIn, OWN_PASSPHRASE } from "./signed-in.ts";

const done = { done: true as const };
const hasName = ({ name, by, whose }: NameTaken) => {
  const says =
    by === "here"
      ? `Someone of this school is called ${whose}, and people sign in by their name.`
      : by === "left"
        ? `${whose}, who left, had this name, and marks of theirs carry it. If it is the same person, bring them back.`
        : `Marks under the name ${name} are ${whose}'s.`;
  return unfit(`${says} Another person needs another name: add a letter or the second name. Nothing was changed.`, [
    { field: "name", says: `${says} Another person needs another name.` },
  ]);
};
const lastLead = () =>
  unfit("This is the last lead who can sign in. Make someone else a lead first, and let them come in.");

/** What stands of a person, as it is sent. */
const bodyOf = ({ name, role, classIds, groupIds, adultId = null, typedNames }: MemberBody): MemberBody => ({
  name,
  role,
  classIds: [...classIds].sort(),
  groupIds: [...groupIds].sort(),
  adultId,
  typedNames: [...typedNames].sort(),
});

/** Who did something, and when, for the trail. */
const deedOf = ({ memberId, name }: Actor, now: Date) => ({ at: now.toISOString(), memberId, by: name });

/** A member who is here. @throws HttpProblem 404 */
async function mustMember(school: School, id: string) {
  const found = await school.people.find(id);
  if (!found || found.removedAt !== null) throw notFound("person");
  return found;
}

/** The people of a school, what they do about their own signing in, and the trail. */
export function peopleRoutes({ serve, accounts, entrance, post, openTries }: Domain): void {
  const apart = { apart: true } as const;
  const signedInOf = ({ headers }: Request) => mustBeSignedIn(accounts, headers);
  const passphrases = openTries(OWN_PASSPHRASE);

  serve(
    listPeople,
    async ({ school, now }) => {
      const { people, typed, open, left } = await school.together(async () => ({
        people: await school.people.list(),
        typed: await school.people.typedNames(),
        open: await school.invitations.openFor(now),
        left: await school.people.left(),
      }));
      const second = await accounts.withSecondFactor(people.flatMap(({ accountId }) => accountId ?? []));
      return {
        typed,
        left: left.map(({ removedAt, ...one }) => ({ ...one, leftAt: removedAt })),
        leadsNeedSecond: (await school.settings.read()).leadsNeedSecond,
        people: people.map(({ accountId, typedNames, ...one }) => ({
          ...one,
          typedNames: [...typedNames],
          signsIn: accountId ? ("yes" as const) : open.has(one.id) ? ("invited" as const) : ("none" as const),
          secondFactor: accountId !== null && second.has(accountId),
        })),
      };
    },
    apart,
  );

  serve(
    setLeadsSecond,
    async ({ body: { version, leadsNeedSecond }, school, request }) => {
      const before = await school.settings.read();
      const hasTwo = async () => {
        const { secondFactor, byPasskey } = await signedInOf(request);
        return secondFactor || byPasskey;
      };
      if (leadsNeedSecond && !(await hasTwo()))
        throw unfit("Set up your own second factor first, under My sign-in: without it you would lock yourself out.");
      const told = await school.settings.change({ leadsNeedSecond }, version);
      entrance.changed();
      if (told) return { ...done, version: version + 1 };
      const theirs = { leadsNeedSecond: before.leadsNeedSecond };
      mustAgree("the settings", { version: before.version, mine: { leadsNeedSecond }, theirs });
      return { ...done, version: before.version };
    },
    apart,
  );

  serve(addPerson, async ({ body: { id, ...body }, school }) => {
    const there = (await school.people.list()).find((one) => one.id === id);
    if (there) mustBeSame("person", bodyOf(there), bodyOf(body));
    else {
      const taken = await school.people.add(id, body);
      if (taken) throw hasName(taken);
    }
    return done;
  });

  serve(editPerson, async ({ params: { id }, body: { version, ...body }, school }) => {
    await mustMember(school, id);
    const told = await school.people.change(id, version, body);
    if (told === "last") throw lastLead();
    if (typeof told === "object") throw hasName(told);
    if (told === "stale") {
      const theirs = (await school.people.list()).find((one) => one.id === id);
      if (!theirs) throw notFound("person");
      mustAgree("this person", {
        version: theirs.version,
        mine: bodyOf({ adultId: theirs.adultId, ...body }),
        theirs: bodyOf(theirs),
      });
      return { ...done, version: theirs.version };
    }
    school.afterwards(entrance.changed);
    return { ...done, version: version + 1 };
  });

  serve(
    removePerson,
    async ({ params: { id }, school, actor, now }) => {
      const told = await school.together(async () => {
        await mustMember(school, id);
        await school.invitations.endFor(id);
        const removed = await school.people.remove(id, now.toISOString());
        if (removed !== "last") await school.trail.write({ ...deedOf(actor, now), did: "person-removed", about: id });
        return removed;
      });
      if (told === "last") throw lastLead();
      if (told.accountId) await accounts.remove(told.accountId);
      entrance.changed();
      return done;
    },
    apart,
  );

  serve(bringBackPerson, async ({ params: { id }, school }) => {
    if (!(await school.people.find(id))) throw notFound("person");
    await school.people.bringBack(id);
    return done;
  });

  serve(invitePerson, async ({ params: { id }, school, now }) => {
    await mustMember(school, id);
    return school.invitations.invite(id, now);
  });

  serve(
    mailInvitation,
    async ({ params, body, school, actor, now, request }) => {
      const member = await mustMember(school, params.id);
      const found = await school.invitations.byToken(body.token);
      if (found?.memberId !== member.id || found.usedAt !== null || found.endsAt <= now.toISOString())
        throw unfit(
          "This link does not work any more: it was used, has ended, or a newer one was made. Make a new one.",
        );
      const address = `${originAsked(request)}/invited/${body.token}`;
      const { name: schoolName } = await school.settings.read();
      const letter = { to: body.to, ...invitingLetter({ name: member.name, by: actor.name, schoolName, address }) };
      if (post.sends) {
        await post.send(letter);
        return { by: "mail" as const };
      }
      await school.outbox.put({ ...letter, id: body.id, invitationId: found.id, madeAt: now.toISOString() });
      return { by: "outbox" as const };
    },
    { apart: true },
  );

  serve(listOutbox, async ({ school, now }) => [...(await school.outbox.list(now))]);

  serve(removeLetter, async ({ params, school }) => {
    await school.outbox.remove(params.id);
    return done;
  });

  serve(endInvitation, async ({ params: { id }, school }) => {
    await mustMember(school, id);
    await school.invitations.endFor(id);
    return done;
  });

  serve(markDemo, async ({ school }) => {
    if (!(await school.people.markDemo()))
      throw unfit("This school has classes or people already: they may be real.");
    school.afterwards(entrance.changed);
    return done;
  });

  serve(
    listMyDevices,
    async ({ request }) => {
      const { accountId, signInId } = await signedInOf(request);
      return accounts.devices(accountId, signInId);
    },
    apart,
  );

  serve(
    endMyDevice,
    async ({ params: { id }, request }) => {
      await accounts.endDevice((await signedInOf(request)).accountId, id);
      return done;
    },
    apart,
  );

  serve(
    endMyOtherDevices,
    async ({ request }) => {
      const { accountId, signInId } = await signedInOf(request);
      await accounts.endAll(accountId, signInId);
      return done;
    },
    apart,
  );

  serve(
    changePassphrase,
    async ({ body: { before, passphrase }, school, actor, request, now, cookies }) => {
      const { accountId } = await signedInOf(request);
      refuseCommon(passphrase, [actor.name]);
      cookies(
        await passphrases.guess(accountId, () => accounts.changePassphrase(request.headers, before, passphrase)),
      );
      await school.trail.write({ ...deedOf(actor, now), did: "passphrase" });
      return done;
    },
    apart,
  );

  serve(
    beginSecondFactor,
    async ({ body: { passphrase }, request }) => {
      const { accountId } = await signedInOf(request);
      return passphrases.guess(accountId, () => accounts.beginSecondFactor(request.headers, passphrase));
    },
    apart,
  );

  serve(
    confirmSecondFactor,
    async ({ body: { code }, school, actor, request, now, cookies }) => {
      await signedInOf(request);
      cookies(await accounts.confirmSecondFactor(request.headers, code));
      await school.trail.write({ ...deedOf(actor, now), did: "second-factor" });
      return done;
    },
    apart,
  );

  serve(
    endSecondFactor,
    async ({ body: { passphrase }, school, actor, request, now, cookies }) => {
      const { accountId } = await signedInOf(request);
      if (actor.as === "lead" && (await school.settings.read()).leadsNeedSecond)
        throw unfit("Your school wants a second factor of its leads. Change that under People first.");
      cookies(await passphrases.guess(accountId, () => accounts.endSecondFactor(request.headers, passphrase)));
      await school.trail.write({ ...deedOf(actor, now), did: "second-factor" });
      return done;
    },
    apart,
  );

  serve(readTrail, async ({ query: { from, to, ...wanted }, school }) => {
    const start = (day: string) => school.settings.startOf(day);
    const nextDay = to && formatISO(addDays(parseISO(to), 1), { representation: "date" });
    const { rows, more } = await school.trail.read({
      ...wanted,
      from: from && (await start(from)),
      before: nextDay && (await start(nextDay)),
    });
    const names = await school.people.namesOf([...new Set(rows.flatMap(({ about }) => about || []))]);
    return {
      rows: rows.map(({ id, at, by, did, about, count }) => ({
        id,
        at,
        by,
        did,
        about,
        name: names.get(about) ?? "",
        count,
      })),
      more,
    };
  });
}
