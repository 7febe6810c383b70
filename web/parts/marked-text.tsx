import type { ReactNode } from "react";
import type { MarkedWord } from "#core/words";
import { BracketWord } from "./marks.tsx";

/** A text with a bracket under each sound: wavy under what cannot be read yet, grey for an exception word. */
export function MarkedText({ text, words }: { text: string; words: readonly MarkedWord[] }) {
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const word of words) {
    if (word.at > at) pieces.push(text.slice(at, word.at));
    pieces.push(<Marked key={word.at} word={word} />);
    at = word.at + word.text.length;
  }
  pieces.push(text.slice(at));
  return <div className="whitespace-pre-wrap font-child text-[1.35rem] leading-[2.1]">{pieces}</div>;
}

function Marked({ word }: { word: MarkedWord }) {
  if (word.verdict === "sign") return <span>{word.text}</span>;
  const look = word.verdict === "exception" ? "text-soft" : word.verdict === "target" ? "rounded bg-leaf-pale" : "";
  return (
    <span
      className={look}
      title={word.source === "rules" ? "Not in the word list, split by rule: worth a look" : undefined}
    >
      <BracketWord text={word.text} units={word.units} unexpected={word.unexpected} />
    </span>
  );
}
