import { useEffect, useState } from "react";
import type { MarkKind, ReadingMark } from "#core/reading";
import { keepKeys, useKeys } from "#web/device/keys.tsx";
import { readingMarks } from "#web/parts/reading-marks.ts";

interface BarWanted {
  /** The word that was tapped last. */
  readonly word: string | undefined;
  /** The one mark that can be given where no word is; all of them without it. */
  readonly only?: MarkKind | undefined;
  readonly marks: readonly ReadingMark[];
  /** Seconds to wait before a word is told; 0 counts none. */
  readonly wait: number;
  readonly onPress: (kind: MarkKind) => void;
  readonly onSkip: () => void;
  readonly onHeard: (kind: "misread" | "putIn", heard: string | null) => void;
}

/** The marks for the word that was tapped last, always in the same place; what was said can be typed now or later. */
export function MarkBar({ word, only, marks, wait, onPress, onSkip, onHeard }: BarWanted) {
  const [more, setMore] = useState(false);
  const [since, setSince] = useState<{ word: string | undefined; at: number } | null>(null);
  const waited = useSeconds(since?.word === word && wait > 0 ? (since?.at ?? null) : null);
  const tellNow = waited !== null && waited >= wait;
  const has = (kind: MarkKind) => marks.some((mark) => mark.kind === kind);
  const heardKind = has("putIn") && !has("misread") ? "putIn" : "misread";
  const heard = marks.find((mark) => mark.kind === heardKind);
  const press = (kind: MarkKind) => {
    setSince(kind === "waited" && !has("waited") ? { word, at: Date.now() } : null);
    onPress(kind);
  };
  useKeys([
    ...readingMarks.map(({ key, name, kind }) => ({ key, does: name, run: () => press(kind) })),
    { key: "k", does: "The whole line was skipped", run: onSkip },
  ]);
  return (
    <fieldset className="sticky bottom-0 mt-2 rounded-lg border border-line bg-sheet px-3 py-2 shadow-sm">
      <legend className="sr-only">Marks</legend>
      <div className="mb-1.5 flex min-h-10 flex-wrap items-center gap-3">
        {word === undefined ? (
          <span className="text-soft">Tap a word that goes wrong; then, if it was something else, a mark below.</span>
        ) : (
          <>
            <span className="font-child text-xl">{word}</span>
            {waited !== null && (
              <output className={tellNow ? "font-semibold text-damson" : "text-soft"}>
                {tellNow ? `Waited ${wait} seconds: tell the word.` : `Waiting: ${waited} of ${wait} seconds`}
              </output>
            )}
            {heard && (
              <input
                aria-label="What was said"
                placeholder="what was said, now or later"
                value={heard.heard ?? ""}
                maxLength={60}
                autoCapitalize="off"
                autoComplete="off"
                spellCheck={false}
                onChange={(event) => onHeard(heardKind, event.target.value.trimStart() || null)}
                className="min-h-9 rounded-md border border-line bg-paper px-2.5"
              />
            )}
          </>
        )}
      </div>
      <div className="grid grid-cols-3 gap-1.5 sm:grid-cols-6 lg:grid-cols-11">
        {readingMarks.map(({ kind, name, key, sign, often }) => {
          const off = word === undefined || (only !== undefined && only !== kind);
          return (
            <button
              key={kind}
              type="button"
              aria-disabled={off}
              aria-pressed={has(kind)}
              onMouseDown={keepKeys}
              onClick={() => !off && press(kind)}
              className={`${often || more || only === kind ? "flex" : "hidden sm:flex"} min-h-14 flex-col items-center justify-center rounded-lg border px-1 text-center leading-tight touch-manipulation ${off ? "border-dashed text-soft" : ""} ${has(kind) ? "border-leaf bg-leaf-pale font-semibold" : kind === "told" && tellNow ? "border-damson border-2" : "border-line"}`}
            >
              <span>
                {name} <span aria-hidden>{sign}</span>
              </span>
              <kbd className="text-xs text-soft max-sm:hidden">{key.toUpperCase()}</kbd>
            </button>
          );
        })}
        <button
          type="button"
          aria-disabled={word === undefined}
          onMouseDown={keepKeys}
          onClick={() => word !== undefined && onSkip()}
          className={`${more ? "flex" : "hidden sm:flex"} min-h-14 flex-col items-center justify-center rounded-lg border border-line px-1 text-center leading-tight touch-manipulation ${word === undefined ? "border-dashed text-soft" : ""}`}
        >
          Line skipped
          <kbd className="text-xs text-soft max-sm:hidden">K</kbd>
        </button>
        <button
          type="button"
          aria-expanded={more}
          onClick={() => setMore(!more)}
          className="flex min-h-14 items-center justify-center rounded-lg border border-line px-1 leading-tight sm:hidden"
        >
          {more ? "Fewer marks" : "More marks"}
        </button>
      </div>
    </fieldset>
  );
}

/** Whole seconds since an instant (milliseconds of the clock); null without one. */
function useSeconds(since: number | null): number | null {
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === null) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 200);
    return () => clearInterval(timer);
  }, [since]);
  return since === null ? null : Math.max(0, Math.floor((now - since) / 1000));
}
