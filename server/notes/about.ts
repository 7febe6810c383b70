/** What a note is about; one of the three is no null. */
export interface About {
  readonly childId: string | null;
  readonly groupId: string | null;
  readonly sessionId: string | null;
}

/** What is a note's, and who it belongs to. */
export function thingOf({ childId, groupId, sessionId }: About): {
  readonly thing: "child" | "group" | "session";
  readonly id: string;
} {
  if (childId !== null) return { thing: "child", id: childId };
  return groupId !== null ? { thing: "group", id: groupId } : { thing: "session", id: sessionId ?? "" };
}
