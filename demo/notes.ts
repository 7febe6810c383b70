import { writeNote } from "#contract";
import { dayAfter } from "./calendar.ts";
import { type DemoRequest, request } from "./checks.ts";
import { adults } from "./people.ts";
import type { Pupil } from "./pupil.ts";
import type { DemoGroup } from "./sessions.ts";

interface NotesFrom {
  readonly today: string;
  readonly pupils: readonly Pupil[];
  readonly groups: readonly DemoGroup[];
  readonly uuid: () => string;
}

/** Two notes that no one has read yet: one on a child, one on a group for the days to come. */
export function noteRequests({ today, pupils, groups, uuid }: NotesFrom): DemoRequest[] {
  const child = pupils.find(({ name }) => name === "Caleb N.");
  const group = groups.find(({ name }) => name === "Brick hods");
  const forAll = { who: "all" as const };
  return [
    ...(child
      ? [
          request(writeNote, {
            ...{ params: { id: uuid() }, query: { childId: child.id } },
            body: {
              text: "Caleb has new glasses, and they tend to stay in his bag. Ask him before you begin.",
              ...{ forWhom: forAll, until: null, by: adults.towpathTeacher },
            },
          }),
        ]
      : []),
    ...(group
      ? [
          request(writeNote, {
            ...{ params: { id: uuid() }, query: { groupId: group.id } },
            body: {
              text: "The library is taken this week. Use the small room beside the office.",
              ...{ forWhom: forAll, until: dayAfter(today, 7), by: adults.kilnTeacher },
            },
          }),
        ]
      : []),
  ];
}
