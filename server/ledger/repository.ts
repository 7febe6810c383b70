import type { AnswerBody } from "#contract";
import { checkOf, dayAt, type Fate } from "#core/ledger";
import { byIds } from "../checks/repository.ts";
import * as faces from "../faces/repository.ts";
import { zone } from "../settings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { append, endedSittings } from "./append.ts";
import { entriesUnder } from "./log.ts";

export { logOfChecks, logOfChildren } from "./log.ts";
export { standingOfChildren } from "./standing.ts";

/** What became of marks that a device sent. */
export interface Taken {
  /** One for each mark, in their order. */
  readonly fates: readonly Fate[];
  /** What is new, by the sitting that it is of. */
  readonly bySitting: ReadonlyMap<string, readonly AnswerBody[]>;
  /** Sittings that are ended by now; the child's face of each is closed. */
  readonly ended: readonly string[];
}

/**
 * Takes marks that were made at desks: each is kept, there already, or refused with its reason.
 * @param isFuture whether an instant has not come yet
 */
export async function take(
  inside: Inside,
  marks: readonly AnswerBody[],
  isFuture: (instant: string) => boolean,
): Promise<Taken> {
  const here = await zone(inside);
  const { fates, added } = await append(inside, marks, { dayOf: (instant) => dayAt(here, instant), isFuture });
  const stops = added.flatMap((entry) => (entry.outcome === "stop" ? [entry.source.checkId] : []));
  const ended = await endedSittings(inside, stops);
  for (const id of ended) await faces.close(inside, id);
  return { fates, bySitting: await bySitting(inside, added), ended };
}

/** Entries by the sitting that they are of; an undo is of the sitting of what it takes back. */
async function bySitting(inside: Inside, added: readonly AnswerBody[]): Promise<Map<string, AnswerBody[]>> {
  const { entries } = await entriesUnder(
    inside,
    added.flatMap((entry) => (entry.outcome === "void" ? [entry.voids] : [])),
  );
  const checkIdOf = (entry: AnswerBody) => {
    const of = entry.outcome === "void" ? entries.get(entry.voids) : entry;
    return of && of.outcome !== "void" ? checkOf(of) : null;
  };
  const ids = new Set(added.flatMap((entry) => checkIdOf(entry) ?? []));
  const sittings = new Map((await byIds(inside, [...ids])).map((check) => [check.id, check.sittingId]));
  const found = new Map<string, AnswerBody[]>();
  for (const entry of added) {
    const sittingId = sittings.get(checkIdOf(entry) ?? "");
    if (sittingId) found.set(sittingId, [...(found.get(sittingId) ?? []), entry]);
  }
  return found;
}
