/** A time of the day, in minutes from midnight, as it is read: `timeInWords(555)` is `9:15`. */
export function timeInWords(minutes: number): string {
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}
