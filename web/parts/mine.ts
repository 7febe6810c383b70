import { useEffect, useState } from "react";

/**
 * What was done here and did not come back yet from the adult's side stands at once; what comes back that was not done here takes
 * its place. `of` says what it belongs to: with another nothing of before counts.
 * @returns what stands, whether it still waits to come back, and what sets it
 */
export function useMine<T>(of: string, told: T): [T, boolean, (value: T) => void] {
  const said = JSON.stringify(told);
  const [mine, setMine] = useState<{ readonly of: string; readonly sent: readonly string[] }>({ of, sent: [] });
  useEffect(() => {
    setMine((before) => {
      const sent = before.of === of ? before.sent : [];
      return { of, sent: sent.slice(sent.indexOf(said) + 1 || sent.length) };
    });
  }, [said, of]);
  const last = mine.of === of ? mine.sent.at(-1) : undefined;
  const set = (value: T) =>
    setMine((before) => ({ of, sent: [...(before.of === of ? before.sent : []), JSON.stringify(value)] }));
  return [last === undefined ? told : JSON.parse(last), last !== undefined, set];
}
