import { useEffect, useState } from "react";
import { flushSync } from "react-dom";

/** True while the browser prints, so that what is for paper alone is drawn only then. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const begin = () => flushSync(() => setPrinting(true));
    const end = () => setPrinting(false);
    addEventListener("beforeprint", begin);
    addEventListener("afterprint", end);
    return () => {
      removeEventListener("beforeprint", begin);
      removeEventListener("afterprint", end);
    };
  }, []);
  return printing;
}
