import type { Request, Response } from "express";
import type { DeskEvent, FaceBody, FaceEvent } from "#contract";
import { HttpProblem } from "./problem.ts";

/** Who listens to which desk (`deskOf`: a sitting, or a reading on its way) just now, and what its child's face shows. Nothing of it outlives the process. */
export interface LiveHub {
  /** Tells everyone at a desk. */
  desk(deskId: string, event: DeskEvent): void;
  /** Shows on the faces of a desk, and remembers it for one that comes later. */
  show(deskId: string, face: FaceBody): void;
  faceOf(deskId: string): FaceBody;
  /** The desk is left: its faces are told and let go. */
  end(deskId: string): void;
  joinDesk(deskId: string, request: Request, response: Response): void;
  joinFace(deskId: string, request: Request, response: Response): void;
}

/** A desk of one school: ids are made on devices, and two schools may meet in one. */
export function deskOf({ schoolId }: { readonly schoolId: string }, id: string): string {
  return `${schoolId} ${id}`;
}

const nothing: FaceBody = { show: "nothing" };
const BEAT_MS = 15_000;
/** Streams that one device may hold, and that one desk or its faces may have. */
const MOST_STREAMS = 100;
const MOST_AT_DESK = 24;

/** Streams of server-sent events: a browser that loses the line asks again by itself. */
export function openLive(): LiveHub {
  const desks = new Map<string, Set<Response>>();
  const faces = new Map<string, Set<Response>>();
  const shown = new Map<string, FaceBody>();
  const send = (response: Response, event: DeskEvent | FaceEvent) =>
    response.write(`data: ${JSON.stringify(event)}\n\n`);

  /** Open streams by the device that asked for them. */
  const open = new Map<string, number>();
  const change = (from: string, by: number) => {
    const now = (open.get(from) ?? 0) + by;
    if (now > 0) open.set(from, now);
    else open.delete(from);
  };

  function join(all: Map<string, Set<Response>>, deskId: string, request: Request, response: Response): void {
    const from = request.ip ?? "";
    if ((open.get(from) ?? 0) >= MOST_STREAMS || (all.get(deskId)?.size ?? 0) >= MOST_AT_DESK)
      throw new HttpProblem(
        429,
        "Too many windows",
        "Too many windows of this device follow a desk. Close some of them and load this one again.",
      );
    change(from, 1);
    response.writeHead(200, {
      "content-type": "text/event-stream",
      // Compression would hold single events back.
      "cache-control": "no-store, no-transform",
      connection: "keep-alive",
    });
    response.write("retry: 1000\n\n");
    const here = all.get(deskId) ?? new Set();
    all.set(deskId, here.add(response));
    const beat = setInterval(() => response.write(": here\n\n"), BEAT_MS);
    request.on("close", () => {
      clearInterval(beat);
      change(from, -1);
      here.delete(response);
      if (here.size === 0 && all.get(deskId) === here) all.delete(deskId);
    });
  }

  return {
    desk: (deskId, event) => {
      for (const response of desks.get(deskId) ?? []) send(response, event);
    },
    show: (deskId, face) => {
      shown.set(deskId, face);
      for (const response of faces.get(deskId) ?? []) send(response, { kind: "face", face });
    },
    faceOf: (deskId) => shown.get(deskId) ?? nothing,
    end: (deskId) => {
      shown.delete(deskId);
      for (const response of faces.get(deskId) ?? []) {
        send(response, { kind: "end" });
        response.end();
      }
    },
    joinDesk: (deskId, request, response) => join(desks, deskId, request, response),
    joinFace: (deskId, request, response) => {
      join(faces, deskId, request, response);
      send(response, { kind: "face", face: shown.get(deskId) ?? nothing });
    },
  };
}
