import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { toast } from "sonner";
import { type AnswerBody, type CheckView, endCheck, getCheck } from "#contract";
import { deskState, passReached, standing } from "#core/checks";
import { findCorrespondence, ipa, likelyConfusions, splitGpc } from "#core/phonics";
import { call, refreshAll, useAsk, wordsOfError } from "#web/app/api.ts";
import { dayHere, newId, useMarker } from "#web/app/device.ts";
import { useKeys } from "#web/app/keys.tsx";
import { outbox, useOutbox } from "#web/app/outbox.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Page, Trouble, usePlaceTitle, Waiting } from "#web/parts/page.tsx";
import { CardFace } from "./card-face.tsx";
import { type FaceMessage, faceChannel } from "./face-channel.ts";
import { type Marking, MarkPad } from "./mark-pad.tsx";
import { PassDone } from "./pass-done.tsx";

export function Screen() {
  const { checkId = "" } = useParams();
  const [ready, setReady] = useState(false);
  const { data, error } = useAsk(
    getCheck,
    { params: { id: checkId } },
    { revalidateOnFocus: false, revalidateOnReconnect: false },
  );
  useEffect(() => {
    void outbox.ready.then(() => setReady(true));
  }, []);
  if (error && !data)
    return (
      <Page place="Check" title="Check">
        <Trouble error={error} />
      </Page>
    );
  if (!data || !ready || data.id !== checkId)
    return (
      <Page place="Check" title="Check">
        <Waiting />
      </Page>
    );
  return <Desk key={data.id} check={data} />;
}

/** What the server has of this check and what still waits on the device, each once. */
function startLog(check: CheckView): readonly AnswerBody[] {
  const { waiting } = outbox.read();
  const known = new Set(check.answers.map((answer) => answer.id));
  const mine = new Set([
    ...known,
    ...waiting
      .filter((answer) => answer.outcome !== "void" && answer.checkId === check.id)
      .map((answer) => answer.id),
  ]);
  const extra = waiting.filter(
    (answer) => !known.has(answer.id) && mine.has(answer.outcome === "void" ? answer.voids : answer.id),
  );
  return [...check.answers, ...extra];
}

