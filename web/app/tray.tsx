import { useState } from "react";
import { isGiven } from "#core/ledger";
import { nearDay, plural } from "#core/saying";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { outbox, type RefusedMark, useOutbox } from "#web/device/outbox.ts";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { download } from "#web/parts/download.ts";
import { toastWithUndo } from "#web/parts/undo.ts";

/** Marks that the server would not keep stay on this device, in sight, until someone says what to do with them. */
export function Tray() {
  const { refused } = useOutbox();
  const [open, setOpen] = useState(false);
  const [first] = refused;
  if (!first) return null;
  const count = plural(refused.length, "mark");
  const discard = async () => {
    setOpen(false);
    const marks = await outbox.discardRefused();
    toastWithUndo(`${count} discarded.`, () => outbox.putBack(marks));
  };
  return (
    <section
      role="alert"
      aria-label="Marks that could not be kept"
      className="no-print flex flex-wrap items-center justify-between gap-3 border-b border-damson bg-damson-pale px-4 py-2"
    >
      <p>
        {count} could not be kept: {first.says}
      </p>
      <Button onClick={() => setOpen(true)}>Look at {refused.length === 1 ? "it" : "them"}</Button>
      <Sheet open={open} onClose={() => setOpen(false)} title={`${count} could not be kept`}>
        <p className="mb-2 text-sm text-soft">
          They are on this device alone. Send them again when what stood in the way is mended, or save them as a file
          before you discard them.
        </p>
        <ul className="mb-3 flex flex-col gap-1">
          {refused.map((one) => (
            <li key={one.answer.id} className="rounded border border-line px-3 py-1.5">
              <MarkInWords {...one} />
            </li>
          ))}
        </ul>
        <div className="flex flex-wrap gap-2">
          <Button
            shape="main"
            onClick={() => {
              setOpen(false);
              outbox.sendAgain();
            }}
          >
            Send again
          </Button>
          <Button onClick={() => download("marks.json", "application/json", fileOf(refused))}>Save as file</Button>
          <Button onClick={discard}>Discard</Button>
        </div>
      </Sheet>
    </section>
  );
}

/** What it was, when, and why it was not kept. A name is not on the device. */
function MarkInWords({ answer, says }: RefusedMark) {
  const what = isGiven(answer) ? `${answer.item}: ${answer.outcome}` : whatElse[answer.outcome];
  return (
    <>
      <span className="font-child">{what}</span>, {nearDay(dayOfInstant(answer.markedAt), todayHere())}, by{" "}
      {answer.markedBy}
      <span className="block text-sm text-soft">{says}</span>
    </>
  );
}

const whatElse = {
  void: "a mark taken back",
  note: "a note",
  stop: "the end of a check",
  reading: "a reading",
} as const;

function fileOf(refused: readonly RefusedMark[]): string {
  const marks = refused.map(({ answer, says }) => ({ ...answer, refused: says }));
  return `${JSON.stringify({ format: "keen-sapling marks 1", marks }, null, 2)}\n`;
}
