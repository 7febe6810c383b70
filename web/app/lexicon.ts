import { useDeferredValue, useEffect, useMemo } from "react";
import { getLexicon, getSchool, listSplits, type OwnSplit } from "#contract";
import { type Accent, accentOf } from "#core/phonics";
import { type Lexicon, learnWhile, type MadeUp, openLexicon, ownEntry, readMadeUp, withOwnSplits } from "#core/words";
import { useKept } from "./kept.ts";

/** Everything the word engine needs on this screen. */
export interface WordGround {
  /** The words that ship, with the school's own splits laid over them. */
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  readonly accent: Accent;
  readonly own: readonly OwnSplit[];
  /** The file of words as it came, for a worker that reads it itself. */
  readonly source: string;
}

/** Read once for the text that arrived; the same text gives the same lexicon, so that what was learned from it stays. */
let shipped: { of: string; lexicon: Lexicon; readonly madeUp: readonly MadeUp[] } | undefined;

function readShipped(words: string, madeUp: string) {
  if (shipped?.of !== words) {
    let read: readonly MadeUp[] | undefined;
    shipped = {
      of: words,
      lexicon: openLexicon(words),
      get madeUp() {
        read ??= readMadeUp(madeUp);
        return read;
      },
    };
  }
  return shipped;
}

/** A slice of learning leaves the page free for a mark. */
const SLICE_MS = 12;

/** Learns how words are read that the lexicon does not have, while nothing else is to do. @returns stops it */
function learnWhenIdle(lexicon: Lexicon): () => void {
  let stopped = false;
  const slice = () => {
    if (stopped) return;
    const until = performance.now() + SLICE_MS;
    if (!learnWhile(lexicon, () => performance.now() < until)) setTimeout(soon, SLICE_MS);
  };
  const soon = () => (typeof requestIdleCallback === "function" ? requestIdleCallback(slice) : setTimeout(slice, 50));
  soon();
  return () => {
    stopped = true;
  };
}

/** The word engine's ground, or undefined until it has arrived; the error when it cannot come. */
export function useLexicon(): { ground: WordGround | undefined; error: Error | undefined } {
  const data = useKept(getLexicon, {}, { revalidateOnFocus: false, revalidateIfStale: false });
  const splits = useKept(listSplits, {});
  // The frame of every page keeps it fresh.
  const school = useKept(getSchool, {}, { revalidateIfStale: false });
  const accent = school.data?.accent;
  const ground = useMemo(() => {
    if (!data.data || !splits.data || accent === undefined) return undefined;
    const read = readShipped(data.data.words, data.data.madeUp);
    return {
      lexicon: withOwnSplits(
        read.lexicon,
        splits.data.map(({ text, units }) => ownEntry(text, units)),
      ),
      get madeUp() {
        return read.madeUp;
      },
      sentences: data.data.sentences,
      accent: accentOf(accent),
      own: splits.data,
      source: data.data.words,
    };
  }, [data.data, splits.data, accent]);
  const lexicon = ground?.lexicon;
  useEffect(() => (lexicon ? learnWhenIdle(lexicon) : undefined), [lexicon]);
  // Much is drawn of it: in slices.
  const drawn = useDeferredValue(ground, undefined);
  return { ground: drawn, error: ground ? undefined : (data.error ?? splits.error ?? school.error) };
}
