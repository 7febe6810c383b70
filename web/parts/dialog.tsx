import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { useOpenSheet } from "./open-sheets.ts";
import { useReturnFocus } from "./return-focus.ts";

interface SheetWanted {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly children: ReactNode;
  /** `side` slides in from the right and leaves the rest readable. */
  readonly place?: "middle" | "side";
}

/** A sheet over the page: closed by Escape, the cross, the way back, or a click beside it while nothing was typed. */
export function Sheet({ open, onClose, title, children, place = "middle" }: SheetWanted) {
  useOpenSheet(open, onClose);
  useReturnFocus(open);
  /** Something was typed or chosen in it: a click beside it, which is easily made, then closes nothing. */
  const touched = useRef(false);
  const where =
    place === "side"
      ? "right-0 top-0 h-full w-[26rem] max-w-[92vw]"
      : "left-1/2 top-[12vh] -translate-x-1/2 w-[34rem] max-w-[94vw] max-h-[80vh] rounded-lg";
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={() => {
            touched.current = false;
          }}
          onInput={() => {
            touched.current = true;
          }}
          onPointerDownOutside={(event) => touched.current && event.preventDefault()}
          className={`fixed z-50 flex flex-col overflow-hidden border border-line bg-sheet shadow-xl ${where}`}
        >
          <header className="flex items-start justify-between gap-3 border-b border-line px-4 py-3">
            <Dialog.Title className="text-lg font-semibold">{title}</Dialog.Title>
            <Dialog.Close className="rounded p-1 hover:bg-leaf-pale" aria-label="Close">
              <X size={18} aria-hidden />
            </Dialog.Close>
          </header>
          <div className="overflow-y-auto p-4">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A page over the whole screen, closed by Escape, the way back, or the quiet button in its corner. */
export function Cover({ onClose, title, back, children }: Omit<SheetWanted, "open" | "place"> & { back: string }) {
  useOpenSheet(true, onClose);
  useReturnFocus(true);
  return (
    <Dialog.Root open onOpenChange={(now) => !now && onClose()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex items-center justify-center bg-sheet p-4"
        >
          <Dialog.Title className="sr-only">{title}</Dialog.Title>
          {children}
          <Dialog.Close className="absolute bottom-3 left-3 min-h-11 rounded-md px-3 text-soft hover:text-ink">
            {back}
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
