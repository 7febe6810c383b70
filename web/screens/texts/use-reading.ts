import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { ReadingBody } from "#contract";
import {
  linesOf,
  type MarkKind,
  pressMark,
  type ReadingMark,
  sentenceLines,
  skipWords,
  textWords,
  withHeard,
} from "#core/reading";
import { type TextLook, useTextLook } from "#web/app/device.ts";
import { type Draft, useDraft } from "./draft.ts";

const MINUTE = 60_000;

/** The text as it is shown: its own lines, or a line a sentence. */
function shownText(text: string, look: TextLook): string {
  return look.sentences || look.lineByLine ? sentenceLines(text) : text;
}

/** A reading on its way, and all that can be done with it: clock, marks, lines. */
export function useReading(address: string, make: () => Draft) {
  const { draft, change, forget } = useDraft(address, make);
  const [look, setLook] = useTextLook();
  const [limited, setLimited] = useState(true);
  const [running, setRunning] = useState(false);
  const [current, setCurrent] = useState<number | null>(null);
  const [asksLast, setAsksLast] = useState(false);
  const [line, setLine] = useState(0);
  const text = draft?.body.text ?? "";
  const shown = useMemo(() => shownText(text, look), [text, look]);
  const words = useMemo(() => textWords(shown), [shown]);
  const lines = useMemo(() => linesOf(shown), [shown]);
  const clock = useClock(running, draft?.ms ?? 0);

  /** The word whose misread came with the tap alone: another mark takes its place. */
  const bare = useRef<number | null>(null);
  const latest = useRef({ draft, asksLast, running });
  useEffect(() => {
    latest.current = { draft, asksLast, running };
  });
  /** The clock for a mark, while it runs. */
  const now = () => (latest.current.running ? Math.round(clock.read()) : undefined);
  const putBody = (body: Partial<ReadingBody>) => {
    const before = latest.current.draft;
    if (before) change({ ...before, body: { ...before.body, ...body } });
  };
  const putMarks = (marks: readonly ReadingMark[]) => putBody({ marks: [...marks] });

  const stop = () => {
    const before = latest.current.draft;
    if (!before || before.finished) return;
    setRunning(false);
    setCurrent(null);
    const together = before.group.length > 0;
    const ms = Math.round(limited ? Math.min(clock.read(), MINUTE) : clock.read());
    change({ ...before, ms, finished: true, body: { ...before.body, ms: ms > 0 && !together ? ms : null } });
    setAsksLast(!together);
  };
  const pause = () => {
    const before = latest.current.draft;
    if (!before || before.finished || before.group.length > 0) return;
    if (running) change({ ...before, ms: Math.round(clock.read()) });
    setRunning(!running);
  };
  const over = limited && running && clock.ms >= MINUTE;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the minute ends once
  useEffect(() => {
    if (over) stop();
  }, [over]);

  const stoppedAt = (at: number | null) => {
    putBody({ stoppedAt: at });
    setAsksLast(false);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: it reads what is newest, so that words are not drawn again
  const tap = useCallback((at: number) => {
    const { draft: before, asksLast: last } = latest.current;
    if (!before) return;
    if (last) return stoppedAt(at);
    setCurrent(at);
    const isNew = !before.body.marks.some((mark) => mark.at === at);
    bare.current = isNew ? at : null;
    if (isNew) putMarks(pressMark(before.body.marks, at, "misread", now()));
  }, []);
  const press = (kind: MarkKind) => {
    if (!draft || current === null) return;
    const byTap = bare.current === current;
    bare.current = null;
    if (byTap && kind === "misread") return;
    const marks = byTap && kind !== "putRight" ? pressMark(draft.body.marks, current, "misread") : draft.body.marks;
    putMarks(pressMark(marks, current, kind, now()));
  };
  /** Marks words as left out with their line. */
  const skip = (at: readonly number[]) => draft && putMarks(skipWords(draft.body.marks, at, now()));
  const step = (by: number) => setCurrent((at) => Math.max(0, Math.min(words.length - 1, at === null ? 0 : at + by)));

  /** Turns to another line on the child's face; while the clock runs this says how far the reading has come. */
  const turn = (by: number) => {
    const next = Math.max(0, Math.min(lines.length - 1, line + by));
    if (next === line) return;
    setLine(next);
    const [at, ms] = [lines[next]?.at ?? 0, now()];
    if (ms === undefined || !draft) return;
    putBody({ turns: [...draft.body.turns.filter((one) => one.at < at), ...(by > 0 ? [{ at, ms }] : [])] });
  };
  const again = async () => {
    await forget();
    change(make());
    setRunning(false);
    setAsksLast(false);
    setCurrent(null);
    setLine(0);
  };
  const heard = (kind: "misread" | "putIn", said: string | null) => {
    bare.current = null;
    if (draft && current !== null) putMarks(withHeard(draft.body.marks, current, kind, said));
  };
  return {
    draft,
    change,
    forget,
    look,
    setLook,
    shown,
    words,
    lines,
    line,
    turn,
    clock,
    running,
    limited,
    setLimited,
    current,
    asksLast,
    stoppedAt,
    stop,
    pause,
    tap,
    press,
    skip,
    step,
    again,
    heard,
    putBody,
  };
}
export type ReadingDesk = ReturnType<typeof useReading>;

/** A clock that runs on from what was read before; `read` gives it to the millisecond. */
function useClock(running: boolean, before: number) {
  const since = useRef<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (!running) {
      since.current = null;
      return;
    }
    since.current = performance.now();
    setNow(since.current);
    const timer = setInterval(() => setNow(performance.now()), 200);
    return () => clearInterval(timer);
  }, [running]);
  const latest = useRef(before);
  latest.current = before;
  const read = () => latest.current + (since.current === null ? 0 : performance.now() - since.current);
  return { ms: before + (running && since.current !== null ? Math.max(0, now - since.current) : 0), read };
}
