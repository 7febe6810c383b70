import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import {
  type Grouping,
  type GroupingView,
  getGaps,
  getGrouping,
  getNext,
  getOtherNeeds,
  getSchool,
  getWorth,
  listGroups,
  setGrouping,
} from "#contract";
import { chooseTargets, type Proposal, servedBy } from "#core/groups";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { newId, newSeed } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { nextBest, openedFor, tooLittleKnown } from "#web/parts/learners.ts";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Empty, Fault, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { shownBy } from "#web/parts/points.ts";
import { toast } from "#web/parts/toast.tsx";
import { Board, type BoardGroup } from "./board.tsx";
import { changedBy } from "./changed-by.ts";
import { HowMade } from "./how-made.tsx";
import { boardFrom, keptOn, type ProposeFrom, placedLearners } from "./proposed.ts";
import { UnkeptLimits } from "./unkept.tsx";
import { useDesk } from "./use-desk.ts";
import { useSaving } from "./use-saving.ts";
import { WayCards } from "./way-cards.tsx";
import { type WayName, waysFor } from "./ways.ts";

/** What is worth most is told up to so many spellings. */
const MOST_FIRST = 8;

/** Proposes groups for a class or several; children can be moved before they are saved. */
export function Screen() {
  const school = useAsk(getSchool, {});
  const map = useAsk(getGaps, { query: {} }, { revalidateOnFocus: false });
  const worth = useAsk(getWorth, { query: {} }, { revalidateOnFocus: false });
  const view = useAsk(getGrouping, {});
  const said = useAsk(getNext, {});
  // What is kept from an earlier look is no ground for a proposal: the first one goes by what is true now.
  const [isNow, setIsNow] = useState(false);
  const others = useAsk(getOtherNeeds, { query: {} }, { revalidateOnFocus: false });
  const asking = [map, worth, view, said, others].some((one) => one.isValidating);
  if (!isNow && !asking) setIsNow(true);
  const groups = useAsk(listGroups, {});
  const error = map.error ?? view.error ?? groups.error;
  if (error && !(map.data && view.data && groups.data))
    return (
      <Page place="Make groups" title="Make groups">
        <Trouble error={error} />
      </Page>
    );
  // Without what each spelling brings, every need weighs alike.
  if (!isNow || !map.data || !school.data || !view.data || !groups.data || (!worth.data && !worth.error))
    return (
      <Page place="Make groups" title="Make groups">
        <Waiting />
      </Page>
    );
  return (
    <Proposing
      map={map.data}
      worth={worth.data}
      view={view.data}
      said={said.data}
      others={others.data}
      running={groups.data}
      classes={school.data.classes.filter((one) => !one.archived)}
    />
  );
}

interface Proposed extends ProposeFrom {
  readonly view: GroupingView;
}

