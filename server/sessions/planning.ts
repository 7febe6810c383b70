import type { Said } from "#core/groups";
import type { ReadingLimit } from "#core/plans";
import { findMany } from "../classes/children.ts";
import { read as readGrouping, saidOn } from "../groups/grouping.ts";
import { commonOf } from "../standings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { read as readWords } from "../words/repository.ts";
import type { ToFill } from "./fill.ts";

/** What a session is planned for. */
export interface PlanWanted {
  readonly childIds: readonly string[];
  /** The group's, in its order. */
  readonly targets: readonly string[];
  /** The target that someone asked for; null lets the tool choose. */
  readonly wish: string | null;
  readonly today: string;
  /** Who of the group must be able to read what it is given. */
  readonly reads: ReadingLimit;
}

/** What a session for these children is filled from: the school's words, and what they can read today. */
export async function toFill(inside: Inside, { childIds, targets, wish, today, reads }: PlanWanted): Promise<ToFill> {
  const { sent: words } = await readWords(inside);
  const { weights } = await readGrouping(inside);
  return {
    ...{ words, targets, wish, weights },
    common: await commonOf(inside, childIds, today, reads),
    said: await saidOfAll(inside, childIds, today),
  };
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
