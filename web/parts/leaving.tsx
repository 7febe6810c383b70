import {
  createContext,
  type ReactNode,
  type RefObject,
  useCallback,
  useContext,
  useEffect,
  useRef,
  useState,
} from "react";
import { useBlocker } from "react-router";
import { Button } from "./button.tsx";
import { Sheet } from "./dialog.tsx";
import { type OpenSheets, SheetsContext } from "./open-sheets.ts";

/** What would be lost by leaving, by the part that would lose it. */
const UnsavedContext = createContext<RefObject<Set<symbol>> | null>(null);

/**
 * For as long as `changed` is true, leaving asks first: by a link, by the way back, by closing the page. What a part has
 * kept as a draft on the device needs none of it.
 * @returns says that all of it is saved, for a part that leaves by itself in the same breath
 */
export function useUnsaved(changed: boolean): () => void {
  const unsaved = useContext(UnsavedContext);
  const forget = useRef(() => {});
  useEffect(() => {
    if (!changed) return;
    const mine = Symbol("unsaved");
    unsaved?.current.add(mine);
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener("beforeunload", warn);
    forget.current = () => {
      unsaved?.current.delete(mine);
      removeEventListener("beforeunload", warn);
    };
    return () => forget.current();
  }, [changed, unsaved]);
  return useCallback(() => forget.current(), []);
}

/** Watches over leaving: asks where something would be lost; the way back closes an open sheet first. */
export function Leaving({ children }: { children: ReactNode }) {
  const unsaved = useRef(new Set<symbol>());
  const open = useRef<(() => void)[]>([]);
  const [asks, setAsks] = useState(false);
  const register = useCallback<OpenSheets>((close) => {
    open.current.push(close);
    return () => {
      open.current = open.current.filter((one) => one !== close);
    };
  }, []);
  const leaves = useRef(false);
  const blocker = useBlocker(({ currentLocation, nextLocation, historyAction }) => {
    if (leaves.current || currentLocation.pathname === nextLocation.pathname) return false;
    return unsaved.current.size > 0 || (historyAction === "POP" && open.current.length > 0);
  });
  useEffect(() => {
    if (blocker.state !== "blocked") return;
    if (unsaved.current.size > 0) return setAsks(true);
    blocker.reset();
    open.current.at(-1)?.();
  }, [blocker]);
  const stay = () => {
    setAsks(false);
    blocker.reset?.();
  };
  const leave = () => {
    setAsks(false);
    leaves.current = true;
    blocker.proceed?.();
    setTimeout(() => {
      leaves.current = false;
    });
  };
  return (
    <UnsavedContext.Provider value={unsaved}>
      <SheetsContext.Provider value={register}>{children}</SheetsContext.Provider>
      <Sheet open={asks} onClose={stay} title="Leave without saving?">
        <p>What you changed here is not saved. It goes when you leave.</p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={leave}>Leave without saving</Button>
          <Button shape="main" onClick={stay}>
            Stay here
          </Button>
        </div>
      </Sheet>
    </UnsavedContext.Provider>
  );
}
