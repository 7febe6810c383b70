import { Tabs } from "radix-ui";
import type { ComponentType } from "react";
import { useSearchParams } from "react-router";
import { useKeys } from "#web/device/keys.tsx";
import { useIsAtLeast } from "#web/device/me.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { TheAdults } from "./the-adults.tsx";
import { TheChildren } from "./the-children.tsx";
import { TheClasses } from "./the-classes.tsx";
import { TheDay } from "./the-day.tsx";
import { TheGroups } from "./the-groups.tsx";
import { TheRooms } from "./the-rooms.tsx";
import { TheTerms } from "./the-terms.tsx";
import { type PartOfWeek, useEditedWeek, useWeek } from "./use-week.ts";

const parts: Readonly<Record<string, { readonly name: string; readonly Part: ComponentType<PartOfWeek> }>> = {
  day: { name: "The day", Part: TheDay },
  terms: { name: "Terms and days off", Part: TheTerms },
  adults: { name: "Adults", Part: TheAdults },
  rooms: { name: "Rooms", Part: TheRooms },
  classes: { name: "Classes", Part: TheClasses },
  children: { name: "Children", Part: TheChildren },
  groups: { name: "Groups", Part: TheGroups },
};

/** When sessions can be held, and who is free when: all that a timetable keeps to. */
export function Screen() {
  const { week, change, undo } = useEditedWeek();
  const { error } = useWeek();
  const lead = useIsAtLeast("lead");
  const [search, setSearch] = useSearchParams();
  const asked = search.get("of") ?? "day";
  const of = asked in parts ? asked : "day";
  useKeys([{ key: "z", does: "take the last change back", run: undo }]);
  return (
    <Page
      place="Hours and rooms"
      title="Hours and rooms"
      about="Set once, and changed when something changes. What you draw is kept at once."
      actions={
        <>
          <Button onClick={undo}>Undo</Button>
          <ButtonLink to="/week">The week</ButtonLink>
          {lead && <ButtonLink to="/week/timetable">Timetable</ButtonLink>}
        </>
      }
    >
      {error && !week ? (
        <Trouble error={error} />
      ) : !week ? (
        <Waiting rows={9} />
      ) : (
        <Tabs.Root value={of} onValueChange={(key) => setSearch({ of: key }, { replace: true })}>
          <Tabs.List aria-label="Hours of" className="mb-4 flex flex-wrap gap-1 border-b border-line">
            {Object.entries(parts).map(([key, { name }]) => (
              <Tabs.Trigger
                key={key}
                value={key}
                className="-mb-px min-h-9 border-b-2 border-transparent px-3 py-1.5 text-soft hover:text-ink data-[state=active]:border-leaf data-[state=active]:font-semibold data-[state=active]:text-ink"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          {Object.entries(parts).map(([key, { Part }]) => (
            <Tabs.Content key={key} value={key}>
              <Part week={week} change={change} />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      )}
    </Page>
  );
}
