import { useEffect, useRef } from "react";

/**
 * Gives the focus on after what had it was taken out or moved: to the element with this id, as soon as it is there.
 * @returns says which element is next
 */
export function useRefocus(): (id: string | undefined) => void {
  const wanted = useRef<string>(undefined);
  useEffect(() => {
    const next = wanted.current === undefined ? null : document.getElementById(wanted.current);
    if (!next) return;
    wanted.current = undefined;
    next.focus();
  });
  return (id) => {
    wanted.current = id;
  };
}

/** The neighbour that the focus goes to when this one leaves the list: the next, else the one before. */
export function neighbourOf<T>(list: readonly T[], one: T): T | undefined {
  const at = list.indexOf(one);
  return at < 0 ? undefined : (list[at + 1] ?? list[at - 1]);
}
