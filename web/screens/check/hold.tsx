import { type ReactNode, useRef } from "react";

const HOLD_MS = 450;

interface HoldWanted {
  readonly onPress: () => void;
  /** What holding it does; a plain button when there is nothing. */
  readonly onHold?: (() => void) | undefined;
  readonly label?: string | undefined;
  readonly className: string;
  readonly children: ReactNode;
}

/** A button that does one thing when it is pressed and a rarer one when it is held. */
export function HoldButton({ onPress, onHold, label, className, children }: HoldWanted) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const held = useRef(false);
  const release = () => clearTimeout(timer.current);
  return (
    <button
      type="button"
      aria-label={label}
      className={`touch-manipulation select-none ${className}`}
      onPointerDown={() => {
        held.current = false;
        if (!onHold) return;
        timer.current = setTimeout(() => {
          held.current = true;
          onHold();
        }, HOLD_MS);
      }}
      onPointerUp={release}
      onPointerLeave={release}
      onPointerCancel={release}
      onContextMenu={(event) => onHold && event.preventDefault()}
      onClick={() => {
        if (!held.current) onPress();
        held.current = false;
      }}
    >
      {children}
    </button>
  );
}
