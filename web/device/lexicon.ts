import { startTransition, useEffect, useMemo, useState } from "react";
import { getLexicon, getSchool, listSplits, listWordAges, type OwnSplit, type OwnWordAge } from "#contract";
import { type Accent, accentOf, type Gpc, isOwnUnit } from "#core/phonics";
import {
  carriersFrom,
  type Lexicon,
  learnWhile,
  type MadeUp,
  openInSteps,
  ownEntry,
  readMadeUp,
  withOwnAges,
  withOwnSplits,
  withOwnUnits,
} from "#core/words";
import { useKept } from "./kept.ts";

/** Everything the word engine needs on this screen. */
export interface SchoolWords {
  /** The words that ship, with the school's own splits laid over them. */
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  /** The answers to those of them that are questions, with the reason. */
  readonly answers: Readonly<Record<string, string>>;
  /** What words mean that are known by nine or later, or that sound like another. */
  readonly meanings: Readonly<Record<string, string>>;
  /** Pictures of words, as signs of the picture font. */
  readonly pictures: Readonly<Record<string, string>>;
  /** By word, a sentence to say it in when it is dictated. */
  readonly carriers: ReadonlyMap<string, string>;
  readonly accent: Accent;
  readonly own: readonly OwnSplit[];
  readonly ages: readonly OwnWordAge[];
  /** The file of words as it came, for a worker that reads it itself. */
  readonly source: string;
}

interface Shipped {
  readonly of: string;
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
}

/** Opened once for the text that arrived; the same text gives the same lexicon, so that what was learned from it stays. */
let shipped: Shipped | undefined;
let opening: { readonly of: string; readonly opened: Promise<Shipped> } | undefined;

/** Opens the words that ship in slices, between which the page is free. */
function openShipped(words: string, madeUp: string): Promise<Shipped> {
  if (opening?.of !== words) {
    const open = async () => {
      const steps = openInSteps(words);
      let step = steps.next();
      while (!step.done) {
        await new Promise((done) => setTimeout(done));
        step = steps.next();
      }
      let read: readonly MadeUp[] | undefined;
      shipped = {
        of: words,
        lexicon: step.value,
        get madeUp() {
          read ??= readMadeUp(madeUp);
          return read;
        },
      };
      return shipped;
    };
    opening = { of: words, opened: open() };
  }
  return opening.opened;
}

function useShipped() {
  const { data, error } = useKept(getLexicon, {}, { revalidateOnFocus: false, revalidateIfStale: false });
  const [read, setRead] = useState(shipped);
  useEffect(() => {
    let left = false;
    if (data)
      void openShipped(data.words, data.madeUp).then((opened) => !left && startTransition(() => setRead(opened)));
    return () => {
      left = true;
    };
  }, [data]);
  return { read: read?.of === data?.words ? read : undefined, files: data, error };
}

/** A slice of learning leaves the page free for a mark. */
const SLICE_MS = 12;
/** Before it begins the page has been drawn and looked at: whoever goes on at once needs none of it. */
const QUIET_MS = 2000;

/** Learns how words are read that the lexicon does not have, while nothing else is to do. @returns stops it */
function learnWhenIdle(lexicon: Lexicon): () => void {
  let stopped = false;
  const slice = () => {
    if (stopped) return;
    const until = performance.now() + SLICE_MS;
    if (!learnWhile(lexicon, () => performance.now() < until)) setTimeout(soon, SLICE_MS);
  };
  const soon = () => (typeof requestIdleCallback === "function" ? requestIdleCallback(slice) : setTimeout(slice, 50));
  const begun = setTimeout(soon, QUIET_MS);
  return () => {
    clearTimeout(begun);
    stopped = true;
  };
}

/** What a school says of words, beside those that ship. */
interface Own {
  readonly splits: readonly OwnSplit[];
  readonly ages: readonly OwnWordAge[];
  /** Letters that it teaches as one. */
  readonly units?: readonly Gpc[];
}

/** The lexicon that ships with a school's own splits and ages laid over it, and over these what it teaches as one. */
function laidOver(lexicon: Lexicon, { splits, ages, units = [] }: Own): Lexicon {
  const entries = splits.map(({ text, units }) => ownEntry(text, units));
  return withOwnUnits(withOwnAges(withOwnSplits(lexicon, entries), ages), units);
}

/** The words for whoever came by a link: those that ship, with what the school says of words, which came with the link. */
export function useLexiconByLink(
  said: { readonly splits: readonly OwnSplit[]; readonly wordAges: readonly OwnWordAge[] } | undefined,
): {
  lexicon: Lexicon | undefined;
  error: Error | undefined;
} {
  const { read, error } = useShipped();
  const { splits, wordAges } = said ?? {};
  const lexicon = useMemo(
    () => (read && splits && wordAges ? laidOver(read.lexicon, { splits, ages: wordAges }) : undefined),
    [read, splits, wordAges],
  );
  return { lexicon, error };
}

/** The word engine's ground, or undefined until it has arrived; the error when it cannot come. */
export function useLexicon(): { ground: SchoolWords | undefined; error: Error | undefined } {
  const { read, files, error } = useShipped();
  const splits = useKept(listSplits, {});
  const ages = useKept(listWordAges, {});
  // The frame of every page keeps it fresh.
  const school = useKept(getSchool, {}, { revalidateIfStale: false });
  const accent = school.data?.accent;
  // As one text: the same units give the same lexicon, whatever else of an order is changed.
  const units = (school.data?.orders ?? [])
    .flatMap(({ content }) => content.steps.flatMap(({ gpcs }) => gpcs.filter(isOwnUnit)))
    .join(" ");
  const ground = useMemo(() => {
    if (!read || !files || !splits.data || !ages.data || accent === undefined) return undefined;
    const { sentences, answers, meanings, pictures } = files;
    let carriers: ReadonlyMap<string, string> | undefined;
    return {
      lexicon: laidOver(read.lexicon, {
        splits: splits.data,
        ages: ages.data,
        units: units.split(" ").filter(Boolean),
      }),
      get madeUp() {
        return read.madeUp;
      },
      ...{ sentences, answers, meanings, pictures },
      get carriers() {
        carriers ??= carriersFrom(sentences, new Map(Object.entries(files.carriers)));
        return carriers;
      },
      accent: accentOf(accent),
      ...{ own: splits.data, ages: ages.data },
      source: read.of,
    };
  }, [read, files, splits.data, ages.data, accent, units]);
  const lexicon = ground?.lexicon;
  useEffect(() => (lexicon ? learnWhenIdle(lexicon) : undefined), [lexicon]);
  return { ground, error: ground ? undefined : (error ?? splits.error ?? ages.error ?? school.error) };
}
