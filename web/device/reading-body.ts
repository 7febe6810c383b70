import type { ReadingBody } from "#contract";
import { stampNow, todayHere } from "./clock.ts";

/** A reading of a text by a child of which nothing is marked yet. */
export function freshReading(of: {
  readonly text: { readonly id: string; readonly title: string; readonly body: string };
  readonly childId: string;
  readonly how: ReadingBody["how"];
  readonly fit: number | null;
  readonly markedBy: string;
}): ReadingBody {
  const { text, childId, how, fit, markedBy } = of;
  return {
    ...{ childId, how, textId: text.id, title: text.title, text: text.body, fit },
    ...{ marks: [], stoppedAt: null, ms: null, turns: [], understanding: [], note: "" },
    voice: { phrases: null, stops: null, pace: null, expression: null },
    ...{ readAt: stampNow(), day: todayHere(), markedBy: markedBy.trim() || "Teacher" },
  };
}
