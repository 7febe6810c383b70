import { lazy, Suspense, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { eraseChild, exportChild, getChanges, getChild, getGaps, getSchool, getSecondLooks, traces } from "#contract";
import { kindNames } from "#core/ledger";
import { cellAt, type State } from "#core/mastery";
import { outOfBackupsOn } from "#core/roster";
import { nearDay, plural, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant } from "#web/device/clock.ts";
import { useNotes } from "#web/device/notes.ts";
import { forgetAnswers } from "#web/device/pages.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Changed } from "#web/parts/changed.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { download } from "#web/parts/download.ts";
import { LeafMark, Spelling } from "#web/parts/marks.tsx";
import { Notes } from "#web/parts/notes.tsx";
import { Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { ChildPlace } from "./child-place.tsx";
import { Confusions } from "./confusions.tsx";
import { DaysAway } from "./days-away.tsx";
import { NextOf } from "./next-best.tsx";
import { Readings } from "./readings.tsx";

const ChildDialog = lazy(() => import("./child-dialog.tsx").then((module) => ({ default: module.ChildDialog })));

/** One child: how it stands, its checks, its confusions, its groups, and what can be done with its data. */
export function Screen() {
  const { childId = "" } = useParams();
  const { data, error } = useAskSliced(getChild, { params: { id: childId } });
  const school = useAsk(getSchool, {});
  const gaps = useAskSliced(getGaps, data ? { query: { classId: data.child.classId } } : null);
  const [search] = useSearchParams();
  const readingId = search.get("reading");
  const notes = useNotes({ childId });
  const [dialog, setDialog] = useState<"edit" | "erase" | null>(null);
  if (error && !data)
    return (
      <Page place="Child" title="Child">
        <Trouble error={error} />
      </Page>
    );
  if (!data || !school.data)
    return (
      <Page place="Child" title="Child">
        <Waiting />
      </Page>
    );
  const { child, checks, groups, confusions } = data;
  const one = school.data.classes.find((entry) => entry.id === child.classId);
  const row = gaps.data?.rows.find((entry) => entry.id === child.id);
  const today = school.data.today;

  const exportJson = async () => {
    try {
      const answer = await call(exportChild, { params: { id: child.id } });
      download(`child-${child.id.slice(0, 8)}.json`, "application/json", JSON.stringify(answer, null, 2));
    } catch (problem) {
      toast.error(wordsOfError(problem));
    }
  };

  return (
    <Page
      place="Child"
      printsTitle
      title={child.name}
      about={[one?.name, child.note, child.archived ? "archived" : ""].filter(Boolean).join(", ")}
      actions={
        <>
          <ButtonLink to={`/check?child=${child.id}`} shape="main">
            Check
          </ButtonLink>
          <Button onClick={() => setDialog("edit")}>Edit</Button>
          <Button onClick={exportJson}>Export JSON</Button>
          <Button onClick={() => setDialog("erase")}>Erase</Button>
        </>
      }
    >
      {readingId && (
        <div className="no-print mb-4">
          <ReadingChanged childId={child.id} readingId={readingId} />
        </div>
      )}
      <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-2 print:grid-cols-1">
        <div className="flex flex-col gap-4">
          <Panel title="What is taught, and how it stands">
            {!row ? (
              <Waiting rows={3} />
            ) : (
              <Standing
                childId={child.id}
                cells={row.cells}
                gpcs={gaps.data?.columns.map((column) => column.gpc) ?? []}
              />
            )}
          </Panel>
          <NextOf classId={child.classId} whose={{ childId: child.id }} today={today} />
          <ChildPlace childId={child.id} className={one?.name ?? "its class"} school={school.data} />
          <DaysAway childId={child.id} away={data.away} today={today} />
          <Panel title="Groups">
            {groups.length === 0 ? (
              <p className="text-soft">In no group now.</p>
            ) : (
              groups.map((group) => (
                <p key={group.id}>
                  <Link className="underline underline-offset-4" to={`/groups/${group.id}`}>
                    {group.name}
                  </Link>
                </p>
              ))
            )}
          </Panel>
          {data.leftOut.length > 0 && (
            <Panel title="Left out of what is believed">
              <p className="mb-1 text-sm text-soft">They stay in the log, and say nothing of the child.</p>
              <ul className="flex flex-col gap-1">
                {data.leftOut.map((one) => (
                  <li key={one.id}>
                    {shortDay(one.day, today)}, marked by {one.by}: {one.why}
                  </li>
                ))}
              </ul>
            </Panel>
          )}
          <Confusions confusions={confusions} today={today} />
        </div>
        <div className="flex flex-col gap-4">
          <Panel title="Checks">
            {checks.length === 0 && <p className="text-soft">Not checked yet.</p>}
            <ul className="flex flex-col gap-1">
              {checks.map((check) => (
                <li key={check.id} className="flex justify-between gap-3">
                  <Link
                    to={
                      check.endedAt
                        ? `/check/${check.sittingId}/result?child=${child.id}`
                        : `/check/${check.sittingId}?check=${check.id}`
                    }
                    className="underline decoration-line underline-offset-4 hover:decoration-ink"
                  >
                    {nearDay(dayOfInstant(check.startedAt), today)}
                  </Link>
                  <span className="flex-1 text-soft">{kindNames[check.kind]}</span>
                  <span>
                    {check.right} right of {check.asked}
                    {check.asked < check.cards && check.kind !== "seek" ? `, ${check.cards} planned` : ""}
                    {check.endedAt ? "" : ", open"}
                  </span>
                </li>
              ))}
            </ul>
          </Panel>
          <Readings childId={child.id} classId={child.classId} />
          {notes && <Notes {...notes} isChild today={today} all={`everyone who teaches ${child.name}`} />}
        </div>
      </div>
      {dialog === "edit" && (
        <Suspense>
          <ChildDialog school={school.data} classId={child.classId} child={child} onClose={() => setDialog(null)} />
        </Suspense>
      )}
      {dialog === "erase" && (
        <EraseDialog id={child.id} name={child.name} classId={child.classId} onClose={() => setDialog(null)} />
      )}
    </Page>
  );
}

function Standing({ childId, cells, gpcs }: { childId: string; cells: string; gpcs: readonly string[] }) {
  const looks = useAsk(getSecondLooks, {});
  const cards = looks.data?.find((look) => look.id === childId)?.cards ?? [];
  const fading = new Set(cards.flatMap(({ gpc, why }) => (why === "fading" ? [gpc] : [])));
  const here = gpcs.map((gpc, at) => ({ gpc, ...cellAt(cells, at) }));
  const parts = (["gap", "unsteady", "not sure yet", "not checked", "secure"] as const).map((state) => ({
    state,
    cells: here.filter((cell) => cell.state === state && !fading.has(cell.gpc)),
  }));
  return (
    <>
      <dl className="flex flex-col gap-3">
        {parts.map(({ state, cells: list }) => (
          <Pile key={state} state={state} title={piles[state]} cells={list} />
        ))}
        {fading.size > 0 && (
          <Pile state="unsteady" title="about to be lost" cells={here.filter(({ gpc }) => fading.has(gpc))} />
        )}
      </dl>
      {cards.length > 0 && (
        <p className="mt-4 flex flex-wrap items-center gap-2">
          <span className="flex-1">
            {plural(cards.length, "card")} would say most now: what is fading, or could lie on either side of a half.
          </span>
          <ButtonLink
            to={`/check?${new URLSearchParams([["child", childId], ...cards.map(({ gpc }) => ["card", gpc])])}`}
          >
            Ask these
          </ButtonLink>
        </p>
      )}
    </>
  );
}

const piles = {
  gap: "gap",
  unsteady: "unsteady: is learning",
  "not sure yet": "not sure yet",
  "not checked": "not checked",
  secure: "secure: knows",
} as const;

type PileCell = { readonly gpc: string; readonly chance: number };

function Pile({ state, title, cells }: { state: State; title: string; cells: readonly PileCell[] }) {
  const chance = (cell: PileCell) => `${Math.round(cell.chance * 100)}% likely at sight today`;
  return (
    <div>
      <dt className="mb-1 flex items-center gap-1.5 font-semibold">
        <LeafMark state={state} /> {title} <span className="font-normal text-soft">{cells.length}</span>
      </dt>
      <dd className="flex flex-wrap gap-1">
        {cells.length === 0 ? (
          <span className="text-soft">none</span>
        ) : (
          cells.map((cell) => (
            <span key={cell.gpc} title={cell.chance > 0 ? chance(cell) : undefined}>
              <Spelling gpc={cell.gpc} />
            </span>
          ))
        )}
      </dd>
    </div>
  );
}

function EraseDialog({
  id,
  name,
  classId,
  onClose,
}: {
  id: string;
  name: string;
  classId: string;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const counts = useAsk(traces, { params: { id } });
  const school = useAsk(getSchool, {});
  const [sure, setSure] = useState(false);
  const [busy, setBusy] = useState(false);
  const erase = async () => {
    setBusy(true);
    try {
      await call(eraseChild, { params: { id } });
      await forgetAnswers();
      navigate(`/class/${classId}`, { replace: true });
      await refreshAll();
      toast("Erased. Nothing about this child is left here.");
    } catch (error) {
      toast.error(wordsOfError(error));
      setBusy(false);
    }
  };
  const goes = counts.data;
  return (
    <Sheet open onClose={onClose} title={`Erase ${name}`}>
      <p className="mb-2">
        This cannot be undone. If you may need it later, export it as JSON first, or archive the child instead.
      </p>
      {!goes ? (
        <Waiting rows={3} />
      ) : (
        <ul className="mb-3 list-disc pl-5">
          <li>
            {plural(goes.answers, "answer")}, {plural(goes.checks, "check")} and {plural(goes.readings, "reading")} go
          </li>
          <li>
            the place in {plural(goes.groups, "group")} and {plural(goes.sessions, "session")} goes
          </li>
          {goes.notesNaming > 0 && (
            <li>{plural(goes.notesNaming, "session note")} that name the child will say “this child” instead</li>
          )}
        </ul>
      )}
      {school.data && (
        <p className="mb-3">
          Your school keeps a backup for {plural(school.data.keeping.backupWeeks, "week")}: those from before today
          hold this child until{" "}
          {shortDay(outOfBackupsOn(school.data.today, school.data.keeping.backupWeeks), school.data.today)}. Other
          devices drop what they hold when they next reach the server.
        </p>
      )}
      <label className="mb-3 flex items-center gap-2">
        <input
          type="checkbox"
          checked={sure}
          onChange={(event) => setSure(event.target.checked)}
          className="size-4 accent-damson"
        />{" "}
        Yes, erase everything about {name}
      </label>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button shape="warn" disabled={!sure || busy || !goes} onClick={erase}>
          Erase
        </Button>
      </div>
    </Sheet>
  );
}

/** What the reading that was just kept changed on the map. */
function ReadingChanged({ childId, readingId }: { childId: string; readingId: string }) {
  const { data, error } = useAsk(getChanges, { params: { id: childId }, query: { readingId } });
  return error && !data ? null : <Changed data={data} what="reading" />;
}
