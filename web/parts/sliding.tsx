import { useEffect, useRef } from "react";
import type { FaceBody, FaceDeed } from "#contract";
import { askedBy } from "./asked-by.ts";
import { useMine } from "./mine.ts";
import { WordWithin } from "./word-within.tsx";

/** Milliseconds between two tellings while a finger moves. */
const TELL_MS = 60;

interface SlidingWanted {
  readonly face: Extract<FaceBody, { show: "within" }>;
  readonly onDeed: (deed: FaceDeed) => void;
}

/** A word whose sounds stand apart until a child slides them together, with a finger along the line below it. */
export function Sliding({ face, onDeed }: SlidingWanted) {
  const item = askedBy(face) ?? "";
  const [apart, , setApart] = useMine(item, face.apart ?? 0);
  // Of what a finger does in between, the last is told.
  const waits = useRef<{ readonly timer: ReturnType<typeof setTimeout>; deed: FaceDeed | null }>(undefined);
  const latest = useRef(onDeed);
  latest.current = onDeed;
  const tell = (deed: FaceDeed) => {
    if (waits.current) {
      waits.current.deed = deed;
      return;
    }
    latest.current(deed);
    const timer = setTimeout(() => {
      const later = waits.current?.deed;
      waits.current = undefined;
      if (later) tell(later);
    }, TELL_MS);
    waits.current = { timer, deed: null };
  };
  useEffect(() => () => clearTimeout(waits.current?.timer), []);
  const together = 100 - Math.round(apart * 100);
  return (
    <div className="flex w-full flex-col items-center gap-[6vh]">
      <WordWithin face={{ ...face, apart }} room="window" />
      <input
        type="range"
        aria-label="Slide the sounds together"
        aria-valuetext={together === 0 ? "apart" : together === 100 ? "together" : `${together} of 100`}
        min={0}
        max={100}
        step={5}
        value={together}
        onChange={(event) => {
          const value = 1 - Number(event.target.value) / 100;
          setApart(value);
          tell({ item, apart: value });
        }}
        className="slide-track w-[min(90vw,60rem)]"
      />
    </div>
  );
}
