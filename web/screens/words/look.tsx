import { useDeferredValue, useState } from "react";
import { wordsOf } from "#core/words";
import { TextArea } from "#web/parts/field.tsx";
import { OneWord } from "./one-word.tsx";
import { SpellingChoice } from "./spelling-choice.tsx";
import { TextView } from "./text-view.tsx";
import type { ToolWanted } from "./tool.ts";

/** Longer pastes are cut here, with a word about it: a screen of text is for a page, not for a book. */
const MOST_LETTERS = 60_000;

/** Type or paste a word or a text, and see it in its sounds. */
export function Look({ ground, reader }: ToolWanted) {
  const [typed, setTyped] = useState("");
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
        <p className="max-w-prose text-soft">
          Each sound gets a bracket under its letters. Choose a class, a group or a child above to see what they can
          read and what stands in the way.
        </p>
      )}
    </div>
  );
}
