import type { GivenAnswer } from "#core/ledger";

const DAY_MS = 86_400_000;

/** A day, `2026-11-26`, counted from 1970-01-01. */
export const dayNumber = (day: string): number => Math.round(Date.parse(day) / DAY_MS);

/** The day that has a number, the inverse of `dayNumber`. */
export const dayOfNumber = (day: number): string => new Date(day * DAY_MS).toISOString().replace(/T.*/, "");

/** Where an answer stands among all of a child: by day, instant and id. Such texts compare as the answers follow. */
export const placeOf = ({ day, markedAt, id }: Pick<GivenAnswer, "day" | "markedAt" | "id">): string =>
  `${day} ${markedAt} ${id}`;

/** Answers in the one order in which they are taken in, however they arrived. */
export function inOrder(answers: readonly GivenAnswer[]): GivenAnswer[] {
  return answers
    .map((answer) => ({ answer, place: placeOf(answer) }))
    .sort((one, other) => (one.place < other.place ? -1 : one.place > other.place ? 1 : 0))
    .map(({ answer }) => answer);
}
