import { proxy } from "comlink";
import { useCallback, useEffect, useState } from "react";
import type { Bound, GroupsWanted, Proposal } from "#core/groups";
import { offPage } from "#web/device/off-page.ts";
import type { GroupsWorker } from "#web/workers/groups.worker.ts";
import type { WayName } from "./ways.ts";

const openDesk = () =>
  offPage<GroupsWorker>(
    () => new Worker(new URL("../../workers/groups.worker.ts", import.meta.url), { type: "module" }),
  );

/** How far a proposal is from the best, as it is being found out. */
export interface Distance {
  readonly way: WayName;
  /** Undefined until the first round is over. */
  readonly bound: Bound | undefined;
  readonly working: boolean;
}

export type Proposals = Partial<Record<WayName, Proposal>>;

/** Groups looked for off the page: first proposals at once, better ones as they are found, and how far they are from the best. */
export function useDesk() {
  const [desk] = useState(openDesk);
  const [proposals, setProposals] = useState<Proposals | null>(null);
  const [distance, setDistance] = useState<Distance | null>(null);
  useEffect(() => desk.end, [desk]);

  /** @returns the proposal of the way that is looked at; the others come as they are found */
  const propose = useCallback(
    async (wanted: Partial<Record<WayName, GroupsWanted>>, first: WayName): Promise<Proposal> => {
      setDistance(null);
      // What comes before the first is shown is kept for then.
      let found: Proposals = {};
      const made = await desk.ask((worker) =>
        worker.propose(
          wanted as Record<WayName, GroupsWanted>,
          first,
          proxy((name: string, better: Proposal) => {
            found = { ...found, [name]: better };
            setProposals(found);
          }),
        ),
      );
      found = { [first]: made, ...found };
      setProposals(found);
      return made;
    },
    [desk],
  );

  const findBound = useCallback(
    async (way: WayName): Promise<void> => {
      setDistance({ way, bound: undefined, working: true });
      try {
        const bound = await desk.ask((worker) =>
          worker.bound(
            way,
            proxy((told: Bound, better: Proposal) => {
              setDistance({ way, bound: told, working: true });
              setProposals((now) => ({ ...now, [way]: better }));
            }),
          ),
        );
        setDistance({ way, bound, working: false });
      } catch (error) {
        setDistance(null);
        throw error;
      }
    },
    [desk],
  );

  return { proposals, distance, propose, findBound };
}
