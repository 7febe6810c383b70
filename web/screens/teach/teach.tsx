import { useState } from "react";
import { Link, useParams } from "react-router";
import { closeFace, getSession, listTexts, type SessionView } from "#contract";
import { shortDay } from "#core/saying";
import { call } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { useLive } from "#web/device/desk-live.ts";
import { faceCodeFor, useFace } from "#web/device/face-channel.ts";
import { useKept } from "#web/device/kept.ts";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { useTextLook } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { FaceHere } from "#web/parts/face-page.tsx";
import { FacePanel } from "#web/parts/face-panel.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { Finish } from "./finish.tsx";
import { Now } from "./now.tsx";
import { Side } from "./side.tsx";
import { TimeLine } from "./time-line.tsx";
import { useDesk } from "./use-desk.ts";
import { type Teaching, useTeach } from "./use-teach.ts";

/** A session while it is taught: what is asked now, who says it how, and how the time goes. */
export function Screen() {
  const { sessionId = "" } = useParams();
  const { data, error } = useKept(getSession, { params: { id: sessionId } });
  const { ground, error: noWords } = useLexicon();
  const trouble = error ?? noWords;
  if (data && ground && data.id === sessionId) return <Taught key={data.id} session={data} ground={ground} />;
  return (
    <Page place="Teach" title="Teach">
      {trouble ? <Trouble error={trouble} /> : <Waiting rows={9} />}
    </Page>
  );
}

function Taught({ session, ground }: { session: SessionView; ground: SchoolWords }) {
  const teaching = useTeach(session, ground.lexicon);
  if (teaching) return <TeachDesk {...{ session, ground, teaching }} />;
  return (
    <Page place="Teach" title="Teach">
      <Waiting rows={9} />
    </Page>
  );
}

interface DeskWanted {
  readonly session: SessionView;
  readonly ground: SchoolWords;
  readonly teaching: Teaching;
}

function TeachDesk({ session, ground, teaching }: DeskWanted) {
  const { state, parts, act, faceCode, setFaceCode } = teaching;
  const [seeing, setSeeing] = useState(false);
  const [turned, setTurned] = useState(false);
  const shelf = useKept(listTexts, {}, { revalidateOnFocus: false });
  const [look] = useTextLook();
  const part = parts[state.part];
  const title = part?.kind === "text" ? state.turns[state.turn]?.item : undefined;
  const text = shelf.data?.find((one) => one.title === title);
  const passage = text && { text: text.body, size: look.size, spacing: look.spacing };
  const desk = useDesk({ session, ground, teaching, passage, onSeen: () => setSeeing(true) });
  useFace({ deskId: session.id, elsewhere: faceCode !== null, face: desk.face, onDeed: desk.onDeed });
  useLive(
    session.id,
    (event) => {
      if (event.kind === "tap" || event.kind === "laid") desk.onDeed(event);
    },
    () => {},
    faceCode !== null,
  );
  const nameOf = (id: string) => session.members.find((one) => one.id === id)?.name ?? "";
  const leave = async () => {
    if (faceCode !== null) await call(closeFace, { params: { id: session.id } }).catch(() => undefined);
    setFaceCode(null);
  };
  const said =
    session.reports.length > 0
      ? " Someone has said already what happened in this session; what is marked here comes to it."
      : "";
  return (
    <Page
      place="Teach"
      title={session.groupName}
      about={`${shortDay(session.heldOn, todayHere())}.${said}`}
      actions={
        <>
          <Button onClick={() => setSeeing(true)}>What the children see</Button>
          <ButtonLink to={`/sessions/${session.id}`}>The plan</ButtonLink>
          {state.begun && !state.ended && <Button onClick={() => act({ do: "end" })}>End the session</Button>}
        </>
      }
    >
      {parts.length === 0 ? (
        <p>
          This session has no part. <Link to={`/sessions/${session.id}`}>Add one to its plan</Link> first.
        </p>
      ) : state.ended ? (
        <Finish {...{ session, teaching, nameOf, texts: shelf.data ?? [], onLeave: leave }} />
      ) : (
        <>
          <TimeLine state={state} parts={parts} onPart={desk.toPart} />
          <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_26rem]">
            <Now {...{ desk, teaching, nameOf, text }} isTextGone={title !== undefined && !text && !!shelf.data} />
            <Side {...{ session, desk, teaching, nameOf }} />
          </div>
        </>
      )}
      <FacePanel
        open={seeing}
        code={faceCode}
        onClose={() => setSeeing(false)}
        onAsk={async () => setFaceCode(await faceCodeFor(session.id))}
        onHere={() => {
          setSeeing(false);
          setTurned(true);
        }}
      />
      <FaceHere open={turned} onClose={() => setTurned(false)} face={desk.face} onDeed={desk.onDeed} />
    </Page>
  );
}
