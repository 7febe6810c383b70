import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { toast } from "sonner";
import { getChild, listReadings, listTexts, type ReadingBody, saveReading, type TextView } from "#contract";
import { type MarkKind, pressMark, type ReadingMark, skipWords, textWords, withHeard } from "#core/reading";
import { call, refreshAll, useAsk, wordsOfError } from "#web/app/api.ts";
import { dayHere, newId, useMarker } from "#web/app/device.ts";
import { useKept } from "#web/app/kept.ts";
import { useKeys } from "#web/app/keys.tsx";
import { useLexicon } from "#web/app/lexicon.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { TextArea } from "#web/parts/field.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Understanding, Voice } from "./after-reading.tsx";
import { type Draft, useDraft } from "./draft.ts";
import { MarkBar } from "./mark-bar.tsx";
import { signsOf } from "./marking.ts";
import { EarlierReadings, ReadingScore } from "./reading-score.tsx";
import { Word } from "./reading-word.tsx";

/** A child reads, the adult marks: word by word, with a clock, and sees at once what it says. */
export function Screen() {
  const { textId = "" } = useParams();
  const [search] = useSearchParams();
  const childId = search.get("child") ?? "";
  const texts = useKept(listTexts, {}, { revalidateOnFocus: false });
  const child = useKept(getChild, { params: { id: childId } }, { revalidateOnFocus: false });
  const text = texts.data?.find((one) => one.id === textId);
  const trouble = texts.error ?? child.error;
  if (trouble)
    return (
      <Page place="Reading" title="Reading">
        <Trouble error={trouble} />
      </Page>
    );
  if (!text || !child.data)
    return (
      <Page place="Reading" title="Reading">
        <Waiting rows={8} />
      </Page>
    );
  return <Desk key={`${childId} ${textId}`} text={text} childId={childId} name={child.data.child.name} />;
}

const MINUTE = 60_000;

