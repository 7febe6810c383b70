import { useMemo } from "react";
import { getSchool, listChildren, listTexts, type TextView } from "#contract";
import { climbOf, fitOf, type PreparedText, prepareText, stepOfText, type TextFit } from "#core/reading";
import { useKept } from "#web/app/kept.ts";
import { useLexicon, type WordGround } from "#web/app/lexicon.ts";
import { type For, focusOf, useFor } from "#web/app/readers.ts";

/** A text as it stands on the shelf for some readers. */
export interface Shelved {
  readonly id: string;
  readonly text: TextView;
  /** The step of these readers' teaching order, from 1, at which every word can be read; null for never. */
  readonly step: number | null;
  readonly fit: TextFit;
}

interface Shelf {
  readonly shelf: readonly Shelved[] | undefined;
  readonly reader: For | undefined;
  readonly ground: WordGround | undefined;
  /** The name of the teaching order whose steps are counted. */
  readonly orderName: string;
  readonly error: Error | undefined;
}

/** Taken apart once for a text and the words of this school, so that a change of readers is quick. */
const prepared = new WeakMap<WordGround["lexicon"], WeakMap<TextView, PreparedText>>();

export function preparedOf(text: TextView, ground: WordGround): PreparedText {
  const here = prepared.get(ground.lexicon) ?? new WeakMap<TextView, PreparedText>();
  prepared.set(ground.lexicon, here);
  const made = here.get(text) ?? prepareText(text, ground);
  here.set(text, made);
  return made;
}

/** Every text laid against these readers; undefined until all that it needs has arrived. */
export function useShelf(forKey: string): Shelf {
  const texts = useKept(listTexts, {}, { revalidateOnFocus: false });
  const school = useKept(getSchool, {});
  const children = useKept(listChildren, { query: {} });
  const { ground, error: noWords } = useLexicon();
  const { reader, error: noReader } = useFor(forKey);
  const [kind, id] = forKey.split(":");
  const childId = kind === "child" ? id : reader?.children[0]?.id;
  const classId = kind === "class" ? id : children.data?.find((child) => child.id === childId)?.classId;
  const orderId = school.data?.classes.find((one) => one.id === classId)?.orderId;
  const order = school.data?.orders.find((one) => one.id === orderId) ?? school.data?.orders[0];
  const climb = useMemo(() => order && climbOf(order.content.steps), [order]);
  const shelf = useMemo(() => {
    if (!texts.data || !ground || !reader || !climb) return undefined;
    const { known, wholes } = reader;
    const targets = focusOf(reader);
    return texts.data.map((text): Shelved => {
      const once = preparedOf(text, ground);
      return { id: text.id, text, step: stepOfText(once, climb), fit: fitOf(once, { known, wholes, targets }) };
    });
  }, [texts.data, ground, reader, climb]);
  const error = shelf ? undefined : (texts.error ?? noWords ?? noReader ?? school.error);
  return { shelf, reader, ground, orderName: order?.content.name ?? "", error };
}
