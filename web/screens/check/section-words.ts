import { kinds, type Scope, type Section, type StrategyName } from "#core/checks";
import { askedAs } from "#core/ledger";
import { plural } from "#core/saying";
import { onScreen } from "./kinds/index.ts";

/** How the choices of a plan are called. */
export const scopeNames: Record<Scope, string> = {
  due: "what is not secure yet",
  all: "everything taught",
  recent: "what was taught lately",
  picked: "picked by hand",
};

export const strategyNamesShown: Record<StrategyName, string> = {
  inOrder: "in order",
  shuffled: "shuffled, a new order each round",
  missed: "only what was not right at once last time",
};

/** What a part of a plan holds, in one line. */
export function sectionInWords(section: Section): string {
  const { scope, recentSteps } = section;
  const what =
    scope === "recent"
      ? `the last ${plural(recentSteps, "step")}`
      : scope === "picked"
        ? `${section.picked.length} picked by hand`
        : scopeNames[scope];
  const rest = [...(onScreen(section.kind).inWords?.(section, what) ?? [what])];
  if (section.form === "minute") rest.push("as many as a minute holds");
  if (section.strategy === "missed") rest.push("only what was missed last time");
  return rest.join(" · ");
}

/** Which choices a kind of check has. */
export function optionsOf({ kind, scope }: Pick<Section, "kind" | "scope">) {
  const cards = kinds[kind].way === "cards";
  const { picks } = kinds[kind];
  return {
    // All that was taught, or what was taught lately, is asked whole.
    most: picks !== "spellings" || scope === "due",
    scope: !onScreen(kind).anyTaught,
    picks,
    strategy: cards,
    stop: cards,
    // What a child writes, or first has to hear, is not done by the minute.
    form: cards && askedAs(kind) !== "heard",
  } as const;
}
