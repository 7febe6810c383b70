import { type Gpc, showGrapheme, splitGpc } from "#core/phonics";
import { listed } from "#core/saying";
import { focusName } from "./focus.ts";
import { kindsOfPart } from "./kinds.ts";
import { type SessionPlan, targetsOf } from "./plan.ts";
import { teachesNew } from "./routine.ts";

type Planned = Pick<SessionPlan, "target" | "second" | "focus" | "parts">;

const shown = (gpcs: readonly Gpc[]) => listed(gpcs.map((gpc) => showGrapheme(splitGpc(gpc).grapheme)));

/** What a plan is about, in a few words. */
function aboutOf(plan: Planned): string {
  if (plan.focus) return focusName(plan.focus);
  return teachesNew(plan) ? shown(targetsOf(plan)) : "review alone";
}

/** The cards that each child has of its own in the first part that has such. */
function cardsOf({ parts }: Planned): ReadonlyMap<string, readonly Gpc[]> {
  const part = parts.find(({ kind, each }) => kind === "revisit" && each && each.length > 0);
  return new Map((part?.each ?? []).map(({ childId, items }) => [childId, items]));
}

const wordsOf = ({ parts }: Planned) =>
  new Set(parts.flatMap(({ kind, items }) => (kindsOfPart[kind].items === "words" ? items : [])));

/**
 * What another plan for the same session would bring: what it is about, each child's cards that come and go, parts that come and go, and
 * how many words are others. Sentences for whoever planned the first; none where nothing but the order differs.
 * @param nameOf a child by its id
 * @example ["ay comes in place of ai.", "Bram O.: ai comes back; sh goes.", "6 of 9 words are others."]
 */
export function planChanges(before: Planned, after: Planned, nameOf: (id: string) => string): readonly string[] {
  const says: string[] = [];
  const [was, is] = [aboutOf(before), aboutOf(after)];
  if (was !== is) says.push(`${is} in place of ${was}.`);
  const [cardsBefore, cardsAfter] = [cardsOf(before), cardsOf(after)];
  for (const [childId, cards] of cardsAfter) {
    const old = cardsBefore.get(childId) ?? [];
    const come = cards.filter((gpc) => !old.includes(gpc));
    const go = old.filter((gpc) => !cards.includes(gpc));
    const parts = [
      ...(come.length > 0 ? [`${shown(come)} ${come.length > 1 ? "come" : "comes"} to the cards`] : []),
      ...(go.length > 0 ? [`${shown(go)} ${go.length > 1 ? "go" : "goes"}`] : []),
    ];
    if (parts.length > 0) says.push(`${nameOf(childId)}: ${parts.join("; ")}.`);
  }
  const titles = (plan: Planned) => plan.parts.map(({ kind }) => kindsOfPart[kind].title);
  const added = [...new Set(titles(after))].filter((title) => !titles(before).includes(title));
  const left = [...new Set(titles(before))].filter((title) => !titles(after).includes(title));
  if (added.length > 0) says.push(`${listed(added)} ${added.length > 1 ? "come" : "comes"} in.`);
  if (left.length > 0) says.push(`${listed(left)} ${left.length > 1 ? "are" : "is"} left out.`);
  const [old, now] = [wordsOf(before), wordsOf(after)];
  const others = [...now].filter((word) => !old.has(word)).length;
  if (others > 0)
    says.push(others === now.size ? "All words are others." : `${others} of ${now.size} words are others.`);
  return says;
}
