import { type Day, dayAt } from "#core/ledger";
import { schoolZone } from "../store/classes.ts";
import type { Db } from "../store/open.ts";
import { unfit } from "./problem.ts";

/** The calendar day at the school, by its time zone as it is now. */
export async function dayAtSchool(db: Db, instant: Date | string): Promise<Day> {
  return dayAt(await schoolZone(db), instant);
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
