import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Bound, GroupsWanted, Proposal } from "#core/groups";
import type { GroupsWorker } from "#web/workers/groups.worker.ts";
import type { WayName } from "./ways.ts";

/** The worker and the one handle to it: the handle is kept, since letting it go closes the worker's ear. */
interface Desk {
  readonly worker: Worker;
  readonly remote: Remote<GroupsWorker>;
}

function openDesk(): Desk {
  const worker = new Worker(new URL("../../workers/groups.worker.ts", import.meta.url), { type: "module" });
  return { worker, remote: wrap<GroupsWorker>(worker) };
}

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
  const desk = useRef<Desk | null>(null);
  const [proposals, setProposals] = useState<Proposals | null>(null);
  const [distance, setDistance] = useState<Distance | null>(null);
  useEffect(
    () => () => {
      desk.current?.worker.terminate();
      desk.current = null;
    },
    [],
  );

  /** @returns the proposal of the way that is looked at; the others come as they are found */
  const propose = useCallback(
    async (wanted: Partial<Record<WayName, GroupsWanted>>, first: WayName): Promise<Proposal> => {
      desk.current ??= openDesk();
      setDistance(null);
      // What comes before the first is shown is kept for then.
      let found: Proposals = {};
      const made = await desk.current.remote.propose(
        wanted as Record<WayName, GroupsWanted>,
        first,
        proxy((name: string, better: Proposal) => {
          found = { ...found, [name]: better };
          setProposals(found);
        }),
      );
      found = { [first]: made, ...found };
      setProposals(found);
      return made;
    },
    [],
  );

  const findBound = useCallback(async (way: WayName): Promise<void> => {
    if (!desk.current) return;
    setDistance({ way, bound: undefined, working: true });
    try {
      const bound = await desk.current.remote.bound(
        way,
        proxy((told: Bound, better: Proposal) => {
          setDistance({ way, bound: told, working: true });
          setProposals((now) => ({ ...now, [way]: better }));
        }),
      );
      setDistance({ way, bound, working: false });
    } catch (error) {
      setDistance(null);
      throw error;
    }
  }, []);

  return { proposals, distance, propose, findBound };
}
