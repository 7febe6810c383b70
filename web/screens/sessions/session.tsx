import { Copy, Play, Printer, RefreshCw, Share2 } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  editSession,
  getSchool,
  getSession,
  otherPart,
  type PlanBody,
  removeSession,
  replanSession,
  restoreSession,
  type SessionView,
} from "#contract";
import { showGrapheme, splitGpc } from "#core/phonics";
import { focusName, kindsOfPart, type PartKind, targetsOf } from "#core/plans";
import { nearDay, plural, shortDay } from "#core/saying";
import { judgeWord, type TaughtReader } from "#core/words";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { todayHere } from "#web/device/clock.ts";
import { useGiven, useWhose } from "#web/device/given.ts";
import { useLexicon } from "#web/device/lexicon.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useNotes } from "#web/device/notes.ts";
import { newSeed } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { GivenSelect } from "#web/parts/given.tsx";
import { Notes } from "#web/parts/notes.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { SessionCard } from "./card.tsx";
import { ReportForm } from "./report-form.tsx";
import { Reports } from "./reports.tsx";
import { SessionChanged } from "./session-changed.tsx";
import { SessionParts } from "./session-parts.tsx";
import { CopySheet, KeepSheet, PlanSheet, type Replan } from "./session-sheets.tsx";
import { SharePanel } from "./share-panel.tsx";
import { NextPlanned, Since } from "./since.tsx";

/** One session: its plan to edit, its card to print, its link to share, and what came back. */
export function Screen() {
  const { sessionId = "" } = useParams();
  const { data, error } = useAskSliced(getSession, { params: { id: sessionId } });
  const school = useAsk(getSchool, {});
  if (error && !data)
    return (
      <Page place="Session" title="Session">
        <Trouble error={error} />
      </Page>
    );
  if (!data || !school.data || data.id !== sessionId)
    return (
      <Page place="Session" title="Session">
        <Waiting rows={10} />
      </Page>
    );
  return <Session key={data.id} session={data} today={school.data.today} />;
}

/** The person to whom the session is given; a teacher gives it to someone else. */
function WhoTakesIt({ session }: { session: SessionView }) {
  const { id, groupName: name, givenTo, state } = session;
  const teaches = useIsAtLeast("teacher");
  const whose = useWhose()(givenTo);
  const given = useGiven({ id, name, givenTo });
  if (state === "held" || (!teaches && givenTo === null)) return null;
  return (
    <Panel title="Who takes it">
      {teaches ? (
        <>
          <GivenSelect name={name} anyone="whoever takes the group" {...given} />
          <p className="mt-1.5 text-sm text-soft">
            {givenTo
              ? `${whose === "mine" ? "You see" : `${givenTo.name} sees`} this card, the group and its children until a week after the session.`
              : "Given to one person it stands first on their Today, and they see its group until a week after."}
          </p>
        </>
      ) : (
        <p>It is given to {whose === "mine" ? "you" : givenTo?.name}.</p>
      )}
    </Panel>
  );
}

/** A plan in words, part by part. */
function saysOfPlan(plan: PlanBody): Record<string, string> {
  const target = plan.focus
    ? focusName(plan.focus)
    : targetsOf(plan)
        .map((gpc) => showGrapheme(splitGpc(gpc).grapheme))
        .join(", ");
  const parts = plan.parts.map(({ kind, items, minutes }, at) => [
    `${at + 1}. ${kindsOfPart[kind].title}`,
    `${plural(minutes, "minute")}: ${items.join(", ")}`,
  ]);
  return { Target: target, ...Object.fromEntries(parts) };
}

