import type { Request, Response } from "express";
import type { AnswerBody, DeskEvent, FaceBody, FaceEvent } from "#contract";
import { HttpProblem } from "./problem.ts";
import type { LiveSignal, Signals } from "./signals.ts";

/** Who listens to which desk (`deskOf`: a sitting, or a reading on its way) just now, and what its child's face shows. Nothing of it outlives the process. */
export interface LiveHub {
  /** Tells everyone at a desk of new marks; other processes hear of them by the transaction that kept them. */
  marks(deskId: string, answers: readonly AnswerBody[]): void;
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

/** Other processes of the same database, and how what they tell of is read. */
export interface Others {
  readonly signals: Signals;
  /** @param from the number of the first new entry of each child */
  entriesSince(
    schoolId: string,
    sittingId: string,
    from: Readonly<Record<string, number>>,
  ): Promise<readonly AnswerBody[]>;
}

/**
 * Streams of server-sent events: a browser that loses the line asks again by itself. What is told here is told to whoever
 * listens at another process of the database, too; of marks the others hear by their transaction.
 */
export function openLive(others?: Others): LiveHub {
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
    const listening = all.get(deskId) ?? new Set();
    all.set(deskId, listening.add(response));
    const beat = setInterval(() => response.write(": here\n\n"), BEAT_MS);
    request.on("close", () => {
      clearInterval(beat);
      change(from, -1);
      listening.delete(response);
      if (listening.size === 0 && all.get(deskId) === listening) all.delete(deskId);
    });
  }

  const here = {
    desk: (deskId: string, event: DeskEvent) => {
      for (const response of desks.get(deskId) ?? []) send(response, event);
    },
    show: (deskId: string, face: FaceBody) => {
      shown.set(deskId, face);
      for (const response of faces.get(deskId) ?? []) send(response, { kind: "face", face });
    },
    end: (deskId: string) => {
      shown.delete(deskId);
      for (const response of faces.get(deskId) ?? []) {
        send(response, { kind: "end" });
        response.end();
      }
    },
  };

  /** Lets go of desks whose browsers then come again and read everything anew. */
  const readAnew = (which: (deskId: string) => boolean) => {
    for (const [deskId, responses] of desks) if (which(deskId)) for (const response of responses) response.end();
  };

  async function hear(signal: LiveSignal, { entriesSince }: Others): Promise<void> {
    if (signal.kind === "desk") return here.desk(signal.deskId, signal.event);
    if (signal.kind === "show") return here.show(signal.deskId, signal.face);
    if (signal.kind === "end") return here.end(signal.deskId);
    if (signal.kind !== "marks") return;
    const { schoolId, sittings } = signal;
    if (!sittings) return readAnew((deskId) => deskId.startsWith(`${schoolId} `));
    for (const [sittingId, from] of Object.entries(sittings)) {
      const deskId = deskOf({ schoolId }, sittingId);
      if (!desks.has(deskId)) continue;
      try {
        here.desk(deskId, { kind: "answers", answers: [...(await entriesSince(schoolId, sittingId, from))] });
      } catch {
        // The database went away between the signal and the look: who comes again reads it.
        readAnew((one) => one === deskId);
      }
    }
  }
  others?.signals.listen(
    (message) => void hear(message as LiveSignal, others),
    () => readAnew(() => true),
  );
  const tell = (signal: LiveSignal) => others?.signals.tell(signal);

  const tellDesk = (deskId: string, event: DeskEvent) => {
    here.desk(deskId, event);
    tell({ kind: "desk", deskId, event });
  };

  return {
    marks: (deskId, answers) => here.desk(deskId, { kind: "answers", answers: [...answers] }),
    desk: tellDesk,
    show: (deskId, face) => {
      here.show(deskId, face);
      tell({ kind: "show", deskId, face });
    },
    faceOf: (deskId) => shown.get(deskId) ?? nothing,
    end: (deskId) => {
      here.end(deskId);
      tell({ kind: "end", deskId });
    },
    joinDesk: (deskId, request, response) => join(desks, deskId, request, response),
    joinFace: (deskId, request, response) => {
      join(faces, deskId, request, response);
      send(response, { kind: "face", face: shown.get(deskId) ?? nothing });
      tellDesk(deskId, { kind: "screen", isOpen: true });
      request.on("close", () => tellDesk(deskId, { kind: "screen", isOpen: false }));
    },
  };
}
