import { addWeeks, formatISO, parseISO } from "date-fns";
import { type SaidOfNext, sayNextOfChild, sayNextOfClass } from "#contract";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { toast } from "#web/parts/toast.tsx";

/** Of whom something is said. */
export type Whose = { readonly childId: string } | { readonly classId: string };

/** Weeks for which a thing is put off. */
const OFF_WEEKS = 4;

/** Says of things to teach that they come first, later or not at all; with null what was said is taken back. */
export function useSaying(whose: Whose, today: string) {
  return async (things: readonly string[], what: SaidOfNext["how"] | null) => {
    const until =
      what === "later" ? formatISO(addWeeks(parseISO(today), OFF_WEEKS), { representation: "date" }) : null;
    try {
      for (const gpc of things) {
        const body = { gpc, how: what, until };
        if ("childId" in whose) await call(sayNextOfChild, { params: { id: whose.childId }, body });
        else await call(sayNextOfClass, { params: { id: whose.classId }, body });
      }
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
}

/** What can be said of a thing that is worth teaching. */
export function WhatToDo({ name, onSay }: { name: string; onSay: (what: SaidOfNext["how"]) => unknown }) {
  return (
    <select
      aria-label={`What to do with ${name}`}
      value=""
      className="mt-0.5 w-16 rounded border border-line bg-sheet px-1 py-0.5 text-sm"
      onChange={(event) => void onSay(event.target.value as SaidOfNext["how"])}
    >
      <option value="">…</option>
      <option value="pinned">teach it first</option>
      <option value="later">put it off for {OFF_WEEKS} weeks</option>
      <option value="struck">strike it out</option>
    </select>
  );
}
