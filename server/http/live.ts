import type { Request, Response } from "express";
import type { DeskEvent, FaceBody, FaceEvent } from "#contract";

/** Who listens to which sitting just now, and what its child's face shows. Nothing of it outlives the process. */
export interface LiveHub {
  /** Tells the desks of a sitting. */
  desk(sittingId: string, event: DeskEvent): void;
  /** Shows on the faces of a sitting, and remembers it for one that comes later. */
  show(sittingId: string, face: FaceBody): void;
  faceOf(sittingId: string): FaceBody;
  /** The sitting ended: its faces are told and let go. */
  end(sittingId: string): void;
  joinDesk(sittingId: string, request: Request, response: Response): void;
  joinFace(sittingId: string, request: Request, response: Response): void;
}

const nothing: FaceBody = { show: "nothing" };
const BEAT_MS = 15_000;

/** Streams of server-sent events: a browser that loses the line asks again by itself. */
export function openLive(): LiveHub {
  const desks = new Map<string, Set<Response>>();
  const faces = new Map<string, Set<Response>>();
  const shown = new Map<string, FaceBody>();
  const send = (response: Response, event: DeskEvent | FaceEvent) =>
    response.write(`data: ${JSON.stringify(event)}\n\n`);

  function join(all: Map<string, Set<Response>>, sittingId: string, request: Request, response: Response): void {
    response.writeHead(200, {
      "content-type": "text/event-stream",
      // Compression would hold single events back.
      "cache-control": "no-store, no-transform",
      connection: "keep-alive",
    });
    response.write("retry: 1000\n\n");
    const here = all.get(sittingId) ?? new Set();
    all.set(sittingId, here.add(response));
    const beat = setInterval(() => response.write(": here\n\n"), BEAT_MS);
    request.on("close", () => {
      clearInterval(beat);
      here.delete(response);
      if (here.size === 0 && all.get(sittingId) === here) all.delete(sittingId);
    });
  }

  return {
    desk: (sittingId, event) => {
      for (const response of desks.get(sittingId) ?? []) send(response, event);
    },
    show: (sittingId, face) => {
      shown.set(sittingId, face);
      for (const response of faces.get(sittingId) ?? []) send(response, { kind: "face", face });
    },
    faceOf: (sittingId) => shown.get(sittingId) ?? nothing,
    end: (sittingId) => {
      shown.delete(sittingId);
      for (const response of faces.get(sittingId) ?? []) {
        send(response, { kind: "end" });
        response.end();
      }
    },
    joinDesk: (sittingId, request, response) => join(desks, sittingId, request, response),
    joinFace: (sittingId, request, response) => {
      join(faces, sittingId, request, response);
      send(response, { kind: "face", face: shown.get(sittingId) ?? nothing });
    },
  };
}
