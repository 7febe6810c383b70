import { useState } from "react";
import { getGiven, give, type Today } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "./api.ts";
import { useMe } from "./me.ts";

export type GivenTo = Today["openSittings"][number]["givenTo"];

/** What a person stands as, of whom something is told: `mine` for whoever looks, `others`, or `anyones` where it is no one's. */
export type Whose = "mine" | "others" | "anyones";

/** Says whose something is, as whoever looks sees it. */
export function useWhose(): (givenTo: GivenTo) => Whose {
  const { data } = useMe();
  const me = data?.me?.id ?? null;
  return (givenTo) => (givenTo === null ? "anyones" : givenTo.id === me ? "mine" : "others");
}

/** What draws to whom a check or a session is given, and gives it to someone else. */
export interface Giving {
  readonly now: GivenTo;
  /** The person chosen, empty for anyone; undefined until who could do it is known, which is asked when someone turns to it. */
  readonly to: string | undefined;
  readonly colleagues: readonly { readonly id: string; readonly name: string }[];
  turnTo(): void;
  /** @returns what to say of it; `isFault` where nothing was changed */
  give(to: string): Promise<{ readonly says: string; readonly isFault?: true }>;
}

/**
 * To whom a check or a session is given.
 * @param of its id, and what it is called
 */
export function useGiven(of: { readonly id: string; readonly name: string; readonly givenTo: GivenTo }): Giving {
  const [turned, setTurned] = useState(false);
  const { data } = useAsk(getGiven, turned ? { params: { id: of.id } } : null);
  const colleagues = data?.colleagues ?? [];
  return {
    now: of.givenTo,
    to: data && (data.to ?? ""),
    colleagues,
    turnTo: () => setTurned(true),
    async give(to) {
      try {
        await call(give, { params: { id: of.id }, body: { to: to || null } });
        await refreshAll();
        const name = colleagues.find(({ id }) => id === to)?.name;
        return { says: name ? `${of.name} is given to ${name}.` : `${of.name} is for whoever comes to it.` };
      } catch (error) {
        return { says: wordsOfError(error), isFault: true };
      }
    },
  };
}
