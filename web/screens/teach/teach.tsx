import { useMemo, useState } from "react";
import { Link, useParams } from "react-router";
import { closeFace, getSession, type SessionView } from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import {
  hasMarks,
  isTogether,
  kindsOfPart,
  moreWords,
  offerIn,
  oneMore,
  readOf,
  type TeachOutcome,
  targetsOf,
} from "#core/plans";
import { shortDay } from "#core/saying";
import { call } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { faceCodeFor, useFace } from "#web/device/face-channel.ts";
import { useKept } from "#web/device/kept.ts";
import { keepKeys, useKeys } from "#web/device/keys.tsx";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { ChildFace } from "#web/parts/child-face.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Finish } from "./finish.tsx";
import { ChildMarks, SaidInstead } from "./marks.tsx";
import { TimeLine } from "./time-line.tsx";
import { faceOfTurn, isUnseen } from "./turn-face.ts";
import { type Teaching, useTeach } from "./use-teach.ts";

/** A session while it is taught: what is asked now, who says it how, and how the time goes. */
export function Screen() {
  const { sessionId = "" } = useParams();
  const { data, error } = useKept(getSession, { params: { id: sessionId } });
  const { ground, error: noWords } = useLexicon();
  const trouble = error ?? noWords;
  if (trouble && !(data && ground))
    return (
      <Page place="Teach" title="Teach">
        <Trouble error={trouble} />
      </Page>
    );
  if (!data || !ground || data.id !== sessionId)
    return (
      <Page place="Teach" title="Teach">
        <Waiting rows={9} />
      </Page>
    );
  return <Taught key={data.id} session={data} ground={ground} />;
}

function Taught({ session, ground }: { session: SessionView; ground: SchoolWords }) {
  const teaching = useTeach(session, ground.lexicon);
  if (!teaching)
    return (
      <Page place="Teach" title="Teach">
        <Waiting rows={9} />
      </Page>
    );
  return <Desk {...{ session, ground, teaching }} />;
}

interface DeskWanted {
  readonly session: SessionView;
  readonly ground: SchoolWords;
  readonly teaching: Teaching;
}

