import { useMemo } from "react";
import { getLexicon, getSchool, listSplits, type OwnSplit } from "#contract";
import { type Accent, accentOf } from "#core/phonics";
import { type Lexicon, type MadeUp, ownEntry, readLexicon, readMadeUp, withOwnSplits } from "#core/words";
import { useKept } from "./kept.ts";

/** Everything the word engine needs on this screen. */
export interface WordGround {
  /** The words that ship, with the school's own splits laid over them. */
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  readonly accent: Accent;
  readonly own: readonly OwnSplit[];
}

/** Read once for the text that arrived; the same text gives the same lexicon, so that what was learned from it stays. */
let shipped: { of: string; lexicon: Lexicon; madeUp: readonly MadeUp[] } | undefined;

function readShipped(words: string, madeUp: string) {
  if (shipped?.of !== words) shipped = { of: words, lexicon: readLexicon(words), madeUp: readMadeUp(madeUp) };
  return shipped;
}

/** The word engine's ground, or undefined until it has arrived; the error when it cannot come. */
export function useLexicon(): { ground: WordGround | undefined; error: Error | undefined } {
  const data = useKept(getLexicon, {}, { revalidateOnFocus: false, revalidateIfStale: false });
  const splits = useKept(listSplits, {});
  const school = useKept(getSchool, {});
  const accent = school.data?.accent;
  const ground = useMemo(() => {
    if (!data.data || !splits.data || accent === undefined) return undefined;
    const { lexicon, madeUp } = readShipped(data.data.words, data.data.madeUp);
    return {
      lexicon: withOwnSplits(
        lexicon,
        splits.data.map(({ text, units }) => ownEntry(text, units)),
      ),
      madeUp,
      sentences: data.data.sentences,
      accent: accentOf(accent),
      own: splits.data,
    };
  }, [data.data, splits.data, accent]);
  return { ground, error: ground ? undefined : (data.error ?? splits.error ?? school.error) };
}
