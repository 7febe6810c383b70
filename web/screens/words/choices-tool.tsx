import { useMemo, useState } from "react";
import { showGrapheme, splitGpc } from "#core/phonics";
import { type FourChoice, fourChoices } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { Asking, bands, counts, Pick } from "./asking.tsx";
import { ListActions } from "./list-actions.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import type { ToolWanted } from "./tool.ts";

/** A spoken word and three others, each one sound away: the choice names the confusion. */
export function ChoicesTool({ ground, reader }: ToolWanted) {
  const [target, setTarget] = useState("");
  const [count, setCount] = useState<keyof typeof counts>("12");
  const [band, setBand] = useState<keyof typeof bands>("4");
  const [seed, setSeed] = useState(1);
  const items = useMemo(
    () =>
      fourChoices({
        lexicon: ground.lexicon,
        known: reader.known,
        target: target || undefined,
        band: Number(band),
        syllables: 1,
        count: Number(count),
        seed,
      }),
    [ground, reader, target, band, count, seed],
  );
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <SpellingChoice label="Spoken words with" value={target} onChange={setTarget} reader={reader} />
        <Pick label="How common" value={band} options={bands} onChange={setBand} />
        <Pick label="How many" value={count} options={counts} onChange={setCount} />
        <ListActions
          title="Four choices"
          lines={items.map(({ choices }) => choices.map(({ word }) => word.text).join("  "))}
          rows={items.map(asRow)}
          json={{ items: items.map(asRecord) }}
          onPrint={() => window.print()}
        />
      </Asking>
      {items.length === 0 ? (
        <p role="status" className="text-damson">
          No spoken word has three such neighbours with what{" "}
          {reader.key === "all" ? "the tool knows" : `${reader.name} can read`}.
        </p>
      ) : (
        <div className="rounded-lg border border-line bg-sheet px-4 py-3 print:border-0">
          <table className="w-full border-collapse">
            <thead>
              <tr className="text-left text-sm text-soft">
                <th scope="col" className="no-print w-40 pr-4 font-semibold">
                  Say
                </th>
                <th scope="col" colSpan={4} className="font-semibold">
                  The child marks one of these
                </th>
              </tr>
            </thead>
            <tbody>
              {items.map((item, row) => (
                <tr key={item.spoken.text} className="break-inside-avoid border-t border-line">
                  <th scope="row" className="no-print py-2 text-left font-child text-xl font-normal">
                    <span className="mr-2 text-sm text-soft">{row + 1}</span>
                    {item.spoken.text}
                  </th>
                  {item.choices.map(({ word, confusion }) => (
                    <td key={word.text} className="w-[20%] py-2 pr-3 align-top">
                      <span
                        className={`font-child text-2xl ${confusion ? "" : "underline decoration-leaf decoration-2 underline-offset-4 print:no-underline"}`}
                      >
                        {word.text}
                      </span>
                      <span className="no-print block text-sm text-soft">
                        {confusion ? `${shown(confusion.from)} taken for ${shown(confusion.to)}` : "right"}
                      </span>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}

function shown(gpc: string): string {
  return showGrapheme(splitGpc(gpc).grapheme);
}

function asRow({ spoken, choices }: FourChoice) {
  const named = choices.flatMap(({ word, confusion }, at) => [
    [`choice ${at + 1}`, word.text],
    [`says ${at + 1}`, confusion ? `${confusion.from}>${confusion.to}` : "right"],
  ]);
  return { spoken: spoken.text, ...Object.fromEntries(named) };
}

function asRecord({ spoken, choices }: FourChoice) {
  return {
    spoken: spoken.text,
    choices: choices.map(({ word, confusion }) => ({
      word: word.text,
      ...(confusion ? { confusion } : { right: true }),
    })),
  };
}
