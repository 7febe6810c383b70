import { standing } from "#core/ledger";
import { readSince, type SeekFrom } from "#core/mastery";
import { logsOfChildren, ruleOf } from "../ledger/standing.ts";
import { ownModel } from "../settings/repository.ts";
import type { Inside } from "../store/scope.ts";
import { knownOf } from "./kept.ts";
import { matterIn } from "./matter.ts";

const FRESH_DAYS = 7;

/** From what a device chooses what it asks each of these children, as of today; kept with the check. */
export async function seekFrom(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<Map<string, SeekFrom>> {
  const rule = await ruleOf(inside);
  const logs = await logsOfChildren(inside, childIds);
  const matter = await matterIn(inside);
  const own = (await ownModel(inside))?.values ?? null;
  const found = new Map<string, SeekFrom>();
  for (const [id, { known, taught, plain }] of await knownOf(inside, childIds)) {
    const answers = standing(logs.get(id) ?? [], { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
    found.set(id, {
      day: today,
      mind: known.mind,
      taughtOn: Object.fromEntries(plain.taughtOn),
      sessions: Object.fromEntries([...plain.sessions].map(([thing, held]) => [thing, [...held]])),
      weights: matter(id, taught),
      fresh: taught.gpcs.filter((gpc) => isFresh(taught.since.get(gpc), today)),
      own,
      read: readSince(answers, taught.gpcs, rule.words),
    });
  }
  return found;
}

function isFresh(since: string | undefined, today: string): boolean {
  return since !== undefined && (Date.parse(today) - Date.parse(since)) / 86_400_000 <= FRESH_DAYS;
}
