import { type Skill, weightsOf } from "#core/mastery";
import { list as listGroups } from "../groups/repository.ts";
import type { Taught } from "../orders/taught.ts";
import type { Inside } from "../store/scope.ts";

/** What depends on each skill of a child that was taught so much: by its place in the order, and by its groups. */
export async function matterIn(
  inside: Inside,
): Promise<(childId: string, taught: Pick<Taught, "gpcs" | "exceptionWords">) => Record<Skill, number>> {
  const targets = new Map<string, Set<string>>();
  for (const group of await listGroups(inside)) {
    if (group.closed) continue;
    for (const { childId } of group.members)
      targets.set(childId, new Set([...(targets.get(childId) ?? []), ...group.targets]));
  }
  return (childId, { gpcs, exceptionWords }) =>
    weightsOf({ taught: gpcs, exceptionWords, targets: targets.get(childId) ?? new Set() });
}
