import { format } from "date-fns";
import { useSyncExternalStore } from "react";

/** Settings of this device only: who marks here, light or dark. */
const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function useStored(key: string, fallback: string): [string, (value: string) => void] {
  const value = useSyncExternalStore(subscribe, () => localStorage.getItem(key) ?? fallback);
  const set = (next: string) => {
    localStorage.setItem(key, next);
    for (const listener of listeners) listener();
  };
  return [value, set];
}

/** The name that marks carry. */
export function useMarker(): [string, (name: string) => void] {
  return useStored("keen-marker", "Teacher");
}

/** The hand whose thumb marks on a tablet held upright. */
export function useHand(): ["left" | "right", (hand: "left" | "right") => void] {
  const [hand, setHand] = useStored("keen-hand", "right");
  return [hand === "left" ? "left" : "right", setHand];
}

/** How a text is shown to a child on this device. */
export interface TextLook {
  /** Pixels of a letter's height in its line. */
  readonly size: number;
  /** Lines apart. */
  readonly spacing: number;
  /** Each sentence has a line of its own. */
  readonly sentences: boolean;
  /** One line after another, turned by the adult, in place of the whole text. */
  readonly lineByLine: boolean;
}
const plainLook: TextLook = { size: 32, spacing: 1.8, sentences: false, lineByLine: false };

export function useTextLook(): [TextLook, (look: TextLook) => void] {
  const [stored, store] = useStored("keen-text-look", JSON.stringify(plainLook));
  return [{ ...plainLook, ...(JSON.parse(stored) as Partial<TextLook>) }, (look) => store(JSON.stringify(look))];
}

export function useTheme(): { dark: boolean; toggle: () => void } {
  const system = matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
  const [theme, setTheme] = useStored("keen-theme", system);
  const dark = theme === "dark";
  return {
    dark,
    toggle: () => {
      setTheme(dark ? "light" : "dark");
      document.documentElement.classList.toggle("dark", !dark);
    },
  };
}

/** The calendar day on this device, `2026-11-23`. */
export function dayHere(date = new Date()): string {
  return format(date, "yyyy-MM-dd");
}

export function newId(): string {
  return crypto.randomUUID();
}

export function newSeed(): number {
  return (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) >>> 1;
}
