import { useEffect, useMemo, useRef, useState } from "react";
import type { AnswerBody, FaceBody } from "#contract";
import {
  type DeskState,
  deskState,
  type Face,
  kindAsked,
  kinds,
  minuteIsOver,
  onFaces,
  passReached,
  rightInMinute,
  stopAdvice,
  timeSpent,
} from "#core/checks";
import { type GivenAnswer, inCheck, takesHeard } from "#core/ledger";
import { plural } from "#core/saying";
import { split } from "#core/words";
import { faceCodeFor, useFace } from "#web/device/face-channel.ts";
import { useKeys } from "#web/device/keys.tsx";
import { useLexicon } from "#web/device/lexicon.ts";
import { useHand } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { ChildFace } from "#web/parts/child-face.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { lettersFor } from "#web/parts/letters-for.ts";
import { BracketWord } from "#web/parts/marks.tsx";
import { Waiting } from "#web/parts/page.tsx";
import type { DeskWanted } from "./at-desk.ts";
import { onScreen } from "./kinds/index.ts";
import { LastMark } from "./last-mark.tsx";
import { type SittingLog, useStamp } from "./log.ts";
import { type Marking, MarkPad } from "./mark-pad.tsx";
import { MinuteClock } from "./minute-clock.tsx";
import { NoteSheet } from "./note-sheet.tsx";
import { PassDone } from "./pass-done.tsx";
import { SeekDone } from "./seek-done.tsx";
import { useSeeking } from "./seeking.ts";
import { useSettled } from "./settled.ts";
import { StopSheet } from "./stop-sheet.tsx";

interface CardWanted extends DeskWanted {
  readonly log: SittingLog;
  /** The child's last tap on another device. */
  readonly tapped: { readonly item: string; readonly choice: string } | null;
}

const likelyTitles: Partial<Record<keyof typeof kinds, string>> = {
  card: "Said instead",
  words: "Said instead",
  names: "Named instead",
  write: "Wrote instead",
  find: "Pointed to",
  choose: "Chose",
  listen: "Said instead",
};

