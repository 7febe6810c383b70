import { Suspense, useEffect, useMemo, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { type CheckView, type DeskEvent, getSitting, type SittingView } from "#contract";
import { kinds, onFaces } from "#core/checks";
import { type GivenAnswer, type StopReason, standing, stopIn } from "#core/ledger";
import { plural } from "#core/saying";
import { useLive } from "#web/device/desk-live.ts";
import { useKept } from "#web/device/kept.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { Page, Trouble, usePlaceTitle, Waiting } from "#web/parts/page.tsx";
import type { DeskWanted, Progress } from "./at-desk.ts";
import { CardDesk } from "./card-desk.tsx";
import { Colleague, useColleague } from "./colleague.tsx";
import { onScreen } from "./kinds/index.ts";
import { useSittingLog, useStamp } from "./log.ts";
import { Queue } from "./queue.tsx";
import { WritingDesk } from "./writing-desk.tsx";

export function Screen() {
  const { sittingId = "" } = useParams();
  const { data, error, refresh } = useKept(
    getSitting,
    { params: { id: sittingId } },
    { revalidateOnFocus: false, revalidateOnReconnect: false },
  );
  if (error)
    return (
      <Page place="Check" title="Check">
        <Trouble error={error} />
      </Page>
    );
  if (!data || data.id !== sittingId)
    return (
      <Page place="Check" title="Check">
        <Waiting />
      </Page>
    );
  return <Desk key={data.id} sitting={data} onRefresh={() => void refresh()} />;
}

function Desk({ sitting, onRefresh }: { sitting: SittingView; onRefresh: () => void }) {
  usePlaceTitle("Check");
  // A desk of a kind's own comes with the sitting that needs it, so that none waits for a connection in the middle of it.
  useEffect(() => {
    for (const one of sitting.checks) void onScreen(one.kind).together?.load();
  }, [sitting.checks]);
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const log = useSittingLog(sitting);
  const slowAfterMs = sitting.settings.slowAfter * 1000;
  const colleague = useColleague();
  const [tapped, setTapped] = useState<(DeskEvent & { kind: "tap" }) | null>(null);
  useLive(
    sitting.id,
    (event) => {
      if (event.kind === "answers") colleague.saw(log.take(event.answers));
      if (event.kind === "tap") setTapped(event);
    },
    onRefresh,
  );

  const isEnded = (check: CheckView): boolean => {
    const entries = log.of(check.id);
    const told = entries.some((entry) => entry.outcome === "stop");
    return told ? stopIn(entries, check.id) !== undefined : check.endedAt !== null;
  };
  const progress = new Map(
    sitting.checks.map((check): [string, Progress] => [
      check.id,
      { ended: isEnded(check), asked: askedIn(check, standing(log.of(check.id))) },
    ]),
  );
  const open = sitting.checks.filter((check) => !progress.get(check.id)?.ended);
  const asked = search.get("check");
  const check =
    sitting.checks.find((one) => one.id === asked) ?? open[0] ?? (sitting.checks[0] as CheckView | undefined);
  const child = sitting.children.find((one) => one.id === check?.childId);
  const stamp = useStamp(child?.id ?? "");
  const answers = useMemo(
    () => (check ? standing(log.of(check.id), { slowAfterMs }) : []),
    [check, log, slowAfterMs],
  );
  if (!check || !child) return <Gone />;
  if (!log.ready)
    return (
      <div className="p-6">
        <Waiting />
      </div>
    );

  const go = (checkId: string) => setSearch({ check: checkId }, { replace: true });
  const left = open.filter((one) => one.id !== check.id);
  const following =
    left.find((one) => one.childId === check.childId) ??
    left.find((one) => sitting.checks.indexOf(one) > sitting.checks.indexOf(check)) ??
    left[0];
  const after = (closed: readonly string[]) => {
    const next = [following, ...left].find((one) => one !== undefined && !closed.includes(one.id));
    if (next) go(next.id);
    else navigate(`/check/${sitting.id}/result?child=${child.id}`);
  };
  const end = (ids: readonly string[], why: StopReason) => {
    for (const checkId of ids) log.put({ ...stamp(), source: { kind: "check", checkId }, outcome: "stop", why });
    after(ids);
  };
  const nextName = !following
    ? "See what this check says"
    : following.childId === check.childId
      ? `Next: ${kinds[following.kind].name}`
      : `Next child: ${sitting.children.find((one) => one.id === following.childId)?.name ?? ""}`;
  const wanted: DeskWanted = {
    sitting,
    check,
    child,
    answers,
    ended: progress.get(check.id)?.ended ?? false,
    next: nextName,
    onDone: () => end([check.id], "done"),
    onStop: (why, all) =>
      end(all ? open.filter((one) => one.childId === child.id).map((one) => one.id) : [check.id], why),
    onGoOn: () => {
      const stop = stopIn(log.of(check.id), check.id);
      if (stop) log.put({ ...stamp(), outcome: "void", voids: stop.id });
      go(check.id);
    },
  };
  const Together = onScreen(check.kind).together?.Desk;
  return (
    <div className="mx-auto flex w-full max-w-[1000px] flex-1 flex-col px-4 py-3">
      <Head sitting={sitting} child={child} check={check} />
      <Queue sitting={sitting} progress={progress} current={check.id} onGo={go} />
      {colleague.here && <Colleague here={colleague.here} childId={child.id} sitting={sitting} />}
      {Together ? (
        <Suspense fallback={<Waiting rows={8} />}>
          <Together {...wanted} log={log} progress={progress} />
        </Suspense>
      ) : kinds[check.kind].way === "sheet" ? (
        <WritingDesk key={check.id} {...wanted} log={log} />
      ) : (
        <CardDesk key={check.id} {...wanted} log={log} tapped={tapped} />
      )}
    </div>
  );
}

function Head({ sitting, child, check }: { sitting: SittingView; child: DeskWanted["child"]; check: CheckView }) {
  const { waiting, lineDown } = useOutbox();
  const many = onScreen(check.kind).together !== undefined && sitting.children.length > 1;
  return (
    <header className="mb-1.5 flex flex-wrap items-baseline justify-between gap-x-4">
      <div>
        <h1 className="text-lg">
          {many ? sitting.name : child.name} <span className="font-normal text-soft">· {kinds[check.kind].name}</span>
        </h1>
        {!many && child.note && <p className="text-sm text-soft">{child.note}</p>}
      </div>
      <p className="text-sm text-soft" role="status">
        {saveSign(waiting.length, lineDown)}
      </p>
    </header>
  );
}

/** How many cards were asked: the sounds of one spelling are one. */
function askedIn({ setup }: CheckView, answers: readonly GivenAnswer[]): number {
  return new Set(onFaces(answers, "faces" in setup ? setup.faces.also : {}).map((answer) => answer.item)).size;
}

function saveSign(waiting: number, lineDown: boolean): string {
  if (waiting === 0) return "all marks saved";
  const marks = plural(waiting, "mark");
  return lineDown ? `${marks} kept on this device until the server answers` : `${marks} being saved`;
}

function Gone() {
  const navigate = useNavigate();
  useEffect(() => {
    navigate("/check", { replace: true });
  }, [navigate]);
  return null;
}
