import { Dialog } from "radix-ui";
import type { FaceBody, FaceDeed } from "#contract";
import { Button } from "./button.tsx";
import { ChildFace } from "./child-face.tsx";
import { useOpenSheet } from "./open-sheets.ts";

interface FaceWanted {
  readonly face: FaceBody;
  readonly onDeed: (deed: FaceDeed) => void;
}

function Face({ face, onDeed }: FaceWanted) {
  return face.show === "nothing" ? (
    <img src="/sapling.svg" alt="Nothing to read now" width={64} height={64} className="opacity-40" />
  ) : (
    <ChildFace face={face} room="window" onDeed={onDeed} />
  );
}

/** One item on an empty page; nothing on it leads anywhere else. */
export function FacePage(wanted: FaceWanted) {
  return (
    <main className="flex h-dvh items-center justify-center bg-sheet p-4" aria-label="Card">
      <h1 className="sr-only">Card</h1>
      <Face {...wanted} />
    </main>
  );
}

/** The same over the adult's side, for a tablet that is turned round; a button in the corner, or Escape, leads back. */
export function FaceHere({ open, onClose, ...wanted }: FaceWanted & { open: boolean; onClose: () => void }) {
  useOpenSheet(open, onClose);
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex items-center justify-center bg-sheet p-4"
        >
          <Dialog.Title className="sr-only">Card</Dialog.Title>
          <Face {...wanted} />
          <Dialog.Close asChild>
            <Button shape="quiet" className="absolute bottom-3 left-3 min-h-11">
              To the adult's side
            </Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
