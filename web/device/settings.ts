import { useCallback, useSyncExternalStore } from "react";

/** Settings of this device only: who marks here, light or dark. */
const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function useStored(key: string, fallback: string): [string, (value: string) => void] {
  const value = useSyncExternalStore(subscribe, () => localStorage.getItem(key) ?? fallback);
  // The same at each drawing: what begins anew with it would otherwise begin at each.
  const set = useCallback(
    (next: string) => {
      localStorage.setItem(key, next);
      for (const listener of listeners) listener();
    },
    [key],
  );
  return [value, set];
}

/** The name that marks carry. */
export function useMarker(): [string, (name: string) => void] {
  return useStored("keen-marker", "Teacher");
}

/** The name with which someone signed in here last. */
export function useLastName(): [string, (name: string) => void] {
  return useStored("keen-name", "");
}

/** Whether this device says words aloud, where it can. */
export function useSpeaks(): [boolean, (speaks: boolean) => void] {
  const [stored, store] = useStored("keen-voice", "on");
  return [stored === "on", (speaks) => store(speaks ? "on" : "off")];
}

/** Whether this device is locked: whoever was in is to be signed out before anyone sees anything. */
export function useLocked(): [boolean, (locked: boolean) => void] {
  const [stored, store] = useStored("keen-locked", "no");
  const setLocked = useCallback((locked: boolean) => store(locked ? "yes" : "no"), [store]);
  return [stored === "yes", setLocked];
}

/** The hand whose thumb marks on a tablet held upright. */
export function useHand(): ["left" | "right", (hand: "left" | "right") => void] {
  const [hand, setHand] = useStored("keen-hand", "right");
  return [hand === "left" ? "left" : "right", setHand];
}

/** The longest that a card can be made to wait for its mark. */
export const LONGEST_MARK_WAIT = 700;

/** Milliseconds for which a card must have been on the screen before it takes a mark. */
export function useMarkWait(): [number, (ms: number) => void] {
  const [stored, store] = useStored("keen-mark-wait", "300");
  const ms = Number(stored);
  const wait = Number.isFinite(ms) ? Math.min(LONGEST_MARK_WAIT, Math.max(0, ms)) : 300;
  return [wait, (next) => store(String(next))];
}

/** Whether single letters are keys: they are, with Alt only, or not at all. */
export type LetterKeys = "on" | "alt" | "off";

export function useLetterKeys(): [LetterKeys, (keys: LetterKeys) => void] {
  const [stored, store] = useStored("keen-letter-keys", "on");
  return [stored === "alt" || stored === "off" ? stored : "on", store];
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

export function newId(): string {
  return crypto.randomUUID();
}

export function newSeed(): number {
  return (crypto.getRandomValues(new Uint32Array(1))[0] ?? 1) >>> 1;
}
