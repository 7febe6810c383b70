import { proxy } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { getSchool, listChildren, listTexts, type TextView } from "#contract";
import type { TextFit } from "#core/reading";
import { useKept } from "#web/device/kept.ts";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { type For, useFor } from "#web/device/readers.ts";
import type { Laid } from "#web/workers/texts.worker.ts";
import { groundSent, readerSent, textsOffPage } from "./laying.ts";

/** A text as it stands on the shelf for some readers. */
export interface Shelved {
  readonly id: string;
  readonly text: TextView;
  /** The step of these readers' teaching order, from 1, at which every word can be read; null for never. */
  readonly step: number | null;
  readonly fit: TextFit;
}

/** What texts are laid against: these readers, on these words, in the steps of their order. */
export interface LayGround {
  readonly texts: readonly TextView[] | undefined;
  readonly reader: For | undefined;
  readonly ground: SchoolWords | undefined;
  readonly steps: readonly Step[] | undefined;
  /** The name of the teaching order whose steps are counted. */
  readonly orderName: string;
  readonly error: Error | undefined;
}
interface Step {
  readonly gpcs: readonly string[];
  readonly exceptionWords: readonly string[];
}

/** Everything that says how texts fit these readers, as it arrives. */
export function useLayGround(forKey: string): LayGround {
  const texts = useKept(listTexts, {}, { revalidateOnFocus: false });
  const school = useKept(getSchool, {}, { revalidateIfStale: false });
  const children = useKept(listChildren, { query: {} });
  const { ground, error: noWords } = useLexicon();
  const { reader, error: noReader } = useFor(forKey);
  const [kind, id] = forKey.split(":");
  const childId = kind === "child" ? id : reader?.children[0]?.id;
  const classId = kind === "class" ? id : children.data?.find((child) => child.id === childId)?.classId;
  const orderId = school.data?.classes.find((one) => one.id === classId)?.orderId;
  const order = school.data?.orders.find((one) => one.id === orderId) ?? school.data?.orders[0];
  // The school is asked for again and again; its steps are new only when they say something else.
  const said = JSON.stringify(order?.content.steps.map(({ gpcs, exceptionWords }) => ({ gpcs, exceptionWords })));
  const steps = useMemo(
    (): readonly Step[] | undefined => (said === undefined ? undefined : JSON.parse(said)),
    [said],
  );
  const error = texts.error ?? noWords ?? noReader ?? school.error;
  return { texts: texts.data, reader, ground, steps, orderName: order?.content.name ?? "", error };
}

interface Shelf extends LayGround {
  /** Every text with how it fits; undefined until a worker has laid the last of them. */
  readonly shelf: readonly Shelved[] | undefined;
  /** What is laid so far, by id. */
  readonly laid: ReadonlyMap<string, Laid>;
}

const nothing: ReadonlyMap<string, Laid> = new Map();

/** Every text laid against these readers, in a worker, one after the other. */
export function useShelf(forKey: string): Shelf {
  const all = useLayGround(forKey);
  const { texts, reader, ground, steps } = all;
  const [made, setMade] = useState<{ readonly of: object; readonly laid: ReadonlyMap<string, Laid> }>();
  const [failed, setFailed] = useState<Error>();
  const of = useMemo(
    () => (texts && reader && ground && steps ? { texts, reader, ground, steps } : undefined),
    [texts, reader, ground, steps],
  );
  useEffect(() => {
    if (!of) return;
    let here = true;
    const tell = (row: Laid) => {
      if (here)
        setMade((before) => ({ of, laid: new Map(before?.of === of ? before.laid : nothing).set(row.id, row) }));
    };
    setFailed(undefined);
    textsOffPage
      .ask((worker) => worker.shelf(groundSent(of.ground), of.texts, readerSent(of.reader), of.steps, proxy(tell)))
      .catch((error: unknown) => here && setFailed(error instanceof Error ? error : new Error(String(error))));
    return () => {
      here = false;
    };
  }, [of]);
  const laid = of && made?.of === of ? made.laid : nothing;
  const shelf = useMemo(() => {
    if (!texts || laid.size < texts.length) return undefined;
    return texts.flatMap((text): Shelved[] => {
      const one = laid.get(text.id);
      return one ? [{ id: text.id, text, step: one.step, fit: one.fit }] : [];
    });
  }, [texts, laid]);
  return { ...all, shelf, laid, error: shelf ? undefined : (all.error ?? failed) };
}
