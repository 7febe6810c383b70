import ical, { ICalCalendarMethod, ICalEventStatus } from "ical-generator";
import { instantAt } from "#core/ledger";
import type { KeptMeeting } from "./repository.ts";

/** What a calendar says of one session. */
export interface CalendarEntry {
  readonly meeting: KeptMeeting;
  readonly summary: string;
  readonly location: string;
  readonly description: string;
}

/**
 * A week as an iCalendar file: each session an event of its own, in UTC, so that it is at the school's time on both sides of a
 * change of the clocks. Ids stay, changes raise the sequence, what fell out says that it is cancelled.
 */
export function calendarText(wanted: {
  readonly name: string;
  readonly zone: string;
  readonly entries: readonly CalendarEntry[];
}): string {
  const { name, zone, entries } = wanted;
  const calendar = ical({
    name,
    prodId: { company: "Keen Sapling", product: "The week" },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 60 * 60,
  });
  for (const { meeting, summary, location, description } of entries) {
    const { id, on, from, to, sequence, cancelled, changedAt } = meeting;
    const event = calendar.createEvent({
      id: `${id}@keen-sapling`,
      sequence,
      start: instantAt(zone, on, from),
      end: instantAt(zone, on, to),
      stamp: new Date(changedAt),
      lastModified: new Date(changedAt),
      summary,
      status: cancelled ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
    });
    if (location) event.location(location);
    if (description) event.description(description);
  }
  return calendar.toString();
}
