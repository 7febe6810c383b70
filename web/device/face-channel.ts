import { useEffect, useRef } from "react";
import { type FaceBody, type FaceDeed, openFace, showFace } from "#contract";
import { call } from "./api.ts";

/** What desk and child's window on the same machine tell each other. It never holds a mark. */
export type FaceMessage =
  | { readonly kind: "face"; readonly face: FaceBody }
  | { readonly kind: "hello" }
  /** The window goes. */
  | { readonly kind: "bye" }
  | { readonly kind: "deed"; readonly deed: FaceDeed };

export function faceChannel(): BroadcastChannel {
  return new BroadcastChannel("keen-face");
}

const AGAIN_MS = 1500;

interface FaceWanted {
  /** The sitting, or the reading on its way. */
  readonly deskId: string;
  /** Whether another device has the code of this desk. */
  readonly elsewhere: boolean;
  readonly face: FaceBody;
  /** A child did something in a window of this machine. */
  readonly onDeed?: (deed: FaceDeed) => void;
  /** A second window of this machine came, or was closed. */
  readonly onScreen?: (isOpen: boolean) => void;
}

/**
 * Keeps the child's face on the item of the desk: the second window of this machine, and another device by way of the
 * server, tried again until the server has taken it. A window that opens later asks and is told.
 */
export function useFace({ deskId, elsewhere, face, onDeed, onScreen }: FaceWanted): void {
  const latest = useRef({ face, onDeed, onScreen });
  const channel = useRef<BroadcastChannel | null>(null);
  const said = JSON.stringify(face);
  useEffect(() => {
    latest.current = { face, onDeed, onScreen };
  });
  useEffect(() => {
    const open = faceChannel();
    channel.current = open;
    open.onmessage = ({ data }: MessageEvent<FaceMessage>) => {
      if (data.kind === "hello") open.postMessage({ kind: "face", face: latest.current.face } satisfies FaceMessage);
      if (data.kind === "deed") latest.current.onDeed?.(data.deed);
      if (data.kind === "hello" || data.kind === "bye") latest.current.onScreen?.(data.kind === "hello");
    };
    return () => {
      open.postMessage({ kind: "face", face: { show: "nothing" } } satisfies FaceMessage);
      open.close();
      channel.current = null;
    };
  }, []);
  const newest = useRef(said);
  const send = useRef(() => {});
  useEffect(() => {
    newest.current = said;
    channel.current?.postMessage({ kind: "face", face: JSON.parse(said) } satisfies FaceMessage);
    send.current();
  }, [said]);
  useEffect(() => {
    if (!elsewhere) return;
    let [here, busy, told] = [true, false, ""];
    // One after the other: of two on their way at once the older could arrive last, and would stay.
    const tell = async () => {
      if (busy) return;
      busy = true;
      while (here && told !== newest.current) {
        const now = newest.current;
        try {
          await call(showFace, { params: { id: deskId }, body: { face: JSON.parse(now) } });
          told = now;
        } catch {
          await new Promise((done) => setTimeout(done, AGAIN_MS));
        }
      }
      busy = false;
    };
    send.current = () => void tell();
    void tell();
    return () => {
      here = false;
      send.current = () => {};
    };
  }, [elsewhere, deskId]);
}

/** A code under which another device shows the child's face of this desk. Throws with the reason in words. */
export async function faceCodeFor(deskId: string): Promise<string> {
  return (await call(openFace, { params: { id: deskId } })).code;
}
