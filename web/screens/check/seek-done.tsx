import { kindAsked, kinds } from "#core/checks";
import { type Unasked, unaskedInWords } from "#core/mastery";
import { plural } from "#core/saying";
import { todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import type { Seeking } from "./seeking.ts";

interface DoneWanted {
  readonly state: Seeking["state"];
  readonly over: NonNullable<Seeking["over"]>;
  readonly unasked: Unasked;
  /** What comes when this part is done, in a few words. */
  readonly next: string;
  readonly onDone: () => void;
}

/** When only what was in doubt was asked: how it ended, what did not come, and what was not asked and why. */
export function SeekDone({ state, over, unasked, next, onDone }: DoneWanted) {
  const right = state.items.length - state.missed.length;
  return (
    <div className="max-w-xl">
      <p className="mb-2 text-center text-lg font-semibold">
        {state.items.length === 0
          ? "All of it is clear from what was marked before. Nothing needs to be asked."
          : over === "settled"
            ? `${plural(state.items.length, "item")} asked, ${right} right at once. The rest is clear.`
            : `${plural(state.items.length, "item")} asked, ${right} right at once. The time is over.`}
      </p>
      {state.missed.length > 0 && (
        <p className="font-child mb-3 flex flex-wrap justify-center gap-x-3">
          {state.missed.map((item) => (
            <span key={item}>{kinds[kindAsked("seek", item)].show(item)}</span>
          ))}
        </p>
      )}
      <NotAsked unasked={unasked} />
      <div className="flex justify-center">
        <Button shape="main" className="min-h-12" autoFocus onClick={onDone}>
          {next}
        </Button>
      </div>
    </div>
  );
}

/** Which cards were not asked, and why. */
export function NotAsked({ unasked }: { unasked: Unasked }) {
  const [first, ...why] = unaskedInWords(unasked, todayHere());
  if (!first) return null;
  return (
    <div className="mb-4">
      <p>{first}</p>
      <ul className="list-disc pl-5">
        {why.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {unasked.open.length > 0 && (
        <p className="mt-1 flex flex-wrap items-baseline gap-1">
          <span className="text-soft">In doubt:</span>
          {unasked.open.map((gpc) => (
            <Spelling key={gpc} gpc={gpc} />
          ))}
        </p>
      )}
    </div>
  );
}
