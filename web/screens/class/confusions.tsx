import { useState } from "react";
import type { z } from "zod";
import type { getChild } from "#contract";
import { showMixed } from "#core/checks";
import { trendOf } from "#core/mastery";
import { nearDay, plural } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";

type Confusion = z.infer<typeof getChild.answer>["confusions"][number];

/** Words in which it happened that are named. */
const NAMED = 3;

const trends = { more: "more lately", less: "rarer lately", alike: "" } as const;

/** What a child takes for what, more than once, with whether it is getting rarer; what came once is behind a button. */
export function Confusions({ confusions, today }: { confusions: readonly Confusion[]; today: string }) {
  const [all, setAll] = useState(false);
  const often = confusions.filter(({ count }) => count > 1);
  const once = confusions.length - often.length;
  return (
    <Panel title="Taken for one another">
      {often.length === 0 && <p className="text-soft">Nothing more than once.</p>}
      <ul className="flex flex-col divide-y divide-line" aria-label="Taken for one another, most often first">
        {(all ? confusions : often).map((entry) => (
          <li
            key={`${entry.of} ${entry.asked} ${entry.given}`}
            className="flex flex-wrap items-baseline gap-x-3 py-1"
          >
            <span className="font-child min-w-24">{showMixed(entry)}</span>
            <span className="min-w-10 tabular-nums">{entry.count}×</span>
            <span
              className="flex-1 text-sm text-soft"
              title={`${entry.lately} in the last four weeks, ${entry.before} in the four before`}
            >
              {[
                `in ${entry.items.slice(0, NAMED).join(", ")}`,
                `last ${nearDay(entry.lastDay, today)}`,
                trends[trendOf(entry)],
              ]
                .filter(Boolean)
                .join(" · ")}
            </span>
          </li>
        ))}
      </ul>
      {once > 0 && (
        <Button className="mt-2" onClick={() => setAll(!all)}>
          {all ? "Only what came more than once" : `${plural(once, "pair")} that came once`}
        </Button>
      )}
    </Panel>
  );
}
