import { useMemo } from "react";
import { BEFORE_FIRST, type MarkKind, setWords } from "#core/reading";
import { keepKeys } from "#web/device/keys.tsx";
import { signsOf } from "#web/parts/reading-marks.ts";
import { Word } from "#web/parts/reading-word.tsx";
import type { ReadingDesk } from "./use-reading.ts";

const wrong: readonly MarkKind[] = ["misread", "told", "leftOut", "skipped"];

/** The place before the first word, for a word that a child puts in there. */
function BeforeFirst({
  kinds,
  current,
  onTap,
}: {
  kinds: readonly MarkKind[];
  current: boolean;
  onTap: (at: number) => void;
}) {
  return (
    <button
      type="button"
      data-word={BEFORE_FIRST}
      aria-label={`Before the first word${kinds.length > 0 ? ", marked" : ""}`}
      aria-current={current || undefined}
      onClick={() => onTap(BEFORE_FIRST)}
      onMouseDown={keepKeys}
      className={`mr-1 min-w-6 rounded px-1 py-2 font-sans text-base leading-tight touch-manipulation ${kinds.length > 0 ? "bg-leaf-pale" : "text-soft"} ${current ? "outline-2 outline-damson" : ""}`}
    >
      {kinds.length > 0 ? signsOf(kinds) : "›"}
    </button>
  );
}

/** The adult's copy: every word a target, with its marks; the line that the child sees is underlined. */
export function ReadingText({ desk }: { desk: ReadingDesk }) {
  const { draft, words, shown, lines, line, look, current, tap } = desk;
  const marks = draft?.body.marks;
  const byWord = useMemo(() => {
    const found = new Map<number, MarkKind[]>();
    for (const { at, kind } of marks ?? []) found.set(at, [...(found.get(at) ?? []), kind]);
    return found;
  }, [marks]);
  const set = useMemo(() => setWords(shown), [shown]);
  const stoppedAt = draft?.body.stoppedAt ?? null;
  // Afterwards the figures are what is looked at; while the last word is asked for, the whole text is there.
  const finished = draft?.finished && !draft.asksLast;
  const [from, to] = look.lineByLine ? [lines[line]?.at ?? 0, lines[line + 1]?.at ?? words.length] : [-1, -1];
  return (
    <section
      aria-label="The text"
      tabIndex={finished ? 0 : undefined}
      className={`rounded-lg border border-line bg-sheet px-5 py-3 ${finished ? "max-h-[38vh] overflow-y-auto" : ""}`}
    >
      <p className="font-child text-[1.55rem] leading-[2.3]">
        {!draft?.asksLast && !finished && (
          <BeforeFirst kinds={byWord.get(BEFORE_FIRST) ?? []} current={current === BEFORE_FIRST} onTap={tap} />
        )}
        {set.map((word, at) => {
          const kinds = byWord.get(at) ?? [];
          return (
            <Word
              // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place in the text
              key={at}
              at={at}
              {...word}
              signs={signsOf(kinds)}
              wrong={kinds.some((kind) => wrong.includes(kind))}
              current={at === current}
              behind={stoppedAt !== null && at > stoppedAt}
              lit={at >= from && at < to}
              onTap={tap}
              onMouseDown={keepKeys}
            />
          );
        })}
      </p>
    </section>
  );
}
