import { type ComponentType, useEffect, useState } from "react";
import type { ChartWanted } from "./chart-wanted.ts";

let canvas: ComponentType<ChartWanted> | undefined;

/** Lines and bars over places in a row. The chart engine is fetched when the first one is shown; without a line the table has it all. */
export function Chart(wanted: ChartWanted) {
  const [Canvas, setCanvas] = useState(() => canvas);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (Canvas) return;
    let here = true;
    const fetchIt = () =>
      import("./chart-canvas.tsx").then(
        (module) => {
          canvas = module.ChartCanvas;
          if (here) setCanvas(() => module.ChartCanvas);
        },
        () => here && setFailed(true),
      );
    void fetchIt();
    addEventListener("online", fetchIt);
    return () => {
      here = false;
      removeEventListener("online", fetchIt);
    };
  }, [Canvas]);
  if (failed && !Canvas)
    return <p className="text-sm text-soft">The drawing needs a connection; the figures stand in the table.</p>;
  return (
    <div role="img" aria-label={wanted.label} className="h-56 w-full">
      {Canvas ? <Canvas {...wanted} /> : <div className="h-full animate-pulse rounded bg-line/40" />}
    </div>
  );
}
