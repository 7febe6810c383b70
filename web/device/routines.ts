import { useMemo } from "react";
import { listRoutines } from "#contract";
import { minutesOfRoutine, type Routine, shippedRoutines } from "#core/plans";
import { useAsk } from "./api.ts";

/** A routine by its id; `version` is null for those that ship. */
export interface KnownRoutine {
  readonly id: string;
  readonly version: number | null;
  readonly routine: Routine;
  readonly minutes: number;
}

const shipped: readonly KnownRoutine[] = Object.entries(shippedRoutines).map(([id, routine]) => ({
  ...{ id, version: null, routine, minutes: minutesOfRoutine(routine) },
}));

/** The routines of the school, those of its own first, and those that ship. */
export function useRoutines(): readonly KnownRoutine[] {
  const { data } = useAsk(listRoutines, {});
  return useMemo(() => {
    const own = (data ?? []).map(({ id, version, routine }) => ({
      ...{ id, version, routine, minutes: minutesOfRoutine(routine) },
    }));
    return [...own, ...shipped];
  }, [data]);
}
