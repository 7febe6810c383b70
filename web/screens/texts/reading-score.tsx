import type { ReadingView } from "#contract";
import { failedSpellings, hardness, misreads, type Reading, scoreReading, textWords } from "#core/reading";
import type { WordGround } from "#web/app/lexicon.ts";
import { shortDay } from "#web/parts/dates.ts";
import { Spelling } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";

const round = (value: number | null) => (value === null ? "–" : String(Math.round(value)));
const hard = {
  "too hard": "Too hard: take an easier text.",
  teaching: "Right for teaching.",
  easy: "Easy: to read alone.",
};

/** The figures of one reading, each with its working, and what the misreads say. */
export function ReadingScore({ reading, ground }: { reading: Reading; ground: WordGround }) {
  const score = scoreReading(reading);
  const told = misreads(reading, ground);
  const failed = failedSpellings(told);
  const fit = hardness(score.accuracy);
  const minutes = reading.ms === null ? null : reading.ms / 60_000;
  const wrong = score.wordsRead - score.wordsCorrect;
  const rows: [string, string, string][] = [
    [
      "Words correct per minute",
      round(score.correctPerMinute),
      minutes ? `${score.wordsCorrect} words correct in ${minutes.toFixed(2)} minutes` : "no time was measured",
    ],
    ["Accuracy", `${round(score.accuracy)}%`, `${score.wordsCorrect} correct of ${score.wordsRead} words read`],
    ["Errors", String(score.errors), `${wrong} words wrong, ${score.kinds.putIn} put in`],
    [
      "Put right by the child",
      score.selfCorrection === null ? "–" : `${round(score.selfCorrection)}%`,
      `of all words that went wrong at first`,
    ],
    ["Hesitations", String(score.hesitations), "words told, sounded out, said again or waited for"],
  ];
  return (
    <Panel title="What this reading says">
      <table className="border-collapse">
        <tbody>
          {rows.map(([name, value, working]) => (
            <tr key={name} className="align-baseline">
              <th scope="row" className="pr-4 text-left font-normal">
                {name}
              </th>
              <td className="pr-4 text-right text-lg font-semibold" data-testid={name}>
                {value}
              </td>
              <td className="text-sm text-soft">{working}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {fit && <p className="mt-2 font-semibold">{hard[fit]}</p>}
      {told.length > 0 && (
        <ul className="mt-2">
          {told.map((one) => (
            <li key={`${one.at} ${one.heard}`}>
              <span className="font-child">{one.word}</span> – “{one.heard}”{" "}
              <span className="text-sm text-soft">
                {one.says.join(" ")} {one.putRight ? "Put right." : ""}
              </span>
            </li>
          ))}
        </ul>
      )}
      {failed[0] && (
        <p className="mt-2 flex flex-wrap items-center gap-1.5">
          Behind the errors:{" "}
          {failed.slice(0, 4).map((one) => (
            <Spelling key={one.gpc} gpc={one.gpc} />
          ))}
        </p>
      )}
    </Panel>
  );
}

/** Earlier readings of the same text, oldest first: what was won, and which words still stop. */
export function EarlierReadings({ readings }: { readings: readonly ReadingView[] }) {
  if (readings.length === 0) return null;
  return (
    <Panel title="Readings of this text">
      <table className="w-full border-collapse text-left">
        <thead>
          <tr className="text-sm text-soft">
            <th scope="col" className="font-semibold">
              Day
            </th>
            <th scope="col" className="text-right font-semibold">
              Correct per minute
            </th>
            <th scope="col" className="text-right font-semibold">
              Accuracy
            </th>
            <th scope="col" className="pl-4 font-semibold">
              Words that stopped
            </th>
          </tr>
        </thead>
        <tbody>
          {[...readings].reverse().map((reading) => {
            const score = scoreReading(reading);
            const words = textWords(reading.text);
            const stopped = score.words.flatMap((word, at) =>
              word === "right" || word === "notReached" ? [] : [words[at]?.text ?? ""],
            );
            return (
              <tr key={reading.id} className="border-t border-line/60">
                <td>{shortDay(reading.day)}</td>
                <td className="text-right">{round(score.correctPerMinute)}</td>
                <td className="text-right">{round(score.accuracy)}%</td>
                <td className="font-child pl-4">{[...new Set(stopped)].slice(0, 6).join(", ") || "none"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Panel>
  );
}
