import type { GroupView, Meetings } from "#contract";

type Meeting = Meetings["meetings"][number];

/** Stands for the week of everyone, in an address too. */
export const allWeeks = "all";

/** Whose weeks can be looked at: adults and rooms that have sessions, classes and children that are in groups. */
export function choicesOf(from: {
  readonly meetings: readonly Meeting[];
  readonly groups: readonly GroupView[];
  readonly classes: readonly { readonly id: string; readonly name: string; readonly archived: boolean }[];
}): { readonly whose: string; readonly name: string }[] {
  const { meetings, groups, classes } = from;
  const found = new Map<string, string>();
  for (const { adultId, adultName } of meetings) found.set(`adult:${adultId}`, adultName);
  for (const { roomId, roomName } of meetings) if (roomId) found.set(`room:${roomId}`, roomName);
  const members = groups.filter(({ closed }) => !closed).flatMap((group) => group.members);
  for (const { id, name } of classes)
    if (members.some(({ classId }) => classId === id)) found.set(`class:${id}`, name);
  for (const { childId, name } of members) found.set(`child:${childId}`, name);
  return [...found]
    .map(([whose, name]) => ({ whose, name }))
    .sort((one, other) => one.name.localeCompare(other.name));
}

/** Whether a session belongs to a week. */
export function isOf(whose: string, meeting: Meeting, groups: readonly GroupView[]): boolean {
  const [of, about = ""] = whose.split(":");
  if (of === "adult") return meeting.adultId === about;
  if (of === "room") return meeting.roomId === about;
  if (of === "child") return meeting.members.includes(about);
  if (of === "class")
    return groups.some(
      ({ id, members }) => id === meeting.groupId && members.some(({ classId }) => classId === about),
    );
  return true;
}
