import { kinds, type TellWanted } from "#core/checks";
import { type GivenAnswer, heardIn } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { failedUnits, Kept, readWordItem } from "#core/words";

/** A word of a text in which a spelling failed. */
export interface TextMiss {
  readonly day: string;
  readonly word: string;
}

/** The spellings that fail when a word is read as something, worked out once for a lexicon and an accent. */
const MOST_SAYINGS = 20_000;
const failed = new WeakMap<object, Kept<string, readonly Gpc[]>>();

function failedFor({ lexicon }: Pick<TellWanted, "lexicon">): Kept<string, readonly Gpc[]> {
  const known = failed.get(lexicon) ?? new Kept<string, readonly Gpc[]>(MOST_SAYINGS);
  failed.set(lexicon, known);
  return known;
}

/** Which spellings failed in the words of texts that a child misread and did not put right, from its standing answers. */
export function missedInTexts(
  answers: readonly GivenAnswer[],
  words: Pick<TellWanted, "lexicon" | "accent">,
): ReadonlyMap<Gpc, readonly TextMiss[]> {
  const known = failedFor(words);
  const found = new Map<Gpc, TextMiss[]>();
  for (const answer of answers) {
    const heard = heardIn(answer);
    if (answer.source.kind !== "reading" || heard === null || answer.tags.includes("putRight")) continue;
    const saying = `${words.accent?.id}\t${answer.item}\t${heard}`;
    const gpcs = known.of(saying, () => failedOf(answer.item, heard, words));
    for (const gpc of gpcs)
      found.set(gpc, [...(found.get(gpc) ?? []), { day: answer.day, word: kinds.words.show(answer.item) }]);
  }
  return found;
}

function failedOf(item: string, heard: string, words: Pick<TellWanted, "lexicon" | "accent">): readonly Gpc[] {
  const { units } = readWordItem(item);
  return failedUnits(units, heard, words).flatMap((at) => {
    const unit = units[at];
    return unit && unit.sound !== "" ? [unit.gpc] : [];
  });
}
