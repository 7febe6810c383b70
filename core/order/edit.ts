import { type Gpc, readGpc, showGrapheme } from "#core/phonics";
import type { OrderContent, Step } from "./order.ts";

export type Edited =
  | { readonly ok: true; readonly order: OrderContent }
  | { readonly ok: false; readonly problem: string };

function withSteps(order: OrderContent, steps: readonly Step[]): OrderContent {
  return { ...order, steps };
}

function changeStep(order: OrderContent, stepId: string, change: (step: Step) => Step): OrderContent {
  return withSteps(
    order,
    order.steps.map((step) => (step.id === stepId ? change(step) : step)),
  );
}

/** A copy of the list with the entry at `from` taken out and put in at `to`; places outside are clamped. */
function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const copy = [...list];
  const [entry] = copy.splice(from, 1);
  if (entry !== undefined) copy.splice(Math.max(0, Math.min(to, copy.length)), 0, entry);
  return copy;
}

/** The order with a step at another place, counted from 0; places beyond the ends are the ends. */
export function moveStep(order: OrderContent, from: number, to: number): OrderContent {
  return withSteps(order, moved(order.steps, from, to));
}

/** Takes the correspondence from where it stands and puts it at `index` of the step. */
export function moveGpc(order: OrderContent, gpc: Gpc, toStepId: string, index: number): OrderContent {
  if (!order.steps.some((step) => step.id === toStepId)) return order;
  const without = removeGpc(order, gpc);
  return changeStep(without, toStepId, (step) => {
    const gpcs = [...step.gpcs];
    gpcs.splice(Math.max(0, Math.min(index, gpcs.length)), 0, gpc);
    return { ...step, gpcs };
  });
}

/** The order without a spelling in one of its steps; a step may become empty. */
export function removeGpc(order: OrderContent, gpc: Gpc): OrderContent {
  return withSteps(
    order,
    order.steps.map((step) =>
      step.gpcs.includes(gpc) ? { ...step, gpcs: step.gpcs.filter((other) => other !== gpc) } : step,
    ),
  );
}

/** Adds what a person typed at the end of the step. Refuses an unknown or a doubled correspondence, with the reason. */
export function addGpc(order: OrderContent, stepId: string, typed: string): Edited {
  const read = readGpc(typed);
  if (!read.ok) return read;
  const { gpc, grapheme } = read.entry;
  const at = order.steps.findIndex((step) => step.gpcs.includes(gpc));
  if (at >= 0) {
    const title = order.steps[at]?.title;
    return {
      ok: false,
      problem: `${showGrapheme(grapheme)} with this sound is already in step ${at + 1} (${title}).`,
    };
  }
  return { ok: true, order: changeStep(order, stepId, (step) => ({ ...step, gpcs: [...step.gpcs, gpc] })) };
}

/** The order with another title of one of its steps. */
export function renameStep(order: OrderContent, stepId: string, title: string): OrderContent {
  return changeStep(order, stepId, (step) => ({ ...step, title }));
}

/** Adds an empty step at the end. `id` must be new in this order. */
export function addStep(order: OrderContent, id: string): OrderContent {
  return withSteps(order, [...order.steps, { id, title: "New step", gpcs: [], exceptionWords: [] }]);
}

/** The order without a step, and without what it taught. */
export function removeStep(order: OrderContent, stepId: string): OrderContent {
  return withSteps(
    order,
    order.steps.filter((step) => step.id !== stepId),
  );
}

/** Sets a step's exception words from a line of text; words elsewhere in the order are refused. */
export function setExceptionWords(order: OrderContent, stepId: string, typed: string): Edited {
  const words = [...new Set(typed.split(/[\s,;]+/).filter(Boolean))];
  const odd = words.find((word) => !/^[A-Za-z]+(?:['’][a-z]+)?$/.test(word));
  if (odd) return { ok: false, problem: `"${odd}" is not a word. Use letters only, with a space between words.` };
  for (const [index, step] of order.steps.entries()) {
    const doubled = step.id === stepId ? undefined : words.find((word) => step.exceptionWords.includes(word));
    if (doubled) return { ok: false, problem: `"${doubled}" is already in step ${index + 1} (${step.title}).` };
  }
  return { ok: true, order: changeStep(order, stepId, (step) => ({ ...step, exceptionWords: words })) };
}

/** What keeps an order from being saved, as sentences; empty when it is whole. */
export function orderProblems(order: OrderContent): readonly string[] {
  const problems: string[] = [];
  const seen = new Map<Gpc, string>();
  const ids = new Set<string>();
  if (!order.name.trim()) problems.push("The teaching order needs a name.");
  for (const step of order.steps) {
    if (ids.has(step.id)) problems.push(`Two steps have the id ${step.id}.`);
    ids.add(step.id);
    if (!step.title.trim()) problems.push("A step has no title.");
    for (const gpc of step.gpcs) {
      const read = readGpc(gpc);
      if (!read.ok || read.entry.gpc !== gpc)
        problems.push(`${gpc} in "${step.title}" is not a known correspondence.`);
      const before = seen.get(gpc);
      if (before !== undefined) problems.push(`${gpc} stands twice, in "${before}" and in "${step.title}".`);
      seen.set(gpc, step.title);
    }
  }
  return problems;
}