/** One card after another: the child's side above, the marks below. */
export function CardDesk(wanted: CardWanted) {
  const { sitting, check, child, answers, ended, next, log, tapped, onDone, onStop, onGoOn } = wanted;
  const { settings } = sitting;
  const { setup, seed } = check;
  const { ground } = useLexicon();
  const stamp = useStamp(child.id);
  const [hand] = useHand();
  const [round, setRound] = useState(1);
  const [sheet, setSheet] = useState<"note" | "stop" | "face" | null>(null);
  const [paused, setPaused] = useState(false);
  const [brackets, setBrackets] = useState(false);
  const [quiet, setQuiet] = useState(0);
  const [code, setCode] = useState(sitting.faceCode);
  const minute = setup.form === "minute";
  const [begun, setBegun] = useState(!minute || answers.length > 0);
  const [timeUp, setTimeUp] = useState(false);

  const before = new Map(check.before.map(({ item, outcome }) => [item, outcome]));
  const desk = { items: check.items, seed, strategy: setup.strategy, form: setup.form, before };
  const also = "faces" in setup ? setup.faces.also : noOthers;
  const onCards = useMemo(() => onFaces(answers, also), [answers, also]);
  const reached = Math.max(passReached(answers), round);
  const over = minute && (timeUp || minuteIsOver(answers));
  const here = deskState(desk, reached, onCards);
  const seeking = useSeeking(check, answers, ground);
  const state = seeking?.state ?? (minute && !over && !here.current ? deskState(desk, reached + 1, onCards) : here);
  const waits = seeking === undefined;
  const current = over || ended || waits ? undefined : state.current;
  const kind = kinds[current === undefined ? check.kind : kindAsked(check.kind, current)];
  const done = new Set(state.given.map((answer) => answer.item));
  const advice = stopAdvice(state.given, setup.stopAfter);
  const advised = advice.suggested && current !== undefined && state.given.length > quiet;
  const shows = current !== undefined && !paused && begun;
  const face = lettersFor(shows ? faceBody(kind.face(current, setup, seed)) : nothing, child);
  const prompt = shows ? kind.prompt(current, settings, setup) : undefined;
  const likely = shows ? kind.likely(current, setup, seed) : [];
  const all = shows ? (kind.all?.(current, setup) ?? []) : [];
  const last = answers.at(-1);

  const shownAt = useRef(performance.now());
  // biome-ignore lint/correctness/useExhaustiveDependencies: the clock starts anew with each item, and after a pause or a sheet
  useEffect(() => {
    shownAt.current = performance.now();
  }, [current, paused, sheet, begun]);

  const { moves, isSettled } = useSettled<HTMLDivElement>(shows ? `${check.id} ${state.pass} ${current}` : null);
  const mark = ({ item = current, outcome, heard, tags, rest = [] }: Marking) => {
    if (!shows || !isSettled()) return;
    const ms = Math.min(3_600_000, Math.max(0, Math.round(performance.now() - shownAt.current)));
    const at = stamp();
    const given = {
      ...at,
      ...inCheck(kind.id, check.id),
      item: item ?? current,
      ms,
      pass: state.pass,
      tags: [...tags],
    };
    log.put(takesHeard(outcome) ? { ...given, outcome, heard, units: null } : { ...given, outcome });
    // The other sounds of the card, in the order in which they were said: at one press, a thousandth apart.
    for (const [place, one] of rest.entries()) {
      const markedAt = new Date(Date.parse(at.markedAt) + place + 1).toISOString();
      log.put({ ...given, ...stamp(), markedAt, item: one.item, ms: null, tags: [], outcome: one.outcome });
    }
  };
  const tap = (item: string, choice: string) => {
    const chosen = likely.find((one) => one.shows === choice);
    if (item !== current || !chosen) return;
    const right = chosen.outcome === "right";
    mark({ item: chosen.item, outcome: chosen.outcome, heard: right ? null : chosen.heard, tags: [] });
  };
  useFace({
    deskId: sitting.id,
    elsewhere: code !== null,
    face,
    onDeed: (deed) => "choice" in deed && tap(deed.item, deed.choice),
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: each tap counts once
  useEffect(() => {
    if (tapped) tap(tapped.item, tapped.choice);
  }, [tapped]);

  const undo = () => {
    if (!last) return;
    for (const one of ofLastPress(answers, also)) log.put({ ...stamp(), outcome: "void", voids: one.id });
    setRound(last.pass);
    setTimeUp(false);
  };
  const overrule = (units: readonly number[]) => {
    if (!last || !("heard" in last)) return;
    log.put({ ...stamp(), outcome: "void", voids: last.id });
    const { kind: of, item, ms, source, help, way, pass, tags, outcome, heard } = last;
    const again = {
      ...stamp(),
      kind: of,
      item,
      ms,
      source,
      help,
      way,
      pass,
      tags: [...tags],
      outcome,
      heard,
      units: [...units],
    };
    log.put(again as AnswerBody);
  };
  const note = (text: string) =>
    log.put({
      ...stamp(),
      outcome: "note",
      source: { kind: "check", checkId: check.id },
      item: current ?? null,
      text,
    });

  useKeys([
    { key: "u", does: "Take the last mark back", run: undo },
    { key: "Backspace", does: "Take the last mark back", run: undo },
    { key: "n", does: "Write a note", run: () => setSheet("note") },
    { key: "p", does: paused ? "Go on" : "Pause", run: () => setPaused(!paused) },
    { key: "v", does: "What the child sees", run: () => setSheet("face") },
    { key: "b", does: "Brackets under the sounds", run: () => setBrackets(!brackets) },
    ...(current === undefined && !ended && !waits ? [{ key: "Enter", does: next, run: onDone }] : []),
    ...(shows ? [] : !begun ? [{ key: " ", does: "Start the minute", run: () => setBegun(true) }] : []),
  ]);

  const units =
    brackets && shows ? (prompt?.units ?? (ground && split(kind.show(current), ground)[0]?.units)) : undefined;
  return (
    <>
      <Strokes items={seeking ? [] : state.items} done={done} />
      <p className="mt-1 text-sm text-soft" aria-live="off">
        {seeking
          ? [plural(answers.length, "item asked", "items asked"), seeking.why].filter(Boolean).join(" · ")
          : placeInWords(state, minute, done.size)}
        {minute && begun && !over && (
          <MinuteClock
            spent={timeSpent(answers)}
            since={shownAt}
            running={shows && sheet === null}
            onOver={() => setTimeUp(true)}
          />
        )}
        {minute && check.best !== null && ` · best before: ${check.best}`}
      </p>
      {advised && (
        <div
          role="status"
          className="mt-2 flex flex-wrap items-center justify-between gap-2 rounded-md bg-damson-pale px-3 py-2"
        >
          {advice.why} Stopping is kind here; it is yours to decide.
          <span className="flex gap-2">
            <Button onClick={() => onStop("suggested", false)}>End this part</Button>
            <Button onClick={() => setQuiet(state.given.length + setup.stopAfter - 1)}>Go on</Button>
          </span>
        </div>
      )}
      <div ref={moves} className="flex flex-1 flex-col items-center justify-center gap-3 py-2">
        {paused ? (
          <Paused onGoOn={() => setPaused(false)} />
        ) : ended ? (
          <div className="text-center">
            <p className="mb-3 text-lg">This part has ended. Everything in it is kept.</p>
            <div className="flex flex-wrap justify-center gap-2">
              <Button onClick={onGoOn}>Go on with it</Button>
              <ButtonLink to={`/check/${sitting.id}/result?child=${child.id}`} shape="main">
                See what it says
              </ButtonLink>
            </div>
          </div>
        ) : !begun ? (
          <div className="text-center">
            <p className="mb-3 text-lg">As many as a minute holds. The clock starts with the first card.</p>
            <Button shape="main" className="min-h-12" onClick={() => setBegun(true)}>
              Start the minute
            </Button>
          </div>
        ) : current === undefined && minute ? (
          <div className="text-center">
            <p className="mb-3 text-lg font-semibold">
              {rightInMinute(answers)} right in the minute{check.best !== null && `, ${check.best} at best before`}.
            </p>
            <Button shape="main" className="min-h-12" autoFocus onClick={onDone}>
              {next}
            </Button>
          </div>
        ) : waits ? (
          <Waiting rows={3} />
        ) : seeking?.over ? (
          <SeekDone state={state} over={seeking.over} unasked={seeking.unasked} next={next} onDone={onDone} />
        ) : current === undefined ? (
          <PassDone state={state} kind={kind} next={next} onAgain={() => setRound(state.pass + 1)} onDone={onDone} />
        ) : units ? (
          <span className="text-[min(16vh,13vw)] leading-tight" data-testid="card">
            <BracketWord text={kind.show(current)} units={units} />
          </span>
        ) : (
          <>
            {prompt?.say && face.show === "nothing" && (
              <p className="max-w-2xl text-center text-2xl" data-testid="say">
                {prompt.say}
              </p>
            )}
            <ChildFace face={face} room="desk" onDeed={(deed) => "choice" in deed && tap(current, deed.choice)} />
          </>
        )}
      </div>
      {last && !paused && (
        <LastMark key={last.id} answer={last} setup={setup} ground={ground} onOverrule={overrule} />
      )}
      {shows && prompt && (
        <p className="mb-1 text-center text-soft">
          {prompt.say && face.show !== "nothing" && <strong className="text-ink">Say: {prompt.say} · </strong>}
          {prompt.expects}
        </p>
      )}
      {shows && (
        <MarkPad
          key={`${current} ${state.pass}`}
          pad={kind.pad(settings)}
          likely={likely}
          all={all}
          eachTitle={kind.id === "write" ? "Which ways were written" : "Which of its sounds were said"}
          likelyTitle={likelyTitles[kind.id] ?? "Instead"}
          onFace={face.show === "choices"}
          tags={kind.tags(settings)}
          onMark={mark}
        />
      )}
      <div
        className={`mt-2 mb-1 flex flex-wrap gap-1.5 ${hand === "left" ? "" : "justify-end lg:justify-start"}`}
        onPointerUp={release}
      >
        <Button className="min-h-12" onClick={undo} disabled={!last}>
          Undo <kbd className="text-xs text-soft">U</kbd>
        </Button>
        <Button className="min-h-12" onClick={() => setSheet("note")}>
          Note <kbd className="text-xs text-soft">N</kbd>
        </Button>
        <Button className="min-h-12" onClick={() => setPaused(!paused)}>
          {paused ? "Go on" : "Pause"} <kbd className="text-xs text-soft">P</kbd>
        </Button>
        {onScreen(kind.id).brackets && (
          <Button className="min-h-12" aria-pressed={brackets} onClick={() => setBrackets(!brackets)}>
            Brackets <kbd className="text-xs text-soft">B</kbd>
          </Button>
        )}
        <Button className="min-h-12" onClick={() => setSheet("face")}>
          Child sees <kbd className="text-xs text-soft">V</kbd>
        </Button>
        <Button className="min-h-12" onClick={() => setSheet("stop")} disabled={ended}>
          Stop here
        </Button>
      </div>
      <NoteSheet
        open={sheet === "note"}
        about={current ? kind.show(current) : child.name}
        onClose={() => setSheet(null)}
        onKeep={note}
      />
      <StopSheet
        open={sheet === "stop"}
        name={child.name}
        onClose={() => setSheet(null)}
        onStop={(why, all) => {
          setSheet(null);
          onStop(why, all);
        }}
      />
      <FacePanel
        open={sheet === "face"}
        code={code}
        onClose={() => setSheet(null)}
        onAsk={async () => setCode(await faceCodeFor(sitting.id))}
      />
    </>
  );
}

const noOthers: Readonly<Record<string, readonly string[]>> = {};

/** The answers that one press marked: those of all sounds of one card, in one round; else the last alone. */
function ofLastPress(
  answers: readonly GivenAnswer[],
  also: Readonly<Record<string, readonly string[]>>,
): readonly GivenAnswer[] {
  const faces = onFaces(answers, also);
  const last = faces.at(-1);
  let from = faces.length - 1;
  while (from > 0 && faces[from - 1]?.item === last?.item && faces[from - 1]?.pass === last?.pass) from--;
  return answers.slice(from).toReversed();
}

/** How far a round is, in a few words. */
function placeInWords({ pass, current, items }: DeskState, minute: boolean, done: number): string {
  const round = pass > 1 && !minute ? `Round ${pass}, ` : "";
  return round + (current === undefined ? `${done} of ${items.length} asked` : `${done + 1} of ${items.length}`);
}

const nothing: FaceBody = { show: "nothing" };

/** A face as it goes over the wire: its choices are a list of their own. */
function faceBody(face: Face): FaceBody {
  if (face.show === "choices") {
    const { gapped, ...plain } = face;
    return { ...plain, choices: [...face.choices], ...(gapped ? { gapped: [...gapped] } : {}) };
  }
  return face.show === "within" ? { ...face, letters: [...face.letters] } : face;
}

function Paused({ onGoOn }: { onGoOn: () => void }) {
  return (
    <div className="text-center">
      <p className="mb-4 text-lg">Paused. Everything so far is kept.</p>
      <div className="flex justify-center gap-2">
        <Button shape="main" onClick={onGoOn}>
          Go on
        </Button>
        <ButtonLink to="/">Come back later</ButtonLink>
      </div>
    </div>
  );
}

/** A button that was tapped lets the focus go, so that the space bar marks a card and does not press it again. */
function release(): void {
  setTimeout(() => document.activeElement instanceof HTMLButtonElement && document.activeElement.blur(), 0);
}

/** The deck as a row of short strokes that empties from the left: felt, not read. */
function Strokes({ items, done }: { items: readonly string[]; done: ReadonlySet<string> }) {
  return (
    <div className="mt-2 flex h-1.5 gap-px" aria-hidden>
      {items.map((item) => (
        <span key={item} className={`min-w-0 flex-1 rounded-full ${done.has(item) ? "bg-leaf-mid" : "bg-line"}`} />
      ))}
    </div>
  );
}
