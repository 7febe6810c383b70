import { addWeeks, formatISO, parseISO } from "date-fns";
import { useState } from "react";
import {
  getGaps,
  getGrouping,
  getNext,
  getWorth,
  type NextView,
  type SaidOfNext,
  sayNextOfChild,
  sayNextOfClass,
  type WorthView,
} from "#contract";
import type { Learner, Shown } from "#core/groups";
import { plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { learnersOf, nextBest, type OpenedFor } from "#web/parts/learners.ts";
import { Spelling, Spellings } from "#web/parts/marks.tsx";
import { Panel, Waiting } from "#web/parts/page.tsx";
import { shownBy } from "#web/parts/points.ts";
import { toast } from "#web/parts/toast.tsx";

type Whose = { readonly childId: string } | { readonly classId: string };

/** What is worth teaching next to a child of a class, or to the class: asked for when it comes into sight. */
export function NextOf({ classId, whose, today }: { classId: string; whose: Whose; today: string }) {
  const map = useAskSliced(getGaps, { query: { classId } });
  const worth = useAskSliced(getWorth, { query: { classId } });
  const grouping = useAsk(getGrouping, {});
  const said = useAsk(getNext, {});
  if (!map.data || !worth.data)
    return (
      <Panel title="Worth teaching next">
        <Waiting rows={7} />
      </Panel>
    );
  const weights = grouping.data?.grouping.weights;
  const learners = learnersOf(map.data, { worth: worth.data, weights, said: said.data });
  return (
    <NextBest
      learners={"childId" in whose ? learners.filter(({ id }) => id === whose.childId) : learners}
      worth={worth.data}
      said={said.data}
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
  readonly shown: Shown;
  readonly whose: Whose;
  readonly today: string;
}

/** Weeks for which a thing is put off. */
const OFF_WEEKS = 4;
const AT_FIRST = 3;

const how = { pinned: "first", later: "put off", struck: "struck out" } as const;

/** What it is worth most to teach next, by teaching point, and why; each can be put first, put off or struck out. */
function NextBest({ learners, worth, said, shown, whose, today }: NextWanted) {
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
  const say = async (gpcs: readonly string[], what: SaidOfNext["how"] | null) => {
    const until =
      what === "later" ? formatISO(addWeeks(parseISO(today), OFF_WEEKS), { representation: "date" }) : null;
    try {
      for (const gpc of gpcs) {
        const body = { gpc, how: what, until };
        if ("childId" in whose) await call(sayNextOfChild, { params: { id: whose.childId }, body });
        else await call(sayNextOfClass, { params: { id: whose.classId }, body });
      }
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
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
            <select
              aria-label={`What to do with ${name}`}
              value=""
              className="mt-0.5 w-16 rounded border border-line bg-sheet px-1 py-0.5 text-sm"
              onChange={(event) => void say(gpcs, event.target.value as SaidOfNext["how"])}
            >
              <option value="">…</option>
              <option value="pinned">teach it first</option>
              <option value="later">put it off for {OFF_WEEKS} weeks</option>
              <option value="struck">strike it out</option>
            </select>
          </li>
        ))}
      </ol>
      {rows.length > AT_FIRST && (
        <Button shape="quiet" className="-ml-3" onClick={() => setAll(!all)}>
          {all ? "Only the first" : `${rows.length - AT_FIRST} more`}
        </Button>
      )}
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
              <Spelling gpc={one.gpc} /> {how[one.how]}
              {one.until && ` until ${shortDay(one.until, today)}`}
              <button
                type="button"
                className="underline underline-offset-4"
                aria-label={`Take back: ${one.gpc} ${how[one.how]}`}
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

/** What it would bring, in numbers with their units. */
function Why({ opened, of }: { opened: readonly OpenedFor[]; of: number }) {
  const words = opened.reduce((sum, one) => sum + one.words, 0);
  const next = opened.reduce((sum, one) => sum + one.next, 0);
  const titles = [...new Set(opened.flatMap((one) => one.titles))];
  const need = Math.max(0, ...opened.map((one) => one.need));
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
      {next > 0 && `; ${next} of what the class is taught next`}.
    </p>
  );
}
