import { useMemo, useState } from "react";
import { dice, judgeText, kindOfSentence, shuffled } from "#core/words";
import { newSeed } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Asking, counts, Pick } from "./asking.tsx";
import { IntoSession } from "./into-session.tsx";
import { ListActions } from "./list-actions.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { type AgedToolWanted, readerOf } from "./tool.ts";

const kinds = { any: "all", statement: "statements", question: "questions, yes or no" };

/** Our own sentences that these children can read, with the spelling that is being taught. */
export function SentencesTool({ ground, reader, age }: AgedToolWanted) {
  const [target, setTarget] = useState("");
  const [kind, setKind] = useState<keyof typeof kinds>("any");
  const [count, setCount] = useState<keyof typeof counts>("9");
  const [seed, setSeed] = useState(1);
  const [taken, setTaken] = useState<string | null>(null);
  const judged = useMemo(() => readerOf({ ground, reader }, [target]), [ground, reader, target]);
  const fitting = useMemo(
    () =>
      ground.sentences
        .map((text) => ({ text, words: judgeText(text, judged) }))
        .filter(({ text }) => kind === "any" || kindOfSentence(text) === kind)
        .filter(({ words }) => words.every((word) => word.verdict !== "not yet"))
        .filter(({ words }) => words.every(({ text }) => (ground.lexicon.find(text)[0]?.knownBy ?? 5) <= age))
        .filter(({ words }) => target === "" || words.some((word) => word.verdict === "target")),
    [ground, judged, kind, target, age],
  );
  const shown = useMemo(() => shuffled(fitting, dice(seed)).slice(0, Number(count)), [fitting, seed, count]);
  return (
    <>
      <Asking onAnother={() => setSeed(newSeed())}>
        <SpellingChoice label="With" value={target} onChange={setTarget} reader={reader} />
        <Pick label="Kind" value={kind} options={kinds} onChange={setKind} />
        <Pick label="How many" value={count} options={counts} onChange={setCount} />
      </Asking>
      <p className="no-print mb-3 text-sm text-soft">
        {fitting.length} of {ground.sentences.length} sentences fit.
      </p>
      {shown.length === 0 ? (
        <p role="status" className="text-damson">
          No sentence has all of this with what {reader.name} can read. Choose another spelling.
        </p>
      ) : (
        <ul className="rounded-lg border border-line bg-sheet" aria-label="Sentences">
          {shown.map(({ text, words }) => (
            <li
              key={text}
              className="flex items-center justify-between gap-4 border-b border-line px-4 py-2 last:border-b-0"
            >
              <span className="flex flex-wrap gap-x-2.5 font-child text-xl leading-[1.9]">
                {words.map((word, at) => (
                  <span key={word.at}>
                    <BracketWord text={word.text} units={word.reading.units} unexpected={word.unexpected} />
                    {text.slice(word.at + word.text.length, words[at + 1]?.at).trim()}
                  </span>
                ))}
                {ground.answers[text] && (
                  <span className="font-sans text-base text-soft">({ground.answers[text]})</span>
                )}
              </span>
              <Button shape="quiet" className="no-print whitespace-nowrap" onClick={() => setTaken(text)}>
                Into a session
              </Button>
            </li>
          ))}
        </ul>
      )}
      {shown.length > 0 && (
        <div className="no-print mt-3 flex flex-wrap gap-2">
          <ListActions
            title="Sentences"
            lines={shown.map(({ text }) => text)}
            rows={shown.map(({ text, words }) => ({
              sentence: text,
              words: words.length,
              kind: kindOfSentence(text),
              answer: ground.answers[text] ?? "",
            }))}
            json={{ sentences: shown.map(({ text }) => ({ text, kind: kindOfSentence(text) })) }}
            onPrint={() => window.print()}
          />
        </div>
      )}
      {taken && <IntoSession words={[taken]} kind="sentence" onClose={() => setTaken(null)} />}
    </>
  );
}
