/**
 * A count of people as it may be told to who knows none of them: to the nearest five, and nothing under five. So no number is of
 * fewer than five, and no two differ by fewer than five: from several of them no one can tell what a few are like.
 * @example inFives(23) // 25; inFives(4) // null
 */
export function inFives(count: number): number | null {
  return count < 5 ? null : Math.round(count / 5) * 5;
}
