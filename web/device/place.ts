import { useRef } from "react";
import { getPlaceOfChild, getPlaceOfGroup, type PlaceView, setPlaceOfChild, setPlaceOfGroup } from "#contract";
import { call, refreshAll, useAsk, wordsOfError } from "./api.ts";
import { stampNow } from "./clock.ts";
import { newId } from "./settings.ts";

/** A place in an order as it is chosen; without a step it goes along with the class. */
export interface PlaceChosen {
  readonly orderId: string | null;
  readonly stepId: string | null;
  readonly again: boolean;
  readonly since: string;
}

/** The place of a child or a group in the order, and how it is kept; `keep` says what stood against it, or null. */
export function usePlace(
  of: "child" | "group",
  id: string,
): { readonly place: PlaceView | undefined; readonly keep: (chosen: PlaceChosen) => Promise<string | null> } {
  const { data } = useAsk(of === "child" ? getPlaceOfChild : getPlaceOfGroup, { params: { id } });
  // One id a choice, so that a second press marks nothing twice.
  const mark = useRef<{ of: string; id: string; at: string }>(undefined);
  const keep = async (chosen: PlaceChosen) => {
    const said = JSON.stringify(chosen);
    if (mark.current?.of !== said) mark.current = { of: said, id: newId(), at: stampNow() };
    const { id: markId, at } = mark.current;
    const asking = { params: { id }, body: { ...chosen, id: markId, at } };
    try {
      await (of === "child" ? call(setPlaceOfChild, asking) : call(setPlaceOfGroup, asking));
    } catch (error) {
      return wordsOfError(error);
    }
    mark.current = undefined;
    await refreshAll();
    return null;
  };
  return { place: data, keep };
}
