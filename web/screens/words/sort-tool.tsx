import { useMemo, useState } from "react";
import { ipa, plainSound, showGrapheme, sounds, soundsOfGrapheme, spellingsOfSound } from "#core/phonics";
import { headingOf, minimalPairs, sortBySound, sortBySpelling } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { Choice } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { Asking, bands, counts, Pick } from "./asking.tsx";
import { readerOf, type ToolWanted } from "./tool.ts";
import { WordList } from "./word-list.tsx";

const ways = {
  spelling: "one sound, its spellings",
  sound: "one spelling, its sounds",
  pairs: "two sounds, pairs of words",
};

/** Words to be sorted by spelling or by sound, and pairs that differ in one sound only. */
export function SortTool({ ground, reader }: ToolWanted) {
  const [way, setWay] = useState<keyof typeof ways>("spelling");
  const [sound, setSound] = useState("ai");
  const [other, setOther] = useState("e");
  const [grapheme, setGrapheme] = useState("ea");
  const [count, setCount] = useState<keyof typeof counts>("6");
  const [band, setBand] = useState<keyof typeof bands>("4");
  const [seed, setSeed] = useState(1);
  const asked = useMemo(
    () => ({ lexicon: ground.lexicon, known: reader.known, band: Number(band), count: Number(count), seed }),
    [ground, reader, band, count, seed],
  );
  const heaps = useMemo(
    () => (way === "spelling" ? sortBySpelling(sound, asked) : way === "sound" ? sortBySound(grapheme, asked) : []),
    [way, sound, grapheme, asked],
  );
  const pairs = useMemo(
    () => (way === "pairs" ? minimalPairs({ ...asked, sounds: [sound === other ? "i" : sound, other] }) : []),
    [way, sound, other, asked],
  );
  const words = useMemo(
    () =>
      way === "pairs"
        ? [...new Set(pairs.flatMap((pair) => [pair.one.text, pair.other.text]))]
        : heaps.flatMap((heap) => heap.words.map((word) => word.text)),
    [way, pairs, heaps],
  );
  const judged = useMemo(() => readerOf({ ground, reader }), [ground, reader]);
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <Pick label="Sort" value={way} options={ways} onChange={setWay} />
        {way !== "sound" && <SoundChoice label="Sound" value={sound} onChange={setSound} />}
        {way === "pairs" && <SoundChoice label="Against" value={other} onChange={setOther} />}
        {way === "sound" && (
          <Choice label="Spelling" value={grapheme} onChange={(event) => setGrapheme(event.target.value)}>
            {spellingsWithSounds.map((one) => (
              <option key={one} value={one}>
                {showGrapheme(one)}
              </option>
            ))}
          </Choice>
        )}
        <Pick label="How common" value={band} options={bands} onChange={setBand} />
        <Pick label={way === "pairs" ? "Pairs" : "Words a heap"} value={count} options={counts} onChange={setCount} />
      </Asking>
      {words.length === 0 && (
        <p role="status" className="mb-3 text-damson">
          No words for this with what {reader.key === "all" ? "the tool knows" : `${reader.name} can read`}. Choose
          another sound, or rarer words.
        </p>
      )}
      {heaps.length > 0 && (
        <div className="no-print mb-4 grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
          {heaps.map((heap) => (
            <Panel key={heap.gpc} title={headingOf(heap.gpc)}>
              <ul className="text-xl leading-[1.9]">
                {heap.words.map((word) => (
                  <li key={word.text}>
                    <BracketWord text={word.text} units={word.units} />
                  </li>
                ))}
              </ul>
            </Panel>
          ))}
        </div>
      )}
      {pairs.length > 0 && (
        <ul className="no-print mb-4 grid gap-2 sm:grid-cols-3" aria-label="Pairs of words">
          {pairs.map(({ one, other: second }) => (
            <li
              key={`${one.text} ${second.text}`}
              className="flex justify-around rounded-lg border border-line bg-sheet px-3 py-2 text-xl"
            >
              <BracketWord text={one.text} units={one.units} />
              <BracketWord text={second.text} units={second.units} />
            </li>
          ))}
        </ul>
      )}
      <WordList
        title={way === "pairs" ? "Pairs of words" : "Words to sort"}
        words={words}
        reader={judged}
        age={reader.age}
        meanings={ground.meanings}
        pictures={ground.pictures}
      />
    </>
  );
}

const spellingsWithSounds = [
  ...new Set(sounds.flatMap((sound) => spellingsOfSound(sound.key).map((entry) => entry.grapheme))),
]
  .filter((grapheme) => soundsOfGrapheme(grapheme).length > 1)
  .sort();

function SoundChoice({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (sound: string) => void;
}) {
  return (
    <Choice label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      {sounds
        .filter((sound) => spellingsOfSound(sound.key).length > 0)
        .map((sound) => (
          <option key={sound.key} value={sound.key}>
            {ipa(sound.key)} {plainSound(sound.key)}
          </option>
        ))}
    </Choice>
  );
}
