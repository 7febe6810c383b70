import { useCallback, useEffect, useRef, useState } from "react";
import type { AnswerBody, SittingView } from "#contract";

/** Someone who marks in the same check on another device, and the child that was marked last. */
interface Here {
  readonly name: string;
  readonly childId: string;
}

/** So long after the last mark someone is still taken to be there. */
const STAYS_MS = 90_000;

/** Who else marks in this check: told by the marks that come from other devices. */
export function useColleague(): {
  readonly here: Here | undefined;
  readonly saw: (fresh: readonly AnswerBody[]) => void;
} {
  const [here, setHere] = useState<Here>();
  const gone = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(gone.current), []);
  const saw = useCallback((fresh: readonly AnswerBody[]) => {
    const last = fresh.at(-1);
    if (!last) return;
    setHere({ name: last.markedBy, childId: last.childId });
    clearTimeout(gone.current);
    gone.current = setTimeout(() => setHere(undefined), STAYS_MS);
  }, []);
  return { here, saw };
}

/** Says who marks here too, and whom. */
export function Colleague({
  here,
  childId,
  sitting,
}: {
  readonly here: Here;
  /** The child who is at this desk. */
  readonly childId: string;
  readonly sitting: SittingView;
}) {
  const whom = sitting.children.find(({ id }) => id === here.childId)?.name ?? "";
  return here.childId === childId ? (
    <p role="status" className="my-1 rounded-md bg-damson-pale px-3 py-1.5">
      {here.name} is marking {whom} on another device too. All marks are kept; say who goes on.
    </p>
  ) : (
    <p role="status" className="my-1 text-sm text-soft">
      {here.name} is marking {whom} on another device.
    </p>
  );
}
