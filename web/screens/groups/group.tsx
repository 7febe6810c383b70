import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { z } from "zod";
import {
  closeGroup,
  type GroupView,
  getGaps,
  getGroup,
  getGrouping,
  getNext,
  getOtherNeeds,
  getSchool,
  getWorth,
  listSessions,
  planNewSession,
  saveGroup,
} from "#contract";
import { chooseTargets, groupFitOf, type Target, targetsApart, targetsIn, whyGroup } from "#core/groups";
import { nearDay, plural } from "#core/saying";
import { call, refreshAll, useAsk, useAskSliced, wordsOfError } from "#web/device/api.ts";
import { saveOver } from "#web/device/both.ts";
import { dayOfInstant, stampNow, todayHere } from "#web/device/clock.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useNotes } from "#web/device/notes.ts";
import { newId, newSeed } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Sheet } from "#web/parts/dialog.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { familiesFor, learnersOf, openedFor } from "#web/parts/learners.ts";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Notes } from "#web/parts/notes.tsx";
import { Opens } from "#web/parts/opens.tsx";
import { sharedNeeds } from "#web/parts/other-needs.ts";
import { Fault, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { shownBy } from "#web/parts/points.ts";
import { neighbourOf, useRefocus } from "#web/parts/refocus.ts";
import { SpellingOptions } from "#web/parts/spelling-row.tsx";
import { TargetMarks, targetInWords } from "#web/parts/target-marks.tsx";
import { AboutChoice, aboutOf } from "#web/parts/teaches.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";
import { AlsoShared } from "./also-shared.tsx";
import { BlockPanel } from "./block/block-panel.tsx";
import { FitLine } from "./fit-card.tsx";
import { GivenGroup } from "./given-group.tsx";
import { GroupPlace } from "./group-place.tsx";
import { GroupRoutine } from "./group-routine.tsx";
import { GroupSessions } from "./group-sessions.tsx";
import { ReadingLimit } from "./reading-limit.tsx";
import { Targets } from "./targets.tsx";

/** What of a group is saved as one state. */
type GroupState = Pick<z.input<typeof saveGroup.body>, "name" | "members" | "targets" | "besides">;

const stateOf = ({ name, members, targets, besides }: GroupView): GroupState => ({
  name,
  members: members.map(({ childId, locked }) => ({ childId, locked })),
  ...{ targets: [...targets], besides: [...besides] },
});

/** My name; the children and targets of mine, then those that only theirs has. */
const ofBoth = (mine: GroupState, theirs: GroupState): GroupState => ({
  name: mine.name,
  members: [
    ...mine.members,
    ...theirs.members.filter((one) => !mine.members.some((other) => other.childId === one.childId)),
  ],
  targets: [...new Set([...mine.targets, ...theirs.targets])],
  besides: [...new Set([...(mine.besides ?? []), ...(theirs.besides ?? [])])],
});

/** One group, as it may be seen by whoever is here. */
export function Screen() {
  const { groupId = "" } = useParams();
  const teaches = useIsAtLeast("teacher");
  return teaches ? <WholeGroup groupId={groupId} /> : <GivenGroup groupId={groupId} />;
}

/** Who is in a group, what it works on, why, its sessions and its history. */
function WholeGroup({ groupId }: { groupId: string }) {
  const [search] = useSearchParams();
  const group = useAsk(getGroup, { params: { id: groupId } });
  const map = useAskSliced(getGaps, { query: {} });
  const worth = useAsk(getWorth, { query: {} }, { revalidateOnFocus: false });
  const grouping = useAsk(getGrouping, {});
  const said = useAsk(getNext, {});
  const others = useAskSliced(getOtherNeeds, { query: {} });
  const school = useAsk(getSchool, {});
  const sessions = useAsk(listSessions, { query: { groupId } });
  const notes = useNotes({ groupId });
  const refocus = useRefocus();
  const [adding, setAdding] = useState("");
  const [planning, setPlanning] = useState(search.get("plan") === "1");
  const [name, setName] = useState<string | null>(null);
  useUnsaved(name !== null && name !== group.data?.name);
  if (group.error && !group.data)
    return (
      <Page place="Group" title="Group">
        <Trouble error={group.error} />
      </Page>
    );
  if (!group.data || !map.data || !school.data)
    return (
      <Page place="Group" title="Group">
        <Waiting rows={9} />
      </Page>
    );

  const current = group.data;
  const order = map.data.columns.map((column) => column.gpc);
  const learners = new Map(
    learnersOf(map.data, {
      ...{ worth: worth.data, weights: grouping.data?.grouping.weights },
      ...{ said: said.data, others: others.data },
    }).map((one) => [one.id, one]),
  );
  const nameOf = new Map(map.data.rows.map((row) => [row.id, row.name]));
  const members = current.members.flatMap((member) => learners.get(member.childId) ?? []);
  const targets = targetsIn(current);
  const fit = groupFitOf(members, targets);
  const today = school.data.today;
  const shown = shownBy(map.data);
  const suggested = chooseTargets(members, order, 4);
  const fresh = suggested.filter((one) => !targets.includes(one));

  const says = ({ name, members, targets: gpcs, besides = [] }: GroupState) => ({
    Name: name,
    Children: members.map((one) => nameOf.get(one.childId) ?? "a child who is archived").join(", "),
    "Works on": targetsIn({ targets: gpcs, besides }).map(targetInWords).join(", "),
  });
  /** Saves a state of the group over the one that it was made from. @returns the group as it was saved, to undo it from, or that theirs stays, or that nothing was done */
  const save = async (
    change: Partial<GroupState>,
    from: GroupView = current,
  ): Promise<GroupView | "theirs" | "not"> => {
    const send = async (content: GroupState, onto: number) => {
      const body = { ...content, version: onto, versionId: newId(), at: stampNow() };
      return call(saveGroup, { params: { id: current.id }, body });
    };
    try {
      const saved = await saveOver({
        content: { ...stateOf(from), ...change },
        onto: from.version,
        send,
        says,
        both: {
          says: "Keep the children and targets of both",
          keep: (mine, theirs, onto) => send(ofBoth(mine, theirs), onto),
        },
      });
      await refreshAll();
      return saved ?? "theirs";
    } catch (error) {
      toast.error(wordsOfError(error));
      return "not";
    }
  };
  const setClosed = async (closed: boolean) => {
    try {
      await call(closeGroup, { params: { id: current.id }, body: { closed } });
      await refreshAll();
      if (closed) toastWithUndo(`${current.name} is closed. Its history stays.`, () => setClosed(false));
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const takeOut = async (member: { childId: string; name: string }) => {
    const { members: before } = current;
    const next = neighbourOf(before, before.find((one) => one.childId === member.childId) ?? before[0]);
    refocus(next ? `out-${next.childId}` : "add-a-child");
    const { members } = stateOf(current);
    const saved = await save({ members: members.filter((one) => one.childId !== member.childId) });
    if (typeof saved === "object")
      toastWithUndo(`${member.name} is taken out of ${current.name}.`, () => save({ members }, saved));
  };
  const setTargets = async (next: readonly Target[]) => {
    const gone = targets.filter((one) => !next.includes(one));
    const put = (all: readonly Target[], from?: GroupView) => {
      const apart = targetsApart(all);
      return save({ targets: [...apart.targets], besides: [...apart.besides] }, from);
    };
    const saved = await put(next);
    if (typeof saved === "object" && gone.length > 0)
      toastWithUndo(`${gone.map(targetInWords).join(", ")} is no target any more.`, () => put(targets, saved));
  };
  const outside = map.data.rows.filter((row) => !current.members.some((member) => member.childId === row.id));

  return (
    <Page
      place="Group"
      title={current.name}
      about={`${plural(current.members.length, "child", "children")}. ${current.closed ? "This group is closed; its history stays." : `Saved ${nearDay(dayOfInstant(current.savedAt), today)}.`}`}
      actions={
        <>
          {current.members.length > 0 && (
            <ButtonLink to={`/check?${current.members.map((member) => `child=${member.childId}`).join("&")}`}>
              Check
            </ButtonLink>
          )}
          <ButtonLink to={`/texts?for=group:${current.id}`}>Texts</ButtonLink>
          <Button onClick={() => setName(current.name)}>Rename</Button>
          <Button onClick={() => setClosed(!current.closed)}>{current.closed ? "Open again" : "Close group"}</Button>
          {!current.closed && (
            <Button shape="main" onClick={() => setPlanning(true)}>
              Plan a session
            </Button>
          )}
        </>
      }
    >
      <div className="mb-4">
        <BlockPanel group={current} today={today} />
      </div>
      <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[3fr_2fr]">
        <div className="flex flex-col gap-4">
          <Panel title="Works on">
            <Targets
              group={{ name: current.name, targets }}
              order={order}
              others={familiesFor(members)}
              onChange={(next) => void setTargets(next)}
            />
            <p className="mb-2">{whyGroup(fit, shown)}</p>
            <Opens opened={openedFor(current.targets, members, worth.data)} />
            <ReadingLimit group={current} />
            <GroupRoutine group={current} />
            {fresh.length > 0 && (
              <p className="mt-2 flex flex-wrap items-center gap-2 text-soft">
                By today's answers they would do best with <TargetMarks targets={suggested} />
                <Button onClick={() => setTargets(suggested)}>Take these</Button>
              </p>
            )}
          </Panel>
          <AlsoShared childIds={current.members.map((one) => one.childId)} today={today} />
          <Panel title="Children">
            <ul className="flex flex-col divide-y divide-line">
              {current.members.map((member) => {
                const own = fit.members.find((one) => one.id === member.childId);
                return (
                  <li key={member.childId} className="flex items-start justify-between gap-3 py-2">
                    <div>
                      <Link
                        to={`/child/${member.childId}`}
                        className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                      >
                        {member.name}
                      </Link>
                      {own ? <FitLine fit={own} targets={targets} /> : <p className="text-sm text-soft">archived</p>}
                      {own && targets.length > 0 && own.has.length === targets.length && (
                        <p className="text-sm text-damson">Has every target secure: ready to leave the group.</p>
                      )}
                    </div>
                    <Button
                      shape="quiet"
                      id={`out-${member.childId}`}
                      aria-label={`Take ${member.name} out`}
                      onClick={() => takeOut(member)}
                    >
                      Take out
                    </Button>
                  </li>
                );
              })}
              {current.members.length === 0 && <li className="py-2 text-soft">No one is in this group.</li>}
            </ul>
            <div className="mt-3 flex items-end gap-2">
              <div className="w-56">
                <Choice
                  id="add-a-child"
                  label="Add a child"
                  value={adding}
                  onChange={(event) => setAdding(event.target.value)}
                >
                  <option value="">Choose</option>
                  {outside.map((row) => (
                    <option key={row.id} value={row.id}>
                      {row.name}
                    </option>
                  ))}
                </Choice>
              </div>
              <Button
                disabled={!adding}
                onClick={async () => {
                  if ((await save({ members: [...current.members, { childId: adding, locked: false }] })) !== "not")
                    // Whoever was chosen meanwhile stays chosen.
                    setAdding((now) => (now === adding ? "" : now));
                }}
              >
                Add
              </Button>
            </div>
          </Panel>
        </div>
        <div className="flex flex-col gap-4">
          <GroupSessions sessions={sessions.data} today={today} />
          <GroupPlace groupId={current.id} school={school.data} />
          {notes && <Notes {...notes} today={today} all="everyone who has this group" />}
          <Panel title="History">
            <ol className="flex flex-col gap-2">
              {current.history.map((version) => (
                <li key={version.id} className="text-sm">
                  <p className="font-semibold">
                    {nearDay(dayOfInstant(version.savedAt), today)}: {version.name}
                  </p>
                  <p className="text-soft">
                    {version.members.map((member) => nameOf.get(member.childId) ?? "archived").join(", ") || "no one"}
                  </p>
                  <p>
                    <TargetMarks targets={targetsIn(version)} none="no target" />
                  </p>
                  {version.why && <p className="text-soft">{version.why}</p>}
                </li>
              ))}
            </ol>
          </Panel>
        </div>
      </div>
      {planning && <PlanDialog group={current} onClose={() => setPlanning(false)} />}
      {name !== null && (
        <Sheet open onClose={() => setName(null)} title="Rename the group">
          <form
            className="flex flex-col gap-3"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim()) void save({ name: name.trim() }).then((saved) => saved !== "not" && setName(null));
            }}
          >
            <TextField
              label="Name"
              autoFocus
              maxLength={60}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
            <Button type="submit" shape="main" disabled={name.trim() === ""}>
              Save
            </Button>
          </form>
        </Sheet>
      )}
    </Page>
  );
}

