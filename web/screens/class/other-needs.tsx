import { useState } from "react";
import type { OtherNeedsView, SaidOfNext } from "#contract";
import { nearDay, plural } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import { evidenceOf, type SharedNeed, sharedNeeds } from "#web/parts/other-needs.ts";
import { useSaying, WhatToDo, type Whose } from "./what-to-do.tsx";

interface OthersWanted {
  readonly others: OtherNeedsView | undefined;
  /** What was said of things to teach. */
  readonly about: readonly SaidOfNext[];
  readonly whose: Whose;
  readonly today: string;
}

const AT_FIRST = 3;
/** Children who are named beside a need of a class. */
const NAMED = 3;

/** Needs besides single spellings: pairs that are mixed up, blending, exception words and writing, each with its evidence. */
export function OtherNeeds({ others, about, whose, today }: OthersWanted) {
  const [all, setAll] = useState(false);
  const say = useSaying(whose, today);
  if (!others) return null;
  const said = new Map(about.map((one) => [one.gpc, one.how]));
  const how = ({ ids }: SharedNeed) => ids.map((id) => said.get(id)).find((one) => one !== undefined);
  const needs = sharedNeeds(others, "childId" in whose ? new Set([whose.childId]) : undefined).filter(
    (need) => how(need) === undefined || how(need) === "pinned",
  );
  const rows = [...needs.filter((need) => how(need) === "pinned"), ...needs.filter((need) => how(need) !== "pinned")];
  if (rows.length === 0) return null;
  return (
    <>
      <h3 className="mt-2 border-t border-line pt-3 font-semibold">Besides single spellings</h3>
      <ol className="flex flex-col divide-y divide-line" aria-label="Besides single spellings">
        {rows.slice(0, all ? undefined : AT_FIRST).map((need) => (
          <li key={need.name} className="flex items-start justify-between gap-2 py-1.5">
            <div>
              <p>
                <span className="font-semibold">{need.name}</span>
                {how(need) === "pinned" && <span className="ml-1 text-sm text-leaf">first</span>}
              </p>
              <p className="text-sm text-soft">
                {"childId" in whose ? <Evidence need={need} today={today} /> : <Who need={need} others={others} />}
              </p>
            </div>
            <WhatToDo name={need.name} onSay={(what) => say(need.ids, what)} />
          </li>
        ))}
      </ol>
      {rows.length > AT_FIRST && (
        <Button shape="quiet" className="-ml-3" onClick={() => setAll(!all)}>
          {all ? "Only the first of these" : `${rows.length - AT_FIRST} more of these`}
        </Button>
      )}
    </>
  );
}

/** What speaks for a need of one child. */
function Evidence({ need, today }: { need: SharedNeed; today: string }) {
  const { misses, answers, lastDay, items, lostFirst } = evidenceOf(need.who[0]?.needs ?? []);
  const often = {
    contrast: `taken for one another ${misses} ${misses === 1 ? "time" : "times"} in four weeks`,
    rate: `below the aim in ${misses} of ${plural(answers, "text")}`,
  };
  const said = [
    need.kind === "contrast" || need.kind === "rate"
      ? often[need.kind]
      : `missed ${misses} of ${plural(answers, "time")}`,
    items.length > 0 && `${need.kind === "rate" ? "" : "in "}${items.slice(0, NAMED).join(", ")}`,
    lostFirst > 0 && `${plural(lostFirst, "word")} lost the first sound`,
    `last ${nearDay(lastDay, today)}`,
  ];
  return <>{said.filter(Boolean).join("; ")}.</>;
}

/** Which children of a class have a need. */
function Who({ need, others }: { need: SharedNeed; others: OtherNeedsView }) {
  const names = need.who.map(({ name }) => name);
  const more = names.length - NAMED;
  // A name ends with the point of its initial.
  return (
    <>
      {names.length} of {others.children.length}: {names.slice(0, NAMED).join(", ")}
      {more > 0 && ` and ${more} more`}
    </>
  );
}
