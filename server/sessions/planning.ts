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
}

/** What a session for these children is filled from: the school's words, and what they can read today. */
export async function toFill(inside: Inside, { childIds, targets, wish, today }: PlanWanted): Promise<ToFill> {
  const { sent: words } = await readWords(inside);
  return { words, common: await commonOf(inside, childIds, today), targets, wish };
}
