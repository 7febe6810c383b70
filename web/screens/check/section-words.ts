import {
  type BlockId,
  type Cases,
  kinds,
  type Scope,
  type Section,
  type StrategyName,
  taskNames,
} from "#core/checks";
import { plural } from "#core/saying";

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

export const caseNames: Record<Cases, string> = {
  small: "small letters",
  capital: "capital letters",
  both: "small and capital letters",
};

const shortShape: Record<BlockId, string> = {
  two: "2 sounds",
  three: "3 sounds",
  fourEnd: "4 with a cluster at the end",
  fourStart: "4 with a cluster at the start",
  five: "5 sounds",
  twoSyllables: "two syllables",
  endings: "with an ending",
  longer: "longer words",
};

/** What a part of a plan holds, in one line. */
export function sectionInWords(section: Section): string {
  const { scope, most, recentSteps } = section;
  const what =
    scope === "recent"
      ? `the last ${plural(recentSteps, "step")}`
      : scope === "picked"
        ? `${section.picked.length} picked by hand`
        : scopeNames[scope];
  const rest: string[] = [];
  if (section.kind === "names") rest.push(caseNames[section.cases]);
  else if (section.kind === "listen")
    rest.push(`${section.tasks.map((task) => taskNames[task].toLowerCase()).join(", ")}, ${most} each`);
  else if (section.kind === "words")
    rest.push(what, `${section.blocks.map((id) => shortShape[id]).join(", ")}, ${most} each`);
  else rest.push(what);
  if (section.kind === "find") rest.push(`among ${section.choices}`);
  if (section.kind === "dictation") rest.push(`${plural(most, "word")}${section.sentence ? " and a sentence" : ""}`);
  if (section.form === "minute") rest.push("as many as a minute holds");
  if (section.strategy === "missed") rest.push("only what was missed last time");
  return rest.join(" · ");
}

/** Which choices a kind of check has. */
export function optionsOf({ kind, scope }: Pick<Section, "kind" | "scope">) {
  const cards = kinds[kind].way === "cards";
  const spellings = kind === "card" || kind === "find" || kind === "write";
  return {
    // All that was taught, or what was taught lately, is asked whole.
    most: !spellings || scope === "due",
    scope: kind !== "listen",
    picks: spellings ? "spellings" : kind === "exception" ? "words" : kind === "names" ? "letters" : null,
    strategy: cards,
    stop: cards,
    form: cards && kind !== "listen" && kind !== "write",
  } as const;
}
