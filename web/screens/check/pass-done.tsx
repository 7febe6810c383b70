import type { DeskState } from "#core/checks";
import { Button } from "#web/parts/button.tsx";
import { Spellings } from "#web/parts/marks.tsx";

/** When every card of a round was shown: once more round with what was missed, or the result. */
export function PassDone({
  state,
  onAgain,
  onFinish,
}: {
  state: DeskState;
  onAgain: () => void;
  onFinish: () => void;
}) {
  const { missed, deck } = state;
  return (
    <div className="max-w-lg text-center">
      <p className="mb-2 text-lg font-semibold">
        {missed.length === 0
          ? "Every card was right at once."
          : `${deck.length - missed.length} of ${deck.length} were right at once.`}
      </p>
      {missed.length > 0 && (
        <p className="mb-4">
          <Spellings gpcs={missed} />
        </p>
      )}
      <div className="flex flex-wrap justify-center gap-2">
        {missed.length > 0 && <Button onClick={onAgain}>Go round again with these {missed.length}</Button>}
        <Button shape="main" onClick={onFinish}>
          See what this check says
        </Button>
      </div>
    </div>
  );
}
