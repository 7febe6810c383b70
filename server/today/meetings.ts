import type { Today } from "#contract";
import type { School } from "../house.ts";
import { namesOf } from "../week/whose.ts";

/**
 * The sessions of the week that are on a day, in order, without those that were cancelled.
 * @param by the name of whoever asks: an adult of that name takes them
 */
export async function meetingsOn(
  school: School,
  { today, by }: { readonly today: string; readonly by: string },
): Promise<Omit<Today["meetings"][number], "sessionId" | "held">[]> {
  const here = (await school.week.meetingsOn(today, today)).filter(({ cancelled }) => !cancelled);
  if (here.length === 0) return [];
  const names = await namesOf(school);
  const absent = new Set(
    (await school.children.list()).filter(({ absentOn }) => absentOn === today).map((child) => child.id),
  );
  return here.map(({ id, groupId, from, to, adultId, roomId }) => ({
    ...{ id, groupId, from, to, groupName: names.group(groupId) },
    adultName: names.adult(adultId),
    roomName: names.room(roomId),
    mine: names.adult(adultId).toLowerCase() === by.toLowerCase(),
    children: names.members(groupId).map(({ childId, name }) => ({ name, absent: absent.has(childId) })),
  }));
}
