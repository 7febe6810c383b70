import { X } from "lucide-react";
import { type FormEvent, useState } from "react";
import type { PreparationBody } from "#contract";
import { findCorrespondence, ipa, showGrapheme, splitGpc } from "#core/phonics";
import { Button } from "#web/parts/button.tsx";
import { TextArea } from "#web/parts/field.tsx";
import { Fault } from "#web/parts/page.tsx";

interface FieldsWanted {
  readonly preparation: PreparationBody;
  readonly onChange: (preparation: PreparationBody) => void;
}

const showGpc = (gpc: string) => {
  const { grapheme, sound } = splitGpc(gpc);
  return `${showGrapheme(grapheme)} ${ipa(sound)}`;
};

/** Every list of a preparation: things go by their cross and come by typing. */
export function PreparationFields({ preparation, onChange }: FieldsWanted) {
  const put = (change: Partial<PreparationBody>) => onChange({ ...preparation, ...change });
  return (
    <div className="flex flex-col gap-4">
      <Items
        title="Spellings in focus"
        hint="spelling=sound, as ea=ee"
        items={preparation.focus}
        most={20}
        show={showGpc}
        fits={(gpc) => (findCorrespondence(gpc) ? undefined : "Write it as spelling=sound, for example ea=ee.")}
        onChange={(focus) => put({ focus })}
      />
      <Items title="Words to read first" items={preparation.first} most={40} onChange={(first) => put({ first })} />
      <Items title="Longer words" items={preparation.longer} most={40} onChange={(longer) => put({ longer })} />
      <Items title="Exception words" items={preparation.wholes} most={40} onChange={(wholes) => put({ wholes })} />
      <Items
        title="Meanings"
        hint="word: what it means"
        items={preparation.meanings.map(({ word, means }) => `${word}: ${means}`)}
        most={40}
        long={240}
        fits={(line) => (/^[^:]{1,40}: .{1,200}$/.test(line) ? undefined : "Write it as word: what it means.")}
        onChange={(lines) =>
          put({
            meanings: lines.map((line) => {
              const [word = "", ...means] = line.split(": ");
              return { word, means: means.join(": ") };
            }),
          })
        }
      />
      <Items
        title="Watch in the punctuation"
        items={preparation.watch}
        most={12}
        long={200}
        onChange={(watch) => put({ watch })}
      />
      <TextArea
        label="Note"
        rows={2}
        maxLength={500}
        value={preparation.note}
        onChange={(event) => put({ note: event.target.value })}
      />
    </div>
  );
}

interface ItemsWanted {
  readonly title: string;
  readonly hint?: string;
  readonly items: readonly string[];
  readonly most: number;
  /** Letters that one may have. */
  readonly long?: number;
  readonly show?: (item: string) => string;
  /** What is wrong with a typed one, if anything. */
  readonly fits?: (item: string) => string | undefined;
  readonly onChange: (items: string[]) => void;
}

function Items({ title, hint, items, most, long = 40, show = (item) => item, fits, onChange }: ItemsWanted) {
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState<string>();
  const add = (event: FormEvent) => {
    event.preventDefault();
    const item = typed.trim();
    if (!item) return;
    const wrong = items.includes(item) ? "It is here already." : fits?.(item);
    setProblem(wrong);
    if (wrong) return;
    onChange([...items, item]);
    setTyped("");
  };
  return (
    <div>
      <p className="text-sm font-semibold">{title}</p>
      <ul className="my-1 flex flex-wrap gap-1.5">
        {items.map((item) => (
          <li key={item}>
            <button
              type="button"
              aria-label={`Take out ${show(item)}`}
              onClick={() => onChange(items.filter((one) => one !== item))}
              className="inline-flex min-h-8 items-center gap-1 rounded-2xl border border-line px-2.5 text-left hover:border-soft"
            >
              {show(item)} <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      {items.length < most && (
        <form onSubmit={add} className="flex gap-2">
          <input
            aria-label={`Add to: ${title}`}
            aria-invalid={problem !== undefined}
            placeholder={hint ?? "add one"}
            maxLength={long}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              setProblem(undefined);
            }}
            className="min-h-9 flex-1 rounded-md border border-line bg-sheet px-2.5"
          />
          <Button type="submit">Add</Button>
        </form>
      )}
      <Fault>{problem}</Fault>
    </div>
  );
}
