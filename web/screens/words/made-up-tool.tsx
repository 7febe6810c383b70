import { useMemo, useState } from "react";
import { findMadeUp } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { Asking, counts, Pick } from "./asking.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { readerOf, type ToolWanted } from "./tool.ts";
import { WordList } from "./word-list.tsx";

const shapes = {
  any: "any shape",
  VC: "VC",
  CVC: "CVC",
  CVCC: "CVCC",
  CCVC: "CCVC",
  CCVCC: "CCVCC",
  CCCVC: "CCCVC",
  "CVC.CVC": "two syllables",
};

/** Made-up words: spelled as English words are, and no one knows them by sight. */
export function MadeUpTool({ ground, reader }: ToolWanted) {
  const [target, setTarget] = useState("");
  const [shape, setShape] = useState<keyof typeof shapes>("any");
  const [count, setCount] = useState<keyof typeof counts>("12");
  const [seed, setSeed] = useState(1);
  const words = useMemo(
    () =>
      findMadeUp({
        madeUp: ground.madeUp,
        known: reader.known,
        target: target || undefined,
        shape: shape === "any" ? undefined : shape,
        count: Number(count),
        seed,
      }).map((word) => word.text),
    [ground, reader, target, shape, count, seed],
  );
  const judged = useMemo(() => readerOf({ ground, reader }, [target]), [ground, reader, target]);
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <SpellingChoice label="With" value={target} onChange={setTarget} reader={reader} />
        <Pick label="Shape" value={shape} options={shapes} onChange={setShape} />
        <Pick label="How many" value={count} options={counts} onChange={setCount} />
      </Asking>
      <p className="no-print mb-3 text-sm text-soft">
        None of the {ground.madeUp.length.toLocaleString("en")} made-up words is a word, and none sounds like one in
        any accent the tool knows.
      </p>
      {words.length === 0 && (
        <p role="status" className="mb-3 text-damson">
          No made-up word fits. Choose another shape or spelling.
        </p>
      )}
      <WordList title="Made-up words" words={words} reader={judged} madeUp />
    </>
  );
}
