import {
  createContext,
  type MouseEvent,
  type ReactNode,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useNavigate } from "react-router";
import { Sheet } from "#web/parts/dialog.tsx";
import { besides, places } from "./places.ts";

export interface KeyBinding {
  /** As `KeyboardEvent.key`, letters in lower case; a figure with Shift as `shift+1`. */
  readonly key: string;
  readonly does: string;
  readonly run: () => void;
}

interface Registry {
  set(owner: symbol, bindings: readonly KeyBinding[]): void;
  remove(owner: symbol): void;
}

const KeyContext = createContext<Registry>({ set: () => {}, remove: () => {} });

/** Keys of the part that calls it, for as long as it is on the screen. The latest wins. */
export function useKeys(bindings: readonly KeyBinding[]): void {
  const registry = useContext(KeyContext);
  const owner = useRef(Symbol("keys"));
  useEffect(() => {
    registry.set(owner.current, bindings);
  });
  useEffect(() => () => registry.remove(owner.current), [registry]);
}

/**
 * For `onMouseDown` of what is tapped while keys mark: a tap takes no focus, and takes it from a field, so that the next
 * key is the desk's. By Tab it can be reached all the same.
 */
export function keepKeys(event: MouseEvent): void {
  event.preventDefault();
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Listens once for the whole application: places after `g`, the sheet of keys on `?`, and what parts register. */
export function Keys({ children, onPalette }: { children: ReactNode; onPalette: () => void }) {
  const owners = useRef(new Map<symbol, readonly KeyBinding[]>());
  const [shown, setShown] = useState<readonly KeyBinding[] | null>(null);
  const navigate = useNavigate();
  const registry = useMemo<Registry>(
    () => ({
      set: (owner, bindings) => owners.current.set(owner, bindings),
      remove: (owner) => owners.current.delete(owner),
    }),
    [],
  );

  useEffect(() => {
    let afterG = 0;
    const here = () => [...owners.current.values()].flat();
    const listen = (event: KeyboardEvent) => {
      const figure = event.shiftKey ? /^Digit(\d)$/.exec(event.code)?.[1] : undefined;
      const key = figure ? `shift+${figure}` : event.key.length === 1 ? event.key.toLowerCase() : event.key;
      if ((event.ctrlKey || event.metaKey) && key === "k") {
        event.preventDefault();
        onPalette();
        return;
      }
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        document.querySelector("[role=dialog]")
      )
        return;
      if (event.key === "?") {
        setShown(here());
        return;
      }
      const place = [...places, ...besides].find((one) => one.key === key);
      if (afterG > Date.now() - 1200 && place) {
        afterG = 0;
        navigate(place.path);
        return;
      }
      const binding = here()
        .reverse()
        .find((one) => one.key === key);
      const onControl =
        event.target instanceof Element && event.target.closest("button, a, [role=gridcell]") !== null;
      if (binding && !(onControl && (key === "Enter" || key === " "))) {
        event.preventDefault();
        binding.run();
      } else if (key === "g") afterG = Date.now();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [navigate, onPalette]);

  return (
    <KeyContext.Provider value={registry}>
      {children}
      <Sheet open={shown !== null} onClose={() => setShown(null)} title="Keys">
        <KeyList title="Here" rows={(shown ?? []).map((one) => [one.key === " " ? "Space" : one.key, one.does])} />
        <KeyList
          title="Everywhere"
          rows={[
            ...[...places, ...besides].map((place): [string, string] => [`g ${place.key}`, place.name]),
            ["Ctrl K", "Find a child, a group, a text, a place"],
            ["?", "This sheet"],
          ]}
        />
      </Sheet>
    </KeyContext.Provider>
  );
}

function KeyList({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  if (rows.length === 0) return null;
  return (
    <section className="mb-4">
      <h3 className="mb-1 font-semibold">{title}</h3>
      <dl className="grid grid-cols-[7rem_1fr] gap-y-1">
        {rows.map(([key, does]) => (
          <div key={key + does} className="contents">
            <dt>
              <kbd className="rounded border border-line bg-paper px-1.5 text-sm">{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
