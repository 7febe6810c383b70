import { useState } from "react";
import { explain, explainSpelling, misreadInWords, spellingInWords } from "#core/words";
import { TextField } from "#web/parts/field.tsx";
import type { ToolWanted } from "./tool.ts";

/** What a child said or wrote for this word, explained unit by unit. */
export function SaidOrWritten({ word, ground }: Pick<ToolWanted, "ground"> & { word: string }) {
  const [said, setSaid] = useState("");
  const [written, setWritten] = useState("");
  const { lexicon, accent } = ground;
  return (
    <div className="mt-5 grid gap-4 border-t border-line pt-4 sm:grid-cols-2">
      <div>
        <TextField
          label="A child read it as"
          hint="In plain letters, as it sounded: shunk for chunk."
          value={said}
          maxLength={40}
          className="font-child text-lg"
          onChange={(event) => setSaid(event.target.value)}
        />
        {said.trim() !== "" && (
          <Sentences label="What the misread says" lines={misreadInWords(explain(word, said, { lexicon, accent }))} />
        )}
      </div>
      <div>
        <TextField
          label="A child wrote it as"
          hint="Letter by letter: trane for train."
          value={written}
          maxLength={40}
          className="font-child text-lg"
          onChange={(event) => setWritten(event.target.value)}
        />
        {written.trim() !== "" && (
          <Sentences
            label="What the spelling says"
            lines={spellingInWords(explainSpelling(word, written, { lexicon, accent }))}
          />
        )}
      </div>
    </div>
  );
}

function Sentences({ label, lines }: { label: string; lines: readonly string[] }) {
  return (
    <ul aria-label={label} aria-live="polite" className="mt-2 list-disc pl-5">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}
