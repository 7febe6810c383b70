import { standing as standingAnswers } from "#core/ledger";
import { type Known, type OtherNeed, otherNeeds } from "#core/mastery";
import { logsOfChildren, ruleOf } from "../ledger/standing.ts";
import type { Inside } from "../store/scope.ts";
import { knownOf } from "./kept.ts";
import { rateNeedsOf } from "./rate-needs.ts";

/** What each child needed besides as it was last worked out, by what is known of it. */
const last = new WeakMap<Known, { readonly by: string; readonly needs: readonly OtherNeed[] }>();

/** What each of these children needs besides reading single spellings today, with the evidence. */
export async function otherNeedsOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<Map<string, readonly OtherNeed[]>> {
  const found = await needsInAnswersOf(inside, childIds, today);
  for (const [id, need] of await rateNeedsOf(inside, childIds, today))
    found.set(id, [...(found.get(id) ?? []), need]);
  return found;
}

/**
 * Those of these needs that single answers speak of: all but the rate. The logs are read only of children of whom something new is
 * known.
 */
export async function needsInAnswersOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<Map<string, readonly OtherNeed[]>> {
  const rule = await ruleOf(inside);
  const known = await knownOf(inside, childIds);
  const found = new Map<string, readonly OtherNeed[]>();
  const fresh: string[] = [];
  for (const [id, { known: its, by }] of known) {
    const before = last.get(its);
    if (before?.by === `${today} ${JSON.stringify(by.secureWhen)}`) found.set(id, before.needs);
    else fresh.push(id);
  }
  const logs = fresh.length > 0 ? await logsOfChildren(inside, fresh) : new Map();
  for (const id of fresh) {
    const one = known.get(id);
    if (!one) continue;
    const answers = standingAnswers(logs.get(id) ?? [], { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
    const needs = otherNeeds({ known: one.known, answers, words: rule.words, today, by: one.by });
    last.set(one.known, { by: `${today} ${JSON.stringify(one.by.secureWhen)}`, needs });
    found.set(id, needs);
  }
  return found;
}
