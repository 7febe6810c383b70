import { useEffect, useRef, useState } from "react";
import type { FaceBody } from "#contract";
import { type FaceMessage, faceChannel } from "#web/device/face-channel.ts";
import { ChildFace } from "#web/parts/child-face.tsx";
import { usePlaceTitle } from "#web/parts/page.tsx";

/** The child's face in a second window of the same machine, following the desk. */
export function Screen() {
  usePlaceTitle("Card");
  const [face, setFace] = useState<FaceBody>({ show: "nothing" });
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const open = faceChannel();
    channel.current = open;
    open.onmessage = ({ data }: MessageEvent<FaceMessage>) => {
      if (data.kind === "face") setFace(data.face);
    };
    open.postMessage({ kind: "hello" } satisfies FaceMessage);
    return () => open.close();
  }, []);
  const tap = (choice: string) => {
    if (face.show === "choices")
      channel.current?.postMessage({ kind: "tap", item: face.item, choice } satisfies FaceMessage);
  };
  return <FacePage face={face} onTap={tap} />;
}

/** One item on an empty page; nothing on it leads anywhere else. */
export function FacePage({ face, onTap }: { face: FaceBody; onTap: (choice: string) => void }) {
  return (
    <main className="flex h-screen items-center justify-center bg-sheet p-4" aria-label="Card">
      <h1 className="sr-only">Card</h1>
      {face.show === "nothing" ? (
        <img src="/sapling.svg" alt="Nothing to read now" width={64} height={64} className="opacity-40" />
      ) : (
        <ChildFace face={face} room="window" onTap={onTap} />
      )}
    </main>
  );
}
