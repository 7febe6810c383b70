import type { ReactNode } from "react";
import { Button } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { Panel } from "#web/parts/page.tsx";
import { emptyQuestion, type QuestionForm, type TextForm } from "./text-form.ts";

const kindNames = ["who", "what", "where", "when", "why", "how"] as const;

/** The questions of a text, a small form each. */
export function QuestionFields({
  questions,
  onChange,
}: {
  questions: readonly QuestionForm[];
  onChange: (questions: readonly QuestionForm[]) => void;
}) {
  const put = (at: number, change: Partial<QuestionForm>) =>
    onChange(questions.map((one, i) => (i === at ? { ...one, ...change } : one)));
  return (
    <Panel title="Questions">
      <ol className="flex flex-col gap-4">
        {questions.map((one, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a question is its place in the list
          <li key={at} className="flex flex-col gap-2 border-b border-line/60 pb-3">
            <TextField
              label={`Question ${at + 1}`}
              maxLength={200}
              value={one.ask}
              onChange={(event) => put(at, { ask: event.target.value })}
            />
            <TextField
              label="Right answers"
              hint="Several apart by a semicolon, the fullest first."
              value={one.answers}
              onChange={(event) => put(at, { answers: event.target.value })}
            />
            <TextField
              label="Where it stands in the text, word for word"
              maxLength={300}
              value={one.where}
              onChange={(event) => put(at, { where: event.target.value })}
            />
            <div className="flex flex-wrap items-end gap-3">
              <Choice
                label="Asks"
                value={one.kind}
                onChange={(event) => put(at, { kind: event.target.value as QuestionForm["kind"] })}
              >
                {kindNames.map((kind) => (
                  <option key={kind}>{kind}</option>
                ))}
              </Choice>
              <Choice
                label="The answer stands"
                value={one.depth}
                onChange={(event) => put(at, { depth: event.target.value as QuestionForm["depth"] })}
              >
                <option value="found">in the text</option>
                <option value="between">between the lines</option>
              </Choice>
              <Out what={`question ${at + 1}`} onOut={() => onChange(questions.filter((_, i) => i !== at))} />
            </div>
          </li>
        ))}
      </ol>
      <Add full={questions.length >= 10} onAdd={() => onChange([...questions, emptyQuestion])}>
        Add a question
      </Add>
    </Panel>
  );
}

/** Words worth explaining, with a child's explanation. */
export function MeaningFields({
  words,
  onChange,
}: {
  words: TextForm["words"];
  onChange: (words: TextForm["words"]) => void;
}) {
  const put = (at: number, change: Partial<TextForm["words"][number]>) =>
    onChange(words.map((one, i) => (i === at ? { ...one, ...change } : one)));
  return (
    <Panel title="Words to explain">
      <ol className="flex flex-col gap-2">
        {words.map((one, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place in the list
          <li key={at} className="flex items-end gap-2">
            <div className="w-32">
              <TextField
                label={`Word ${at + 1}`}
                maxLength={40}
                value={one.word}
                onChange={(event) => put(at, { word: event.target.value })}
              />
            </div>
            <div className="flex-1">
              <TextField
                label="What it means, for a child"
                maxLength={200}
                value={one.means}
                onChange={(event) => put(at, { means: event.target.value })}
              />
            </div>
            <Out what={`word ${at + 1}`} onOut={() => onChange(words.filter((_, i) => i !== at))} />
          </li>
        ))}
      </ol>
      <Add full={words.length >= 40} onAdd={() => onChange([...words, { word: "", means: "" }])}>
        Add a word
      </Add>
    </Panel>
  );
}

function Out({ what, onOut }: { what: string; onOut: () => void }) {
  return (
    <Button shape="quiet" aria-label={`Take ${what} out`} onClick={onOut}>
      Take out
    </Button>
  );
}

function Add({ full, onAdd, children }: { full: boolean; onAdd: () => void; children: ReactNode }) {
  return (
    <Button className="mt-3" disabled={full} onClick={onAdd}>
      {children}
    </Button>
  );
}
