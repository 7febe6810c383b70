import { listReadings, type ReadingBody, readingFigures, saveReading } from "#contract";
import { scoreReading, textWords } from "#core/reading";
import { refuseFuture } from "../frame/clock.ts";
import { notFound, unfit } from "../frame/problem.ts";
import type { Domain, School } from "../house.ts";

/** @throws HttpProblem 422 where a text has no words, or something stands at a word that it does not have */
export function refuseMisplaced(read: Pick<ReadingBody, "text" | "marks" | "stoppedAt" | "turns">): void {
  const words = textWords(read.text).length;
  if (words === 0) throw unfit("This text has no words. Nothing was kept.");
  const places = [...read.marks, ...read.turns].map((one) => one.at);
  if (places.some((at) => at >= words) || (read.stoppedAt ?? 0) >= words)
    throw unfit("A mark stands at a word that this text does not have. Nothing was kept.");
}

/** Readings of a text, kept whole; each one read alone is an entry of the child's log. */
export function readingRoutes({ serve }: Domain): void {
  const mustChild = async (school: School, id: string) => {
    if (!(await school.children.find(id))) throw notFound("child");
  };

  serve(listReadings, async ({ params, school }) => {
    await mustChild(school, params.id);
    return school.readings.ofChild(params.id);
  });

  serve(readingFigures, async ({ query, school }) => {
    if ((query.classId === undefined) === (query.groupId === undefined))
      throw unfit("Ask for one class or one group.");
    const group = query.groupId ? await school.groups.find(query.groupId) : undefined;
    if (query.groupId && !group) throw notFound("group");
    const children = group
      ? await school.children.findMany(group.members.map((member) => member.childId))
      : (await school.children.list(query.classId)).filter((child) => !child.archived);
    const names = new Map(children.map((child) => [child.id, child.name]));
    const readings = await school.readings.ofChildren([...names.keys()]);
    return readings.map((reading) => {
      const { id, childId, title, day, how, fit } = reading;
      const { accuracy, correctPerMinute } =
        how === "alone" ? scoreReading(reading) : { accuracy: null, correctPerMinute: null };
      return { id, childId, name: names.get(childId) ?? "", title, day, how, fit, accuracy, correctPerMinute };
    });
  });

  serve(saveReading, async ({ params, body, school, now }) => {
    await mustChild(school, body.childId);
    refuseFuture(body.readAt, now);
    const before = await school.readings.find(params.id);
    if (before && before.childId !== body.childId)
      throw unfit("This reading is another child's. Nothing was changed.");
    if (body.how === "together" && body.ms !== null)
      throw unfit("A text that a group read together has no time. Nothing was kept.");
    refuseMisplaced(body);
    // The day is worked out when the reading first comes; what is changed in it later is of the same day.
    const row = { id: params.id, ...body, day: before?.day ?? (await school.settings.dayOf(body.readAt)) };
    await school.readings.put(row);
    return row;
  });
}
