import { plural } from "#core/saying";
import { kindsOfPart } from "../kinds.ts";
import type { PartKind } from "../part-kinds.ts";
import type { SessionPart } from "../plan.ts";

/**
 * What gives way first when a session runs late, the lowest first: what is a second practice of the same before what nothing else
 * does, teaching and the look at the end last.
 */
const holds: Readonly<Record<PartKind, number>> = {
  readAgain: 0,
  madeUp: 0,
  hear: 1,
  phrase: 1,
  yesNo: 1,
  exceptionWords: 2,
  pairs: 2,
  sort: 2,
  chain: 2,
  build: 3,
  blend: 3,
  readSentence: 3,
  sentence: 4,
  text: 4,
  revisit: 4,
  writeWords: 5,
  readWords: 6,
  teach: 7,
  lastLook: 7,
};

/** A part that has begun keeps a minute at least. */
const LEAST = 1;

/** How the rest of a session fits into the time that is left. */
export interface Fitted {
  /** Minutes of each part: those that are over as they were planned, 0 for what is left out. */
  readonly minutes: readonly number[];
  /** Said before it happens; null while everything fits. */
  readonly says: string | null;
}

/**
 * Fits what is still to come into the minutes that are left: parts that hold least are shortened to a minute and then left out, until
 * it fits.
 * @param spent milliseconds of each part so far
 * @param whole minutes of the whole session; as its parts have them where it is left out
 */
export function fitTime(wanted: {
  readonly parts: readonly Pick<SessionPart, "kind" | "minutes">[];
  readonly part: number;
  readonly spent: readonly number[];
  readonly whole?: number | undefined;
}): Fitted {
  const { parts, part, spent } = wanted;
  const planned = parts.map(({ minutes }) => minutes);
  const whole = wanted.whole ?? planned.reduce((sum, minutes) => sum + minutes, 0);
  const used = spent.reduce((sum, ms) => sum + ms, 0) / 60_000;
  const now = planned[part] ?? 0;
  const stillNow = Math.max(0, now - (spent[part] ?? 0) / 60_000);
  const later = parts.map((_, at) => at).filter((at) => at > part);
  const minutes = [...planned];
  const left = () => whole - used - stillNow - later.reduce((sum, at) => sum + (minutes[at] ?? 0), 0);
  // Half a minute late is not late.
  if (left() >= -0.5) return { minutes, says: null };
  const order = later.toSorted(
    (one, other) => holds[parts[one]?.kind ?? "teach"] - holds[parts[other]?.kind ?? "teach"] || other - one,
  );
  const give = (to: number) => {
    for (const at of order) {
      const late = Math.ceil(-left() - 0.5);
      if (late <= 0) return;
      const has = minutes[at] ?? 0;
      if (has > to) minutes[at] = Math.max(to, has - late);
    }
  };
  give(LEAST);
  give(0);
  const changed = later.filter((at) => minutes[at] !== planned[at]);
  const says = changed.map((at) => {
    const { title } = kindsOfPart[parts[at]?.kind ?? "teach"];
    return minutes[at] === 0 ? `${title} is left out` : `${title} has ${plural(minutes[at] ?? 0, "minute")}`;
  });
  const late = Math.max(
    1,
    Math.round(used + stillNow - planned.slice(0, part + 1).reduce((sum, one) => sum + one, 0)),
  );
  return {
    minutes,
    says: says.length > 0 ? `${plural(late, "minute")} late: ${says.join(", ")}.` : `${plural(late, "minute")} late.`,
  };
}