function Desk({ session, ground, teaching }: DeskWanted) {
  const { state, parts, act, undo, faceCode: code, setFaceCode } = teaching;
  const [sheet, setSheet] = useState<"face" | null>(null);
  /** What is heard or written was shown for this turn. */
  const [shown, setShown] = useState("");
  /** Marks under sounds were turned on or off for a part. */
  const [turned, setTurned] = useState<{ readonly part: number; readonly on: boolean }>();
  const part = parts[state.part];
  const turn = state.turns[state.turn];
  const { lexicon } = ground;
  const here = `${state.part} ${state.turn}`;
  const marksOn = part ? (turned?.part === state.part ? turned.on : hasMarks(part)) : false;
  const runs = state.begun && !state.ended && state.since !== null;
  const units = useMemo(
    () => (part && turn && kindsOfPart[part.kind].items === "words" ? lexicon.find(turn.item)[0]?.units : undefined),
    [part, turn, lexicon],
  );
  const face = runs
    ? faceOfTurn({
        ...{ kind: part?.kind ?? "teach", item: turn?.item, open: shown === here },
        units: marksOn ? units : undefined,
      })
    : ({ show: "nothing" } as const);
  useFace({ deskId: session.id, elsewhere: code !== null, face, onTap: () => {} });
  const more = useMemo(
    () => moreWords({ lexicon, known: new Set(session.known), targets: targetsOf(session.plan) }),
    [lexicon, session],
  );
  const used = useMemo(
    () => new Set([...parts.flatMap(({ items }) => items), ...state.turns.map(({ item }) => item)]),
    [parts, state.turns],
  );
  const nowMarks = state.marks.filter((mark) => mark.part === state.part && mark.turn === state.turn);
  const together = part ? isTogether(part) : false;
  const nameOf = (id: string) => session.members.find((one) => one.id === id)?.name ?? "";

  const mark = (childId: string, outcome: TeachOutcome) => {
    if (!runs || !turn) return;
    const made = {
      do: "mark",
      childId,
      outcome,
      said: null,
      marks: marksOn && units !== undefined,
      together,
    } as const;
    // A turn of one child ends with its mark; of all of them when the adult goes on.
    if (turn.childId === childId) act(made, { do: "next" });
    else act(made);
  };
  const everyone = () => {
    if (!runs || !turn) return;
    const left = state.here.filter((id) => !nowMarks.some((one) => one.childId === id));
    const made = left.map((childId) => ({
      ...({ do: "mark", childId, outcome: "got", said: null, together } as const),
      marks: marksOn && units !== undefined,
    }));
    act(...made, { do: "next" });
  };
  const word = (step: "same" | "easier" | "harder") =>
    part && turn ? oneMore(more, { kind: part.kind, like: turn.item, used, step }) : null;
  const offer = runs ? offerIn(state, parts) : null;
  const take = (step: "same" | "easier" | "harder") => {
    const item = word(step);
    if (item) act({ do: "more", item, easier: step === "easier" }, { do: "next" });
  };
  const answer = (taken: boolean) => {
    if (!offer) return;
    const item = taken ? word(offer === "smaller" ? "easier" : "harder") : null;
    act(
      { do: "offer", offer, taken },
      ...(item ? [{ do: "more", item, easier: offer === "smaller" } as const, { do: "next" } as const] : []),
    );
  };
  const markTurn = (outcome: TeachOutcome) => () => {
    if (turn?.childId) mark(turn.childId, outcome);
    else if (outcome === "got") everyone();
  };
  const next = () => runs && act({ do: "next" });
  const isUnseenNow = part !== undefined && isUnseen(part.kind) && part.kind !== "hear";
  const show = () => isUnseenNow && setShown(shown === here ? "" : here);
  const pause = () => state.begun && !state.ended && act({ do: state.since === null ? "go" : "pause" });
  const toPart = (at: number) => runs && parts[at] && act({ do: "part", part: at });
  useKeys([
    { key: "1", does: "Got it; everyone, where all answer", run: markTurn("got") },
    { key: "2", does: "With help", run: markTurn("help") },
    { key: "3", does: "Not yet", run: markTurn("notYet") },
    { key: "ArrowRight", does: "The next", run: () => void next() },
    { key: "ArrowLeft", does: "The one before", run: () => void (runs && act({ do: "back" })) },
    { key: "ArrowDown", does: "The next part", run: () => void toPart(state.part + 1) },
    { key: "ArrowUp", does: "The part before", run: () => void toPart(state.part - 1) },
    { key: "u", does: "Undo", run: () => undo?.() },
    { key: "p", does: "Pause, go on", run: () => void pause() },
    { key: "b", does: "Marks under sounds", run: () => setTurned({ part: state.part, on: !marksOn }) },
    { key: "s", does: "Show what was heard or written", run: () => void show() },
    { key: "m", does: "One more like this", run: () => take("same") },
    { key: "e", does: "An easier one", run: () => take("easier") },
    { key: "v", does: "What the children see", run: () => setSheet("face") },
  ]);

  const leave = async () => {
    if (code !== null) await call(closeFace, { params: { id: session.id } }).catch(() => undefined);
    setFaceCode(null);
  };
  const lastMissed = state.marks.findLast((one) => one.outcome === "notYet" && one.part === state.part && !one.said);
  const isLast = state.part === parts.length - 1;
  const isOver = runs && turn === undefined;
  const noOne = state.here.length === 0;

  return (
    <Page
      place="Teach"
      title={session.groupName}
      about={`${shortDay(session.heldOn, todayHere())}. ${session.reports.length > 0 ? "Someone has said already what happened in this session; what is marked here comes to it." : ""}`}
      actions={
        <>
          <Button onClick={() => setSheet("face")}>What the children see</Button>
          <ButtonLink to={`/sessions/${session.id}`}>The plan</ButtonLink>
          {state.begun && !state.ended && (
            <Button onClick={() => act({ do: "end" })} shape={isOver && isLast ? "main" : "plain"}>
              End the session
            </Button>
          )}
        </>
      }
    >
      {parts.length === 0 ? (
        <p>
          This session has no part. <Link to={`/sessions/${session.id}`}>Add one to its plan</Link> first.
        </p>
      ) : state.ended ? (
        <Finish {...{ session, teaching, nameOf, onLeave: leave }} />
      ) : (
        <>
          <TimeLine state={state} parts={parts} onPart={toPart} />
          <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_26rem]">
            <section
              aria-label="Now"
              className="flex min-h-[19rem] flex-col lg:min-h-[29.5rem] rounded-lg border border-line bg-sheet p-4"
            >
              {part && (
                <>
                  <div className="flex items-baseline justify-between gap-3">
                    <h2>{kindsOfPart[part.kind].title}</h2>
                    <span className="text-sm text-soft">
                      {state.begun && state.turns.length > 0
                        ? `${Math.min(state.turn + 1, state.turns.length)} of ${state.turns.length}`
                        : `${part.minutes} min`}
                    </span>
                  </div>
                  <p className="text-soft">{part.how}</p>
                </>
              )}
              <div className="flex flex-1 flex-col items-center justify-center gap-2 py-3">
                {!state.begun ? (
                  <>
                    <p>{noOne ? "No one is here yet. Tick who came." : "Tick who is here, then begin."}</p>
                    <Button shape="main" className="min-h-12" onClick={() => act({ do: "begin" })}>
                      Begin
                    </Button>
                  </>
                ) : state.since === null ? (
                  <>
                    <p>Paused. Everything so far is kept.</p>
                    <Button shape="main" className="min-h-12" onClick={() => void pause()}>
                      Go on
                    </Button>
                  </>
                ) : turn === undefined ? (
                  <>
                    <p>{state.turns.length === 0 ? "Nothing is planned for this part." : "This part is done."}</p>
                    {isLast ? (
                      <Button shape="main" className="min-h-12" onClick={() => act({ do: "end" })}>
                        End the session
                      </Button>
                    ) : (
                      <Button shape="main" className="min-h-12" onClick={() => toPart(state.part + 1)}>
                        {kindsOfPart[parts[state.part + 1]?.kind ?? "teach"].title}
                      </Button>
                    )}
                  </>
                ) : face.show === "nothing" ? (
                  <p className="text-center font-child text-4xl" data-testid="say">
                    {turn.item}
                  </p>
                ) : (
                  <ChildFace face={face} room="desk" />
                )}
              </div>
              {runs && turn && (
                <>
                  <p className="mb-2 text-center text-soft">
                    {turn.childId ? nameOf(turn.childId) : "Everyone"}
                    {face.show === "nothing" && isUnseenNow && ": say it; it is not shown"}
                    {part && kindsOfPart[part.kind].items === "lines" && readOf(part.kind, turn.item) !== turn.item
                      ? ` · ${turn.item.slice(readOf(part.kind, turn.item).length).trim()}`
                      : ""}
                  </p>
                  <div className="flex flex-wrap justify-center gap-1.5">
                    <Button
                      className="min-h-11"
                      onMouseDown={keepKeys}
                      disabled={state.turn === 0}
                      onClick={() => act({ do: "back" })}
                    >
                      Back
                    </Button>
                    {turn.childId === null && !noOne ? (
                      <Button shape="main" className="min-h-11" onMouseDown={keepKeys} onClick={everyone}>
                        Everyone else got it
                      </Button>
                    ) : null}
                    <Button className="min-h-11" onMouseDown={keepKeys} onClick={next}>
                      Next
                    </Button>
                    {isUnseenNow && (
                      <Button
                        className="min-h-11"
                        onMouseDown={keepKeys}
                        aria-pressed={shown === here}
                        onClick={show}
                      >
                        {shown === here ? "Hide it" : "Show it"}
                      </Button>
                    )}
                    {units && (
                      <Button
                        className="min-h-11"
                        onMouseDown={keepKeys}
                        aria-pressed={marksOn}
                        onClick={() => setTurned({ part: state.part, on: !marksOn })}
                      >
                        Marks
                      </Button>
                    )}
                    {word("same") && (
                      <Button className="min-h-11" onMouseDown={keepKeys} onClick={() => take("same")}>
                        One more like this
                      </Button>
                    )}
                    {word("easier") && (
                      <Button className="min-h-11" onMouseDown={keepKeys} onClick={() => take("easier")}>
                        Easier
                      </Button>
                    )}
                  </div>
                </>
              )}
            </section>
            <section aria-label="Marks" className="rounded-lg border border-line bg-sheet p-2">
              <ChildMarks
                members={session.members}
                here={state.here}
                childId={runs && turn ? turn.childId : null}
                marks={nowMarks}
                disabled={!runs || !turn}
                onMark={mark}
                onHere={(childId, is) => act({ do: "here", childId, here: is })}
              />
              <div className="mt-2 flex min-h-11 items-center gap-2 border-t border-line pt-2">
                <Button onMouseDown={keepKeys} disabled={!undo} onClick={() => undo?.()}>
                  Undo <kbd className="text-xs text-soft">U</kbd>
                </Button>
                <Button onMouseDown={keepKeys} disabled={!state.begun} onClick={() => void pause()}>
                  {state.begun && state.since === null ? "Go on" : "Pause"} <kbd className="text-xs text-soft">P</kbd>
                </Button>
              </div>
              {lastMissed && (
                <div className="mt-2">
                  <SaidInstead
                    key={lastMissed.id}
                    name={nameOf(lastMissed.childId)}
                    item={
                      kindsOfPart[part?.kind ?? "teach"].items === "spellings"
                        ? showGrapheme(splitGpc(lastMissed.item).grapheme)
                        : lastMissed.item
                    }
                    onSaid={(said) => act({ do: "said", of: lastMissed.id, said })}
                  />
                </div>
              )}
              {offer && (
                <div role="status" className="mt-2 rounded-md bg-leaf-pale px-3 py-2">
                  {offer === "smaller"
                    ? "Two of them stumble. A smaller step: an easier word, with marks under its sounds."
                    : "All of them have it. A harder one?"}
                  <span className="mt-1 flex gap-2">
                    <Button
                      onClick={() => {
                        if (offer === "smaller") setTurned({ part: state.part, on: true });
                        answer(true);
                      }}
                    >
                      {offer === "smaller" ? "Take the smaller step" : "Take a harder one"}
                    </Button>
                    <Button shape="quiet" onClick={() => answer(false)}>
                      Go on as planned
                    </Button>
                  </span>
                </div>
              )}
            </section>
          </div>
        </>
      )}
      <FacePanel
        open={sheet === "face"}
        code={code}
        onClose={() => setSheet(null)}
        onAsk={async () => setFaceCode(await faceCodeFor(session.id))}
      />
    </Page>
  );
}
