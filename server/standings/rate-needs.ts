import { formatISO, parseISO, subWeeks } from "date-fns";
import { type OtherNeed, rateNeed, type TimedReading } from "#core/mastery";
import { aimOn, scoreReading } from "#core/reading";
import { findMany } from "../classes/children.ts";
import { brief } from "../classes/repository.ts";
import { timedSince } from "../readings/repository.ts";
import { read as readSettings } from "../settings/repository.ts";
import type { Inside } from "../store/scope.ts";

/** Readings of before say nothing of the rate today. */
const WEEKS = 8;

/** Which of these children read texts right and too slowly for the school's aim of their year, with the evidence. */
export async function rateNeedsOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<ReadonlyMap<string, OtherNeed>> {
  const since = formatISO(subWeeks(parseISO(today), WEEKS), { representation: "date" });
  const readings = await timedSince(inside, childIds, since);
  if (readings.length === 0) return new Map();
  const { reading: by } = await readSettings(inside);
  const years = new Map((await brief(inside)).map(({ id, yearGroup }) => [id, yearGroup]));
  const children = await findMany(inside, [...new Set(readings.map(({ childId }) => childId))]);
  return new Map(
    children.flatMap(({ id, classId }): [string, OtherNeed][] => {
      const told = readings.flatMap((one): TimedReading[] => {
        if (one.childId !== id) return [];
        const { accuracy, correctPerMinute: perMinute } = scoreReading(one);
        const aim = aimOn(one.day, years.get(classId) ?? "", by);
        if (accuracy === null || perMinute === null || aim === undefined) return [];
        return [{ day: one.day, title: one.title, perMinute, accuracy, aim }];
      });
      const need = rateNeed(told, { today, accuracy: by.teaching });
      return need ? [[id, need]] : [];
    }),
  );
}
