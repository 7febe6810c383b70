import type { Request } from "express";
import { LRUCache } from "lru-cache";
import type { Actor } from "../frame/actor.ts";
import type { Knows } from "../frame/gate.ts";
import { isHere, type Network, slugIn } from "../frame/network.ts";
import { HttpProblem } from "../frame/problem.ts";
import { forgettingPeople, type Signals } from "../frame/signals.ts";
import type { Repository } from "../store/scope.ts";
import type { Accounts } from "./accounts.ts";
import type { Door } from "./door.ts";
import type * as members from "./members.ts";
import type { Member } from "./members.ts";

/** How one gets into a school. */
interface School {
  readonly ready: boolean;
  readonly demo: boolean;
  readonly name: string;
  readonly leadsNeedSecond: boolean;
}

/** Finds out who asks. This is the one place that makes an actor of a member. */
export interface Entrance extends Knows {
  /** How the school at this host name is entered. */
  how(schoolId: string): Promise<School>;
  /** Members or the school's set-up were changed here: what is known of them is looked up again, by every process. */
  changed(): void;
}

interface EntranceWanted {
  readonly door: Door;
  readonly accounts: Pick<Accounts, "who">;
  /** The schools of the server, as far as their members go. */
  readonly house: {
    as(actor: { readonly schoolId: string }): {
      readonly people: Pick<Repository<typeof members>, "entrance" | "byAccount">;
    };
  };
  readonly network: Network;
  readonly signals: Signals;
}

/** Seconds for which a membership need not be looked up again, if another process changed it and could not say so. */
const KNOWN_S = 5;
const MOST_KNOWN = 2000;

/**
 * Opens the entrance of a server. A member is who has signed in and belongs to the school that the host name says,
 * `SLUG.localhost`, or to the first one. In a school that no lead can sign in to yet, and in one where nothing is real, whoever
 * sits at the machine is its lead.
 */
export function openEntrance({ door, accounts, house, network, signals }: EntranceWanted): Entrance {
  const time = { max: MOST_KNOWN, ttl: KNOWN_S * 1000 };
  const known = new LRUCache<string, { readonly is: Member | undefined }>(time);
  const schools = new LRUCache<string, School>(time);
  const schoolAt = async ({ headers }: Pick<Request, "headers">): Promise<string> => {
    const slug = slugIn(network, headers.host);
    const schoolId = await door.schoolOf(slug);
    if (schoolId !== undefined) return schoolId;
    throw new HttpProblem(
      404,
      "No such school",
      slug === null
        ? "There is no school on this server yet. Make one: npm run school -- add NAME"
        : `There is no school at ${headers.host}. Look at how its name is spelled, or make it: npm run school -- add NAME`,
    );
  };
  const how = async (schoolId: string): Promise<School> => {
    const known = schools.get(schoolId) ?? (await house.as({ schoolId }).people.entrance());
    schools.set(schoolId, known, { ttl: schools.getRemainingTTL(schoolId) || time.ttl });
    return known;
  };
  const memberWith = async (schoolId: string, accountId: string): Promise<Member | undefined> => {
    const key = `${schoolId} ${accountId}`;
    const before = known.get(key);
    if (before) return before.is;
    const is = await house.as({ schoolId }).people.byAccount(accountId);
    known.set(key, { is });
    return is;
  };
  return {
    schoolAt,
    schoolBehind: door.schoolBehind,
    how,
    memberOf: async (request): Promise<Actor | undefined> => {
      const schoolId = await schoolAt(request);
      const signedIn = await accounts.who(request.headers);
      const member = signedIn && (await memberWith(schoolId, signedIn.accountId));
      if (member) {
        const actor = { schoolId, memberId: member.id, name: member.name };
        // Until it is set up a lead can do no more than set it up.
        if (
          member.role === "lead" &&
          !signedIn.secondFactor &&
          !signedIn.byPasskey &&
          (await how(schoolId)).leadsNeedSecond
        )
          return { ...actor, as: "assistant", lacksSecond: true };
        return { ...actor, as: member.role };
      }
      if (!isHere(request)) return undefined;
      const { ready, demo } = await how(schoolId);
      return !ready || demo ? { schoolId, as: "lead", memberId: null, name: "someone at the machine" } : undefined;
    },
    changed: forgettingPeople(signals, () => {
      known.clear();
      schools.clear();
    }),
  };
}
