import type { AnyKind, DeskState } from "#core/checks";
import { Button } from "#web/parts/button.tsx";

interface PassWanted {
  readonly state: DeskState;
  readonly kind: AnyKind;
  /** What comes when this part is done, in a few words. */
  readonly next: string;
  readonly onAgain: () => void;
  readonly onDone: () => void;
}

/**
 * When every item of a round was asked: once more with what was missed, or on. The way on has the focus, so that Enter
 * takes it, and not what was pressed last before the marks.
 */
export function PassDone({ state, kind, next, onAgain, onDone }: PassWanted) {
  const { missed, items } = state;
  return (
    <div className="max-w-xl text-center">
      <p className="mb-2 text-lg font-semibold">
        {items.length === 0
          ? "Nothing is left to ask here."
          : missed.length === 0
            ? "All of it was right at once."
            : `${items.length - missed.length} of ${items.length} were right at once.`}
      </p>
      {missed.length > 0 && (
        <p className="font-child mb-4 flex flex-wrap justify-center gap-x-3">
          {missed.map((item) => (
            <span key={item}>{kind.show(item)}</span>
          ))}
        </p>
      )}
      <div className="flex flex-wrap justify-center gap-2">
        {missed.length > 0 && (
          <Button className="min-h-12" onClick={onAgain}>
            Go round again with these {missed.length}
          </Button>
        )}
        <Button shape="main" className="min-h-12" autoFocus onClick={onDone}>
          {next}
        </Button>
      </div>
    </div>
  );
}
