import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { ReadingBody } from "#contract";
import {
  BEFORE_FIRST,
  linesOf,
  type MarkKind,
  pressMark,
  type ReadingMark,
  sentenceLines,
  skipWords,
  textWords,
  withHeard,
} from "#core/reading";
import { type TextLook, useTextLook } from "#web/device/settings.ts";
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
  const [running, setRunning] = useState(false);
  const [current, setCurrent] = useState<number | null>(null);
  const [line, setLine] = useState(0);
  const text = draft?.body.text ?? "";
  const shown = useMemo(() => shownText(text, look), [text, look]);
  const words = useMemo(() => textWords(shown), [shown]);
  const lines = useMemo(() => linesOf(shown), [shown]);
  const clock = useClock(running, draft?.ms ?? 0);

  /** What is newest, also before it is drawn: two marks in one frame are two marks. */
  const latest = useRef<Draft | undefined>(draft);
  useEffect(() => {
    latest.current = draft;
  }, [draft]);
  const put = (next: Partial<Draft>) => {
    if (!latest.current) return;
    latest.current = { ...latest.current, ...next };
    change(latest.current);
  };
  const putBody = (body: Partial<ReadingBody>) =>
    latest.current && put({ body: { ...latest.current.body, ...body }, ...(running ? { tick: clock.read() } : {}) });
  const putMarks = (marks: readonly ReadingMark[]) => putBody({ marks: [...marks] });
  /** The word whose misread came with the tap alone: another mark takes its place. */
  const bare = useRef<number | null>(null);
  /** The clock for a mark, while it runs. */
  const now = () => (running ? Math.round(clock.read()) : undefined);

  const stop = () => {
    const before = latest.current;
    if (!before || before.finished) return;
    setRunning(false);
    setCurrent(null);
    const together = before.group.length > 0;
    const ms = Math.round(before.limited ? Math.min(clock.read(), MINUTE) : clock.read());
    const measured = ms > 0 && !together ? ms : null;
    put({ ms, finished: true, asksLast: !together, body: { ...before.body, ms: measured } });
  };
  const pause = () => {
    const before = latest.current;
    if (!before || before.finished || before.group.length > 0) return;
    if (running) put({ ms: Math.round(clock.read()) });
    setRunning(!running);
  };
  const over = (draft?.limited ?? false) && running && clock.ms >= MINUTE;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the minute ends once
  useEffect(() => {
    if (over) stop();
  }, [over]);
  const second = running ? Math.floor(clock.ms / 1000) : 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: kept once a second, for a page that is loaded again
  useEffect(() => {
    if (second > 0) put({ tick: clock.read() });
  }, [second]);

  const stoppedAt = (at: number | null) => {
    const before = latest.current;
    if (before) put({ asksLast: false, body: { ...before.body, stoppedAt: at } });
  };
  const tapped = (at: number) => {
    const before = latest.current;
    if (!before) return;
    if (before.asksLast) return stoppedAt(at);
    setCurrent(at);
    const isNew = at !== BEFORE_FIRST && !before.body.marks.some((mark) => mark.at === at);
    bare.current = isNew ? at : null;
    if (isNew) putMarks(pressMark(before.body.marks, at, "misread", now()));
  };
  const press = (kind: MarkKind) => {
    const before = latest.current;
    if (!before || current === null) return;
    const byTap = bare.current === current;
    bare.current = null;
    if (byTap && kind === "misread") return;
    const { marks } = before.body;
    putMarks(
      pressMark(byTap && kind !== "putRight" ? pressMark(marks, current, "misread") : marks, current, kind, now()),
    );
  };
  /** Marks words as left out with their line. */
  const skip = (at: readonly number[]) => latest.current && putMarks(skipWords(latest.current.body.marks, at, now()));
  const step = (by: number) =>
    setCurrent((at) => Math.max(BEFORE_FIRST, Math.min(words.length - 1, at === null ? 0 : at + by)));
  const heard = (kind: "misread" | "putIn", said: string | null) => {
    bare.current = null;
    if (latest.current && current !== null) putMarks(withHeard(latest.current.body.marks, current, kind, said));
  };

  /** Turns to another line on the child's face; while the clock runs this says how far the reading has come. */
  const turn = (by: number) => {
    const next = Math.max(0, Math.min(lines.length - 1, line + by));
    if (next === line) return;
    setLine(next);
    const [at, ms] = [lines[next]?.at ?? 0, now()];
    if (ms === undefined || !latest.current) return;
    const before = latest.current.body.turns.filter((one) => one.at < at);
    putBody({ turns: [...before, ...(by > 0 ? [{ at, ms }] : [])] });
  };
  const again = async () => {
    await forget();
    latest.current = make();
    change(latest.current);
    setRunning(false);
    setCurrent(null);
    setLine(0);
  };

  // Words are drawn again only when they change, so that what they call must stay the same.
  const onTap = useRef(tapped);
  useEffect(() => {
    onTap.current = tapped;
  });
  const tap = useCallback((at: number) => onTap.current(at), []);
  return {
    draft,
    put,
    putBody,
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
    current,
    stoppedAt,
    stop,
    pause,
    tap,
    press,
    skip,
    step,
    again,
    heard,
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
