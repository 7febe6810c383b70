import type { BlockSessionView } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { waysSay } from "#core/plans";
import { listed, timeInWords } from "#core/saying";

type Point = BlockSessionView["points"][number];

/** What is done with a point in a session, in a word or two. */
export const stepSays: Readonly<Record<Point["step"], string>> = {
  new: "new",
  practise: "goes on",
  again: "again",
  differently: "differently",
};

/** A spelling as it is written. */
const written = (gpc: string): string => showGrapheme(splitGpc(gpc).grapheme);

/** Names as one lists them: `Ada, Ben and Cy`. */
function namesOf(ids: readonly string[], nameOf: (id: string) => string | undefined): string {
  return listed(ids.flatMap((id) => nameOf(id) ?? []));
}

/** Why a point is in a session, in a sentence. */
export function whyOf(point: Point, nameOf: (id: string) => string | undefined): string {
  const names = namesOf(point.for, nameOf);
  const needs = names
    ? `${names} ${point.for.length === 1 ? "needs" : "need"} it by then, as it is foreseen.`
    : "By then no one is likely to need it.";
  switch (point.step) {
    case "new":
      return `New in this group. ${needs}`;
    case "practise":
      return `Goes on with what was begun. ${needs}`;
    case "again":
      return `Taken up again after a while. ${needs}`;
    case "differently":
      return `It was taught and is not there. ${needs} ${point.way ? waysSay[point.way] : ""}`;
  }
}

/** Why a session is about something that is no spelling, in a sentence. */
export function whyAbout(
  { step, for: needing }: NonNullable<BlockSessionView["focus"]>,
  nameOf: (id: string) => string | undefined,
): string {
  const names = namesOf(needing, nameOf);
  const begins = step === "new" ? "New in this group." : "Taken up again.";
  return `${begins} ${names ? `${names} ${needing.length === 1 ? "needs" : "need"} it by then, as it is foreseen.` : "By then no one is likely to need it."}`;
}

/** What a session holds, as one hears it. */
export function spoken({ points, focus, from, by }: BlockSessionView): string {
  const what = focus
    ? `${focus.name}, ${stepSays[focus.step]}`
    : points.length === 0
      ? "review alone"
      : points.map(({ gpc, step }) => `${written(gpc)}, ${stepSays[step]}`).join("; ");
  const said = by === "teacher" ? ", as a teacher said" : by === "session" ? ", planned" : "";
  return `${from === null ? "" : `${timeInWords(from)}: `}${what}${said}`;
}
