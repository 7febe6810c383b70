import { isRightAtOnce, type KindId } from "#core/ledger";
import { type Gpc, splitGpc, WEAK } from "#core/phonics";
import type { CommonSection } from "../section.ts";
import type { AskOf, Drawn } from "./kind.ts";

type AnyAsk = AskOf<CommonSection & { readonly kind: KindId }>;

/**
 * Spellings of the section's scope, none twice, at most `most` of those that are due: what is most doubtful comes first, where
 * the doubt is known; else what was asked before and is not secure. The weak vowel has no card.
 */
export function drawSpellings(ask: AnyAsk): Drawn {
  const { section } = ask;
  if (section.scope === "picked") return { items: [...new Set(section.picked)] };
  const [taught, recent] = [ask.taught, ask.recent].map((gpcs) => gpcs.filter((gpc) => splitGpc(gpc).sound !== WEAK));
  if (section.scope === "all") return { items: [...new Set(taught)] };
  if (section.scope === "recent") return { items: [...new Set(recent)] };
  return { items: dueFirst([...new Set(taught)], ask).slice(0, section.most) };
}

/** What is not secure in its own kind of check: for spelling to sound by mastery, elsewhere by the last time. */
function dueFirst(gpcs: readonly Gpc[], ask: AnyAsk): readonly Gpc[] {
  const secure = (gpc: Gpc) =>
    ask.section.kind === "card" ? ask.secure.has(gpc) : isRightAtOnce(ask.last.get(gpc) ?? "none");
  const open = gpcs.filter((gpc) => !secure(gpc));
  const { doubt } = ask;
  if (ask.section.kind === "card" && doubt)
    return [...open].sort((one, other) => (doubt.get(other) ?? 0) - (doubt.get(one) ?? 0));
  const asked = open.filter((gpc) => ask.last.has(gpc));
  return [...asked, ...open.filter((gpc) => !ask.last.has(gpc))];
}

/** Words of the section's scope from a list: all, those of the last steps, or those not right at once last time. */
export function drawListed(words: readonly string[], recent: readonly string[], ask: AnyAsk): readonly string[] {
  const { section } = ask;
  if (section.scope === "picked") return [...new Set(section.picked)];
  if (section.scope === "recent") return [...new Set(recent)].slice(0, section.most);
  const all = [...new Set(words)];
  if (section.scope === "all") return all.slice(-section.most);
  const open = all.filter((word) => !isRightAtOnce(ask.last.get(word) ?? "none"));
  const asked = open.filter((word) => ask.last.has(word));
  return [...asked, ...open.filter((word) => !ask.last.has(word))].slice(0, section.most);
}
