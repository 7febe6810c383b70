import { toast } from "./toast.tsx";

const UNDO_MS = 10_000;

/** Says that something was taken away, and for ten seconds offers to put it back. */
export function toastWithUndo(says: string, undo: () => unknown): void {
  toast(says, { duration: UNDO_MS, action: { label: "Undo", onClick: () => void undo() } });
}
