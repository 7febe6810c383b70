import { format } from "date-fns";
import { unfit } from "./problem.ts";

/** The calendar day at the school: that of the machine the server runs on. */
export function dayOf(now: Date): string {
  return format(now, "yyyy-MM-dd");
}

/** How far a device's clock may run ahead. */
const AHEAD_MS = 5 * 60_000;

export function isFuture(instant: string, now: Date): boolean {
  return Date.parse(instant) > now.getTime() + AHEAD_MS;
}

export function refuseFuture(instant: string, now: Date): void {
  if (isFuture(instant, now))
    throw unfit("The time of this device is ahead of the server's. Set its clock and try again.");
}
