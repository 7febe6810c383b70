import type { StopReason } from "#core/ledger";
import { Button } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";

/** Stopping is always possible, and everything that was marked stays. */
export function StopSheet({
  open,
  name,
  onClose,
  onStop,
}: {
  open: boolean;
  name: string;
  onClose: () => void;
  /** `all`: every part that is left for this child. */
  onStop: (why: StopReason, all: boolean) => void;
}) {
  return (
    <Sheet open={open} onClose={onClose} title="Stop here">
      <p className="mb-3">Everything so far is kept. Tell {name} that this was good work.</p>
      <div className="flex flex-col gap-2">
        <Button className="min-h-12" onClick={() => onStop("stopped", false)}>
          End this part
        </Button>
        <Button className="min-h-12" onClick={() => onStop("tired", true)}>
          Enough for {name} today (tired or upset)
        </Button>
        <Button className="min-h-12" onClick={() => onStop("stopped", true)}>
          End all parts of {name}
        </Button>
      </div>
    </Sheet>
  );
}
