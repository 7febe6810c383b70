import type { School } from "#contract";
import { usePlace } from "#web/device/place.ts";
import { PlacePanel } from "#web/parts/place.tsx";

/** Where a group is in the order: its children with their classes, or all at a place of the group's own. */
export function GroupPlace({ groupId, school }: { groupId: string; school: School }) {
  const { place, keep } = usePlace("group", groupId);
  const { orders, today } = school;
  return place && <PlacePanel {...{ place, orders, today }} className="" who="group" onSave={keep} />;
}