function Proposing({ map, worth, view, said, others, running, classes }: Proposed) {
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const asked = search.get("class");
  const [classIds, setClassIds] = useState<readonly string[] | null>(asked ? [asked] : null);
  const [own, setOwn] = useState<Grouping | null>(null);
  const [count, setCount] = useState<number | null>(null);
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const [way, setWay] = useState<WayName>("closest");
  const [groups, setGroups] = useState<readonly BoardGroup[] | null>(null);
  const onBoard = useRef(groups);
  onBoard.current = groups;
  /** What the board looked like when it was filled: another object once someone has changed it. */
  const [filled, setFilled] = useState<readonly BoardGroup[] | null>(null);
  /** The proposal that is on the board; a better one that is found meanwhile does not move what someone looks at. */
  const [shownProposal, setShownProposal] = useState<Proposal>();
  const [gained, setGained] = useState("");
  /** What the groups were proposed by: another map once more was marked. */
  const [by, setBy] = useState(map);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const grouping = own ?? view.grouping;
  const { proposals, distance, propose: lookFor, findBound } = useDesk();
  const saveAll = useSaving(running);

  const learners = useMemo(
    () =>
      new Map(placedLearners({ map, worth, said, others, grouping, running, classes }).map((one) => [one.id, one])),
    [map, worth, said, others, grouping, running, classes],
  );
  const tooLittle = useMemo(() => tooLittleKnown(map), [map]);
  const shown = useMemo(() => shownBy(map), [map]);
  const order = useMemo(() => map.columns.map((column) => column.gpc), [map]);
  const chosen = classIds ?? classes.map((one) => one.id);
  const children = map.rows.filter((row) => chosen.includes(row.classId));
  const nameOf = new Map(map.rows.map((row) => [row.id, row.name]));
  const inPlay = children.filter((child) => !out.has(child.id)).flatMap((child) => learners.get(child.id) ?? []);

  const fill = (proposal: Proposal | undefined, before: readonly BoardGroup[]) => {
    if (!proposal) return;
    const next = boardFrom(proposal, before, running);
    setShownProposal(proposal);
    setGroups(next);
    setFilled(next);
    setGained("");
  };
  const propose = async (asked: Grouping = grouping) => {
    setBusy(true);
    setBy(map);
    setTrouble(undefined);
    const before = groups ?? [];
    const { locked, barred } = keptOn(before);
    const wanted = {
      learners: inPlay,
      order,
      count,
      locked,
      barred,
      seed: newSeed(),
      view: { ...view, grouping: asked },
    };
    try {
      const all = waysFor(wanted);
      const next = all[way] ? way : "closest";
      setWay(next);
      const found = await lookFor(all, next);
      // What someone has changed meanwhile stays; the proposal is among the cards.
      if (onBoard.current === groups) fill(found, before);
    } catch (error) {
      toast.error(wordsOfError(error));
    } finally {
      setBusy(false);
    }
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: a first proposal is there without a click, once
  useEffect(() => {
    if (inPlay.length > 0) void propose();
  }, []);
  const untouched = groups !== null && groups === filled;
  // A wish that comes or goes is followed at once, unless someone is at work on the board.
  const wishes = JSON.stringify(view.wishes);
  const followed = useRef(wishes);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another wish asks for other groups
  useEffect(() => {
    if (followed.current === wishes || !untouched) return;
    followed.current = wishes;
    void propose();
  }, [wishes, untouched]);
  const [touched, setTouched] = useState(false);
  const allSaved = useUnsaved(touched);
  const change = (next: readonly BoardGroup[]) => {
    setTouched(true);
    const withTargets = next.map((group) =>
      group.chosenTargets
        ? group
        : {
            ...group,
            targets: chooseTargets(
              group.members.flatMap((member) => learners.get(member.id) ?? []),
              order,
              grouping.targets,
            ),
          },
    );
    setGained(
      changedBy({
        before: groups ?? [],
        after: withTargets,
        learners: inPlay,
        targets: grouping.targets,
        name: shown.name,
      }),
    );
    setGroups(withTargets);
  };
  const keepGrouping = async () => {
    try {
      await call(setGrouping, { body: { version: view.version, grouping } });
      await refreshAll();
      setOwn(null);
      toast("Groups are made this way in your school from now on.");
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  const save = async () => {
    if (!groups) return;
    setBusy(true);
    let saving = { saved: [] as readonly string[], left: groups.map(({ name }) => name) as readonly string[] };
    try {
      await saveAll(groups, (now) => {
        saving = { saved: [...now.saved], left: now.left };
      });
      await refreshAll();
      toast(
        `${plural(groups.filter(({ members }) => members.length > 0).length, "group is", "groups are")} saved. Plan a session for each.`,
      );
      allSaved();
      navigate("/groups");
    } catch (error) {
      const { saved, left } = saving;
      setTouched(true);
      setTrouble(
        `${saved.length > 0 ? `Saved: ${saved.join(", ")}. ` : ""}Not saved: ${left.join(", ")}. ${wordsOfError(error)} All of it is still here; saving again saves the rest.`,
      );
    } finally {
      setBusy(false);
    }
  };
  const placed = new Set(groups?.flatMap((group) => group.members.map((member) => member.id)));
  const served = groups && servedBy(plain(groups), inPlay, grouping.targets);

  return (
    <Page
      place="Make groups"
      title="Make groups"
      about="Children who need the same things next come together. Move anyone; what is gained and lost is said at once."
      actions={<ButtonLink to="/groups">Back to the groups</ButtonLink>}
    >
      <Panel className="mb-3">
        <HowMade
          {...{ classes, chosen, grouping, count, out, wishes: view.wishes, people: children, name: shown.name }}
          first={shown.points(nextBest(inPlay, worth, MOST_FIRST).map(({ gpc }) => gpc)).map((point) => point.name)}
          changed={own !== null}
          onClasses={setClassIds}
          onGrouping={setOwn}
          onCount={setCount}
          onOut={setOut}
          onKeep={keepGrouping}
          action={
            <Button shape="main" className="min-h-9" disabled={busy || inPlay.length === 0} onClick={() => propose()}>
              {groups ? "Propose again" : "Propose groups"}
            </Button>
          }
        />
      </Panel>
      {children.length === 0 && (
        <Empty
          action={
            <ButtonLink to="/class" shape="main">
              Go to Class
            </ButtonLink>
          }
        >
          No child is in these classes yet.
        </Empty>
      )}
      {shownProposal && <UnkeptLimits unkept={shownProposal.unkept} name={shown.name} />}
      {groups && groups.length === 0 && (shownProposal?.unkept.length ?? 0) === 0 && (
        <Empty
          action={
            <ButtonLink to="/check" shape="main">
              Check a child
            </ButtonLink>
          }
        >
          No gap was found among these children, so there is nothing to group by. Check what was taught first.
        </Empty>
      )}
      {groups && groups.length > 0 && (
        <>
          {proposals && (
            <WayCards
              {...{ proposals, distance, learners: inPlay, targets: grouping.targets, chosen: way, name: shown.name }}
              changed={!untouched}
              better={proposals[way] !== shownProposal}
              onChoose={(next) => {
                setWay(next);
                fill(proposals[next], groups);
              }}
              onBound={(one) => findBound(one).catch((error) => toast.error(wordsOfError(error)))}
            />
          )}
          <Board
            {...{ groups, learners, nameOf, order, tooLittle, shown }}
            served={served?.of ?? new Map()}
            unplaced={children.filter((child) => !placed.has(child.id))}
            reasons={shownProposal?.unplaced ?? new Map()}
            openedOf={(group) =>
              openedFor(
                group.targets,
                group.members.flatMap((member) => learners.get(member.id) ?? []),
                worth,
              )
            }
            onChange={change}
          />
          <Fault className="mt-3">{trouble}</Fault>
          <div className="sticky bottom-0 mt-3 flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line bg-paper py-3">
            <Button shape="main" disabled={busy || groups.some((group) => group.name.trim() === "")} onClick={save}>
              Save these groups
            </Button>
            <Button
              onClick={() =>
                setGroups([
                  ...groups,
                  {
                    id: newId(),
                    name: `Group ${groups.length + 1}`,
                    members: [],
                    barred: [],
                    targets: [],
                    chosenTargets: false,
                  },
                ])
              }
            >
              Add an empty group
            </Button>
            <p className="flex-1 text-sm text-soft" aria-live="polite">
              {gained ||
                (by === map
                  ? "Lock a child to keep it in its group when you propose again."
                  : "More was marked since these groups were proposed. Propose again to follow it.")}
            </p>
          </div>
        </>
      )}
    </Page>
  );
}

const plain = (groups: readonly BoardGroup[]) =>
  groups.map(({ members, targets }) => ({ members: members.map(({ id }) => id), targets }));
