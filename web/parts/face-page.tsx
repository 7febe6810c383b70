import type { FaceBody, FaceDeed } from "#contract";
import { ChildFace } from "./child-face.tsx";
import { Cover } from "./dialog.tsx";

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
export function FaceHere({ onClose, ...wanted }: FaceWanted & { onClose: () => void }) {
  return (
    <Cover title="Card" back="To the adult's side" onClose={onClose}>
      <Face {...wanted} />
    </Cover>
  );
}
