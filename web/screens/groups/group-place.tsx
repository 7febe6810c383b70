import { useRef } from "react";
import { getPlaceOfGroup, type School, setPlaceOfGroup } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import { type ChosenPlace, PlacePanel } from "#web/parts/place.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Where a group is in the order: its children with their classes, or all at a place of the group's own. */
export function GroupPlace({ groupId, school }: { groupId: string; school: School }) {
  const { data } = useAsk(getPlaceOfGroup, { params: { id: groupId } });
  // One id a choice, so that a second press marks nothing twice.
  const mark = useRef<{ of: string; id: string; at: string }>(undefined);
  const save = async (place: ChosenPlace) => {
    const of = JSON.stringify(place);
    if (mark.current?.of !== of) mark.current = { of, id: newId(), at: stampNow() };
    const { id, at } = mark.current;
    try {
      await call(setPlaceOfGroup, { params: { id: groupId }, body: { ...place, id, at } });
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
    <PlacePanel place={data} orders={school.orders} today={school.today} who="group" className="" onSave={save} />
  );
}
