import { useRef } from "react";
import { getPlaceOfChild, type School, setPlaceOfChild } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { type ChosenPlace, PlacePanel } from "#web/parts/place.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Where a child is in the order: with its class, with a group, or at a place of its own. */
export function ChildPlace({ childId, className, school }: { childId: string; className: string; school: School }) {
  const { data } = useAsk(getPlaceOfChild, { params: { id: childId } });
  // One id a choice, so that a second press marks nothing twice.
  const mark = useRef<{ of: string; id: string; at: string }>(undefined);
  const save = async (place: ChosenPlace) => {
    const of = JSON.stringify(place);
    if (mark.current?.of !== of) mark.current = { of, id: newId(), at: stampNow() };
    const { id, at } = mark.current;
    try {
      await call(setPlaceOfChild, { params: { id: childId }, body: { ...place, id, at } });
      await refreshAll();
      mark.current = undefined;
      toast("Kept. Checks, lists, texts and the map follow it.");
      return true;
    } catch (error) {
      toast.error(wordsOfError(error));
      return false;
    }
  };
  if (!data) return null;
  return (
    <PlacePanel
      place={data}
      orders={school.orders}
      today={school.today}
      who="child"
      className={className}
      onSave={save}
    />
  );
}
