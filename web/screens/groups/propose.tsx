import { type Remote, wrap } from "comlink";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { type ClassView, type Gaps, getGaps, getSchool, getWorth, saveGroup, type WorthView } from "#contract";
import { chooseTargets, type Proposal } from "#core/groups";
import { plural } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId, newSeed } from "#web/device/settings.ts";
import { Button, ButtonLink } from "#web/parts/button.tsx";
import { Choice, TextField } from "#web/parts/field.tsx";
import { learnersOf, openedFor, tooLittleKnown } from "#web/parts/learners.ts";
import { useUnsaved } from "#web/parts/leaving.tsx";
import { Empty, Page, Panel, Trouble, Waiting } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import type { GroupsWorker } from "#web/workers/groups.worker.ts";
import { Board, type BoardGroup } from "./board.tsx";

const names = [
  "Heron",
  "Otter",
  "Swift",
  "Barge",
  "Willow",
  "Lantern",
  "Paddle",
  "Quay",
  "Reed",
  "Tiller",
  "Anchor",
  "Ferry",
];

/** The worker and the one handle to it: the handle is kept, since letting it go closes the worker's ear. */
interface GroupsDesk {
  readonly worker: Worker;
  readonly remote: Remote<GroupsWorker>;
}

function openDesk(): GroupsDesk {
  const worker = new Worker(new URL("../../workers/groups.worker.ts", import.meta.url), { type: "module" });
  return { worker, remote: wrap<GroupsWorker>(worker) };
}

/** Proposes groups for a class or several; children can be moved before they are saved. */
export function Screen() {
  const school = useAsk(getSchool, {});
  const map = useAsk(getGaps, { query: {} }, { revalidateOnFocus: false });
  const worth = useAsk(getWorth, { query: {} }, { revalidateOnFocus: false });
  if (map.error && !map.data)
    return (
      <Page place="Make groups" title="Make groups">
        <Trouble error={map.error} />
      </Page>
    );
  // Without what each spelling opens, every need weighs alike.
  if (!map.data || !school.data || (!worth.data && !worth.error))
    return (
      <Page place="Make groups" title="Make groups">
        <Waiting />
      </Page>
    );
  return <Proposing map={map.data} worth={worth.data} classes={school.data.classes.filter((one) => !one.archived)} />;
}

