import { useEffect, useState } from "react";

/** Without the font the text is shown in another one rather than not at all. */
const LONGEST_MS = 1500;

/** True once the child's letters are here, so that a text does not change its lines after it was shown. */
export function useChildFont(): boolean {
  const [here, setHere] = useState(() => document.fonts.check('16px "Andika"'));
  useEffect(() => {
    if (here) return;
    const late = setTimeout(() => setHere(true), LONGEST_MS);
    void document.fonts.load('16px "Andika"').finally(() => setHere(true));
    return () => clearTimeout(late);
  }, [here]);
  return here;
}
