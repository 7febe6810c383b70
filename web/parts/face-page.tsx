import type { FaceBody, FaceDeed } from "#contract";
import { ChildFace } from "./child-face.tsx";

/** One item on an empty page; nothing on it leads anywhere else. */
export function FacePage({ face, onDeed }: { face: FaceBody; onDeed: (deed: FaceDeed) => void }) {
  return (
    <main className="flex h-dvh items-center justify-center bg-sheet p-4" aria-label="Card">
      <h1 className="sr-only">Card</h1>
      {face.show === "nothing" ? (
        <img src="/sapling.svg" alt="Nothing to read now" width={64} height={64} className="opacity-40" />
      ) : (
        <ChildFace face={face} room="window" onDeed={onDeed} />
      )}
    </main>
  );
}
