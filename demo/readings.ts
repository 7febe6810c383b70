import { saveReading } from "#contract";
import type { Dice } from "#core/checks";
import { dayAt } from "#core/ledger";
import { readText } from "#core/readers";
import { fitOf, type KeptText, type PreparedText, prepareText } from "#core/reading";
import { keyOf } from "#core/words";
import { demoZone } from "./calendar.ts";
import { type DemoRequest, type DemoStock, request } from "./checks.ts";
import type { Pupil } from "./pupil.ts";
import { readingNotes } from "./texts.ts";

interface ReadingWanted {
  readonly pupil: Pupil;
  readonly week: number;
  readonly readAt: string;
  readonly markedBy: string;
  readonly taught: { readonly gpcs: readonly string[]; readonly exceptionWords: readonly string[] };
  readonly stock: DemoStock;
  readonly from: Dice;
  readonly uuid: () => string;
}

/** Each text taken apart once for all pupils and weeks. */
const prepared = new WeakMap<KeptText, PreparedText>();

function preparedOf(text: KeptText, { lexicon }: DemoStock): PreparedText {
  const made = prepared.get(text) ?? prepareText(text, { lexicon });
  prepared.set(text, made);
  return made;
}

/** A minute's reading of the farthest text that what was taught allows, as this child would read it. */
export function readingRequest(wanted: ReadingWanted): readonly DemoRequest[] {
  const { pupil, week, readAt, markedBy, taught, stock, from, uuid } = wanted;
  const wholes = new Set(taught.exceptionWords.map(keyOf));
  const known = new Set(taught.gpcs);
  const shelf = stock.texts.map((text) => ({ text, fit: fitOf(preparedOf(text, stock), { known, wholes }) }));
  // Now and then a text that is a little ahead.
  const least = from.share() < 0.3 ? 0.94 : 1;
  const found = shelf.findLast(({ fit }) => fit.share >= least);
  if (!found) return [];
  const { text } = found;
  // What the child itself could read by then, not its class.
  const mine = new Set(taught.gpcs.filter((gpc) => (pupil.learned.get(gpc) ?? 0) >= 0.4));
  const fit = fitOf(preparedOf(text, stock), { known: mine, wholes });
  const reader = {
    temper: pupil.temper,
    learned: (gpc: string) => pupil.learned.get(gpc) ?? 0,
    weeksAway: (gpc: string) => Math.max(0, week - (pupil.practised.get(gpc) ?? week - 1)),
    lexicon: stock.lexicon,
  };
  const { marks, stoppedAt, ms } = readText(text.body, { reader, wholes, from, limitMs: 60_000 });
  const step = () => 1 + from.pick(4);
  return [
    request(saveReading, {
      params: { id: uuid() },
      body: {
        childId: pupil.id,
        how: "alone",
        textId: text.id,
        title: text.title,
        text: text.body,
        marks: [...marks],
        stoppedAt,
        ms,
        turns: [],
        fit: fit.share,
        voice: { phrases: step(), stops: step(), pace: step(), expression: null },
        understanding: [],
        note: from.share() < 0.12 ? (readingNotes[from.pick(readingNotes.length)] ?? "") : "",
        readAt,
        day: dayAt(demoZone, readAt),
        markedBy,
      },
    }),
  ];
}
