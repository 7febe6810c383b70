import { findCorrespondence, type Gpc, isOwnUnit, readGpc, usualGpc } from "#core/phonics";

/** One step of a teaching order: a few correspondences, and words taught before all their units are. */
export interface Step {
  readonly id: string;
  readonly title: string;
  readonly gpcs: readonly Gpc[];
  readonly exceptionWords: readonly string[];
}

/** Correspondences that a school teaches as one thing, by its own name. */
export interface OwnPoint {
  readonly name: string;
  readonly gpcs: readonly Gpc[];
}

export interface OrderContent {
  readonly name: string;
  /** What kind of order it is, in a few words. */
  readonly kind: string;
  /** Who prefers it, and why, in a sentence. */
  readonly why: string;
  readonly steps: readonly Step[];
  /** What is taught as one thing here by a name of its own; the rest follows from rules (`pointsOf`). */
  readonly points?: readonly OwnPoint[];
}

/**
 * Reads a teaching order from plain text. Heading lines `name:`, `kind:`, `why:`, then one step a line:
 * `title: spellings | exception words`. A spelling alone stands for its usual sound. Step ids are
 * `s1`, `s2` and so on. A line `point: name: spellings` names what is taught as one thing. Throws with the line when a
 * correspondence is unknown or stands twice.
 */
export function readOrder(text: string): OrderContent {
  const heading: Record<string, string> = {};
  const steps: Step[] = [];
  const points: OwnPoint[] = [];
  const seen = new Set<Gpc>();
  for (const line of text.split("\n")) {
    const row = (line.split("#")[0] ?? "").trim();
    if (!row) continue;
    const colon = row.indexOf(":");
    const label = row.slice(0, colon).trim();
    const rest = row.slice(colon + 1).trim();
    if (["name", "kind", "why"].includes(label)) {
      heading[label] = rest;
      continue;
    }
    if (label === "point") {
      const end = rest.lastIndexOf(":");
      points.push({ name: rest.slice(0, end).trim(), gpcs: gpcsIn(rest.slice(end + 1), row) });
      continue;
    }
    const [spellings = "", exceptions = ""] = rest.split("|");
    const gpcs = gpcsIn(spellings, row);
    for (const gpc of gpcs) {
      if (seen.has(gpc)) throw new Error(`${gpc} stands twice, the second time in "${row}"`);
      seen.add(gpc);
    }
    steps.push({
      id: `s${steps.length + 1}`,
      title: label,
      gpcs,
      exceptionWords: exceptions.split(" ").filter(Boolean),
    });
  }
  const { name = "", kind = "", why = "" } = heading;
  return { name, kind, why, steps, ...(points.length > 0 ? { points } : {}) };
}

function gpcsIn(text: string, row: string): Gpc[] {
  return text
    .split(" ")
    .filter(Boolean)
    .map((piece) => {
      const unit = isOwnUnit(piece) ? readGpc(piece) : undefined;
      const gpc = unit ? unit.ok && unit.entry.gpc : piece.includes("=") ? piece : usualGpc(piece);
      if (!gpc || !findCorrespondence(gpc)) throw new Error(`"${piece}" in "${row}" is not known`);
      return gpc;
    });
}

/** All correspondences in the order they are taught. */
export function allGpcs(order: OrderContent): readonly Gpc[] {
  return order.steps.flatMap((step) => step.gpcs);
}

/** The steps up to and including `stepId`; none when `stepId` is null or no longer exists. */
export function stepsUpTo(order: OrderContent, stepId: string | null): readonly Step[] {
  const at = order.steps.findIndex((step) => step.id === stepId);
  return order.steps.slice(0, at + 1);
}

/** The `count` steps that come after `stepId`; the first ones where it is null. */
export function nextSteps(order: OrderContent, stepId: string | null, count: number): readonly Step[] {
  const done = stepsUpTo(order, stepId).length;
  return order.steps.slice(done, done + count);
}

/** What has been taught once `stepId` is reached, in teaching order. */
export function taughtUpTo(order: OrderContent, stepId: string | null): readonly Gpc[] {
  return stepsUpTo(order, stepId).flatMap((step) => step.gpcs);
}

/** The exception words taught once `stepId` is reached, in lower case except for *I*. */
export function exceptionWordsUpTo(order: OrderContent, stepId: string | null): readonly string[] {
  return stepsUpTo(order, stepId).flatMap((step) => step.exceptionWords);
}

/** The correspondences of the last `count` steps up to and including `stepId`. */
export function lastSteps(order: OrderContent, stepId: string | null, count: number): readonly Gpc[] {
  return stepsUpTo(order, stepId)
    .slice(-count)
    .flatMap((step) => step.gpcs);
}

/** The step in which a correspondence is taught. */
export function stepOf(order: OrderContent, gpc: Gpc): Step | undefined {
  return order.steps.find((step) => step.gpcs.includes(gpc));
}
