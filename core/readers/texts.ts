import { type Dice, kinds, plainSetup } from "#core/checks";
import { type ReadingMark, textWords } from "#core/reading";
import { keyOf, split, wordItem } from "#core/words";
import type { Reader } from "./items.ts";

/** What a simulated child makes of a text. */
export interface TextReply {
  readonly marks: readonly ReadingMark[];
  /** The last word reached within the limit, or null when the text was read to its end. */
  readonly stoppedAt: number | null;
  readonly ms: number;
}

/**
 * How a simulated child reads a text aloud until its end or the limit (milliseconds). Each spelling comes as surely as
 * it sits; exception words in `wholes` come as one. The same dice give the same reading.
 */
export function readText(
  text: string,
  { reader, wholes, from, limitMs }: { reader: Reader; wholes: ReadonlySet<string>; from: Dice; limitMs: number },
): TextReply {
  const { temper, learned, weeksAway, lexicon } = reader;
  const words = textWords(text);
  const marks: ReadingMark[] = [];
  let ms = 0;
  for (const [at, word] of words.entries()) {
    const before = marks.length;
    const mark = (kind: ReadingMark["kind"], heard: string | null = null) => marks.push({ at, kind, heard });
    const units = split(word.text, { lexicon })[0]?.units ?? [];
    const sure = (gpc: string) =>
      temper.luck + (temper.sure - temper.luck) * learned(gpc) * (1 - temper.forgets) ** weeksAway(gpc);
    const whole = wholes.has(keyOf(word.text)) || word.text.length < 3;
    const right = whole
      ? from.share() < 0.985
      : units.every((unit) => unit.sound === "" || from.share() < sure(unit.gpc) ** 0.4);
    // A spelling that sits comes quickly; one that does not takes its time also where it comes right.
    const ease = units.reduce((sum, unit) => sum + (unit.sound === "" ? 1 : sure(unit.gpc)), 0) / (units.length || 1);
    ms += 500 + units.length * (70 + 380 * (1 - ease)) + (from.share() < temper.slow ? 900 : 0);
    if (right) {
      if (from.share() < temper.sounds / 8) {
        mark("sounded");
        ms += 1500;
      }
      if (word.endsSentence && from.share() < 0.06) mark("endMark");
    } else {
      ms += 1400;
      const likely = kinds.words.likely(wordItem({ text: keyOf(word.text), units }), plainSetup("words"), 1);
      const said = likely[from.pick(Math.max(1, likely.length))]?.heard ?? null;
      if (from.share() >= temper.guesses) mark("told");
      else {
        mark("misread", said);
        if (from.share() < 0.3) mark("putRight");
      }
    }
    // The adult marks a word when it has been read.
    for (let i = before; i < marks.length; i++)
      marks[i] = { ...(marks[i] as ReadingMark), ms: Math.min(Math.round(ms), limitMs) };
    if (ms >= limitMs) return { marks, stoppedAt: at === words.length - 1 ? null : at, ms: limitMs };
  }
  return { marks, stoppedAt: null, ms: Math.round(ms) };
}
