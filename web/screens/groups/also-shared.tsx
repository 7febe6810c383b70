import { getOtherNeeds } from "#contract";
import { nearDay } from "#core/saying";
import { useAskSliced } from "#web/device/api.ts";
import { evidenceOf, sharedNeeds } from "#web/parts/other-needs.ts";
import { Panel } from "#web/parts/page.tsx";

/** So many needs are told at first: more would be no plan. */
const MOST = 6;

/** What children of a group need besides single spellings: who, how often, and when it was seen last. */
export function AlsoShared({ childIds, today }: { childIds: readonly string[]; today: string }) {
  const { data } = useAskSliced(getOtherNeeds, { query: {} });
  const needs = data ? sharedNeeds(data, new Set(childIds)).slice(0, MOST) : [];
  if (needs.length === 0) return null;
  return (
    <Panel title="Needed here as well">
      <ul className="flex flex-col divide-y divide-line" aria-label="Needed here as well">
        {needs.map(({ name, kind, who }) => (
          <li key={name} className="py-1.5">
            <span className="font-semibold">{name}</span>{" "}
            <span className="text-sm text-soft">
              {who.length} of {childIds.length}:{" "}
              {who
                .map((child) => {
                  const { misses, answers, lastDay } = evidenceOf(child.needs);
                  const often =
                    kind === "rate" ? `slow in ${misses} of ${answers}` : `missed ${misses} of ${answers}`;
                  return `${child.name} (${often}, last ${nearDay(lastDay, today)})`;
                })
                .join(", ")}
            </span>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
