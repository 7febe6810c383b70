import { fitLimits, type TextFit } from "./fit.ts";
import type { hardness } from "./standards.ts";

interface Shelved {
  readonly id: string;
  /** The step of the readers' teaching order from which it can be read; null for never. */
  readonly step: number | null;
  readonly fit: TextFit;
}

/** How often a text that is right for teaching is read before the next one. */
const TIMES = 3;

/**
 * Which text to take tomorrow, and why, after a text was read: one that was too hard gives way to an easier one, one
 * that is right for teaching is read again, up to three times in all, and after an easy one comes the nearest further
 * on. Only texts that were not read yet are proposed. Undefined when the shelf has none.
 */
export function nextText<T extends Shelved>(
  now: {
    readonly id: string;
    readonly hardness: ReturnType<typeof hardness>;
    /** Times this child has read it, this one among them. */
    readonly times: number;
  },
  shelf: readonly T[],
  read: ReadonlySet<string>,
): { readonly text: T; readonly why: string } | undefined {
  const current = shelf.find((one) => one.id === now.id);
  const step = current?.step ?? Number.POSITIVE_INFINITY;
  const fresh = (least: number) =>
    shelf
      .filter((one) => one.id !== now.id && one.step !== null && one.fit.share >= least && !read.has(one.id))
      .sort((one, other) => (one.step ?? 0) - (other.step ?? 0));
  if (now.hardness === "too hard") {
    const easier = fresh(fitLimits.alone).findLast((one) => (one.step ?? 0) < step);
    return easier && { text: easier, why: "This one was too hard. Of the easier ones it is the nearest." };
  }
  if (now.hardness === "teaching" && now.times < TIMES && current)
    return { text: current, why: "It is right for teaching: once more, to see what is won." };
  const onward = (least: number) => fresh(least).find((one) => (one.step ?? 0) >= step);
  const alone = onward(fitLimits.alone) ?? fresh(fitLimits.alone).at(-1);
  if (alone) return { text: alone, why: "It is the next that can be read alone." };
  const helped = onward(fitLimits.helped);
  return helped && { text: helped, why: "It is the next further on; some words need help first." };
}
