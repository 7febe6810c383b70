import { useDeferredValue, useState } from "react";
import { useSearchParams } from "react-router";
import { judgeWord, type TaughtReader, wordsOf } from "#core/words";
import { TextArea } from "#web/parts/field.tsx";
import { BracketWord } from "#web/parts/marks.tsx";
import { Panel } from "#web/parts/page.tsx";
import { OneWord } from "./one-word.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { TextView } from "./text-view.tsx";
import type { ToolWanted } from "./tool.ts";

/** Longer pastes are cut here, with a word about it: a screen of text is for a page, not for a book. */
const MOST_LETTERS = 60_000;

/** Words in which much happens, to begin with. */
const examples = ["narrowboat", "knight", "giraffe", "laughing", "rescue", "bridge", "people", "whistle"];

/** What stands there before anything is typed: a few words and sentences in their sounds, to press. */
function Examples({ ground, reader, onTake }: ToolWanted & { onTake: (text: string) => void }) {
  const who: TaughtReader = {
    lexicon: ground.lexicon,
    accent: ground.accent,
    known: reader.known,
    teaching: new Set(),
    wholes: reader.wholes,
  };
  const step = Math.max(1, Math.floor(ground.sentences.length / 4));
  const sentences = ground.sentences.filter((_, at) => at % step === step - 1).slice(0, 4);
  return (
    <Panel title="Press one to take it apart">
      <p className="mb-2 max-w-prose text-soft">
        Each sound gets a bracket under its letters.{" "}
        {reader.key === "all"
          ? "Choose a class, a group or a child above, and a wavy one stands under what they cannot read yet."
          : `A wavy one stands under what ${reader.name} cannot read yet.`}
      </p>
      <ul className="flex flex-wrap gap-2">
        {examples.map((word) => {
          const { reading, unexpected } = judgeWord(word, who);
          return (
            <li key={word}>
              <button
                type="button"
                className="prints rounded-md border border-line px-3 py-1.5 text-2xl hover:border-soft"
                onClick={() => onTake(word)}
              >
                <BracketWord text={word} units={reading.units} unexpected={unexpected} />
              </button>
            </li>
          );
        })}
      </ul>
      <ul className="mt-4 flex flex-col items-start gap-1">
        {sentences.map((sentence) => (
          <li key={sentence}>
            <button
              type="button"
              className="prints font-child min-h-8 text-left text-lg underline decoration-line underline-offset-4 hover:decoration-ink"
              onClick={() => onTake(sentence)}
            >
              {sentence}
            </button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}

/** Type or paste a word or a text, and see it in its sounds. */
export function Look({ ground, reader }: ToolWanted) {
  const [search] = useSearchParams();
  const asked = search.get("look") ?? "";
  const [typed, setTyped] = useState(asked);
  const [before, setBefore] = useState(asked);
  if (before !== asked) {
    setBefore(asked);
    setTyped(asked);
  }
  const [target, setTarget] = useState("");
  const text = useDeferredValue(typed.slice(0, MOST_LETTERS));
  const words = wordsOf(text);
  return (
    <div className="flex flex-col gap-4">
      <div className="no-print grid items-start gap-3 md:grid-cols-[1fr_17rem]">
        <TextArea
          label="A word or a text"
          rows={words.length > 12 ? 4 : 2}
          value={typed}
          placeholder="Type a word, or paste a page"
          className="font-child text-lg"
          problem={
            typed.length > MOST_LETTERS
              ? `The text is longer than ${MOST_LETTERS.toLocaleString("en")} letters. What comes first is shown; paste the rest in a second go.`
              : undefined
          }
          onChange={(event) => setTyped(event.target.value)}
        />
        <SpellingChoice label="Being taught" none="nothing new" value={target} onChange={setTarget} reader={reader} />
      </div>
      {words.length === 1 && words[0] ? (
        <OneWord key={words[0].text} word={words[0].text} ground={ground} reader={reader} />
      ) : words.length > 1 ? (
        <TextView text={text} target={target} ground={ground} reader={reader} />
      ) : (
        <Examples ground={ground} reader={reader} onTake={setTyped} />
      )}
    </div>
  );
}
