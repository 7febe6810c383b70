import { useMemo } from "react";
import { showGrapheme } from "#core/phonics";
import { decodability, markedWords, type TextVerdict, type WordVerdict } from "#core/words";
import { MarkedText } from "#web/parts/marked-text.tsx";
import { BracketWord, Spelling } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { Table } from "#web/parts/table.tsx";
import { readerOf, type ToolWanted } from "./tool.ts";

interface TextWanted extends ToolWanted {
  readonly text: string;
  readonly target: string;
}

const percent = (share: number) => `${Math.round(share * 100)}%`;

/** A text with its brackets: what can be read, what stands in the way, and the same for each child. */
export function TextView({ text, target, ground, reader }: TextWanted) {
  const whole = useMemo(() => {
    const asked = readerOf({ ground, reader }, [target]);
    return decodability(text, asked.known, asked.teaching, asked);
  }, [text, target, ground, reader]);
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[3fr_2fr]">
      <div className="flex flex-col gap-4">
        <section aria-label="The text in its sounds" className="rounded-lg border border-line bg-sheet px-6 py-5">
          <MarkedText text={text} words={markedWords(whole)} />
          <p className="mt-4 border-t border-line pt-3 text-sm text-soft">
            A wavy bracket stands under what cannot be read yet; a grey word is an exception word that was taught.
          </p>
        </section>
        {reader.children.length > 0 && <EachChild text={text} target={target} ground={ground} reader={reader} />}
      </div>
      <div className="flex flex-col gap-4">
        <Panel title={reader.key === "all" ? "This text" : `For ${reader.name}`}>
          <p>
            <b className="text-2xl">{percent(whole.shareOfRunning)}</b> of {whole.running} running words can be read,{" "}
            {percent(whole.shareOfDifferent)} of the {whole.different} different ones.
          </p>
          {whole.practised.length > 0 && (
            <p className="mt-2">
              Practises{" "}
              {whole.practised
                .map(({ gpc, count }) => `${showGrapheme(gpc.split("=")[0] ?? "")} ${count} times`)
                .join(", ")}
              .
            </p>
          )}
          <InTheWay verdict={whole} />
          {whole.exceptionWords.length > 0 && (
            <p className="mt-2">Exception words: {whole.exceptionWords.join(", ")}</p>
          )}
          {whole.longWords.length > 0 && <LongWords words={whole.longWords} />}
        </Panel>
      </div>
    </div>
  );
}

function InTheWay({ verdict }: { verdict: TextVerdict }) {
  if (verdict.inTheWay.length === 0) return null;
  return (
    <table className="mt-3 w-full border-collapse">
      <caption className="pb-1 text-left text-sm font-semibold">In the way, most often first</caption>
      <tbody>
        {verdict.inTheWay.slice(0, 8).map(({ gpc, count, words }) => (
          <tr key={gpc} className="border-t border-line/60 align-top">
            <th scope="row" className="py-1 pr-3 text-left font-normal">
              <Spelling gpc={gpc} />
            </th>
            <td className="py-1 pr-3 text-right">{count}</td>
            <td className="py-1 font-child">{words.slice(0, 5).join(", ")}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function LongWords({ words }: { words: readonly WordVerdict[] }) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer">{words.length} longer words, by syllables</summary>
      <p className="mt-1 font-child">{words.map((word) => word.reading.syllables.join("·")).join(", ")}</p>
    </details>
  );
}

/** Each child by name: how much they read, which words they cannot, and what to practise first. */
function EachChild({ text, target, ground, reader }: TextWanted) {
  const rows = useMemo(
    () =>
      reader.children
        .map((child) => {
          const verdict = decodability(text, new Set(child.known), new Set(target ? [target] : []), {
            lexicon: ground.lexicon,
            accent: ground.accent,
            wholes: new Set(child.wholes.map((word) => word.toLowerCase())),
          });
          const words = [
            ...new Map(
              verdict.words
                .filter((word) => word.verdict === "not yet")
                .map((word) => [word.text.toLowerCase(), word]),
            ).values(),
          ];
          return { child, verdict, words };
        })
        .sort((one, other) => one.verdict.shareOfRunning - other.verdict.shareOfRunning),
    [text, target, ground, reader],
  );
  return (
    <Panel title="Each child, the one with most in the way first">
      <Table
        label="Each child"
        height="max-h-[30rem]"
        rows={rows}
        rowKey={({ child }) => child.id}
        columns={[
          {
            title: "Child",
            names: true,
            className: "whitespace-nowrap",
            sortBy: ({ child }) => child.name,
            show: ({ child }) => child.name,
          },
          {
            title: "Reads",
            figures: true,
            sortBy: ({ verdict }) => verdict.shareOfRunning,
            show: ({ verdict }) => percent(verdict.shareOfRunning),
          },
          {
            title: "Practise first",
            show: ({ verdict }) => (verdict.inTheWay[0] ? <Spelling gpc={verdict.inTheWay[0].gpc} /> : "nothing"),
          },
          { title: "Not yet", className: "text-sm", show: ({ words }) => <NotYet words={words} /> },
        ]}
      />
    </Panel>
  );
}

/** The first words that a child cannot read, in their brackets, and how many more there are. */
function NotYet({ words }: { words: readonly WordVerdict[] }) {
  return (
    <>
      {words.slice(0, 4).map((word) => (
        <span key={word.at} className="mr-2 inline-block text-base">
          <BracketWord text={word.text.toLowerCase()} units={word.reading.units} unexpected={word.unexpected} />
        </span>
      ))}
      {words.length > 4 && <span className="text-soft">and {words.length - 4} more</span>}
    </>
  );
}
