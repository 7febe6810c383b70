import { useLayoutEffect } from "react";

/** When what was open closes, the focus goes back to what opened it, as far as it is still there. */
export function useReturnFocus(open: boolean): void {
  useLayoutEffect(() => {
    if (!open) return;
    const opener = document.activeElement;
    return () => {
      // After the dialog has let go of the focus.
      setTimeout(() => {
        const free = document.activeElement === null || document.activeElement === document.body;
        if (free && opener instanceof HTMLElement && opener.isConnected) opener.focus({ preventScroll: true });
      });
    };
  }, [open]);
}
