import type { DndContextProps } from "@dnd-kit/core";

interface SpokenWanted {
  /** What an id that is dragged stands for, as it is called on the screen. */
  readonly what: (id: string) => string;
  /** Where it is dropped. */
  readonly where: (id: string) => string;
  readonly how: string;
}

/** Drag and drop for those who listen: things by their names, not by their ids. */
export function spokenDrag({ what, where, how }: SpokenWanted): NonNullable<DndContextProps["accessibility"]> {
  return {
    screenReaderInstructions: { draggable: how },
    announcements: {
      onDragStart: ({ active }) => `Picked up ${what(String(active.id))}.`,
      onDragOver: ({ active, over }) =>
        over ? `${what(String(active.id))} is over ${where(String(over.id))}.` : undefined,
      onDragEnd: ({ active, over }) =>
        over
          ? `${what(String(active.id))} was dropped on ${where(String(over.id))}.`
          : `${what(String(active.id))} is where it was.`,
      onDragCancel: ({ active }) => `${what(String(active.id))} is where it was.`,
    },
  };
}