function PlanDialog({ group, onClose }: { group: GroupView; onClose: () => void }) {
  const { id: groupId, targets } = group;
  const others = useAskSliced(getOtherNeeds, { query: {} });
  const about = aboutOf(
    others.data ? sharedNeeds(others.data, new Set(group.members.map(({ childId }) => childId))) : [],
  );
  const [focus, setFocus] = useState<readonly string[] | null>(null);
  const navigate = useNavigate();
  const [day, setDay] = useState(todayHere());
  const [target, setTarget] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [id] = useState(newId);
  const [seed] = useState(newSeed);
  const plan = async () => {
    try {
      const wish = focus ? { target: null, focus: [...focus] } : { target: target || null };
      await call(planNewSession, { body: { id, groupId, heldOn: day, ...wish, seed } });
      void refreshAll();
      navigate(`/sessions/${id}`);
    } catch (error) {
      setTrouble(wordsOfError(error));
    }
  };
  return (
    <Sheet open onClose={onClose} title="Plan a session">
      <div className="flex flex-col gap-3">
        <TextField label="On" type="date" value={day} onChange={(event) => setDay(event.target.value)} />
        <AboutChoice options={about} value={focus} onSet={setFocus} />
        <Choice
          label="Teach"
          disabled={focus !== null}
          value={target}
          hint="Left open, it is the target that is worth most to these children today and has words all can read."
          onChange={(event) => setTarget(event.target.value)}
        >
          <option value="">what is needed next</option>
          <SpellingOptions gpcs={targets} />
        </Choice>
        <Fault>{trouble}</Fault>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button shape="main" disabled={!day} onClick={plan}>
            Fill it
          </Button>
        </div>
      </div>
    </Sheet>
  );
}
