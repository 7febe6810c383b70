import { useEffect, useRef, useState } from "react";
import type { FaceBody, FaceDeed } from "#contract";
import { type FaceMessage, faceChannel } from "#web/device/face-channel.ts";
import { followLetters } from "#web/device/letters.ts";
import { FacePage } from "#web/parts/face-page.tsx";
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
    followLetters();
    open.postMessage({ kind: "hello" } satisfies FaceMessage);
    const leave = () => open.postMessage({ kind: "bye" } satisfies FaceMessage);
    addEventListener("pagehide", leave);
    return () => {
      removeEventListener("pagehide", leave);
      open.close();
    };
  }, []);
  const tell = (deed: FaceDeed) => channel.current?.postMessage({ kind: "deed", deed } satisfies FaceMessage);
  return <FacePage face={face} onDeed={tell} />;
}
