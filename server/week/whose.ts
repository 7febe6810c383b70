import type { CalendarOf, Week } from "#contract";
import type { School } from "../house.ts";
import { type CalendarEntry, calendarText } from "./calendar-file.ts";
import type { KeptMeeting } from "./repository.ts";

/** Names and members that sessions are told with. */
export async function namesOf(school: School) {
  const week = await school.week.read();
  const { adults } = await school.grouping.read();
  const groups = new Map((await school.groups.list()).map((group) => [group.id, group]));
  const adult = new Map(adults.map(({ id, name }) => [id, name]));
  const room = new Map(week.rooms.map(({ id, name }) => [id, name]));
  return {
    ...{ week, groups },
    group: (id: string) => groups.get(id)?.name ?? "",
    /** Whoever took groups once and does not any more has no name here. */
    adult: (id: string) => adult.get(id) ?? "no one yet",
    room: (id: string | null) => (id === null ? "" : (room.get(id) ?? "")),
    members: (id: string) => groups.get(id)?.members ?? [],
    isAdult: (id: string) => adult.has(id),
    isRoom: (id: string) => room.has(id),
  };
}
export type Names = Awaited<ReturnType<typeof namesOf>>;

/** What a week is called, and the groups whose sessions it shows; undefined for what is not here. */
export async function whoseWeek(
  school: School,
  { of, about }: { readonly of: CalendarOf; readonly about: string },
  names: Names,
): Promise<{ readonly name: string; readonly groupIds: readonly string[] } | undefined> {
  if (of === "adult") return names.isAdult(about) ? { name: names.adult(about), groupIds: [] } : undefined;
  if (of === "room") return names.isRoom(about) ? { name: names.room(about), groupIds: [] } : undefined;
  const open = [...names.groups.values()];
  if (of === "class") {
    const one = await school.classes.find(about);
    const groupIds = open
      .filter(({ members }) => members.some(({ classId }) => classId === about))
      .map(({ id }) => id);
    return one && { name: one.name, groupIds };
  }
  const child = await school.children.find(about);
  const groupIds = open.filter(({ members }) => members.some(({ childId }) => childId === about)).map(({ id }) => id);
  return child && { name: asAllowed(child.name, names.week.names) || "A child", groupIds };
}

/** A child's name as far as it may leave the school; empty where it may not. */
function asAllowed(name: string, how: Week["names"]): string {
  if (how === "names") return name;
  if (how === "none") return "";
  return name
    .split(/\s+/)
    .map((word) => word.slice(0, 1))
    .join("");
}

/** One week as a calendar file; undefined for what is not here. */
export async function calendarOfWeek(
  school: School,
  whose: { readonly of: CalendarOf; readonly about: string },
): Promise<string | undefined> {
  const names = await namesOf(school);
  const found = await whoseWeek(school, whose, names);
  if (!found) return undefined;
  const meetings = await school.week.meetingsOf({ ...whose, groupIds: found.groupIds });
  return calendarText({
    name: `${found.name}: reading sessions`,
    zone: await school.settings.zone(),
    entries: meetings.map((meeting) => entryOf(meeting, whose.of, names)),
  });
}

function entryOf(meeting: KeptMeeting, of: CalendarOf, names: Names): CalendarEntry {
  const adult = names.adult(meeting.adultId);
  const children = names.members(meeting.groupId).flatMap(({ name }) => asAllowed(name, names.week.names) || []);
  return {
    meeting,
    // Whoever reads it knows whose it is.
    summary: of === "adult" ? names.group(meeting.groupId) : `${names.group(meeting.groupId)} with ${adult}`,
    location: of === "room" ? "" : names.room(meeting.roomId),
    // A child's own calendar names no other child.
    description: of === "child" ? "" : children.join(", "),
  };
}
