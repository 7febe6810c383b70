import type { AskedFrom, CasesOf } from "./scope-cases.ts";

/** What is asked of people, with the ids of another school. */
export function askingOfPeople({
  other,
  elsewhere,
  mine,
  invitation,
  ids,
}: AskedFrom): CasesOf<"people" | "own" | "outbox" | "invitations" | "devices" | "trail"> {
  const { yearId, memberId, deviceId, accountId } = ids;
  const { childId } = mine;
  const at = "2026-11-20T09:00:00.000Z";
  const now = new Date(at);
  const member = { name: "D.", role: "lead" as const, classIds: [], groupIds: [], typedNames: [] };
  const actor = { schoolId: elsewhere, as: "teacher" as const, memberId: childId, name: "D." };
  const deed = { at, memberId: null, by: "D.", did: "child-seen" as const, about: childId };
  return {
    people: {
      find: () => other.people.find(memberId),
      byAccount: () => other.people.byAccount(accountId),
      accountNamed: () => other.people.accountNamed("Mine Lead"),
      entrance: () => other.people.entrance(),
      markDemo: () => other.people.markDemo(),
      list: () => other.people.list(),
      colleagues: () => other.people.colleagues(),
      left: () => other.people.left(),
      bringBack: () => other.people.bringBack(memberId),
      add: () => other.people.add(memberId, member),
      change: () => other.people.change(memberId, 1, member),
      remove: () => other.people.remove(memberId, at),
      typedNames: () => other.people.typedNames(),
      setAccount: () => other.people.setAccount(memberId, childId),
      keepAccounts: () => other.people.keepAccounts([childId]),
      namesOf: () => other.people.namesOf([childId, memberId]),
    },
    own: {
      ownersOfAll: () => other.own.ownersOfAll({ childIds: [childId], now: now }),
      ownersOf: () => other.own.ownersOf({ thing: "child", id: childId, now: now }),
      notTheirs: () => other.own.notTheirs(actor, { thing: "child", ids: [childId], now: now }),
    },
    outbox: {
      put: () =>
        other.outbox.put({
          ...{ id: yearId, invitationId: invitation.id, to: "a@b.example", subject: "S", text: "T" },
          madeAt: at,
        }),
      list: () => other.outbox.list(now),
      remove: () => other.outbox.remove(yearId),
      clear: () => other.outbox.clear(now),
    },
    invitations: {
      invite: () => other.invitations.invite(null, now),
      endFor: () => other.invitations.endFor(memberId),
      byToken: () => other.invitations.byToken(invitation.token),
      use: () => other.invitations.use(invitation.id, at),
      openFor: () => other.invitations.openFor(now),
    },
    devices: {
      letIn: () => other.devices.letIn({ id: deviceId, name: "T.", token: "other", at: at }),
      byToken: () => other.devices.byToken("mine"),
      list: () => other.devices.list(),
      end: () => other.devices.end(deviceId),
      peopleOn: () => other.devices.peopleOn(deviceId),
      setCode: () => other.devices.setCode(deviceId, memberId, "hash"),
      codeOf: () => other.devices.codeOf(deviceId, memberId),
      used: () => other.devices.used(deviceId, at),
    },
    trail: {
      write: () => other.trail.write(deed),
      read: () => other.trail.read({ about: childId }),
      forgetOld: () => other.trail.forgetOld(0, new Date("2027-11-20")),
    },
  };
}
