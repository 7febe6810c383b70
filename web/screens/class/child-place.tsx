import type { School } from "#contract";
import { usePlace } from "#web/device/place.ts";
import { PlacePanel } from "#web/parts/place.tsx";

/** Where a child is in the order: with its class, with a group, or at a place of its own. */
export function ChildPlace({ childId, className, school }: { childId: string; className: string; school: School }) {
  const { place, keep } = usePlace("child", childId);
  const { orders, today } = school;
  return place && <PlacePanel {...{ place, orders, today, className }} who="child" onSave={keep} />;
}
