import { unfit } from "./problem.ts";

/** How far a device's clock may run ahead. */
const AHEAD_MS = 5 * 60_000;

/** Whether a device says an instant that has not come yet, by more than its clock may be wrong. */
export function isFuture(instant: string, now: Date): boolean {
  return Date.parse(instant) > now.getTime() + AHEAD_MS;
}

/** @throws HttpProblem 422 when the instant has not come yet */
export function refuseFuture(instant: string, now: Date): void {
  if (isFuture(instant, now))
    throw unfit("The time of this device is ahead of the server's. Set its clock and try again.");
}

/** The time zone of this machine, for a school that has said none. */
export function ownZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}
