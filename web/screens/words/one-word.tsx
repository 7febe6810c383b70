import { useState } from "react";
import { findCorrespondence, ipa, plainSound, showGrapheme } from "#core/phonics";
import {
  cutBy,
  holds,
  meaningFor,
  type Source,
  showMeaning,
  split,
  unread,
  type WordSplit,
  wordsSoundingLike,
} from "#core/words";
import { Button } from "#web/parts/button.tsx";
import { BracketWord, Spellings } from "#web/parts/marks.tsx";
import { SaidOrWritten } from "./said-or-written.tsx";
import { SplitEditor, saysCut } from "./split-editor.tsx";
import type { ToolWanted } from "./tool.ts";
import { WordAge } from "./word-ages.tsx";
import { WordPicture } from "./word-pictures.tsx";

const sourceWords: Record<Source, string> = {
  lexicon: "in the word list",
  corrected: "in the word list, split by hand",
  derived: "a known word with an ending or a beginning",
  compound: "two known words in one",
  rules: "not in the word list, split by rule: worth a look",
};

/** One word, large, with its sounds, readings and parts, and a way to put its split right. */
export function OneWord({ word, ground, reader }: ToolWanted & { word: string }) {
  const [chosen, setChosen] = useState(0);
  const [sounds, setSounds] = useState(false);
  const [editing, setEditing] = useState(false);
  const readings = split(word, { lexicon: ground.lexicon, accent: ground.accent });
  const reading = readings[chosen] ?? readings[0];
  if (!reading) return null;
  const own = ground.own.find((one) => one.text.toLowerCase() === word.toLowerCase());
  const meaning = meaningFor(word, ground);
  const alike = wordsSoundingLike(word, ground.lexicon);
  const gpcs = reading.units.map((unit) => unit.gpc);
  const unexpected = unread(gpcs, reader.known);
  const asOne = ground.lexicon.ownUnits.filter((unit) => holds(reading.units, unit));
  const cut = cutBy(word, gpcs, ground.lexicon.ownUnits);
  return (
    <section aria-label={`The word ${word}`} className="rounded-lg border border-line bg-sheet px-6 py-5">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <p className="text-[4.5rem] leading-[1.5]">
          <BracketWord text={word} units={reading.units} unexpected={unexpected} />
        </p>
        <div className="flex gap-2">
          <Button aria-pressed={sounds} onClick={() => setSounds(!sounds)}>
            {sounds ? "Hide the sounds" : "Show the sounds"}
          </Button>
          <Button onClick={() => setEditing(true)}>Correct the split</Button>
        </div>
      </div>
      {sounds && <Sounds reading={reading} />}
      {readings.length > 1 && (
        <fieldset className="mt-4">
          <legend className="text-sm font-semibold">Readings</legend>
          <div className="mt-1 flex flex-wrap gap-2">
            {readings.map((one, at) => (
              <Button
                key={keyOfReading(one)}
                aria-pressed={at === chosen}
                onClick={() => setChosen(at)}
                shape={at === chosen ? "main" : "plain"}
              >
                {one.units.map((unit) => ipa(unit.sound).replaceAll("/", "")).join(" ")}
              </Button>
            ))}
          </div>
        </fieldset>
      )}
      <dl className="mt-4 grid grid-cols-[auto_1fr] items-baseline gap-x-6 gap-y-1">
        {meaning && <Fact name="Meaning">{showMeaning(word, meaning)}</Fact>}
        {alike.length > 0 && (
          <Fact name="Sounds the same">
            {alike
              .map((other) => {
                const its = meaningFor(other, ground);
                return its ? `${other} (${showMeaning(other, its)})` : other;
              })
              .join("; ")}
          </Fact>
        )}
        <Fact name="Syllables">{reading.syllables.join(" · ")}</Fact>
        <Fact name="Shape">{reading.shape}</Fact>
        <Fact name="Parts">{partsInWords(reading)}</Fact>
        {asOne.length > 0 && (
          <Fact name="Taught as one">
            <Spellings gpcs={asOne} />
          </Fact>
        )}
        {cut.length > 0 && <Fact name="Split otherwise">{saysCut(cut)}</Fact>}
        {ground.lexicon.find(word).length > 0 && (
          <Fact name="Known when heard">
            <WordAge word={word} ground={ground} />
          </Fact>
        )}
        <Fact name="Picture">
          <WordPicture word={word} shipped={ground.pictures} />
        </Fact>
        <Fact name="Source">{own ? "split by your school" : sourceWords[reading.source]}</Fact>
        {reader.key !== "all" && (
          <Fact name={`For ${reader.name}`}>
            {unexpected.length === 0
              ? "can be read"
              : reader.wholes.has(word.toLowerCase())
                ? `taught as a word; unexpected: ${unexpected.map((at) => showGrapheme(reading.units[at]?.grapheme ?? "")).join(", ")}`
                : `not yet: ${unexpected.map((at) => showGrapheme(reading.units[at]?.grapheme ?? "")).join(", ")}`}
          </Fact>
        )}
      </dl>
      <SaidOrWritten word={word} ground={ground} />
      {editing && (
        <SplitEditor
          word={word}
          reading={reading}
          own={own}
          lexicon={ground.lexicon}
          onClose={() => setEditing(false)}
        />
      )}
    </section>
  );
}

function keyOfReading(reading: WordSplit): string {
  return reading.units.map((unit) => unit.gpc).join(" ");
}

function Sounds({ reading }: { reading: WordSplit }) {
  return (
    <ol className="mt-2 flex flex-wrap gap-2" aria-label="Sounds">
      {reading.units.map((unit, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a unit is its place in the word
        <li key={at} className="min-w-16 rounded border border-line px-3 py-1.5 text-center">
          <span className="block font-child text-xl">{showGrapheme(unit.grapheme)}</span>
          <span className="block">{unit.sound ? ipa(unit.sound) : "no sound"}</span>
          <span className="block text-sm text-soft">
            {findCorrespondence(unit.gpc)?.keyword ?? (unit.sound ? plainSound(unit.sound) : "")}
          </span>
        </li>
      ))}
    </ol>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="text-sm font-semibold">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

function partsInWords({ morphemes }: WordSplit): string {
  const { beginnings, base, endings, parts } = morphemes;
  const middle = parts.length > 1 ? parts.join(" + ") : base;
  const whole = [...beginnings.map((part) => `${part}-`), middle, ...endings.map((part) => `-${part}`)];
  return whole.join(" ");
}
