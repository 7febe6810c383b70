import { addDays, formatISO, parseISO, subDays } from "date-fns";
import type { PlanBody } from "#contract";
import type { Said } from "#core/groups";
import { type Focus, kindsOfPart, type ReadingLimit, routineAbout, routineIn, taughtIn, type Way } from "#core/plans";
import { findMany } from "../classes/children.ts";
import { read as readGrouping, saidOn } from "../groups/grouping.ts";
import { read as readSettings } from "../settings/repository.ts";
import { commonOf, otherNeedsOf } from "../standings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords } from "../words/repository.ts";
import { heads } from "./diary.ts";
import type { ToFill } from "./fill.ts";
import { list as listSessions } from "./repository.ts";
import { named as routineNamed } from "./routines.ts";

/** What a session is planned for. */
export interface PlanWanted {
  readonly childIds: readonly string[];
  /** The group's, in its order. */
  readonly targets: readonly string[];
  /** What it works on that is no spelling. */
  readonly aims?: readonly string[];
  /** The target that someone asked for; null lets the tool choose. */
  readonly wish: string | null;
  /** Another beside it. */
  readonly second?: string | null | undefined;
  /** What it is about in place of a spelling. */
  readonly focus?: Focus | null | undefined;
  /** How it is taught again. */
  readonly way?: Way | null | undefined;
  /** The day of the session; today where it is left out. */
  readonly heldOn?: string | undefined;
  readonly today: string;
  /** Who of the group must be able to read what it is given. */
  readonly reads: ReadingLimit;
  readonly groupId: string;
  /** How the session is held: one that ships, or the id of one of the school's own. */
  readonly routine: string;
}

/** For so many days words that were had are left out while there are others. */
const DAYS_HAD = 7;
const DAYS_HAD_AGAIN = 60;

/** What a session for these children is filled from: the school's words, and what they can read today. */
export async function toFill(inside: Inside, wanted: PlanWanted): Promise<ToFill> {
  const { childIds, targets, aims = [], wish, second = null, focus = null, way = null } = wanted;
  const { today, heldOn = today, reads, groupId, routine } = wanted;
  const { sent: words } = await readWords(inside);
  const { weights } = await readGrouping(inside);
  const { answerForm, exceptionWay, madeUp } = (await readSettings(inside)).checks;
  const ways = { answerForm, exceptionWay, madeUp };
  return {
    ...{ words, targets, aims, wish, second, focus, weights, today, heldOn, ways },
    common: await commonOf(inside, childIds, today, reads),
    said: await saidOfAll(inside, childIds, today),
    routine: routineAbout(routineIn(await routineNamed(inside, routine), way), focus ?? [], ways.exceptionWay),
    // Taught again it has other words than in all sessions of weeks.
    hadLately: await hadAround(inside, groupId, { on: heldOn, days: way ? DAYS_HAD_AGAIN : DAYS_HAD }),
    past: await taughtBefore(inside, groupId),
    ...(await missedIn(inside, childIds, today)),
  };
}

/** What each child needs besides spellings; exception words and mixed-up sounds of all of them, what is missing most first. */
async function missedIn(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<Pick<ToFill, "missedWords" | "mixedSounds" | "besides">> {
  const sums = new Map<string, number>();
  const found = await otherNeedsOf(inside, childIds, today);
  for (const needs of found.values()) for (const { id, need } of needs) sums.set(id, (sums.get(id) ?? 0) + need);
  const ids = [...sums].sort((one, other) => other[1] - one[1]).map(([id]) => id);
  const after = (start: string) => ids.flatMap((id) => (id.startsWith(start) ? id.slice(start.length) : []));
  return {
    besides: [...found].map(([id, needs]) => [id, needs.map((one) => [one.id, one.need] as const)] as const),
    missedWords: after("read "),
    mixedSounds: after("contrast sound ").flatMap((pair) => {
      const [one = "", other = ""] = pair.split("/");
      return one && other ? [[one, other] as const] : [];
    }),
  };
}

/** Words of a group's sessions so many days before a day, and of those that are planned in the week after it. */
async function hadAround(
  inside: Inside,
  groupId: string,
  { on, days }: { readonly on: string; readonly days: number },
): Promise<string[]> {
  const written = (day: Date) => formatISO(day, { representation: "date" });
  const [from, to] = [written(subDays(parseISO(on), days)), written(addDays(parseISO(on), DAYS_HAD))];
  const rows = await listSessions(inside, { groupId, from, to });
  return [...new Set(rows.flatMap(({ plan }) => wordsIn(plan)))];
}

/** Sessions of a group that were held, the earliest first, with what they taught. */
async function taughtBefore(inside: Inside, groupId: string): Promise<ToFill["past"]> {
  const rows = await listSessions(inside, { groupId });
  const held = new Set((await heads(inside, { groupId })).map(({ sessionId }) => sessionId));
  return rows
    .filter(({ id }) => held.has(id))
    .map(({ heldOn, plan }) => ({ on: heldOn, taught: taughtIn(plan), focus: plan.focus }))
    .reverse();
}

function wordsIn({ parts }: PlanBody): string[] {
  return parts.flatMap(({ kind, items }) => (kindsOfPart[kind].items === "words" ? items : []));
}

/** What was said of single spellings that holds for every one of these children. */
async function saidOfAll(inside: Inside, childIds: readonly string[], today: string): Promise<Said[]> {
  const said = await saidOn(inside, today);
  const of = (all: typeof said.children, id: string) => all.find((one) => one.id === id)?.said ?? [];
  const lists = (await findMany(inside, childIds)).map(
    ({ id, classId }) =>
      new Map([...of(said.classes, classId), ...of(said.children, id)].map(({ gpc, how }) => [gpc, how])),
  );
  return [...(lists[0] ?? [])].flatMap(([gpc, how]) =>
    lists.every((list) => list.get(gpc) === how) ? [{ gpc, how }] : [],
  );
}