function Desk({ text, childId, name }: { text: TextView; childId: string; name: string }) {
  const navigate = useNavigate();
  const [marker] = useMarker();
  const { ground } = useLexicon();
  const earlier = useAsk(listReadings, { params: { id: childId } });
  const [limited, setLimited] = useState(true);
  const [running, setRunning] = useState(false);
  const [current, setCurrent] = useState<number | null>(null);
  const [asksLast, setAsksLast] = useState(false);
  const [busy, setBusy] = useState(false);
  const { draft, change, forget } = useDraft(childId, text.id, () => fresh(text, childId, marker));
  const words = useMemo(() => textWords(draft?.body.text ?? text.body), [draft?.body.text, text.body]);
  const clock = useClock(running, draft?.ms ?? 0);

  /** The word whose misread came with the tap alone: another mark takes its place. */
  const bare = useRef<number | null>(null);
  const latest = useRef({ draft, asksLast });
  useEffect(() => {
    latest.current = { draft, asksLast };
  });
  const put = (marks: readonly ReadingMark[], more: Partial<ReadingBody> = {}) => {
    const now = latest.current.draft;
    if (now) change({ ...now, body: { ...now.body, ...more, marks: [...marks] } });
  };
  const stop = () => {
    const now = latest.current.draft;
    if (!now) return;
    setRunning(false);
    const ms = Math.round(limited ? Math.min(clock.read(), MINUTE) : clock.read());
    change({ ...now, ms, finished: true, body: { ...now.body, ms: ms > 0 ? ms : null } });
    setAsksLast(true);
    setCurrent(null);
  };
  const pause = () => {
    const now = latest.current.draft;
    if (!now) return;
    if (running) change({ ...now, ms: Math.round(clock.read()) });
    setRunning(!running);
  };
  const over = limited && running && clock.ms >= MINUTE;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the minute ends once
  useEffect(() => {
    if (over) stop();
  }, [over]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it reads what is newest, so that words are not drawn again
  const tapWord = useCallback((at: number) => {
    const { draft: now, asksLast: last } = latest.current;
    if (!now) return;
    if (last) {
      change({ ...now, body: { ...now.body, stoppedAt: at } });
      setAsksLast(false);
      return;
    }
    setCurrent(at);
    const isNew = !now.body.marks.some((mark) => mark.at === at);
    bare.current = isNew ? at : null;
    const marks = isNew ? pressMark(now.body.marks, at, "misread") : now.body.marks;
    change({ ...now, body: { ...now.body, marks: [...marks] } });
  }, []);
  const press = (kind: MarkKind) => {
    if (!draft || current === null) return;
    const byTap = bare.current === current;
    bare.current = null;
    if (byTap && kind === "misread") return;
    const marks = byTap && kind !== "putRight" ? pressMark(draft.body.marks, current, "misread") : draft.body.marks;
    put(pressMark(marks, current, kind));
  };
  const skip = () => {
    if (!draft || current === null) return;
    // The line as it stands on the screen.
    const shown = [...document.querySelectorAll<HTMLElement>("[data-word]")];
    const top = shown[current]?.offsetTop;
    put(
      skipWords(
        draft.body.marks,
        shown.flatMap((word, at) => (word.offsetTop === top ? [at] : [])),
      ),
    );
  };
  useKeys([
    { key: " ", does: running ? "Pause the clock" : "Start the clock", run: pause },
    { key: "Enter", does: "Stop", run: stop },
    {
      key: "ArrowRight",
      does: "The next word",
      run: () => setCurrent((at) => Math.min(words.length - 1, (at ?? -1) + 1)),
    },
    { key: "ArrowLeft", does: "The word before", run: () => setCurrent((at) => Math.max(0, (at ?? 1) - 1)) },
  ]);
  if (!draft || !ground)
    return (
      <Page place="Reading" title="Reading">
        <Waiting rows={8} />
      </Page>
    );
  const { body, finished } = draft;
  const byWord = new Map<number, MarkKind[]>();
  for (const { at, kind } of body.marks) byWord.set(at, [...(byWord.get(at) ?? []), kind]);
  const keep = async () => {
    setBusy(true);
    try {
      await call(saveReading, { params: { id: draft.id }, body: { ...body, markedBy: marker.trim() || "Teacher" } });
      await forget();
      await refreshAll();
      toast("Kept.");
      navigate(`/child/${childId}`);
    } catch (error) {
      setBusy(false);
      toast.error(`${wordsOfError(error)} The reading is kept on this device.`);
    }
  };
  const again = async () => {
    await forget();
    change(fresh(text, childId, marker));
    setAsksLast(false);
    setCurrent(null);
  };
  return (
    <div className="mx-auto flex w-full max-w-[1080px] flex-1 flex-col px-4 py-3">
      <header className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h1 className="text-lg">
          {name} <span className="font-normal text-soft">· {body.title}</span>
        </h1>
        <div className="flex flex-wrap items-center gap-1.5">
          <span className="min-w-16 text-right text-xl tabular-nums" data-testid="clock">
            {Math.floor(clock.ms / 1000)} s
          </span>
          <label className="flex min-h-11 items-center gap-1.5 text-sm">
            <input
              type="checkbox"
              checked={limited}
              onChange={(event) => setLimited(event.target.checked)}
              className="accent-leaf"
            />
            one minute
          </label>
          <Button className="min-h-11" shape={finished ? "plain" : "main"} onClick={pause} disabled={finished}>
            {running ? "Pause" : draft.ms > 0 ? "Go on" : "Start"} <kbd className="text-xs">Space</kbd>
          </Button>
          <Button className="min-h-11" onClick={stop} disabled={finished}>
            Stop <kbd className="text-xs text-soft">Enter</kbd>
          </Button>
          <Button className="min-h-11" onClick={again}>
            From the start
          </Button>
        </div>
      </header>
      {asksLast && (
        <p
          role="status"
          className="mb-2 flex flex-wrap items-center justify-between gap-2 rounded-md bg-damson-pale px-3 py-2"
        >
          Tap the last word that was read.
          <Button
            onClick={() => {
              put(body.marks, { stoppedAt: null });
              setAsksLast(false);
            }}
          >
            It was read to the end
          </Button>
        </p>
      )}
      <section aria-label="The text" className="rounded-lg border border-line bg-sheet px-5 py-3">
        <p className="font-child text-[1.55rem] leading-[2.3]">
          {words.map((word, at) => (
            <Word
              // biome-ignore lint/suspicious/noArrayIndexKey: a word is its place in the text
              key={at}
              at={at}
              text={word.text}
              after={body.text.slice(word.at + word.text.length, words[at + 1]?.at ?? body.text.length)}
              signs={signsOf(byWord.get(at) ?? [])}
              wrong={(byWord.get(at) ?? []).some((kind) => ["misread", "told", "leftOut", "skipped"].includes(kind))}
              current={at === current}
              behind={body.stoppedAt !== null && at > body.stoppedAt}
              onTap={tapWord}
            />
          ))}
        </p>
      </section>
      {!asksLast && (
        <MarkBar
          word={current === null ? undefined : words[current]?.text}
          marks={current === null ? [] : body.marks.filter((mark) => mark.at === current)}
          onPress={press}
          onSkip={skip}
          onHeard={(kind, heard) => {
            bare.current = null;
            if (current !== null) put(withHeard(body.marks, current, kind, heard));
          }}
        />
      )}
      {finished && !asksLast && (
        <div className="mt-4 grid items-start gap-4 lg:grid-cols-2">
          <div className="flex flex-col gap-4">
            <ReadingScore reading={body} ground={ground} />
            <EarlierReadings
              readings={(earlier.data ?? []).filter((one) => one.textId === body.textId && one.id !== draft.id)}
            />
          </div>
          <div className="flex flex-col gap-4">
            <Voice voice={body.voice} onChange={(voice) => put(body.marks, { voice })} />
            <Understanding
              questions={text.questions}
              given={body.understanding}
              onChange={(understanding) => put(body.marks, { understanding })}
            />
            <TextArea
              label="Note"
              rows={2}
              maxLength={300}
              value={body.note}
              onChange={(event) => put(body.marks, { note: event.target.value })}
            />
            <div className="flex gap-2">
              <Button shape="main" className="min-h-11" disabled={busy} onClick={keep}>
                Keep this reading
              </Button>
              <ButtonLink to={`/texts?for=child:${childId}`} className="min-h-11">
                Texts that fit {name}
              </ButtonLink>
            </div>
          </div>
        </div>
      )}
    </div>
  );
}

function fresh(text: TextView, childId: string, marker: string): Draft {
  return {
    id: newId(),
    ms: 0,
    finished: false,
    body: {
      childId,
      textId: text.id,
      title: text.title,
      text: text.body,
      marks: [],
      stoppedAt: null,
      ms: null,
      voice: { phrases: null, stops: null, pace: null, expression: null },
      understanding: [],
      note: "",
      readAt: new Date().toISOString(),
      day: dayHere(),
      markedBy: marker.trim() || "Teacher",
    },
  };
}

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
  const read = () => before + (since.current === null ? 0 : performance.now() - since.current);
  return { ms: before + (running && since.current !== null ? Math.max(0, now - since.current) : 0), read };
}
