import { useCallback, useEffect, useRef } from "react";
import { signOut } from "#contract";
import { call } from "./api.ts";
import { someoneElse } from "./me.ts";
import { forgetForGood } from "./pages.ts";
import { useLocked } from "./settings.ts";

const LOOK_MS = 2000;
const AGAIN_MS = 4000;

/**
 * Locks a shared device when no one has touched it for so many minutes. Nothing that the one before read can be seen from
 * then on, with or without a line; marks that wait to be sent stay, under the name of who made them.
 * @param minutes undefined for a device that is not shared, which never locks
 */
export function useLocking(minutes: number | undefined): void {
  const [locked, setLocked] = useLocked();
  const touched = useRef(Date.now());
  useEffect(() => {
    if (minutes === undefined || locked) return;
    touched.current = Date.now();
    const touch = () => {
      touched.current = Date.now();
    };
    // By the time of day and not by how often this runs: a device that slept is late.
    const look = () => {
      if (Date.now() - touched.current >= minutes * 60_000) setLocked(true);
    };
    const kinds = ["pointerdown", "pointermove", "keydown"] as const;
    for (const kind of kinds) addEventListener(kind, touch, { passive: true, capture: true });
    document.addEventListener("visibilitychange", look);
    const timer = setInterval(look, LOOK_MS);
    return () => {
      for (const kind of kinds) removeEventListener(kind, touch, { capture: true });
      document.removeEventListener("visibilitychange", look);
      clearInterval(timer);
    };
  }, [minutes, locked, setLocked]);
}

/** While the device is locked: signs out as soon as there is a line, and then says that someone can come in. */
export function useSignedOutWhenLocked(): boolean {
  const [locked, setLocked] = useLocked();
  const end = useCallback(async () => {
    await call(signOut, {});
    await forgetForGood().catch(() => undefined);
    setLocked(false);
    await someoneElse();
  }, [setLocked]);
  useEffect(() => {
    if (!locked) return;
    let timer: ReturnType<typeof setTimeout>;
    // At once, with a line or without: what names children is not on a locked device.
    void forgetForGood().catch(() => undefined);
    const tryToEnd = () => {
      end().catch(() => {
        timer = setTimeout(tryToEnd, AGAIN_MS);
      });
    };
    tryToEnd();
    return () => clearTimeout(timer);
  }, [locked, end]);
  return locked;
}
