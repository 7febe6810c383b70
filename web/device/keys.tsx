import {
  createContext,
  type MouseEvent,
  type ReactNode,
  useContext,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { useNavigate } from "react-router";
import { Sheet } from "#web/parts/dialog.tsx";
import { type LetterKeys, useLetterKeys } from "./settings.ts";

export interface KeyBinding {
  /** As `KeyboardEvent.key`, letters in lower case; a figure with Shift as `shift+1`. */
  readonly key: string;
  readonly does: string;
  readonly run: () => void;
}

/** A key that the part listens to by itself: it is listed, and nothing else. */
export function listedKey(key: string, does: string): KeyBinding {
  return { key, does, run: listedOnly };
}
const listedOnly = () => {};

const keyNames: Readonly<Record<string, string>> = {
  " ": "Space",
  ArrowLeft: "arrow left",
  ArrowRight: "arrow right",
  ArrowUp: "arrow up",
  ArrowDown: "arrow down",
  arrows: "arrow keys",
};

function isLetter(key: string): boolean {
  return /^[a-z]$/.test(key);
}

/** A key in words, as it is pressed on this device. */
function keyInWords(key: string, letters: LetterKeys): string {
  const name = keyNames[key] ?? (key.startsWith("shift+") ? `Shift ${key.slice(6)}` : key);
  return letters === "alt" && isLetter(key) ? `Alt ${name.toUpperCase()}` : isLetter(key) ? name.toUpperCase() : name;
}

/** What is bound here, a key once: the part that came last has it. Letters that are switched off are not keys. */
function listOf(bindings: readonly KeyBinding[], letters: LetterKeys): readonly KeyBinding[] {
  const last = new Map(bindings.map((binding) => [binding.key, binding]));
  return [...last.values()].filter((binding) => letters !== "off" || !isLetter(binding.key));
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
  // Before the frame that shows them: whoever presses at once is heard.
  useLayoutEffect(() => {
    registry.set(owner.current, bindings);
  });
  useLayoutEffect(() => () => registry.remove(owner.current), [registry]);
}

/**
 * For `onMouseDown` of what is tapped while keys mark: a tap takes no focus, and takes it from a field, so that the next
 * key is the desk's. By Tab it can be reached all the same.
 */
export function keepKeys(event: MouseEvent): void {
  event.preventDefault();
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
}

/** Keys that go on while they are held: from word to word. */
const steps: ReadonlySet<string> = new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"]);

/** Letters and arrows are the field's own there; in a box that is ticked only the space bar is. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    !(target instanceof HTMLInputElement && target.type === "checkbox") &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

interface KeysWanted {
  readonly children: ReactNode;
  /** Where `g` and a letter lead. */
  readonly places: readonly { readonly path: string; readonly name: string; readonly key: string }[];
  readonly onPalette: () => void;
}

/** Listens once for the whole application: places after `g`, the sheet of keys on `?`, and what parts register. */
export function Keys({ children, places, onPalette }: KeysWanted) {
  const owners = useRef(new Map<symbol, readonly KeyBinding[]>());
  const [shown, setShown] = useState<readonly KeyBinding[] | null>(null);
  const navigate = useNavigate();
  const [letters] = useLetterKeys();
  const registry = useMemo<Registry>(
    () => ({
      set: (owner, bindings) => owners.current.set(owner, bindings),
      remove: (owner) => owners.current.delete(owner),
    }),
    [],
  );

  // When g was pressed: it outlives a page that is drawn anew before the next key.
  const afterG = useRef(0);
  useLayoutEffect(() => {
    const here = () => [...owners.current.values()].flat();
    const listen = (event: KeyboardEvent) => {
      if (event.repeat) {
        // A key that is held does one thing: it presses no button again, sends no form again, and is no new mark.
        const writes = event.target instanceof HTMLTextAreaElement || (isTyping(event.target) && event.key === " ");
        if ((event.key === "Enter" || event.key === " ") && !writes) event.preventDefault();
        if (!steps.has(event.key)) return;
      }
      const figure = event.shiftKey ? /^Digit(\d)$/.exec(event.code)?.[1] : undefined;
      const key = figure ? `shift+${figure}` : event.key.length === 1 ? event.key.toLowerCase() : event.key;
      if ((event.ctrlKey || event.metaKey) && key === "k") {
        event.preventDefault();
        onPalette();
        return;
      }
      // With Alt some systems write another letter; the key that was pressed counts.
      const pressed = event.altKey ? (/^Key([A-Z])$/.exec(event.code)?.[1]?.toLowerCase() ?? key) : key;
      if (isLetter(pressed) && event.altKey !== (letters === "alt")) return;
      if (isLetter(pressed) && letters === "off") return;
      if (
        event.ctrlKey ||
        event.metaKey ||
        (event.altKey && !isLetter(pressed)) ||
        isTyping(event.target) ||
        document.querySelector("[role=dialog]")
      )
        return;
      if (event.key === "?") {
        setShown(here());
        return;
      }
      const place = places.find((one) => one.key === pressed);
      if (afterG.current > Date.now() - 1200 && place) {
        afterG.current = 0;
        navigate(place.path);
        return;
      }
      const binding = here()
        .reverse()
        .find((one) => one.key === pressed && one.run !== listedOnly);
      const onControl =
        event.target instanceof Element && event.target.closest("button, a, input, [role=gridcell]") !== null;
      if (binding && !(onControl && (key === "Enter" || key === " "))) {
        event.preventDefault();
        binding.run();
      } else if (pressed === "g") afterG.current = Date.now();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [navigate, onPalette, letters, places]);

  return (
    <KeyContext.Provider value={registry}>
      {children}
      <Sheet open={shown !== null} onClose={() => setShown(null)} title="Keys">
        <KeyList
          title="Here"
          rows={listOf(shown ?? [], letters).map((one) => [keyInWords(one.key, letters), one.does])}
        />
        <KeyList
          title="Everywhere"
          rows={[
            ...(letters === "off"
              ? []
              : places.map((place): [string, string] => [
                  `${keyInWords("g", letters)}, ${keyInWords(place.key, letters)}`,
                  place.name,
                ])),
            ["Ctrl K", "Find anyone and anything, and what can be done"],
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
