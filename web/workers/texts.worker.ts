import { expose } from "comlink";
import { type Accent, accentOf } from "#core/phonics";
import {
  type Climb,
  climbOf,
  fitOf,
  type Preparation,
  type PreparedText,
  prepareReading,
  prepareText,
  stepOfText,
  type TextContent,
  type TextFit,
} from "#core/reading";
import {
  decodability,
  type Lexicon,
  type MarkedWord,
  markedWords,
  openLexicon,
  ownEntry,
  withOwnSplits,
} from "#core/words";

/** What the word engine stands on, as it is sent. */
export interface WordsSent {
  readonly source: string;
  readonly own: readonly { readonly text: string; readonly units: readonly string[] }[];
  readonly accent: string;
}
export interface ReaderSent {
  readonly known: readonly string[];
  readonly wholes: readonly string[];
  readonly targets: readonly string[];
}
type TextSent = TextContent & { readonly id: string };
type Steps = Parameters<typeof climbOf>[0];

/** How one text fits, and from which step on all of it can be read. */
export interface Laid {
  readonly id: string;
  readonly step: number | null;
  readonly fit: TextFit;
}

let ground: { of: string; lexicon: Lexicon; accent: Accent; prepared: Map<string, PreparedText> } | undefined;

function standOn({ source, own, accent }: WordsSent) {
  const of = JSON.stringify([accent, own, source.length]);
  if (ground?.of !== of) {
    const entries = own.map(({ text, units }) => ownEntry(text, units));
    const lexicon = withOwnSplits(openLexicon(source), entries);
    ground = { of, lexicon, accent: accentOf(accent), prepared: new Map() };
  }
  return ground;
}

/** A text taken apart once, for all readers. */
function prepared(here: NonNullable<typeof ground>, text: TextSent): PreparedText {
  const key = JSON.stringify([text.title, text.body, text.exceptions]);
  const made = here.prepared.get(key) ?? prepareText(text, here);
  here.prepared.set(key, made);
  return made;
}

function fitting({ known, wholes, targets }: ReaderSent) {
  return { known: new Set(known), wholes: new Set(wholes), targets: new Set(targets) };
}

/** Another for each shelf that is asked for: the one before is not laid to its end. */
let turn = 0;
/** Between two looks at whether something else is asked. */
const BREATH_MS = 30;

const worker = {
  /** Lays texts against readers one after the other; `tell` hears of each, until another shelf is asked for. */
  async shelf(
    sent: WordsSent,
    texts: readonly TextSent[],
    reader: ReaderSent,
    steps: Steps,
    tell: (row: Laid) => void,
  ): Promise<void> {
    turn++;
    const mine = turn;
    const here = standOn(sent);
    const climb: Climb = climbOf(steps);
    const who = fitting(reader);
    let until = 0;
    for (const text of texts) {
      if (performance.now() > until) {
        await new Promise((done) => setTimeout(done));
        if (turn !== mine) return;
        until = performance.now() + BREATH_MS;
      }
      const once = prepared(here, text);
      tell({ id: text.id, step: stepOfText(once, climb), fit: fitOf(once, who) });
    }
  },
  /** One text for readers: how it fits, each of its words, and what to look at before it is read. */
  prepare(
    sent: WordsSent,
    text: TextSent,
    reader: ReaderSent,
    steps: Steps,
  ): Laid & { readonly words: readonly MarkedWord[]; readonly proposed: Preparation } {
    const here = standOn(sent);
    const once = prepared(here, text);
    const who = fitting(reader);
    // Known before the text and not being taught: what is to be practised is in the way until then.
    const judge = (of: string) => decodability(of, who.known, new Set(), { ...here, wholes: who.wholes });
    const proposed = prepareReading(text, judge(`${text.title}.\n${text.body}`), who.targets);
    return {
      id: text.id,
      step: stepOfText(once, climbOf(steps)),
      fit: fitOf(once, who),
      words: markedWords(judge(text.body)),
      proposed,
    };
  },
  /** How one text fits each of several readers, in their order. */
  fits(sent: WordsSent, text: TextSent, readers: readonly ReaderSent[]): readonly TextFit[] {
    const once = prepared(standOn(sent), text);
    return readers.map((reader) => fitOf(once, fitting(reader)));
  },
};
export type TextsWorker = typeof worker;
expose(worker);
