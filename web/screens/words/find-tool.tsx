import { useMemo, useState } from "react";
import { showGrapheme, splitGpc } from "#core/phonics";
import { findWords, type Place } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { Asking, bands, counts, Pick } from "./asking.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { readerOf, type ToolWanted } from "./tool.ts";
import { WordList } from "./word-list.tsx";

const whereabouts = {
  balanced: "start, middle and end",
  start: "at the start",
  middle: "in the middle",
  end: "at the end",
  any: "anywhere",
};
const shapes = {
  any: "any shape",
  VC: "VC: at, in",
  CVC: "CVC: cat, ship",
  CVCC: "CVCC: hand, sink",
  CCVC: "CCVC: stop, clock",
  CCVCC: "CCVCC: plant, crust",
  CCCVC: "CCCVC: strap, splash",
};
const lengths = { "0": "any number", "1": "one", "2": "two", "3": "three or more" };

/** Words of the whole list by what they must have. */
export function FindTool({ ground, reader }: ToolWanted) {
  const [target, setTarget] = useState(reader.targets[0] ?? "");
  const [contrast, setContrast] = useState("");
  const [place, setPlace] = useState<keyof typeof whereabouts>("balanced");
  const [shape, setShape] = useState<keyof typeof shapes>("any");
  const [length, setLength] = useState<keyof typeof lengths>("0");
  const [band, setBand] = useState<keyof typeof bands>("4");
  const [count, setCount] = useState<keyof typeof counts>("12");
  const [seed, setSeed] = useState(1);
  const words = useMemo(
    () =>
      findWords({
        lexicon: ground.lexicon,
        known: reader.known,
        target: target || undefined,
        contrast: contrast ? [contrast] : undefined,
        place: place === "any" ? undefined : (place as Place | "balanced"),
        shape: shape === "any" ? undefined : shape,
        syllables: length === "0" ? undefined : length === "3" ? [3, 9] : Number(length),
        band: Number(band),
        count: Number(count),
        seed,
      }).map((word) => word.text),
    [ground, reader, target, contrast, place, shape, length, band, count, seed],
  );
  const judged = useMemo(() => readerOf({ ground, reader }, [target, contrast]), [ground, reader, target, contrast]);
  const title = target ? `Words with ${showGrapheme(splitGpc(target).grapheme)}` : "Words that can be read";
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <SpellingChoice label="With" value={target} onChange={setTarget} reader={reader} />
        <Pick label="Where" value={place} options={whereabouts} onChange={setPlace} />
        <SpellingChoice
          label="Against"
          none="no other spelling"
          value={contrast}
          onChange={setContrast}
          reader={reader}
        />
        <Pick label="Shape" value={shape} options={shapes} onChange={setShape} />
        <Pick label="Syllables" value={length} options={lengths} onChange={setLength} />
        <Pick label="How common" value={band} options={bands} onChange={setBand} />
        <Pick label="How many" value={count} options={counts} onChange={setCount} />
      </Asking>
      {words.length === 0 && (
        <p className="mb-3 text-damson">
          No word has all of this with what {reader.key === "all" ? "the tool knows" : `${reader.name} can read`}.
          Take a wish back, or add your own words.
        </p>
      )}
      <WordList
        title={title}
        words={words}
        reader={judged}
        age={reader.age}
        meanings={ground.meanings}
        pictures={ground.pictures}
      />
    </>
  );
}
