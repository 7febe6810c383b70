import { useMemo, useRef, useState } from "react";
import { type MarkKind, pressMark, type ReadingMark, setWords, withHeard } from "#core/reading";
import { keepKeys } from "#web/device/keys.tsx";
import { readingMarks, signsOf } from "#web/parts/reading-marks.ts";
import { Word } from "#web/parts/reading-word.tsx";

const wrong: readonly MarkKind[] = ["misread", "told", "leftOut", "skipped"];
/** Those that one has time for while a group listens. */
const offered = readingMarks.filter(({ often }) => often);

interface TextWanted {
  readonly title: string;
  readonly body: string;
  readonly marks: readonly ReadingMark[];
  /** Undefined while all read together: then no word is marked. */
  readonly onMarks: ((marks: readonly ReadingMark[]) => void) | undefined;
}

/** A text that a child reads in a session: every word a target, a tap says that it went wrong, the marks below say how. */
export function TextTurn({ title, body, marks, onMarks }: TextWanted) {
  const words = useMemo(() => setWords(body), [body]);
  const [current, setCurrent] = useState<number>();
  /** The word whose misread came with the tap alone: another mark takes its place. */
  const bare = useRef<number>(undefined);
  const tap = (at: number) => {
    setCurrent(at);
    const isNew = !marks.some((mark) => mark.at === at);
    bare.current = isNew ? at : undefined;
    if (isNew) onMarks?.(pressMark(marks, at, "misread"));
  };
  const press = (at: number, kind: MarkKind) => {
    const byTap = bare.current === at;
    bare.current = undefined;
    if (byTap && kind === "misread") return;
    onMarks?.(pressMark(byTap && kind !== "putRight" ? pressMark(marks, at, "misread") : marks, at, kind));
  };
  const here = marks.filter(({ at }) => at === current);
  const misread = here.find(({ kind }) => kind === "misread");
  const word = current === undefined ? undefined : words[current]?.text;
  const has = (kind: MarkKind) => here.some((mark) => mark.kind === kind);
  return (
    <div className="flex w-full flex-col gap-2">
      <section aria-label={title} tabIndex={0} className="max-h-[22rem] overflow-y-auto px-1 lg:max-h-[24rem]">
        <p className="font-child text-2xl leading-[2.1]">
          {onMarks
            ? words.map((one, at) => {
                const kinds = marks.flatMap((mark) => (mark.at === at ? mark.kind : []));
                return (
                  <Word
                    // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place in the text
                    key={at}
                    {...{ at, ...one }}
                    signs={signsOf(kinds)}
                    wrong={kinds.some((kind) => wrong.includes(kind))}
                    current={at === current}
                    behind={false}
                    lit={false}
                    onTap={tap}
                    onMouseDown={keepKeys}
                  />
                );
              })
            : body}
        </p>
      </section>
      {onMarks && (
        <div className="flex min-h-11 flex-wrap items-center gap-1.5">
          {word === undefined || current === undefined ? (
            <span className="text-soft">Tap a word that goes wrong.</span>
          ) : (
            <>
              <span className="font-child mr-1 text-xl">{word}</span>
              {offered.map(({ kind, name }) => (
                <button
                  key={kind}
                  type="button"
                  aria-pressed={has(kind)}
                  onMouseDown={keepKeys}
                  onClick={() => press(current, kind)}
                  className={`min-h-11 rounded-md border px-2.5 ${has(kind) ? "border-leaf bg-leaf-pale" : "border-line"}`}
                >
                  {name}
                </button>
              ))}
              {misread && (
                <input
                  aria-label={`Said for ${word}`}
                  placeholder="what was said"
                  value={misread.heard ?? ""}
                  maxLength={60}
                  autoCapitalize="off"
                  autoComplete="off"
                  spellCheck={false}
                  onChange={(event) => {
                    bare.current = undefined;
                    onMarks(withHeard(marks, current, "misread", event.target.value.trimStart() || null));
                  }}
                  className="min-h-11 w-36 rounded-md border border-line bg-paper px-2.5"
                />
              )}
            </>
          )}
        </div>
      )}
    </div>
  );
}