function Proposing({
  map,
  worth,
  classes,
}: {
  map: Gaps;
  worth: WorthView | undefined;
  classes: readonly ClassView[];
}) {
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const [classIds, setClassIds] = useState<readonly string[] | null>(
    search.get("class") ? [search.get("class") ?? ""] : null,
  );
  const [by, setBy] = useState<"size" | "count">("size");
  const [least, setLeast] = useState(3);
  const [most, setMost] = useState(5);
  const [count, setCount] = useState(3);
  const [targets, setTargets] = useState(4);
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const [groups, setGroups] = useState<readonly BoardGroup[] | null>(null);
  const [withoutNeed, setWithoutNeed] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const versions = useRef(
    new Map<string, { said: string; versionId: string; at: string; onto: number; saved: number }>(),
  );
  const worker = useRef<GroupsDesk | null>(null);
  const learners = useMemo(() => new Map(learnersOf(map, worth).map((one) => [one.id, one])), [map, worth]);
  const tooLittle = useMemo(() => tooLittleKnown(map), [map]);
  const order = useMemo(() => map.columns.map((column) => column.gpc), [map]);

  const chosen = classIds ?? classes.map((one) => one.id);
  const children = map.rows.filter((row) => chosen.includes(row.classId));
  const nameOf = new Map(map.rows.map((row) => [row.id, row.name]));
  const inPlay = children.filter((child) => !out.has(child.id));

  const propose = async () => {
    setBusy(true);
    setTrouble(undefined);
    worker.current ??= openDesk();
    const before = groups ?? [];
    const locked = new Map(
      before.flatMap((group, at) =>
        group.members
          .filter((member) => member.locked && inPlay.some((child) => child.id === member.id))
          .map((member) => [member.id, at] as const),
      ),
    );
    try {
      const proposal: Proposal = await worker.current.remote.propose({
        learners: inPlay.flatMap((child) => learners.get(child.id) ?? []),
        order,
        shape: by === "size" ? { by, least: Math.min(least, most), most: Math.max(least, most) } : { by, count },
        mostTargets: targets,
        locked,
        seed: newSeed(),
      });
      setGroups(
        proposal.groups.map((group, at) => ({
          id: (locked.size > 0 && before[at]?.id) || newId(),
          name:
            (locked.size > 0 && before[at]?.name) ||
            names[at % names.length] + (at >= names.length ? ` ${Math.floor(at / names.length) + 1}` : ""),
          members: group.members.map((id) => ({ id, locked: locked.has(id) })),
          targets: group.targets,
          chosenTargets: false,
        })),
      );
      setWithoutNeed(proposal.withoutNeed);
    } catch (error) {
      toast.error(wordsOfError(error));
    } finally {
      setBusy(false);
    }
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: a first proposal is there without a click, once
  useEffect(() => {
    if (inPlay.length > 0) void propose();
    return () => {
      worker.current?.worker.terminate();
      worker.current = null;
    };
  }, []);

  const [touched, setTouched] = useState(false);
  const allSaved = useUnsaved(touched);
  const change = (next: readonly BoardGroup[]) => {
    setTouched(true);
    setGroups(
      next.map((group) =>
        group.chosenTargets
          ? group
          : {
              ...group,
              targets: chooseTargets(
                group.members.flatMap((member) => learners.get(member.id) ?? []),
                order,
                targets,
              ),
            },
      ),
    );
  };

  const save = async () => {
    if (!groups) return;
    setBusy(true);
    const wanted = groups.filter((group) => group.members.length > 0);
    const saved: string[] = [];
    try {
      for (const group of wanted) {
        const content = {
          name: group.name.trim(),
          members: group.members.map((member) => ({ childId: member.id, locked: member.locked })),
          targets: [...group.targets],
        };
        // What is saved once more after half of it failed is the same version, unless it was changed meanwhile.
        const said = JSON.stringify(content);
        const before = versions.current.get(group.id);
        const fresh = {
          said,
          versionId: newId(),
          at: stampNow(),
          onto: before?.saved ?? 0,
          saved: before?.saved ?? 0,
        };
        const version = before?.said === said ? before : fresh;
        versions.current.set(group.id, version);
        const { versionId, at, onto } = version;
        const made = await call(saveGroup, {
          params: { id: group.id },
          body: { versionId, version: onto, ...content, at },
        });
        version.saved = made.version;
        saved.push(group.name);
      }
      await refreshAll();
      toast(`${plural(saved.length, "group is", "groups are")} saved. Plan a session for each.`);
      allSaved();
      navigate("/groups");
    } catch (error) {
      const left = wanted.slice(saved.length).map((group) => group.name);
      setTouched(true);
      setTrouble(
        `${saved.length > 0 ? `Saved: ${saved.join(", ")}. ` : ""}Not saved: ${left.join(", ")}. ${wordsOfError(error)} All of it is still here; saving again saves the rest.`,
      );
    } finally {
      setBusy(false);
    }
  };
  const placed = new Set(groups?.flatMap((group) => group.members.map((member) => member.id)));
  const unplaced = children.filter((child) => !placed.has(child.id));

  return (
    <Page
      place="Make groups"
      title="Make groups"
      about="Children who share gaps come together. Move anyone; the fit is worked out anew at once."
      actions={<ButtonLink to="/groups">Back to the groups</ButtonLink>}
    >
      <Panel className="mb-4">
        <div className="flex flex-wrap items-end gap-4">
          <fieldset>
            <legend className="mb-1 text-sm font-semibold">Classes</legend>
            <div className="flex min-h-9 flex-wrap items-center gap-3">
              {classes.map((one) => (
                <label key={one.id} className="flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="size-4 accent-leaf"
                    checked={chosen.includes(one.id)}
                    onChange={(event) =>
                      setClassIds(event.target.checked ? [...chosen, one.id] : chosen.filter((id) => id !== one.id))
                    }
                  />{" "}
                  {one.name}
                </label>
              ))}
            </div>
          </fieldset>
          <div className="w-44">
            <Choice label="Choose" value={by} onChange={(event) => setBy(event.target.value as "size" | "count")}>
              <option value="size">a group's size</option>
              <option value="count">how many groups</option>
            </Choice>
          </div>
          {by === "size" ? (
            <div className="flex items-end gap-1.5">
              <div className="w-16">
                <TextField
                  label="From"
                  type="number"
                  min={1}
                  max={12}
                  value={least}
                  onChange={(event) => setLeast(clamp(event.target.value, 1, 12))}
                />
              </div>
              <div className="w-16">
                <TextField
                  label="to"
                  type="number"
                  min={1}
                  max={12}
                  value={most}
                  onChange={(event) => setMost(clamp(event.target.value, 1, 12))}
                />
              </div>
            </div>
          ) : (
            <div className="w-20">
              <TextField
                label="Groups"
                type="number"
                min={1}
                max={40}
                value={count}
                onChange={(event) => setCount(clamp(event.target.value, 1, 40))}
              />
            </div>
          )}
          <div className="w-20">
            <TextField
              label="Targets"
              type="number"
              min={1}
              max={8}
              value={targets}
              onChange={(event) => setTargets(clamp(event.target.value, 1, 8))}
            />
          </div>
          <Button shape="main" className="min-h-9" disabled={busy || inPlay.length === 0} onClick={propose}>
            {groups ? "Propose again" : "Propose groups"}
          </Button>
          <p className="pb-2 text-soft">{plural(inPlay.length, "child", "children")}</p>
        </div>
        <Outsiders people={children} out={out} onChange={setOut} />
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
      {groups && groups.length === 0 && (
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
          <Board
            groups={groups}
            learners={learners}
            nameOf={nameOf}
            order={order}
            unplaced={unplaced}
            withoutNeed={new Set(withoutNeed)}
            tooLittle={tooLittle}
            openedOf={(group) =>
              openedFor(
                group.targets,
                group.members.flatMap((member) => learners.get(member.id) ?? []),
                worth,
              )
            }
            onChange={change}
          />
          {trouble && (
            <p role="alert" className="mt-3 rounded-md bg-damson-pale px-3 py-2">
              {trouble}
            </p>
          )}
          <div className="sticky bottom-0 mt-3 flex items-center gap-3 border-t border-line bg-paper py-3">
            <Button shape="main" disabled={busy || groups.some((group) => group.name.trim() === "")} onClick={save}>
              Save these groups
            </Button>
            <Button
              onClick={() =>
                setGroups([
                  ...groups,
                  { id: newId(), name: `Group ${groups.length + 1}`, members: [], targets: [], chosenTargets: false },
                ])
              }
            >
              Add an empty group
            </Button>
            <p className="text-sm text-soft">Lock a child to keep it in its group when you propose again.</p>
          </div>
        </>
      )}
    </Page>
  );
}

function clamp(text: string, least: number, most: number): number {
  return Math.max(least, Math.min(most, Math.round(Number(text)) || least));
}

function Outsiders({
  people,
  out,
  onChange,
}: {
  people: readonly { id: string; name: string }[];
  out: ReadonlySet<string>;
  onChange: (out: ReadonlySet<string>) => void;
}) {
  const toggle = (id: string) => {
    const next = new Set(out);
    if (!next.delete(id)) next.add(id);
    onChange(next);
  };
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-soft">
        Leave children out{out.size > 0 ? ` (${out.size} out)` : ""}
      </summary>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {people.map((child) => (
          <button
            key={child.id}
            type="button"
            aria-pressed={out.has(child.id)}
            onClick={() => toggle(child.id)}
            className={`rounded-full border px-2.5 py-0.5 ${out.has(child.id) ? "border-damson bg-damson-pale line-through" : "border-line bg-sheet"}`}
          >
            {child.name}
          </button>
        ))}
      </div>
    </details>
  );
}
