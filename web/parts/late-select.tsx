import { type ComponentProps, type ReactNode, useState } from "react";
import { flushSync } from "react-dom";

interface LateSelectWanted extends Omit<ComponentProps<"select">, "children"> {
  /** Whether its entries come only when someone turns to it: hundreds of long lists would slow a page down. */
  readonly late: boolean;
  /** The entry that is chosen, which stands there until then. */
  readonly chosen: ReactNode;
  readonly entries: () => ReactNode;
}

/** A list to choose from, whose entries are there at once, or from the moment on in which it is pressed or reached by key. */
export function LateSelect({ late, chosen, entries, ...rest }: LateSelectWanted) {
  const [reached, setReached] = useState(false);
  // Before the browser opens it.
  const reach = () => {
    if (late && !reached) flushSync(() => setReached(true));
  };
  return (
    <select {...rest} onPointerDown={reach} onFocus={reach}>
      {late && !reached ? chosen : entries()}
    </select>
  );
}