function Desk({ check }: { check: CheckView }) {
  usePlaceTitle("Check");
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const [marker] = useMarker();
  const [log, setLog] = useState(() => startLog(check));
  const [paused, setPaused] = useState(false);
  const { waiting, refused, lineDown } = useOutbox();
  const answers = useMemo(() => standing(log), [log]);
  const pass = Math.max(passReached(answers), Number(search.get("pass")) || 1);
  const state = useMemo(() => deskState(check.items, check.seed, pass, answers), [check, pass, answers]);
  const { current } = state;
  const shownAt = useRef(performance.now());
  const grapheme = current ? splitGpc(current).grapheme : null;

  // biome-ignore lint/correctness/useExhaustiveDependencies: the clock starts anew with each card and after a pause
  useEffect(() => {
    shownAt.current = performance.now();
  }, [current, paused]);
  useFace(paused ? null : grapheme);

  const put = (answer: AnswerBody) => {
    setLog((before) => [...before, answer]);
    outbox.add(answer);
  };
  const base = () => ({
    id: newId(),
    childId: check.childId,
    markedAt: new Date().toISOString(),
    day: dayHere(),
    markedBy: marker.trim() || "Teacher",
  });
  const mark = (marking: Marking) => {
    if (!current || paused) return;
    const ms = Math.min(3_600_000, Math.max(0, Math.round(performance.now() - shownAt.current)));
    const given = { ...base(), item: current, ms, checkId: check.id, pass };
    put(
      marking.outcome === "wrong"
        ? { ...given, outcome: "wrong", heard: marking.heard }
        : { ...given, outcome: marking.outcome },
    );
  };
  const undo = () => {
    const last = answers.filter((answer) => answer.checkId === check.id).at(-1);
    if (!last) return;
    put({ ...base(), outcome: "void", voids: last.id });
    if (last.pass < pass) setSearch({}, { replace: true });
  };
  const finish = async () => {
    try {
      await call(endCheck, { params: { id: check.id }, body: { at: new Date().toISOString() } });
      await refreshAll();
      navigate(`/check/${check.id}/result`);
    } catch (error) {
      toast.error(`${wordsOfError(error)} Every mark is kept on this device, and the check stays open.`);
    }
  };
  const again = () => setSearch({ pass: String(pass + 1) }, { replace: true });
  const openFace = () => window.open("/face", "keen-face", "popup,width=900,height=700");

  useKeys([
    { key: "u", does: "Take the last mark back", run: undo },
    { key: "Backspace", does: "Take the last mark back", run: undo },
    { key: "p", does: paused ? "Go on" : "Pause", run: () => setPaused(!paused) },
    { key: "v", does: "Open the child's window", run: openFace },
    ...(current ? [] : [{ key: "Enter", does: "See what this check says", run: () => void finish() }]),
  ]);

  const done = state.given.length;
  return (
    <div className="mx-auto flex w-full max-w-[1000px] flex-1 flex-col px-4 py-3">
      <header className="flex flex-wrap items-center justify-between gap-2" onPointerUp={letGo}>
        <div>
          <h1 className="text-lg">{check.childName}</h1>
          <p className="text-sm text-soft" aria-live="off">
            {pass > 1 && `Round ${pass}, `}
            {current ? `card ${done + 1} of ${state.deck.length}` : `all ${state.deck.length} cards shown`} ·{" "}
            <span role="status">{saveSign(waiting.length, lineDown)}</span>
          </p>
        </div>
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={undo} disabled={answers.length === 0}>
            Undo <kbd className="text-xs text-soft">U</kbd>
          </Button>
          <Button onClick={() => setPaused(!paused)}>
            {paused ? "Go on" : "Pause"} <kbd className="text-xs text-soft">P</kbd>
          </Button>
          <Button onClick={openFace}>
            Child's window <kbd className="text-xs text-soft">V</kbd>
          </Button>
          <Button onClick={finish}>Stop here</Button>
        </div>
      </header>
      <Queue deck={state.deck} done={new Set(state.given.map((answer) => answer.item))} />
      {refused.length > 0 && (
        <div
          role="alert"
          className="mt-2 flex items-center justify-between gap-3 rounded-md bg-damson-pale px-3 py-2"
        >
          {refused.length} {refused.length === 1 ? "mark was" : "marks were"} not taken: {refused[0]?.says}
          <Button onClick={() => outbox.dismissRefused()}>Understood</Button>
        </div>
      )}
      <div className="flex flex-1 items-center justify-center py-2">
        {paused ? (
          <div className="text-center">
            <p className="mb-4 text-lg">Paused. Everything so far is kept.</p>
            <div className="flex justify-center gap-2">
              <Button shape="main" onClick={() => setPaused(false)}>
                Go on
              </Button>
              <ButtonLink to="/">Come back later</ButtonLink>
            </div>
          </div>
        ) : current && grapheme ? (
          <CardFace grapheme={grapheme} size="min(30vh, 26vw)" />
        ) : (
          <PassDone state={state} onAgain={again} onFinish={finish} />
        )}
      </div>
      {current && !paused && (
        <>
          <p className="mb-2 text-center text-soft">
            {ipa(splitGpc(current).sound)} as in{" "}
            <span className="font-child">{findCorrespondence(current)?.keyword}</span>
          </p>
          <MarkPad key={current} confusions={likelyConfusions(current)} onMark={mark} />
        </>
      )}
    </div>
  );
}

/** A button that was tapped lets the focus go, so that the space bar marks a card and does not press it again. */
function letGo(): void {
  setTimeout(() => document.activeElement instanceof HTMLButtonElement && document.activeElement.blur(), 0);
}

function saveSign(waiting: number, lineDown: boolean): string {
  if (waiting === 0) return "all marks saved";
  const marks = `${waiting} ${waiting === 1 ? "mark" : "marks"}`;
  return lineDown ? `${marks} kept on this device until the server answers` : `${marks} being saved`;
}

/** The deck as a row of short strokes that empties from the left: felt, not read. */
function Queue({ deck, done }: { deck: readonly string[]; done: ReadonlySet<string> }) {
  return (
    <div className="mt-2 flex h-1.5 gap-0.5" aria-hidden>
      {deck.map((gpc) => (
        <span key={gpc} className={`flex-1 rounded-full ${done.has(gpc) ? "bg-leaf-mid" : "bg-line"}`} />
      ))}
    </div>
  );
}

/** Keeps the child's window on the card of the desk; a window that opens later asks and is told. */
function useFace(grapheme: string | null): void {
  const latest = useRef<FaceMessage>({ kind: "rest" });
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const open = faceChannel();
    channel.current = open;
    open.onmessage = ({ data }: MessageEvent<FaceMessage>) => {
      if (data.kind === "hello") open.postMessage(latest.current);
    };
    return () => {
      open.postMessage({ kind: "rest" } satisfies FaceMessage);
      open.close();
      channel.current = null;
    };
  }, []);
  useEffect(() => {
    latest.current = grapheme ? { kind: "card", grapheme } : { kind: "rest" };
    channel.current?.postMessage(latest.current);
  }, [grapheme]);
}
