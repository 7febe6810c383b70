import { useState } from "react";
import {
  getGaps,
  getGrouping,
  getNext,
  getOtherNeeds,
  getWorth,
  type NextView,
  type OtherNeedsView,
  type WorthView,
} from "#contract";
import type { Learner, Shown } from "#core/groups";
import { isOtherNeed, otherNeedName } from "#core/mastery";
import { plural, shortDay } from "#core/saying";
import { useAsk, useAskSliced } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { learnersOf, nextBest, type OpenedFor } from "#web/parts/learners.ts";
import { Spelling, Spellings } from "#web/parts/marks.tsx";
import { Panel, Waiting } from "#web/parts/page.tsx";
import { shownBy } from "#web/parts/points.ts";
import { OtherNeeds } from "./other-needs.tsx";
import { useSaying, WhatToDo, type Whose } from "./what-to-do.tsx";

/** What is worth teaching next to a child of a class, or to the class: asked for when it comes into sight. */
export function NextOf({ classId, whose, today }: { classId: string; whose: Whose; today: string }) {
  const map = useAskSliced(getGaps, { query: { classId } });
  const worth = useAskSliced(getWorth, { query: { classId } });
  const grouping = useAsk(getGrouping, {});
  const said = useAsk(getNext, {});
  const others = useAskSliced(getOtherNeeds, { query: { classId } });
  if (!map.data || !worth.data)
    return (
      <Panel title="Worth teaching next">
        {/* About as high as what comes, so that little moves below it. */}
        <Waiting rows={"childId" in whose ? 18 : 12} />
      </Panel>
    );
  const weights = grouping.data?.grouping.weights;
  const learners = learnersOf(map.data, { worth: worth.data, weights, said: said.data });
  return (
    <NextBest
      learners={"childId" in whose ? learners.filter(({ id }) => id === whose.childId) : learners}
      worth={worth.data}
      said={said.data}
      others={others.data}
      shown={shownBy(map.data)}
      whose={whose}
      today={today}
    />
  );
}

interface NextWanted {
  readonly learners: readonly Learner[];
  readonly worth: WorthView;
  readonly said: NextView | undefined;
  readonly others: OtherNeedsView | undefined;
  readonly shown: Shown;
  readonly whose: Whose;
  readonly today: string;
}

const AT_FIRST = 3;

const how = { pinned: "first", later: "put off", struck: "struck out" } as const;

/** What it is worth most to teach next, by teaching point, and why; each can be put first, put off or struck out. */
function NextBest({ learners, worth, said, others, shown, whose, today }: NextWanted) {
  const [all, setAll] = useState(false);
  const best = nextBest(learners, worth, 12);
  const about =
    ("childId" in whose
      ? said?.children.find(({ id }) => id === whose.childId)
      : said?.classes.find(({ id }) => id === whose.classId)
    )?.said ?? [];
  const points = shown.points(best.map(({ gpc }) => gpc));
  // The point whose best spelling is worth most comes first; what a teacher put first stands before all.
  const place = (gpcs: readonly string[]) => Math.min(...gpcs.map((gpc) => best.findIndex((one) => one.gpc === gpc)));
  const pinned = new Set(about.flatMap((one) => (one.how === "pinned" ? [one.gpc] : [])));
  const rows = [...points].sort(
    (one, other) =>
      Number(other.gpcs.some((gpc) => pinned.has(gpc))) - Number(one.gpcs.some((gpc) => pinned.has(gpc))) ||
      place(one.gpcs) - place(other.gpcs),
  );
  const say = useSaying(whose, today);
  return (
    <Panel title="Worth teaching next">
      {rows.length === 0 && (
        <p className="text-soft">Nothing that was asked calls for teaching and would open common words.</p>
      )}
      <ol className="flex flex-col divide-y divide-line">
        {rows.slice(0, all ? undefined : AT_FIRST).map(({ name, partOf, gpcs }) => (
          <li key={gpcs.join()} className="flex items-start justify-between gap-2 py-1.5">
            <div>
              <p>
                <span className="font-semibold">{name}</span> <Spellings gpcs={gpcs} />
                {partOf && <span className="ml-1 text-sm text-soft">of “{partOf}”</span>}
                {gpcs.some((gpc) => pinned.has(gpc)) && <span className="ml-1 text-sm text-leaf">first</span>}
              </p>
              <Why opened={best.filter(({ gpc }) => gpcs.includes(gpc))} of={learners.length} />
            </div>
            <WhatToDo name={name} onSay={(what) => say(gpcs, what)} />
          </li>
        ))}
      </ol>
      {rows.length > AT_FIRST && (
        <Button shape="quiet" className="-ml-3" onClick={() => setAll(!all)}>
          {all ? "Only the first" : `${rows.length - AT_FIRST} more`}
        </Button>
      )}
      <OtherNeeds others={others} about={about} whose={whose} today={today} />
      {about.length > 0 && (
        <ul
          className="mt-2 flex flex-wrap gap-1.5 border-t border-line pt-2 text-sm"
          aria-label="What was said of it"
        >
          {about.map((one) => (
            <li
              key={one.gpc}
              className="inline-flex items-center gap-1"
              title={`${one.by}, ${shortDay(one.since, today)}`}
            >
              <Thing id={one.gpc} /> {how[one.how]}
              {one.until && ` until ${shortDay(one.until, today)}`}
              <button
                type="button"
                className="underline underline-offset-4"
                aria-label={`Take back: ${thingName(one.gpc)} ${how[one.how]}`}
                onClick={() => void say([one.gpc], null)}
              >
                take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}

const thingName = (id: string) => (isOtherNeed(id) ? otherNeedName(id) : id);

/** A spelling, or a need of another kind by its name. */
function Thing({ id }: { id: string }) {
  return isOtherNeed(id) ? <span>{otherNeedName(id)}</span> : <Spelling gpc={id} />;
}

/** What it would bring, in numbers with their units. */
function Why({ opened, of }: { opened: readonly OpenedFor[]; of: number }) {
  const words = opened.reduce((sum, one) => sum + one.words, 0);
  const next = opened.reduce((sum, one) => sum + one.next, 0);
  const titles = [...new Set(opened.flatMap((one) => one.titles))];
  const most = (part: "need" | "mixed" | "fading") => Math.max(0, ...opened.map((one) => one[part]));
  const [need, mixed, fading] = [most("need"), most("mixed"), most("fading")];
  const examples = opened.flatMap((one) => one.examples).slice(0, 4);
  return (
    <p className="text-sm text-soft">
      {of > 1 && `${need} of ${of} need it; `}would open about {plural(words, "common word")}
      {examples.length > 0 && (
        <>
          : <span className="font-child">{examples.join(", ")}</span>
        </>
      )}
      {titles.length > 0 &&
        `; ${titles.length === 1 ? "the text" : "texts"} ${titles.map((title) => `“${title}”`).join(", ")}`}
      {next > 0 && `; ${next} of what the class is taught next`}
      {mixed > 0 &&
        `; ${of > 1 ? `${mixed} of them ${mixed === 1 ? "mixes" : "mix"} it up` : "mixed up"} with another`}
      {fading > 0 && `; ${of > 1 ? `${fading} of them will lose it` : "soon lost"}`}.
    </p>
  );
}
