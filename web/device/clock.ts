import { type Day, dayAt, isTimeZone } from "#core/ledger";

/**
 * The time on this device, put right by the server's clock, and the school's days. A tablet whose clock is a day off
 * makes marks of today all the same.
 */

/** A device is only put right when it is further off than the server's `Date` header and a slow line can explain. */
const TOLERATED_MS = 5_000;

const places = { ahead: "keen-clock-ahead", zone: "keen-zone" } as const;

/** Milliseconds by which this device's clock runs ahead of the server's; negative when it is behind. */
let measured: number | undefined;
const ahead = (): number => (measured ??= Number(localStorage.getItem(places.ahead)) || 0);
let lastGiven = 0;

/**
 * Measures the device's clock by an answer of the server.
 * @param date the answer's `Date` header, to the second
 * @param sentAt and `gotAt`: this device's clock, in milliseconds, when the request left and when the answer came
 */
export function measureClock(date: string | null, sentAt: number, gotAt: number): void {
  const server = Date.parse(date ?? "");
  // A device that was asleep between the two says nothing.
  if (Number.isNaN(server) || gotAt - sentAt > TOLERATED_MS || gotAt < sentAt) return;
  // The header is cut to its second.
  const off = (sentAt + gotAt) / 2 - (server + 500);
  const now = Math.abs(off) <= TOLERATED_MS ? 0 : Math.round(off);
  if (now === ahead() || (now !== 0 && Math.abs(now - ahead()) <= TOLERATED_MS)) return;
  measured = now;
  lastGiven = 0;
  localStorage.setItem(places.ahead, String(now));
}

/** Now by the server's clock. */
export function clockNow(): Date {
  return new Date(Date.now() - ahead());
}

/** The instant of a mark: now by the server's clock, each later than the one before, so that their order is kept. */
export function stampNow(): string {
  lastGiven = Math.max(clockNow().getTime(), lastGiven + 1);
  return new Date(lastGiven).toISOString();
}

/** Keeps the school's time zone for when there is no line. */
export function rememberZone(zone: string): void {
  if (localStorage.getItem(places.zone) !== zone) localStorage.setItem(places.zone, zone);
}

/** The zone that the browser is set to: what it proposes for the school. */
export function zoneOfBrowser(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}

function schoolZone(): string {
  const kept = localStorage.getItem(places.zone);
  return kept !== null && isTimeZone(kept) ? kept : zoneOfBrowser();
}

/** The day at the school on which an instant falls. */
export function dayOfInstant(instant: string): Day {
  return dayAt(schoolZone(), instant);
}

/** The day at the school now. */
export function todayHere(): Day {
  return dayAt(schoolZone(), clockNow());
}
