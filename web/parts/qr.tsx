import { create } from "qrcode";
import { useMemo } from "react";

/** Empty squares around it, without which no camera finds it. */
const QUIET = 4;

/** A text as a square that a camera reads: dark on white in either theme. */
export function QrCode({ text, label, size = 200 }: { text: string; label: string; size?: number }) {
  const { path, side } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: "M" });
    let drawn = "";
    for (let row = 0; row < modules.size; row++)
      for (let column = 0; column < modules.size; column++)
        if (modules.get(row, column)) drawn += `M${column + QUIET} ${row + QUIET}h1v1h-1z`;
    return { path: drawn, side: modules.size + 2 * QUIET };
  }, [text]);
  return (
    <svg
      role="img"
      aria-label={label}
      width={size}
      height={size}
      viewBox={`0 0 ${side} ${side}`}
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}
