import type { AnswerBody } from "#contract";
import { checkOf, type Fate, type Source } from "#core/ledger";
import * as faces from "../faces/repository.ts";
import { marksSignal } from "../frame/signals.ts";
import type { Inside } from "../store/scope.ts";
import { append, endedSittings } from "./append.ts";
import type { Found } from "./stored.ts";

export { entriesSince, logOfChecks, logOfChildren } from "./log.ts";
export { countsOfChecks, standingOfChildren } from "./standing.ts";

/** What became of marks that a device sent. */
export interface Taken {
  /** One for each mark, in their order. */
  readonly fates: readonly Fate[];
  /** What is new, by the sitting or the session that it is of. */
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
  const { fates, added, from, stored } = await append(inside, marks, { isFuture });
  const stops = added.flatMap((entry) => (entry.outcome === "stop" ? [entry.source.checkId] : []));
  const ended = await endedSittings(inside, stops);
  await faces.close(inside, ended);
  const sittings = bySitting(added, stored);
  if (sittings.size > 0) await inside.signal(marksSignal(inside.schoolId, sittings, from));
  return { fates, bySitting: sittings, ended };
}

/** Entries by the sitting, or the session that is taught, that they are of; an undo is of that of what it takes back. */
function bySitting(added: readonly AnswerBody[], stored: Found | null): Map<string, AnswerBody[]> {
  const found = new Map<string, AnswerBody[]>();
  for (const entry of added) {
    const of = entry.outcome === "void" ? (stored?.entries.get(entry.voids) ?? inBatch(added, entry.voids)) : entry;
    const checkId = of && of.outcome !== "void" ? checkOf(of) : null;
    const sittingId = stored?.sittings.get(checkId ?? "") ?? (of && of.outcome !== "void" ? taughtIn(of) : null);
    if (sittingId) found.set(sittingId, [...(found.get(sittingId) ?? []), entry]);
  }
  return found;
}

/** The session in which a mark was made while it was taught. */
const taughtIn = ({ source }: { readonly source: Source }): string | null =>
  source.kind === "session" && source.reportId === null ? source.sessionId : null;

const inBatch = (added: readonly AnswerBody[], id: string) => added.find((one) => one.id === id);
