import { useState } from "react";
import type { z } from "zod";
import { type getChild, setAbsent } from "#contract";
import { listed, shortDay } from "#core/saying";
import { call, refreshAll, wordsOfError } from "#web/device/api.ts";
import { Button } from "#web/parts/button.tsx";
import { TextField } from "#web/parts/field.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { Fault, Panel } from "#web/parts/page.tsx";

type Away = z.infer<typeof getChild.answer>["away"];

/** The days on which a child was away, with what it missed on them; a day is added, and taken out when the child was here after all. */
export function DaysAway({ childId, away, today }: { childId: string; away: Away; today: string }) {
  const [day, setDay] = useState("");
  const [trouble, setTrouble] = useState<string>();
  const say = async (on: string, absent: boolean) => {
    try {
      await call(setAbsent, { params: { id: childId }, body: { absent, day: on } });
      await refreshAll();
      setTrouble(undefined);
      setDay((now) => (now === on ? "" : now));
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <Panel title="Days away">
      <p className="mb-1 text-sm text-soft">
        What is taught on a day on which the child is away counts as half a lesson, until it is asked.
      </p>
      {away.length > 0 && (
        <ul className="flex flex-col divide-y divide-line" aria-label="Days away">
          {away.map((one) => (
            <li key={one.day} className="flex items-center gap-3 py-1">
              <span className="flex flex-1 flex-wrap items-center gap-1">
                {shortDay(one.day, today)}
                {one.gpcs.length + one.words.length > 0 && <span className="text-soft">missed</span>}
                {one.gpcs.map((gpc) => (
                  <Spelling key={gpc} gpc={gpc} />
                ))}
                {one.words.length > 0 && <span>{listed(one.words.map((word) => `“${word}”`))}</span>}
              </span>
              <Button
                shape="quiet"
                className="no-print"
                aria-label={`Here on ${shortDay(one.day, today)} after all`}
                onClick={() => say(one.day, false)}
              >
                Here after all
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form
        className="no-print mt-2 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void say(day, true);
        }}
      >
        <div className="w-44">
          <TextField
            label="Was away on"
            type="date"
            max={today}
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={!day}>
          Add
        </Button>
      </form>
      <Fault className="mt-2">{trouble}</Fault>
    </Panel>
  );
}
