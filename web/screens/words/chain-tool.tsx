import { useMemo, useState } from "react";
import { showGrapheme, splitGpc } from "#core/phonics";
import { type Change, chain, LEAST_STEPS, type Link, MOST_STEPS } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { TextField } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Asking, bands, Pick } from "./asking.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { readerOf, type ToolWanted } from "./tool.ts";
import { WordList } from "./word-list.tsx";

/** A chain of words, each one unit away from the last. */
export function ChainTool({ ground, reader }: ToolWanted) {
  const [one, setOne] = useState("");
  const [other, setOther] = useState("");
  const [steps, setSteps] = useState("10");
  const [first, setFirst] = useState("");
  const [band, setBand] = useState<keyof typeof bands>("4");
  const [seed, setSeed] = useState(1);
  const contrast = useMemo(() => [one, other].filter(Boolean), [one, other]);
  const made = useMemo(
    () =>
      chain({
        lexicon: ground.lexicon,
        known: reader.known,
        contrast,
        steps: Number(steps),
        first: first.trim() || undefined,
        band: Number(band),
        seed,
      }),
    [ground, reader, contrast, steps, first, band, seed],
  );
  const words = useMemo(() => (made.ok ? made.links.map((link) => link.word.text) : []), [made]);
  const judged = useMemo(() => readerOf({ ground, reader }, contrast), [ground, reader, contrast]);
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <SpellingChoice label="Practise" none="any change" value={one} onChange={setOne} reader={reader} />
        <SpellingChoice label="Against" none="any other" value={other} onChange={setOther} reader={reader} />
        <div className="w-24">
          <TextField
            label="Words"
            type="number"
            min={LEAST_STEPS}
            max={MOST_STEPS}
            value={steps}
            onChange={(event) => setSteps(event.target.value)}
          />
        </div>
        <div className="w-36">
          <TextField
            label="Begin with"
            placeholder="any word"
            value={first}
            onChange={(event) => setFirst(event.target.value)}
          />
        </div>
        <Pick label="How common" value={band} options={bands} onChange={setBand} />
      </Asking>
      {made.ok ? (
        <>
          <ol className="no-print mb-4 flex flex-wrap items-center gap-x-2 gap-y-3" aria-label="The chain">
            {made.links.map((link, at) => (
              <Step key={link.word.text} link={link} last={at === made.links.length - 1} />
            ))}
          </ol>
          <WordList
            title="Word chain"
            words={words}
            reader={judged}
            age={reader.age}
            meanings={ground.meanings}
            pictures={ground.pictures}
          />
        </>
      ) : (
        <p role="status" className="rounded-lg border border-line bg-sheet px-4 py-3 text-damson">
          {made.reason}
        </p>
      )}
    </>
  );
}

function Step({ link, last }: { link: Link; last: boolean }) {
  return (
    <li className="flex items-center gap-2">
      <span className="rounded-lg border border-line bg-sheet px-3 py-1 text-center">
        <span className="block text-2xl">
          <BracketWord text={link.word.text} units={link.word.units} marked={markedIn(link)} />
        </span>
        <span className="block text-sm text-soft">{link.change ? inWords(link.change) : "begin"}</span>
      </span>
      {!last && (
        <span aria-hidden className="text-soft">
          →
        </span>
      )}
    </li>
  );
}

/** The unit that is new in this word; none when one was taken out. */
function markedIn({ change }: Link): number | undefined {
  return change && change.kind !== "removed" ? change.at : undefined;
}

function inWords({ kind, from, to }: Change): string {
  const shown = (gpc: string | undefined) => showGrapheme(splitGpc(gpc ?? "").grapheme);
  if (kind === "added") return `add ${shown(to)}`;
  if (kind === "removed") return `take out ${shown(from)}`;
  return `${shown(from)} to ${shown(to)}`;
}
