import { type Lexicon, laidOn } from "#core/words";
import type { Over } from "./hearing.ts";
import type { Skill } from "./skills.ts";

/**
 * The units of a school's own that lie over a word, each once: they count as well as their parts do.
 * @param at for each unit of the word, its place among the word's skills; -1 for a letter without a sound
 */
export function overOf(
  verb: "say" | "spell",
  units: readonly { readonly gpc: string }[],
  at: readonly number[],
  { ownUnits }: Pick<Lexicon, "ownUnits">,
): readonly Over[] {
  const found = new Map<Skill, Set<number>>();
  const gpcs = units.map(({ gpc }) => gpc);
  for (const laid of laidOn(gpcs, ownUnits)) {
    const of = found.get(`${verb} ${laid.gpc}`) ?? new Set();
    for (let place = laid.at; place < laid.at + laid.size; place++)
      if ((at[place] ?? -1) >= 0) of.add(at[place] as number);
    found.set(`${verb} ${laid.gpc}`, of);
  }
  return [...found].map(([skill, of]) => ({ skill, of: [...of] }));
}
