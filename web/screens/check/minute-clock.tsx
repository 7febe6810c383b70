import { type RefObject, useEffect, useState } from "react";

const MINUTE = 60_000;

/** Seconds left of the minute, for the adult only. */
export function MinuteClock({
  spent,
  since,
  running,
  onOver,
}: {
  /** Milliseconds that the answers took so far. */
  spent: number;
  /** When the item that is shown came up. */
  since: RefObject<number>;
  running: boolean;
  onOver: () => void;
}) {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => setNow(performance.now()), 250);
    return () => clearInterval(timer);
  }, [running]);
  const left = MINUTE - spent - (running ? Math.max(0, now - since.current) : 0);
  const isOver = left <= 0;
  useEffect(() => {
    if (isOver) onOver();
  });
  return <span className="tabular-nums"> · {Math.max(0, Math.ceil(left / 1000))} s left</span>;
}
