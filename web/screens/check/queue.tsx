import { Check } from "lucide-react";
import type { SittingView } from "#contract";
import { kinds } from "#core/checks";
import type { Progress } from "./at-desk.ts";
import { onScreen } from "./kinds/index.ts";

interface QueueWanted {
  readonly sitting: SittingView;
  readonly progress: ReadonlyMap<string, Progress>;
  readonly current: string;
  readonly onGo: (checkId: string) => void;
}

/** The children of a sitting in a row, and the parts of the one who is here; any of them a tap away. */
export function Queue({ sitting, progress, current, onGo }: QueueWanted) {
  const here = sitting.checks.find((check) => check.id === current);
  const childId = here?.childId;
  // At a desk for all of them the children stand there.
  const inRow = sitting.children.length > 1 && !(here && onScreen(here.kind).together);
  const partsOf = (id: string) => sitting.checks.filter((check) => check.childId === id);
  const isDone = (checkId: string) => progress.get(checkId)?.ended ?? false;
  const chip = "flex min-h-9 items-center gap-1 rounded-full border px-3 text-sm whitespace-nowrap";
  return (
    <div className="flex flex-col gap-1.5">
      {inRow && (
        <nav aria-label="Children" className="flex gap-1.5 overflow-x-auto py-0.5">
          {sitting.children.map((child) => {
            const parts = partsOf(child.id);
            const done = parts.length > 0 && parts.every((part) => isDone(part.id));
            const to = parts.find((part) => !isDone(part.id)) ?? parts[0];
            return (
              <button
                key={child.id}
                type="button"
                disabled={!to}
                aria-current={child.id === childId ? "true" : undefined}
                onClick={() => to && onGo(to.id)}
                className={`${chip} ${child.id === childId ? "border-leaf bg-leaf-pale font-semibold" : "border-line bg-sheet"}`}
              >
                {done && <Check size={14} aria-label="done" />}
                {child.name}
              </button>
            );
          })}
        </nav>
      )}
      {childId && partsOf(childId).length > 1 && (
        <nav aria-label="Parts" className="flex gap-1.5 overflow-x-auto py-0.5">
          {partsOf(childId).map((part) => (
            <button
              key={part.id}
              type="button"
              aria-current={part.id === current ? "step" : undefined}
              onClick={() => onGo(part.id)}
              className={`${chip} ${part.id === current ? "border-leaf bg-leaf-pale font-semibold" : "border-line bg-sheet"}`}
            >
              {isDone(part.id) && <Check size={14} aria-label="done" />}
              {kinds[part.kind].name}
              <span className="text-soft">
                {progress.get(part.id)?.asked ?? 0}
                {part.kind === "seek" ? " asked" : `/${part.items.length}`}
              </span>
            </button>
          ))}
        </nav>
      )}
    </div>
  );
}
