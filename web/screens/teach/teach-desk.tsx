import { type ReactNode, useCallback, useMemo, useRef, useState } from "react";
import type { Lexicon } from "#core/words";
import { useLive } from "#web/device/desk-live.ts";
import { useFace } from "#web/device/face-channel.ts";
import { useTextLook } from "#web/device/settings.ts";
import { useVoice } from "#web/device/voice.ts";
import { Button } from "#web/parts/button.tsx";
import { FaceHere } from "#web/parts/face-page.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { Page } from "#web/parts/page.tsx";
import { Now } from "./now.tsx";
import { Side } from "./side.tsx";
import { TimeLine } from "./time-line.tsx";
import { useDesk } from "./use-desk.ts";
import type { TaughtSession, Teaching, TextMarks } from "./use-teach.ts";

interface DeskWanted {
  readonly session: TaughtSession;
  readonly lexicon: Lexicon;
  readonly teaching: Teaching;
  /** Texts of the shelf; undefined until they came. */
  readonly texts: readonly TextMarks["text"][] | undefined;
  /** The school has what is only heard said by devices too. */
  readonly speaks: boolean;
  readonly about: string;
  /** Leads away from here. */
  readonly actions: ReactNode;
  /** Gets a code for the children's screen on another device; missing where no one is signed in. */
  readonly onCode?: () => Promise<string>;
  /** What is there instead when it has no part. */
  readonly empty: ReactNode;
  /** What comes after its end. */
  readonly finish: (nameOf: (id: string) => string) => ReactNode;
}

/** A session while it is taught: what is asked now, who says it how, and how the time goes. */
export function TeachDesk(wanted: DeskWanted) {
  const { session, lexicon, teaching, texts, speaks, about, actions, onCode, empty, finish } = wanted;
  const { state, parts, act, faceCode, setFaceCode } = teaching;
  const [seeing, setSeeing] = useState(false);
  const [turned, setTurned] = useState(false);
  const [other, setOther] = useState<string>();
  const voice = useVoice(speaks);
  const [look] = useTextLook();
  const title = parts[state.part]?.kind === "text" ? state.turns[state.turn]?.item : undefined;
  const text = texts?.find((one) => one.title === title);
  const passage = text && { text: text.body, size: look.size, spacing: look.spacing };
  const desk = useDesk({ session, lexicon, teaching, passage, onSeen: () => setSeeing(true) });
  const [isScreenGone, setScreenGone] = useState(false);
  const onScreen = (isOpen: boolean) => setScreenGone(!isOpen);
  useFace({ deskId: session.id, elsewhere: faceCode !== null, face: desk.face, onDeed: desk.onDeed, onScreen });
  useLive(
    session.id,
    (event) => {
      if (event.kind === "screen") return onScreen(event.isOpen);
      if (event.kind !== "answers") return desk.onDeed(event);
      const theirs = event.answers.find((one) => one.outcome !== "void" && !teaching.isMine(one.id));
      if (theirs) setOther(theirs.markedBy);
    },
    () => {},
    onCode !== undefined,
  );
  const latest = useRef(desk.toPart);
  latest.current = desk.toPart;
  const toPart = useCallback((part: number) => latest.current(part), []);
  const nameOf = (id: string) => session.members.find((one) => one.id === id)?.name ?? "";
  const canEnd = state.begun && !state.ended;
  const latestAct = useRef(act);
  latestAct.current = act;
  // A mark changes nothing of them: they are not drawn anew for it.
  const heads = useMemo(
    () => (
      <>
        <Button onClick={() => setSeeing(true)}>What the children see</Button>
        {actions}
        {canEnd && <Button onClick={() => latestAct.current({ do: "end" })}>End the session</Button>}
      </>
    ),
    [actions, canEnd],
  );
  return (
    <Page place="Teach" title={session.groupName} about={about} actions={heads}>
      {parts.length === 0 ? (
        empty
      ) : state.ended ? (
        finish(nameOf)
      ) : (
        <>
          {other !== undefined && (
            <p role="status" className="mb-3 rounded-md bg-leaf-pale px-3 py-2">
              {other} marks this session on another device too. All marks are kept; say who marks whom, so that no
              child is marked twice for the same.
            </p>
          )}
          {isScreenGone && (
            <p role="status" className="mb-3 rounded-md bg-damson-pale px-3 py-2">
              The children's screen was closed, or has no line. Nothing is lost: opened again, it shows what is asked
              then.
            </p>
          )}
          <TimeLine state={state} parts={parts} onPart={toPart} />
          <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_26rem]">
            <Now
              {...{ desk, teaching, nameOf, text }}
              onSay={voice.isOn ? voice.say : undefined}
              isTextGone={title !== undefined && !text && texts !== undefined}
            />
            <Side {...{ session, desk, teaching, nameOf }} />
          </div>
        </>
      )}
      {seeing && (
        <FacePanel
          open
          code={faceCode}
          onClose={() => setSeeing(false)}
          onAsk={onCode && (async () => setFaceCode(await onCode()))}
          onHere={() => {
            setSeeing(false);
            setTurned(true);
          }}
        >
          {voice.isThere && (
            <label className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-leaf"
                checked={voice.isOn}
                onChange={(event) => voice.setOn(event.target.checked)}
              />
              This device says what is only heard, with a voice of its own
            </label>
          )}
        </FacePanel>
      )}
      {turned && <FaceHere onClose={() => setTurned(false)} face={desk.face} onDeed={desk.onDeed} />}
    </Page>
  );
}