function Session({ session, today }: { session: SessionView; today: string }) {
  const navigate = useNavigate();
  const { ground } = useLexicon();
  const notes = useNotes({ sessionId: session.id });
  const [dialog, setDialog] = useState<"share" | "report" | "plan" | "copy" | "keep" | null>(null);
  const reader: TaughtReader | undefined = useMemo(
    () =>
      ground && {
        known: new Set(session.known),
        teaching: new Set(targetsOf(session.plan)),
        wholes: new Set(session.wholes.map((word) => word.toLowerCase())),
        lexicon: ground.lexicon,
        accent: ground.accent,
      },
    [session, ground],
  );
  /** What is undone later is written over what stands by then. */
  const newest = useRef(session);
  useEffect(() => {
    newest.current = session;
  }, [session]);
  const names = session.members.map((member) => member.name);

  const write = async (run: () => Promise<unknown>, said?: string) => {
    try {
      await run();
      await refreshAll();
      if (said) toast(said);
      return true;
    } catch (error) {
      toast.error(wordsOfError(error));
      await refreshAll();
      return false;
    }
  };
  /** Changes the day or the plan, over the version that stands here. */
  const edit = (change: { heldOn?: string; plan?: PlanBody }) =>
    write(() =>
      saveOver({
        content: change,
        onto: newest.current.version,
        send: (content, version) => call(editSession, { params: { id: session.id }, body: { ...content, version } }),
        says: ({ heldOn, plan }) => ({
          ...(heldOn === undefined || change.heldOn === undefined ? {} : { Day: nearDay(heldOn, today) }),
          ...(plan === undefined || change.plan === undefined ? {} : saysOfPlan(plan)),
        }),
      }),
    );
  const savePlan = (plan: PlanBody) => edit({ plan });
  const replan = ({ target, second, focus, routine }: Replan) =>
    write(
      () =>
        saveOver({
          content: { target, second } as { target: string; second: string | null; plan?: PlanBody },
          onto: session.version,
          send: (_, version) =>
            call(replanSession, {
              params: { id: session.id },
              body: { target, second, focus: focus && [...focus], routine, version, seed: newSeed() },
            }),
          says: ({ plan }) =>
            plan
              ? saysOfPlan(plan)
              : { Target: showGrapheme(splitGpc(target).grapheme), "All parts": "filled anew from the word list" },
        }),
      "Filled anew from the word list.",
    );
  /** One part filled with other words; the plan as it was is one press away. */
  const others = async (at: number) => {
    try {
      const { version } = session;
      const filled = await call(otherPart, { params: { id: session.id, at }, body: { version, seed: newSeed() } });
      await refreshAll();
      const before = session.plan;
      toastWithUndo("Filled with others.", () =>
        write(() =>
          call(editSession, { params: { id: session.id }, body: { version: filled.version, plan: before } }),
        ),
      );
    } catch (error) {
      toast.error(wordsOfError(error));
      await refreshAll();
    }
  };
  /** A part of this kind at the end, filled for these children; without anything to fill it with it stays empty. */
  const fill = async (kind: PartKind) => {
    const { minutes } = kindsOfPart[kind];
    const { parts } = session.plan;
    const plan = { ...session.plan, parts: [...parts, { kind, minutes, items: [], how: "" }] };
    await write(async () => {
      const { version } = await call(editSession, {
        params: { id: session.id },
        body: { version: session.version, plan },
      });
      await call(otherPart, { params: { id: session.id, at: parts.length }, body: { version, seed: newSeed() } });
    });
  };
  const remove = async () => {
    if (!(await write(() => call(removeSession, { params: { id: session.id } })))) return;
    navigate("/sessions");
    toastWithUndo(`The session of ${session.groupName} is removed.`, () =>
      write(() => call(restoreSession, { params: { id: session.id } }), "The session is back."),
    );
  };
  const minutes = session.plan.parts.reduce((sum, part) => sum + part.minutes, 0);

  return (
    <Page
      place="Session"
      title={
        <Link to={`/groups/${session.groupId}`} className="underline decoration-line underline-offset-4">
          {session.groupName}
        </Link>
      }
      about={`${shortDay(session.heldOn, todayHere())}, ${plural(minutes, "minute")}, with ${names.join(", ")}${session.plan.focus ? `; about ${focusName(session.plan.focus)}` : session.point ? `; part of “${session.point.name}”` : ""}`}
      actions={
        <>
          {session.reports.length === 0 && (
            <Button onClick={() => setDialog("plan")}>
              <RefreshCw size={15} aria-hidden /> Change day or target
            </Button>
          )}
          <ButtonLink to={`/sessions/${session.id}/materials`}>To lay out</ButtonLink>
          <Button onClick={() => setDialog("copy")}>
            <Copy size={15} aria-hidden /> Copy
          </Button>
          <Button onClick={() => setDialog("report")}>Say what happened</Button>
          <Button onClick={() => setDialog("share")}>
            <Share2 size={15} aria-hidden /> Share
          </Button>
          <Button onClick={() => window.print()}>
            <Printer size={15} aria-hidden /> Print the card
          </Button>
          <ButtonLink to={`/sessions/${session.id}/teach`} shape="main">
            <Play size={15} aria-hidden /> Teach
          </ButtonLink>
        </>
      }
    >
      <div className="only-print">
        <SessionCard
          point={session.point}
          groupName={session.groupName}
          heldOn={session.heldOn}
          names={names}
          nameOf={(id) => session.members.find((one) => one.id === id)?.name ?? ""}
          plan={session.plan}
          readOf={(word) => (reader && reader.lexicon.find(word).length > 0 ? judgeWord(word, reader) : undefined)}
        />
      </div>
      <div className="no-print grid items-start gap-4 lg:grid-cols-[5fr_2fr]">
        <div className="rounded-lg border border-line bg-sheet">
          {session.closed && (
            <p role="status" className="border-b border-line bg-leaf-pale px-4 py-2">
              This group is closed. What was planned can still be taught and said; nothing new is planned for it.
            </p>
          )}
          {session.plan.remarks.map((remark) => (
            <p key={remark} className="border-b border-line bg-leaf-pale px-4 py-2">
              {remark}
            </p>
          ))}
          <SessionParts {...{ session, reader, onPlan: savePlan, onOthers: others, onFill: fill }} />
        </div>
        <div className="flex flex-col gap-4">
          <WhoTakesIt session={session} />
          <Since session={session} today={today} />
          <Reports session={session} today={today} />
          <SessionChanged session={session} />
          <NextPlanned session={session} today={today} />
          {notes && <Notes {...notes} today={today} all="everyone who has this group" />}
          <Panel title="Children">
            <ul>
              {session.members.map((member) => (
                <li key={member.id} className="py-1">
                  <Link
                    to={`/child/${member.id}`}
                    className="underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {member.name}
                  </Link>
                  {member.absent && <span className="ml-2 text-sm text-soft">absent that day</span>}
                  {member.note && <span className="block text-sm text-soft">{member.note}</span>}
                </li>
              ))}
            </ul>
          </Panel>
          <p className="text-sm text-soft">
            Every word uses only what{" "}
            {session.members.length === 1 ? "this child" : `all ${session.members.length} children`} can read, and the
            spelling being taught. A word that does not is marked with what stands in the way.
          </p>
        </div>
      </div>
      {dialog === "share" && <SharePanel session={session} today={today} onClose={() => setDialog(null)} />}
      {dialog === "plan" && (
        <PlanSheet
          session={session}
          onClose={() => setDialog(null)}
          onReplan={replan}
          onRemove={remove}
          onDay={(heldOn) => edit({ heldOn })}
          onKeep={() => setDialog("keep")}
        />
      )}
      {dialog === "keep" && <KeepSheet session={session} onClose={() => setDialog(null)} />}
      {dialog === "copy" && <CopySheet session={session} onClose={() => setDialog(null)} />}
      {dialog === "report" && (
        <Sheet open onClose={() => setDialog(null)} title="What happened">
          <ReportForm session={session} onDone={() => setDialog(null)} />
        </Sheet>
      )}
    </Page>
  );
}
