import { useEffect, useState } from "react";
import { usePlaceTitle } from "#web/parts/page.tsx";
import { CardFace } from "./card-face.tsx";
import { type FaceMessage, faceChannel } from "./face-channel.ts";

/** The child's face: one card on an empty page, following the desk. */
export function Screen() {
  usePlaceTitle("Card");
  const [grapheme, setGrapheme] = useState<string | null>(null);
  useEffect(() => {
    const channel = faceChannel();
    channel.onmessage = ({ data }: MessageEvent<FaceMessage>) => {
      if (data.kind === "card") setGrapheme(data.grapheme);
      if (data.kind === "rest") setGrapheme(null);
    };
    channel.postMessage({ kind: "hello" } satisfies FaceMessage);
    return () => channel.close();
  }, []);
  return (
    <main className="flex h-screen items-center justify-center bg-sheet" aria-label="Card">
      <h1 className="sr-only">Card</h1>
      {grapheme ? (
        <CardFace grapheme={grapheme} size="min(56vh, 34vw)" />
      ) : (
        <img src="/sapling.svg" alt="Nothing to read now" width={64} height={64} className="opacity-40" />
      )}
    </main>
  );
}
