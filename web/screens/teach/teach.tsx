import { type ComponentProps, useMemo } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  closeFace,
  getSchool,
  getSession,
  listTexts,
  type ReportBody,
  reportSession,
  type SessionView,
  saveReading,
} from "#contract";
import { shortDay } from "#core/saying";
import { call, refreshAll } from "#web/device/api.ts";
import { todayHere } from "#web/device/clock.ts";
import { faceCodeFor } from "#web/device/face-channel.ts";
import { useKept } from "#web/device/kept.ts";
import { type SchoolWords, useLexicon } from "#web/device/lexicon.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { freshReading } from "#web/device/reading-body.ts";
import { useMarker } from "#web/device/settings.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Page, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { Finish } from "./finish.tsx";
import { TeachDesk } from "./teach-desk.tsx";
import { textsRead } from "./texts-read.ts";
import { useTeach } from "./use-teach.ts";

/** A session that is taught by whoever is signed in. */
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

/** The end, with how many marks still wait on this device. */
function FinishHere(wanted: Omit<ComponentProps<typeof Finish>, "unsent">) {
  const { waiting } = useOutbox();
  return (
    <Finish {...wanted} unsent={waiting.filter((one) => "source" in one && one.source.kind === "session").length} />
  );
}

function Taught({ session, ground }: { session: SessionView; ground: SchoolWords }) {
  const { lexicon } = ground;
  const teaching = useTeach(session, { lexicon, sendsAtOnce: true });
  const shelf = useKept(listTexts, {}, { revalidateOnFocus: false });
  const { data: school } = useKept(getSchool, {});
  const navigate = useNavigate();
  const [marker] = useMarker();
  const actions = useMemo(() => <ButtonLink to={`/sessions/${session.id}`}>The plan</ButtonLink>, [session.id]);
  if (!teaching)
    return (
      <Page place="Teach" title="Teach">
        <Waiting rows={9} />
      </Page>
    );
  const by = marker.trim() || "Teacher";
  const send = async (report: ReportBody) => {
    for (const { readingId, childId, text, marks } of textsRead(teaching, shelf.data ?? [])) {
      const body = { ...freshReading({ text, childId, how: "alone", fit: null, markedBy: by }), marks: [...marks] };
      await call(saveReading, { params: { id: readingId }, body });
    }
    await call(reportSession, { params: { id: session.id }, body: report });
    if (teaching.faceCode !== null) await call(closeFace, { params: { id: session.id } }).catch(() => undefined);
    teaching.setFaceCode(null);
    await teaching.forget();
    await refreshAll();
    toast("Sent. What was marked is in the answers of each child.");
    return () => navigate(`/sessions/${session.id}`);
  };
  const closed = session.closed ? " This group is closed; what is marked here is kept all the same." : "";
  const said =
    session.reports.length > 0
      ? " Someone has said already what happened in this session; what is marked here comes to it."
      : "";
  return (
    <TeachDesk
      {...{ session, lexicon, teaching, texts: shelf.data }}
      speaks={school?.checks.deviceVoice ?? false}
      about={`${shortDay(session.heldOn, todayHere())}.${closed}${said}`}
      actions={actions}
      onCode={() => faceCodeFor(session.id)}
      empty={
        <p>
          This session has no part. <Link to={`/sessions/${session.id}`}>Add one to its plan</Link> first.
        </p>
      }
      finish={(nameOf) => <FinishHere {...{ teaching, nameOf, by }} onSend={send} />}
    />
  );
}
