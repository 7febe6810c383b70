import { useEffect, useRef } from "react";
import { useMarkWait } from "#web/device/settings.ts";

/** How a card answers to a mark that came too soon: it moves a little, and stays. */
const nudge: Keyframe[] = [
  { transform: "none" },
  { transform: "translateX(-7px)" },
  { transform: "translateX(5px)" },
  { transform: "none" },
];
const NUDGE_MS = 160;

/**
 * Keeps a mark from falling on a card that no one has seen: what is on the screen takes one only when it has stood there
 * for as long as this device waits. A press before that is neither kept nor stored up.
 * @param shows what stands there now; the wait begins anew with each change, and with `null` nothing does
 * @returns `moves`, the element that then moves a little, and `isSettled`, to be asked with each mark
 */
export function useSettled<E extends HTMLElement>(shows: string | null) {
  const [wait] = useMarkWait();
  const since = useRef(0);
  const moves = useRef<E>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the wait begins with what is shown
  useEffect(() => {
    // From when it is drawn, not from when it was decided.
    const frame = requestAnimationFrame(() => {
      since.current = performance.now();
    });
    since.current = Number.POSITIVE_INFINITY;
    return () => cancelAnimationFrame(frame);
  }, [shows]);
  const isSettled = (): boolean => {
    // A device that waits for nothing takes a mark before the card is drawn, too.
    if (wait === 0 || performance.now() - since.current >= wait) return true;
    if (!matchMedia("(prefers-reduced-motion: reduce)").matches) moves.current?.animate(nudge, NUDGE_MS);
    return false;
  };
  return { moves, isSettled };
}
