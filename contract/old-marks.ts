import { askedAs, type KindId, kindIds } from "#core/ledger";

type Loose = Readonly<Record<string, unknown>>;

/**
 * What each change of a mark's shape asks of a mark that was made before it, oldest change first. A device may hold marks
 * that it made weeks ago without a line, under any version; a step leaves alone what is as it makes it.
 */
const steps: readonly ((mark: Loose) => Loose)[] = [
  // Spelling cards had another code.
  (mark) => (mark.kind === "say" ? { ...mark, kind: "card" } : mark),
  // Ticks of more than one pass came with the kinds of check.
  (mark) => (isGiven(mark) ? { pass: 1, tags: [], ...mark } : mark),
  // What was heard came without the units that a person may name.
  (mark) => ("heard" in mark && !("units" in mark) ? { ...mark, units: null } : mark),
  // Where a mark comes from was a check's id, or none; how it was asked and helped was not said.
  (mark) => {
    if ("source" in mark || mark.outcome === "void") return mark;
    const { checkId, ...rest } = mark;
    const source = { kind: "check", checkId };
    if (!isGiven(mark)) return { ...rest, source };
    const way = kindIds.includes(mark.kind as KindId) ? askedAs(mark.kind as KindId) : undefined;
    return { ...rest, source, help: "none", way };
  },
];

const isGiven = (mark: Loose) => !["void", "note", "stop"].includes(String(mark.outcome));

/** A mark of any version before in the shape of today; anything else as it is. */
export function broughtUp(value: unknown): unknown {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return value;
  return steps.reduce<Loose>((mark, step) => step(mark), value as Loose);
}
