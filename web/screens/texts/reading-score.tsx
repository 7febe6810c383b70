import type { ReadingView } from "#contract";
import {
  failedSpellings,
  hardness,
  type Limits,
  misreads,
  paceAlong,
  type Reading,
  type ReadingScore as ReadingScoreFigures,
  scoreReading,
  stoppedWords,
  type WordResult,
  wholeAccuracy,
  wonSince,
} from "#core/reading";
import { form, plural, shortDay } from "#core/saying";
import { showSaid } from "#core/words";
import { todayHere } from "#web/device/clock.ts";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { Chart } from "#web/parts/chart.tsx";
import { Spelling } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";

const round = (value: number | null) => (value === null ? "–" : String(Math.round(value)));
const hard = {
  "too hard": "Too hard: take an easier text.",
  teaching: "Right for teaching.",
  easy: "Easy: to read alone.",
};

interface ScoreWanted {
  readonly reading: Reading;
  readonly ground: SchoolWords;
  readonly limits: Limits;
  /** What the school aims for just now, for this child's year group. */
  readonly aim: { readonly yearGroup: string; readonly value: number } | undefined;
}

/** The figures of one reading, each with its working, and what the misreads say. */
export function ReadingScore({ reading, ground, limits, aim }: ScoreWanted) {
  const score = scoreReading(reading);
  const told = misreads(reading, ground);
  const failed = failedSpellings(told);
  const fit = hardness(score.accuracy, limits);
  const minutes = reading.ms === null ? null : reading.ms / 60_000;
  const rows: [string, string, string][] = [
    [
      "Words correct per minute",
      round(score.correctPerMinute),
      minutes
        ? `${plural(score.wordsCorrect, "word")} correct in ${minutes.toFixed(2)} minutes${aim ? `; the aim for ${aim.yearGroup} now is ${aim.value}` : ""}`
        : "no time was measured",
    ],
    [
      "Accuracy",
      `${wholeAccuracy(score.accuracy) ?? "–"}%`,
      `${score.wordsCorrect} correct of ${plural(score.wordsRead, "word")} read`,
    ],
    ["Errors", String(score.errors), errorsSay(score)],
    ["Errors a hundred words", round(score.errorsPerHundred), `${score.errors} × 100 / ${score.wordsRead}`],
    [
      "Put right by the child",
      score.selfCorrection === null ? "–" : `${round(score.selfCorrection)}%`,
      score.selfCorrection === null
        ? "no word went wrong"
        : `${score.mended} of ${plural(score.mended + score.wordsRead - score.wordsCorrect, "word")} that went wrong at first`,
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
      {fit && (
        <p className="mt-2">
          <span className="font-semibold">{hard[fit]}</span>{" "}
          <span className="text-sm text-soft">
            Easy from {limits.easy}%, right for teaching from {limits.teaching}%.
          </span>
        </p>
      )}
      {told.length > 0 && (
        <ul className="mt-2">
          {told.map((one) => (
            <li key={`${one.at} ${one.heard}`}>
              <span className="font-child">{one.word}</span> – “{showSaid(one.heard)}”{" "}
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

/** The kinds of error, most often first: they add up to the errors. */
function errorsSay({ kinds, words, wordsRead, errors, mended }: ReadingScoreFigures): string {
  const cameOut = (result: WordResult) => words.filter((word) => word === result).length;
  const named: [string, number][] = [
    ["misread", cameOut("misread")],
    ["told", cameOut("told")],
    ["left out", cameOut("leftOut")],
    ["put in", kinds.putIn],
  ];
  const said = named.filter(([, count]) => count > 0).sort((one, other) => other[1] - one[1]);
  const besides = mended > 0 ? `; ${mended} put right, which ${form(mended, "is no error", "are no errors")}` : "";
  if (said.length === 0) return `none in ${plural(wordsRead, "word")}${besides}`;
  const sum = said.map(([name, count]) => `${count} ${name}`).join(" + ");
  return `${sum}${said.length > 1 ? ` = ${errors}` : ""}${kinds.putIn > 0 ? ", where a word put in is an error and no word of the text" : ""}${besides}`;
}

/** Pace sentence by sentence, where marks or turned lines gave it times. */
export function PaceAlong({ reading }: { reading: Reading }) {
  const pace = paceAlong(reading);
  if (pace.length < 2) return null;
  const slowest = [...pace].sort((one, other) => one.perMinute - other.perMinute)[0];
  return (
    <Panel title="Pace along the text">
      <Chart
        label={`Words a minute of ${pace.length} sentences; the figures are in the table.`}
        places={pace.map((one) => String(one.sentence + 1))}
        series={[
          { name: "Words a minute", axis: "left", as: "bar", values: pace.map((one) => Math.round(one.perMinute)) },
        ]}
      />
      {slowest && (
        <p className="mt-1">
          Slowest in sentence {slowest.sentence + 1}, “<span className="font-child">{slowest.begins}</span> …”.{" "}
          <span className="text-sm text-soft">
            From the times of marks and turned lines; words between two of them are taken to come evenly.
          </span>
        </p>
      )}
      <details className="mt-1">
        <summary className="cursor-pointer text-sm">The figures</summary>
        <Table
          label="The pace, sentence by sentence"
          className="mt-1"
          rows={pace}
          rowKey={(one) => one.sentence}
          columns={[
            {
              title: "Sentence",
              names: true,
              show: (one) => (
                <>
                  {one.sentence + 1} <span className="font-child">{one.begins} …</span>
                </>
              ),
            },
            { title: "Words", figures: true, show: (one) => one.words },
            { title: "Seconds", figures: true, show: (one) => (one.ms / 1000).toFixed(1) },
            { title: "Words a minute", figures: true, show: (one) => round(one.perMinute) },
          ]}
        />
      </details>
    </Panel>
  );
}

interface AgainWanted {
  /** Readings of the same text before this one, the newest first. */
  readonly earlier: readonly ReadingView[];
  readonly now: Reading;
}

/** This reading beside those before it of the same text: what was won, and which words still stop. */
export function ReadAgain({ earlier, now }: AgainWanted) {
  const first = earlier.at(-1);
  if (!first) return null;
  const rows = [
    ...[...earlier].reverse().map((one) => ({ when: shortDay(one.day, todayHere()), one })),
    { when: "now", one: now },
  ];
  const { perMinute, accuracy, mended, still } = wonSince(first, now);
  const won = [
    ...(perMinute === null ? [] : [`${signed(perMinute)} words correct per minute`]),
    ...(accuracy === null ? [] : [`${signed(accuracy)} points of accuracy`]),
  ];
  return (
    <Panel title="Read again">
      {won.length > 0 && <p>Since the first time: {won.join(", ")}.</p>}
      {mended.length > 0 && (
        <p>
          Right now: <span className="font-child">{mended.slice(0, 8).join(", ")}</span>
        </p>
      )}
      {still.length > 0 && (
        <p>
          Stop still: <span className="font-child">{still.slice(0, 8).join(", ")}</span>
        </p>
      )}
      <Table
        label="Each time it was read"
        className="mt-2 w-full"
        rows={rows.map((row, at) => ({ ...row, at, score: scoreReading(row.one) }))}
        rowKey={({ at }) => at}
        columns={[
          { title: "Day", names: true, show: ({ when }) => when },
          { title: "Correct per minute", figures: true, show: ({ score }) => round(score.correctPerMinute) },
          { title: "Accuracy", figures: true, show: ({ score }) => `${wholeAccuracy(score.accuracy) ?? "–"}%` },
          {
            title: "Words that stopped",
            className: "font-child",
            show: ({ one, score }) => stoppedWords(one, score).slice(0, 6).join(", ") || "none",
          },
        ]}
      />
    </Panel>
  );
}

function signed(value: number): string {
  const whole = Math.round(value);
  return whole > 0 ? `+${whole}` : String(whole);
}
