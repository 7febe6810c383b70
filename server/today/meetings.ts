import type { Today } from "#contract";
import type { Actor } from "../frame/actor.ts";
import type { School } from "../house.ts";
import { namesOf } from "../week/whose.ts";

/**
 * The sessions of the week that are on a day, in order, without those that were cancelled.
 * @param actor whoever asks: theirs are those of the adult that they are, or of one of their name
 */
export async function meetingsOn(
  school: School,
  { today, actor }: { readonly today: string; readonly actor: Actor },
): Promise<Omit<Today["meetings"][number], "sessionId" | "held">[]> {
  const here = (await school.week.meetingsOn(today, today)).filter(({ cancelled }) => !cancelled);
  if (here.length === 0) return [];
  const names = await namesOf(school);
  const adultId = (actor.memberId && (await school.people.find(actor.memberId))?.adultId) ?? null;
  const isMine = (one: string) =>
    adultId ? one === adultId : names.adult(one).toLowerCase() === actor.name.toLowerCase();
  const absent = new Set(
    (await school.children.list()).filter(({ absentOn }) => absentOn === today).map((child) => child.id),
  );
  return here.map(({ id, groupId, from, to, adultId: by, roomId }) => ({
    ...{ id, groupId, from, to, groupName: names.group(groupId) },
    adultName: names.adult(by),
    roomName: names.room(roomId),
    mine: isMine(by),
    children: names.members(groupId).map(({ childId, name }) => ({ name, absent: absent.has(childId) })),
  }));
}
