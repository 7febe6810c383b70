import { randomUUID } from "node:crypto";
import { isDeepStrictEqual } from "node:util";
import { Router } from "express";
import { type AnswerBody, listReadings, type ReadingView, readingFigures, saveReading } from "#contract";
import { scoreReading, textWords } from "#core/reading";
import { entriesOfReading } from "../ledger/log.ts";
import { findChild, findChildren, listChildren } from "../store/children.ts";
import { findGroup } from "../store/groups.ts";
import * as store from "../store/readings.ts";
import { dayAtSchool, refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** Readings of a text, kept whole; each one read alone is an entry of the child's log. */
export function readingRoutes({ db, now }: House): Router {
  const router = Router();
  const mustChild = async (id: string) => {
    if (!(await findChild(db, id))) throw notFound("child");
  };

  serve(router, listReadings, async ({ params }) => {
    await mustChild(params.id);
    return store.readingsOfChild(db, params.id);
  });

  serve(router, readingFigures, async ({ query }) => {
    if ((query.classId === undefined) === (query.groupId === undefined))
      throw unfit("Ask for one class or one group.");
    const group = query.groupId ? await findGroup(db, query.groupId) : undefined;
    if (query.groupId && !group) throw notFound("group");
    const children = group
      ? await findChildren(
          db,
          group.members.map((member) => member.childId),
        )
      : (await listChildren(db, query.classId)).filter((child) => !child.archived);
    const names = new Map(children.map((child) => [child.id, child.name]));
    const readings = await store.readingsOfChildren(db, [...names.keys()]);
    return readings.map((reading) => {
      const { id, childId, title, day, how, fit } = reading;
      const { accuracy, correctPerMinute } =
        how === "alone" ? scoreReading(reading) : { accuracy: null, correctPerMinute: null };
      return { id, childId, name: names.get(childId) ?? "", title, day, how, fit, accuracy, correctPerMinute };
    });
  });

  serve(router, saveReading, async ({ params, body }) => {
    await mustChild(body.childId);
    refuseFuture(body.readAt, now());
    const before = await store.findReading(db, params.id);
    if (before && before.childId !== body.childId)
      throw unfit("This reading is another child's. Nothing was changed.");
    if (body.how === "together" && body.ms !== null)
      throw unfit("A text that a group read together has no time. Nothing was kept.");
    const words = textWords(body.text).length;
    if (words === 0) throw unfit("This text has no words. Nothing was kept.");
    const places = [...body.marks, ...body.turns].map((one) => one.at);
    if (places.some((at) => at >= words) || (body.stoppedAt ?? 0) >= words)
      throw unfit("A mark stands at a word that this text does not have. Nothing was kept.");
    // The day is worked out when the reading first comes; what is changed in it later is of the same day.
    const row = { id: params.id, ...body, day: before?.day ?? (await dayAtSchool(db, body.readAt)) };
    await store.putReading(db, row, async (inside) => changesOf(row, await entriesOfReading(inside, row.id)));
    return row;
  });

  return router;
}

/**
 * What brings the log from what stands there of a reading to what the reading says now: nothing when it says the same, else
 * the entry before is taken back and a new one comes. What stopped a group is not one child's.
 */
function changesOf(reading: ReadingView, standing: readonly AnswerBody[]): AnswerBody[] {
  const { id: readingId, childId, readAt, day, markedBy, how, text, marks, stoppedAt } = reading;
  const mark = { childId, markedBy, day, markedAt: new Date(readAt).toISOString() };
  const entry: AnswerBody = {
    ...mark,
    id: randomUUID(),
    outcome: "reading",
    source: { kind: "reading", readingId },
    reading: { text, marks, stoppedAt },
  };
  const says = (one: AnswerBody) =>
    one.outcome === "reading" && isDeepStrictEqual(plain(one.reading), plain(entry.reading)) && one.day === day;
  if (how === "alone" && standing.length === 1 && standing.every(says)) return [];
  const gone = standing.map((one): AnswerBody => ({ ...mark, id: randomUUID(), outcome: "void", voids: one.id }));
  return how === "alone" ? [...gone, entry] : gone;
}

/** As it comes back from the database. */
const plain = ({ text, stoppedAt, marks }: ReadingView | Pick<ReadingView, "text" | "stoppedAt" | "marks">) => ({
  text,
  stoppedAt,
  marks: marks.map(({ at, kind, heard, ms = null }) => ({ at, kind, heard, ms })),
});
