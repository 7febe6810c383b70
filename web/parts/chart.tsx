import { lazy, Suspense } from "react";
import type { ChartWanted } from "./chart-wanted.ts";

const Canvas = lazy(() => import("./chart-canvas.tsx").then((module) => ({ default: module.ChartCanvas })));

/** Lines and bars over places in a row. The chart engine is fetched when the first one is shown. */
export function Chart(wanted: ChartWanted) {
  return (
    <div role="img" aria-label={wanted.label} className="h-56 w-full">
      <Suspense fallback={<div className="h-full animate-pulse rounded bg-line/40" />}>
        <Canvas {...wanted} />
      </Suspense>
    </div>
  );
}
