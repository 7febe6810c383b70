/** From which accuracy a text is right for teaching, and from which it is easy; percent. The school sets its own. */
export interface Limits {
  readonly teaching: number;
  readonly easy: number;
}

/** Words correct per minute that a school wants of a year group, at three times of its year. */
export interface RateAim {
  /** As the school calls it: the classes with this year group follow it. */
  readonly yearGroup: string;
  readonly start: number;
  readonly middle: number;
  readonly end: number;
}

/** What a school measures readings against. */
export interface ReadingSettings extends Limits {
  /** Seconds that the adult waits before telling a word; 0 leaves it to the adult. */
  readonly wait: number;
  /** Month in which the school year begins, 1 to 12. */
  readonly yearBegins: number;
  readonly aims: readonly RateAim[];
}

/** Starting values. */
export const startingLimits: Limits = { teaching: 90, easy: 95 };

/**
 * Starting values, to be replaced by the school's own: round figures without a study behind them, since aims differ
 * from place to place.
 */
export const startingAims: readonly RateAim[] = [
  { yearGroup: "Year 1", start: 10, middle: 25, end: 40 },
  { yearGroup: "Year 2", start: 40, middle: 55, end: 70 },
  { yearGroup: "Year 3", start: 65, middle: 80, end: 90 },
];

/** Aims and limits of reading until a school sets its own. */
export const startingReadingSettings: ReadingSettings = {
  ...startingLimits,
  wait: 3,
  yearBegins: 9,
  aims: startingAims,
};

/** Months from the start of a school year to its end; in the two that are left no one is at school. */
const SCHOOL_MONTHS = 10;

/**
 * The aim of a year group on a day (`2026-11-23`), in words correct per minute: between start, middle and end of the
 * school year it rises evenly; after the end it stays. Undefined when the school has none for this year group.
 */
export function aimOn(day: string, yearGroup: string, { aims, yearBegins }: ReadingSettings): number | undefined {
  const aim = aims.find((one) => sameName(one.yearGroup, yearGroup));
  if (!aim) return undefined;
  const [, month = 1, date = 1] = day.split("-").map(Number);
  const months = ((month - yearBegins + 12) % 12) + (date - 1) / 31;
  const gone = Math.min(1, months / SCHOOL_MONTHS);
  const half = SCHOOL_MONTHS / 2;
  return Math.round(
    gone < 0.5
      ? aim.start + ((aim.middle - aim.start) * months) / half
      : aim.middle + (aim.end - aim.middle) * (gone * 2 - 1),
  );
}

function sameName(one: string, other: string): boolean {
  return one.trim().toLowerCase() === other.trim().toLowerCase();
}

/**
 * Accuracy as it is shown and judged: whole percent, rounded down, so that what is said to be 90% is never below it.
 * Null when no word was read.
 */
export function wholeAccuracy(accuracy: number | null): number | null {
  // A division may come out a hair below the whole number that it is.
  return accuracy === null ? null : Math.floor(accuracy + 1e-9);
}

/** Whether the text was too hard, right for teaching or easy; null when no word was read. */
export function hardness(
  accuracy: number | null,
  limits: Limits = startingLimits,
): "too hard" | "teaching" | "easy" | null {
  const shown = wholeAccuracy(accuracy);
  if (shown === null) return null;
  return shown < limits.teaching ? "too hard" : shown < limits.easy ? "teaching" : "easy";
}
