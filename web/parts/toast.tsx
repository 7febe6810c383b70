import { lazy, Suspense, useEffect, useSyncExternalStore } from "react";
import type { ExternalToast } from "sonner";

// What says a few words at the foot of the page comes with the first of them: no page needs it to open.
const loadSonner = () => import("sonner");

/** Whatever says something began with a press: what says it is fetched with the first one, and is there without a connection then. */
const first = () => void loadSonner().catch(() => {});
for (const kind of ["pointerdown", "keydown"]) addEventListener(kind, first, { once: true, capture: true });

let wanted = false;
/** What could not be said with it, since it could not be fetched. */
let plain: string | null = null;
let shown = () => {};
const ready = new Promise<void>((done) => {
  shown = done;
});
const listeners = new Set<() => void>();

async function say(how: "message" | "error", says: string, options?: ExternalToast): Promise<void> {
  try {
    const { toast: show } = await loadSonner();
    wanted = true;
    for (const listener of listeners) listener();
    await ready;
    show[how](says, options);
  } catch {
    sayPlainly(says);
    setTimeout(() => plain === says && sayPlainly(null), PLAIN_MS);
  }
}

const PLAIN_MS = 8000;

function sayPlainly(says: string | null): void {
  plain = says;
  for (const listener of listeners) listener();
}

/** Says something in passing at the foot of the page; `toast.error` for what went wrong. */
export const toast = Object.assign(
  (says: string, options?: ExternalToast): void => void say("message", says, options),
  { error: (says: string): void => void say("error", says) },
);

const Toaster = lazy(async () => {
  const { Toaster: Sonner } = await loadSonner();
  return {
    default: function Shown() {
      // Its own effect, which listens for what is to be said, has run before this one.
      useEffect(shown, []);
      return (
        <Sonner
          position="bottom-center"
          // By itself it brings letters of its own, of one size.
          style={{ fontFamily: "inherit" }}
          toastOptions={{
            style: {
              ...{ background: "var(--sheet)", color: "var(--ink)", border: "1px solid var(--line)" },
              fontSize: "1rem",
            },
            actionButtonStyle: {
              ...{ background: "var(--leaf)", color: "var(--on-leaf)", fontSize: "inherit" },
              ...{ height: "auto", minHeight: "2.25rem", padding: "0 0.75rem" },
            },
          }}
        />
      );
    },
  };
});

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The place where what is said in passing appears. */
export function Toasts() {
  const on = useSyncExternalStore(subscribe, () => wanted);
  const said = useSyncExternalStore(subscribe, () => plain);
  return (
    <>
      {said !== null && (
        <p
          role="status"
          className="fixed bottom-4 left-1/2 z-50 -translate-x-1/2 rounded-md border border-line bg-sheet px-4 py-2"
        >
          {said}
        </p>
      )}
      {on && (
        <Suspense>
          <Toaster />
        </Suspense>
      )}
    </>
  );
}
