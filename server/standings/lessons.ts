import { createHash } from "node:crypto";
import { dayNumber, type Lessons, lessonsFrom, type PlainLessons } from "#core/mastery";
import { missedOf } from "#core/order";
import { days as awayDays } from "../classes/away.ts";
import { type Taught, taughtByChild } from "../orders/taught.ts";
import { heldByChild } from "../sessions/held.ts";
import type { Inside } from "../store/scope.ts";

/** What a child was taught, with its class and in sessions, and a text that is another when any of it is another. */
export interface LessonsOfChild {
  readonly taught: Taught;
  readonly lessons: Lessons;
  readonly plain: PlainLessons;
  readonly key: string;
}

const keys = new WeakMap<ReadonlyMap<string, string>, string>();
const days = new WeakMap<ReadonlyMap<string, string>, ReadonlyMap<string, number>>();

/** What children were taught, by child and class. The same objects as long as nothing of it changes. */
export async function lessonsIn(inside: Inside): Promise<(childId: string, classId: string) => LessonsOfChild> {
  const taughtTo = await taughtByChild(inside);
  const held = await heldByChild(inside);
  const away = await awayDays(inside);
  return (childId, classId) => {
    const taught = taughtTo(childId, classId);
    const mine = held.get(childId);
    const missed = missedOf(taught.since, new Set(away.get(childId)));
    const plain = { taughtOn: daysOf(taught.since), sessions: sessionsOf(mine?.sessions ?? noSessions), missed };
    const key = [keyOf(taught.since), mine?.key ?? "", ...[...missed].sort()].join(" ");
    return { taught, plain, lessons: lessonsFrom(plain), key };
  };
}

function keyOf(since: ReadonlyMap<string, string>): string {
  const known = keys.get(since);
  if (known !== undefined) return known;
  const key = createHash("sha256")
    .update(JSON.stringify([...since].sort()))
    .digest("base64url");
  keys.set(since, key);
  return key;
}

function daysOf(since: ReadonlyMap<string, string>): ReadonlyMap<string, number> {
  const known = days.get(since);
  if (known) return known;
  const made = new Map([...since].map(([thing, day]) => [thing, dayNumber(day)]));
  days.set(since, made);
  return made;
}

type Sessions = ReturnType<Lessons["sessions"]>;
type HeldList = Parameters<typeof bySpelling>[0];
const spelled = new WeakMap<HeldList, ReadonlyMap<string, Sessions>>();
const noSessions: HeldList = [];

function sessionsOf(held: HeldList): ReadonlyMap<string, Sessions> {
  const known = spelled.get(held) ?? bySpelling(held);
  spelled.set(held, known);
  return known;
}

function bySpelling(
  held: readonly {
    readonly day: string;
    readonly taught: readonly string[];
    readonly revisited: readonly string[];
  }[],
): ReadonlyMap<string, Sessions> {
  const found = new Map<string, { day: number; taught: boolean }[]>();
  for (const { day, taught, revisited } of held)
    for (const gpc of [...taught, ...revisited])
      found.set(gpc, [...(found.get(gpc) ?? []), { day: dayNumber(day), taught: taught.includes(gpc) }]);
  return found;
}
