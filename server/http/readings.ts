import { randomUUID } from "node:crypto";
import { Router } from "express";
import { type AnswerBody, listReadings, type ReadingView, readingFigures, saveReading } from "#contract";
import { entriesOf, scoreReading, textWords } from "#core/reading";
import { standingOfReading } from "../ledger/log.ts";
import { findChild, findChildren, listChildren } from "../store/children.ts";
import { findGroup } from "../store/groups.ts";
import * as store from "../store/readings.ts";
import { type SchoolWords, schoolWords } from "../store/splits.ts";
import { dayAtSchool, refuseFuture } from "./clock.ts";
import type { House } from "./house.ts";
import { notFound, unfit } from "./problem.ts";
import { serve } from "./serve.ts";

/** Readings of a text, kept whole; what went wrong in one enters the child's answer log. */
export function readingRoutes({ db, ground, now }: House): Router {
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
    const school = await schoolWords(db, ground.lexicon);
    await store.putReading(db, row, async (inside) =>
      changesOf(row, await standingOfReading(inside, row.id), school),
    );
    return row;
  });

  return router;
}

/** What brings the log from what stands there of a reading to what the reading says now; nothing when it says the same. */
function changesOf(reading: ReadingView, standing: readonly AnswerBody[], school: SchoolWords): AnswerBody[] {
  const { id: readingId, childId, readAt, day, markedBy, how } = reading;
  // What stopped a group is not one child's.
  const entries = how === "together" ? [] : entriesOf(reading, school);
  const mark = { childId, markedBy, day };
  const wanted = entries.map(({ at, item, outcome, heard, putRight, soundedOut, ms }): AnswerBody => {
    const given = {
      ...mark,
      id: randomUUID(),
      // Marks without a time keep the order of the text.
      markedAt: new Date(Date.parse(readAt) + Math.max(ms, at)).toISOString(),
      kind: "words" as const,
      item,
      ms: null,
      source: { kind: "reading" as const, readingId },
      help: "none" as const,
      way: "text" as const,
      pass: 1,
      tags: [...(putRight ? ["putRight" as const] : []), ...(soundedOut ? ["soundedOut" as const] : [])],
    };
    return outcome === "wrong" ? { ...given, outcome, heard, units: null } : { ...given, outcome };
  });
  const left = new Map<string, AnswerBody[]>();
  for (const entry of standing) left.set(sayingOf(entry), [...(left.get(sayingOf(entry)) ?? []), entry]);
  const added = wanted.filter((entry) => left.get(sayingOf(entry))?.pop() === undefined);
  const gone = [...left.values()]
    .flat()
    .map((entry): AnswerBody => ({ ...mark, id: randomUUID(), markedAt: readAt, outcome: "void", voids: entry.id }));
  return [...gone, ...added];
}

/** What an entry says, whatever its id. */
function sayingOf(entry: AnswerBody): string {
  if (entry.outcome === "void" || entry.outcome === "note" || entry.outcome === "stop") return entry.id;
  const heard = "heard" in entry ? entry.heard : null;
  return JSON.stringify([entry.markedAt, entry.day, entry.item, entry.outcome, heard, entry.tags]);
}
