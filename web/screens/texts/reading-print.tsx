import type { TextView } from "#contract";
import { BEFORE_FIRST, type MarkKind, type Reading, textWords } from "#core/reading";
import { plural, shortDay } from "#core/saying";
import { todayHere } from "#web/device/clock.ts";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { usePrinting } from "#web/parts/printing.ts";
import { readingMarks, signsOf } from "#web/parts/reading-marks.ts";
import type { Draft } from "./draft.ts";
import { type VoiceKey, voiceNames, voiceSteps } from "./marking.ts";
import { ReadingScore } from "./reading-score.tsx";

interface PrintWanted {
  readonly draft: Draft;
  readonly who: string;
  readonly text: TextView | undefined;
  readonly ground: SchoolWords;
  readonly limits: Parameters<typeof ReadingScore>[0]["limits"];
  readonly aim: Parameters<typeof ReadingScore>[0]["aim"];
}

/** A reading on paper, for a file or a talk: the text with its marks, the figures with their working, what was noted. */
export function ReadingPrint(wanted: PrintWanted) {
  return usePrinting() ? <Printed {...wanted} /> : null;
}

function Printed({ draft, who, text, ground, limits, aim }: PrintWanted) {
  const { body, group } = draft;
  const together = group.length > 0;
  const voice = (Object.keys(voiceSteps) as VoiceKey[]).flatMap((key) => {
    const step = body.voice[key];
    return step === null ? [] : [{ key, words: voiceSteps[key][step - 1] ?? "" }];
  });
  const answers = body.understanding.map((one) => ({
    ...one,
    answers: text?.questions.find((question) => question.ask === one.ask)?.answers ?? [],
  }));
  return (
    <article className="only-print" aria-label="The reading on paper">
      <header className="mb-2 border-b-2 border-ink pb-1">
        <p className="text-xl font-semibold">
          {who}: {body.title}
        </p>
        <p>
          {shortDay(body.day, todayHere())}, heard by {body.markedBy}
          {together
            ? `, read together by ${plural(group.filter((one) => one.came).length, "child", "children")}`
            : ""}
        </p>
      </header>
      <MarkedReading reading={body} />
      {!together && <ReadingScore reading={body} ground={ground} limits={limits} aim={aim} />}
      {voice.length > 0 && (
        <Part title="Voice">{voice.map(({ key, words }) => `${voiceNames[key]}: ${words}`).join(". ")}.</Part>
      )}
      {answers.length > 0 && (
        <Part title="Questions">
          {answers.map((one) => (
            <span key={one.ask} className="block">
              {one.ask} {one.mark === "not" ? "not answered" : one.mark === "partly" ? "partly right" : "right"}
              {one.lookedBack ? ", after looking back" : ""}
              {one.answers[0] ? ` (${one.answers[0]})` : ""}
            </span>
          ))}
        </Part>
      )}
      {body.note && <Part title="Note">{body.note}</Part>}
    </article>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mt-2 break-inside-avoid">
      <p className="font-semibold">{title}</p>
      <p>{children}</p>
    </section>
  );
}

/** What was put in before the first word. */
function PutInBefore({ marks }: { marks: Reading["marks"] }) {
  const mine = marks.filter((mark) => mark.at === BEFORE_FIRST);
  if (mine.length === 0) return null;
  return (
    <span className="font-sans text-[9pt]">
      {signsOf(mine.map((mark) => mark.kind))} ({mine.map((mark) => mark.heard ?? "–").join(", ")}){" "}
    </span>
  );
}

/** The text as it was read: signs above the words, what was said after them, and where reading stopped. */
function MarkedReading({ reading }: { reading: Reading }) {
  const words = textWords(reading.text);
  const used = new Set(reading.marks.map((mark) => mark.kind));
  return (
    <section className="mb-3">
      <p className="font-child text-[12pt] leading-[2.1] whitespace-pre-line">
        {words.map((word, at) => {
          const marks = reading.marks.filter((mark) => mark.at === at);
          const heard = marks.flatMap((mark) => (mark.heard ? [mark.heard] : []));
          const next = words[at + 1];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place in the text
            <span key={at}>
              {at === 0 && <PutInBefore marks={reading.marks} />}
              {at === 0 ? reading.text.slice(0, word.at) : ""}
              <span className="relative">
                <span className="absolute -top-[1.15em] left-0 font-sans text-[8pt] whitespace-nowrap">
                  {signsOf(marks.map((mark) => mark.kind))}
                </span>
                {word.text}
              </span>
              {heard.length > 0 && <span className="font-sans text-[9pt]"> ({heard.join(", ")})</span>}
              {at === reading.stoppedAt && next && <span className="font-sans text-[9pt]"> ‖</span>}
              {reading.text.slice(word.at + word.text.length, next?.at)}
            </span>
          );
        })}
      </p>
      {used.size > 0 && (
        <p className="mt-1 text-[9pt]">
          {keyOfSigns(used)}
          {reading.stoppedAt !== null && reading.stoppedAt < words.length - 1 ? "; ‖ here reading stopped" : ""}
        </p>
      )}
    </section>
  );
}

/** What the signs that were used mean. */
function keyOfSigns(used: ReadonlySet<MarkKind>): string {
  return readingMarks
    .filter(({ kind }) => used.has(kind) || (kind === "leftOut" && used.has("skipped")))
    .map(({ sign, name }) => `${sign} ${name.toLowerCase()}`)
    .join("; ");
}
