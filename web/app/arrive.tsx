import { useEffect, useRef, useState } from "react";
import { useLocation } from "react-router";

const LOOK_MS = 50;
const LONGEST_MS = 4_000;

/**
 * After a change of page the focus goes to its heading, and what the page is is said. A page whose heading comes with its
 * data is waited for; nothing is taken from a field that has the focus by then.
 */
export function Arrival() {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  const [said, setSaid] = useState("");
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    const began = performance.now();
    let focused: HTMLElement | null = null;
    let left = document.activeElement;
    const look = () => {
      const heading = document.querySelector<HTMLElement>("main h1");
      const at = document.activeElement;
      // The link that led here may stay focused; anything that was focused since then keeps it.
      const free = at === null || at === document.body || at === left || at === focused;
      if (heading && free && heading !== focused) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
        focused = heading;
        left = heading;
        setSaid(document.title.split(" · ")[0] ?? "");
      }
      if (!free || performance.now() - began > LONGEST_MS) clearInterval(timer);
    };
    const timer = setInterval(look, LOOK_MS);
    look();
    return () => clearInterval(timer);
  }, [pathname]);
  return (
    <div aria-live="polite" className="sr-only">
      {said}
    </div>
  );
}
