import { useEffect, useState } from "react";
import { box, keepInBox } from "./box.ts";

/**
 * Something on its way, kept on this device at every change under `address`: found again after a reload, else made
 * anew. `forget` clears it once the server has it. Undefined until the device was asked. `read` brings what an older
 * version kept into today's form, or gives undefined for what it cannot read.
 */
export function useBoxDraft<T>(
  address: string,
  { make, read }: { readonly make: () => T; readonly read: (kept: unknown) => T | undefined },
) {
  const [held, setHeld] = useState<{ address: string; draft: T }>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once for an address
  useEffect(() => {
    let here = true;
    void box.then(async (db) => {
      const kept = (await db.get("pages", address))?.content;
      if (here) setHeld({ address, draft: (kept === undefined ? undefined : read(kept)) ?? make() });
    });
    return () => {
      here = false;
    };
  }, [address]);
  const change = (next: T) => {
    setHeld({ address, draft: next });
    void keepInBox("pages", { address, content: next, keptAt: Date.now() });
  };
  const forget = async () => (await box).delete("pages", address);
  return { draft: held?.address === address ? held.draft : undefined, change, forget };
}
