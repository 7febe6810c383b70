/**
 * A newer application waits beside the running one until no check, reading or session is open on this device: then it
 * takes over, and the page is loaded anew. Each tab with such a desk holds a lock of the browser that all tabs share.
 */
const DESK = "keen-desk";

/** Addresses at which someone is in the middle of something with a child. */
const desks = [/^\/check\/[^/]+$/, /^\/texts\/[^/]+\/read$/, /^\/sessions\/[^/]+$/, /^\/face$/, /^\/look$/];

function isDesk(pathname: string): boolean {
  return desks.some((desk) => desk.test(pathname));
}

/** The lock that this tab holds. */
let held: { readonly leave: () => void; readonly released: Promise<unknown> } | undefined;

/** Holds the lock for as long as this tab is at a desk; resolves when it is let go. */
async function holdDesk(at: boolean): Promise<void> {
  if (at === (held !== undefined)) return;
  if (held) {
    const { leave, released } = held;
    held = undefined;
    leave();
    await released;
    return;
  }
  let leave = () => {};
  const left = new Promise<void>((done) => {
    leave = done;
  });
  held = { leave, released: navigator.locks.request(DESK, { mode: "shared" }, () => left) };
}

/** Lets the waiting application take over when no tab is at a desk. @returns whether it does */
async function renewIfFree(): Promise<boolean> {
  const registration = await navigator.serviceWorker.getRegistration();
  const waiting = registration?.waiting;
  if (!waiting) return false;
  return navigator.locks.request(DESK, { mode: "exclusive", ifAvailable: true }, (free) => {
    if (free) waiting.postMessage({ type: "SKIP_WAITING" });
    return free !== null;
  });
}

const able = import.meta.env.PROD && "serviceWorker" in navigator && "locks" in navigator;

/** Registers the application on this device, so that it opens without a connection. */
export function installOnDevice(): void {
  if (!able) return;
  const register = () => void navigator.serviceWorker.register("/sw.js");
  // The page itself comes first.
  if (document.readyState === "complete") register();
  else addEventListener("load", register);
}

let here: string | undefined;

/** A page may be loaded anew this long after it was opened: nothing has been typed there yet. */
const FRESH_MS = 2000;
/** The newer application has taken over, and this tab still runs the older one. */
let overtaken = false;

/**
 * Called with each page. When one that is no desk is opened nothing has been typed there yet, so that it can be loaded
 * anew when a newer application has taken over.
 */
export async function arriveAt(pathname: string): Promise<void> {
  if (!able || pathname === here) return;
  here = pathname;
  await holdDesk(isDesk(pathname));
  if (isDesk(pathname)) return;
  if (overtaken) return location.reload();
  const openedAt = performance.now();
  const taken = () => {
    overtaken = true;
    // A browser can take its time over it; then the next page that is opened is loaded anew.
    if (here === pathname && performance.now() - openedAt < FRESH_MS) location.reload();
  };
  navigator.serviceWorker.addEventListener("controllerchange", taken, { once: true });
  if (await renewIfFree()) return;
  navigator.serviceWorker.removeEventListener("controllerchange", taken);
  await (await navigator.serviceWorker.getRegistration())?.update().catch(() => {});
}
