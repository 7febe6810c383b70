import {
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { Ban, GripVertical, Lock, LockOpen } from "lucide-react";
import { Link } from "react-router";
import {
  groupFitOf,
  type Learner,
  type MemberFit,
  type Shown,
  type Target,
  type Unplaced,
  whyGroup,
} from "#core/groups";
import { TextField } from "#web/parts/field.tsx";
import { LateSelect } from "#web/parts/late-select.tsx";
import { familiesFor, type OpenedFor, type tooLittleKnown } from "#web/parts/learners.ts";
import { Opens } from "#web/parts/opens.tsx";
import { neighbourOf, useRefocus } from "#web/parts/refocus.ts";
import { spokenDrag } from "#web/parts/spoken-drag.ts";
import { FitLine } from "./fit-card.tsx";
import { Targets } from "./targets.tsx";

export interface BoardGroup {
  readonly id: string;
  readonly name: string;
  readonly members: readonly { readonly id: string; readonly locked: boolean }[];
  /** Children who must not be in it when groups are proposed again. */
  readonly barred: readonly string[];
  readonly targets: readonly Target[];
  /** The teacher set the targets by hand: they stay when children move. */
  readonly chosenTargets: boolean;
}

interface BoardWanted {
  readonly groups: readonly BoardGroup[];
  readonly learners: ReadonlyMap<string, Learner>;
  readonly nameOf: ReadonlyMap<string, string>;
  readonly order: readonly string[];
  readonly unplaced: readonly { readonly id: string; readonly name: string }[];
  /** Why the proposal has no place for a child. */
  readonly reasons: ReadonlyMap<string, Unplaced>;
  /** What each child gains of what lessons of its own would give, 0 to 1. */
  readonly served: ReadonlyMap<string, number>;
  readonly shown: Shown;
  /** Of these too little is known to place them. */
  readonly tooLittle: ReturnType<typeof tooLittleKnown>;
  readonly openedOf: (group: BoardGroup) => readonly OpenedFor[];
  readonly onChange: (groups: readonly BoardGroup[]) => void;
}

const unplacedSays: Readonly<Record<Unplaced, string>> = {
  "no need": "nothing calls for teaching now",
  "no fit": "no group works on anything it needs",
  "no room": "no room in any group",
};
const NOWHERE = "nowhere";

/** From so many groups on, the lists on the cards are filled when someone turns to them. */
const MANY = 24;

/** The group under the pointer; by keyboard, the one that the card covers most. */
const under: CollisionDetection = (moment) => {
  const pointed = pointerWithin(moment);
  return pointed.length > 0 ? pointed : rectIntersection(moment);
};

/** Groups side by side; children move by drag, by keyboard, or with the list on their card. */
export function Board({
  groups,
  learners,
  nameOf,
  order,
  unplaced,
  reasons,
  served,
  shown,
  tooLittle,
  openedOf,
  onChange,
}: BoardWanted) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor),
  );
  const refocus = useRefocus();
  const move = (childId: string, to: string) => {
    const here = groups.find((group) => group.members.some((member) => member.id === childId));
    const list = here ? here.members.map((member) => member.id) : unplaced.map((child) => child.id);
    refocus(`place-${neighbourOf(list, childId) ?? childId}`);
    onChange(
      groups.map((group) => {
        const without = group.members.filter((member) => member.id !== childId);
        const lockedHere = group.members.find((member) => member.id === childId)?.locked ?? false;
        return { ...group, members: group.id === to ? [...without, { id: childId, locked: lockedHere }] : without };
      }),
    );
  };
  /** Out of a group, and not back into it by any proposal. */
  const bar = (childId: string, groupId: string) => {
    const { members = [] } = groups.find((group) => group.id === groupId) ?? {};
    refocus(
      `place-${
        neighbourOf(
          members.map(({ id }) => id),
          childId,
        ) ?? childId
      }`,
    );
    onChange(
      groups.map((group) =>
        group.id === groupId
          ? {
              ...group,
              members: group.members.filter(({ id }) => id !== childId),
              barred: [...group.barred, childId],
            }
          : group,
      ),
    );
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && String(over.id) !== groupOf(groups, String(active.id))) move(String(active.id), String(over.id));
  };
  const noteOf = (id: string) => {
    const little = tooLittle.get(id);
    if (little) return `Too little is known: ${little.asked} of ${little.taught} taught spellings were asked.`;
    const reason = reasons.get(id);
    return reason ? unplacedSays[reason] : "left out";
  };
  const put = (id: string, change: Partial<BoardGroup>) =>
    onChange(groups.map((group) => (group.id === id ? { ...group, ...change } : group)));

  return (
    <DndContext
      sensors={sensors}
      collisionDetection={under}
      onDragEnd={dropped}
      accessibility={spokenDrag({
        what: (id) => nameOf.get(id) ?? "the child",
        where: (id) => groups.find((group) => group.id === id)?.name ?? "no group",
        how: "Press Space to pick a child up, the arrow keys to move it over a group, Space to drop it there, Escape to leave it where it was. The list beside each name does the same.",
      })}
    >
      <div className="grid grid-cols-1 items-start gap-3 md:grid-cols-2 xl:grid-cols-3">
        {groups.map((group) => {
          const members = group.members.flatMap((member) => learners.get(member.id) ?? []);
          const fit = groupFitOf(members, group.targets);
          const why = whyGroup(fit, shown);
          return (
            <Column key={group.id} id={group.id} label={group.name}>
              <TextField
                bare
                label="Name of the group"
                value={group.name}
                maxLength={60}
                className="font-semibold"
                onChange={(event) => put(group.id, { name: event.target.value })}
              />
              <Targets
                group={group}
                order={order}
                others={familiesFor(members)}
                late={groups.length > MANY}
                onChange={(targets) => put(group.id, { targets, chosenTargets: true })}
              />
              <p className="mb-2 text-sm">{why}</p>
              <Opens opened={openedOf(group)} />
              <Barred {...{ group, nameOf }} onChange={(barred) => put(group.id, { barred })} />
              <ul className="flex flex-col gap-1.5">
                {group.members.map((member) => (
                  <ChildCard
                    key={member.id}
                    id={member.id}
                    name={nameOf.get(member.id) ?? ""}
                    locked={member.locked}
                    fit={fit.members.find((one) => one.id === member.id)}
                    served={served.get(member.id)}
                    targets={group.targets}
                    groups={groups}
                    here={group.id}
                    onMove={(to) => move(member.id, to)}
                    onBar={() => bar(member.id, group.id)}
                    onLock={() =>
                      put(group.id, {
                        members: group.members.map((one) =>
                          one.id === member.id ? { ...one, locked: !one.locked } : one,
                        ),
                      })
                    }
                  />
                ))}
              </ul>
            </Column>
          );
        })}
        <Column id={NOWHERE} label="In no group">
          <h2 className="mb-1">In no group</h2>
          <ul className="flex flex-col gap-1.5">
            {unplaced.map((child) => (
              <ChildCard
                key={child.id}
                id={child.id}
                name={child.name}
                locked={false}
                fit={undefined}
                targets={[]}
                note={noteOf(child.id)}
                checkFor={tooLittle.has(child.id)}
                groups={groups}
                here={NOWHERE}
                onMove={(to) => move(child.id, to)}
              />
            ))}
            {unplaced.length === 0 && <li className="text-soft">Everyone has a place.</li>}
          </ul>
        </Column>
      </div>
    </DndContext>
  );
}

/** Who must not be in a group when groups are proposed again; a press lets a child in again. */
function Barred({
  group,
  nameOf,
  onChange,
}: {
  group: BoardGroup;
  nameOf: ReadonlyMap<string, string>;
  onChange: (barred: readonly string[]) => void;
}) {
  if (group.barred.length === 0) return null;
  return (
    <p className="mb-2 text-sm text-soft">
      Not here:{" "}
      {group.barred.map((id, at) => (
        <span key={id}>
          {at > 0 && ", "}
          <button
            type="button"
            className="underline underline-offset-4"
            title="Let in again"
            aria-label={`Let ${nameOf.get(id) ?? ""} into ${group.name} again`}
            onClick={() => onChange(group.barred.filter((other) => other !== id))}
          >
            {nameOf.get(id)}
          </button>
        </span>
      ))}
    </p>
  );
}

function groupOf(groups: readonly BoardGroup[], childId: string): string {
  return groups.find((group) => group.members.some((member) => member.id === childId))?.id ?? NOWHERE;
}

function Column({ id, label, children }: { id: string; label: string; children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <section
      ref={setNodeRef}
      aria-label={label}
      className={`rounded-lg border bg-sheet p-3 ${isOver ? "border-leaf bg-leaf-pale" : "border-line"}`}
    >
      {children}
    </section>
  );
}

interface CardWanted {
  readonly id: string;
  readonly name: string;
  readonly locked: boolean;
  readonly fit: MemberFit | undefined;
  /** What it gains of what lessons of its own would give, 0 to 1. */
  readonly served?: number | undefined;
  readonly targets: readonly string[];
  readonly note?: string;
  /** A check would tell where the child belongs. */
  readonly checkFor?: boolean;
  readonly groups: readonly BoardGroup[];
  readonly here: string;
  readonly onMove: (to: string) => void;
  readonly onLock?: () => void;
  /** Keeps the child out of this group when groups are proposed again. */
  readonly onBar?: () => void;
}

function ChildCard({
  id,
  name,
  locked,
  fit,
  served,
  targets,
  note,
  checkFor,
  groups,
  here,
  onMove,
  onLock,
  onBar,
}: CardWanted) {
  const { setNodeRef, attributes, listeners, transform, isDragging } = useDraggable({ id, disabled: locked });
  return (
    <li
      ref={setNodeRef}
      style={
        transform
          ? { transform: `translate(${transform.x}px, ${transform.y}px)`, position: "relative", zIndex: 20 }
          : undefined
      }
      className={`rounded-md border border-line bg-paper px-2 py-1.5 ${isDragging ? "shadow-lg" : ""}`}
    >
      <div className="flex items-center gap-1.5">
        <button
          type="button"
          {...attributes}
          {...listeners}
          disabled={locked}
          aria-label={`Drag ${name}`}
          className="-ml-1 flex size-6 cursor-grab touch-none items-center justify-center text-soft disabled:opacity-30"
        >
          <GripVertical size={15} aria-hidden />
        </button>
        <span className="flex-1 font-semibold">{name}</span>
        <LateSelect
          late={groups.length > MANY}
          chosen={<option value={here}>{groups.find((group) => group.id === here)?.name ?? "no group"}</option>}
          entries={() => (
            <>
              {groups.map((group) => (
                <option key={group.id} value={group.id}>
                  {group.name}
                </option>
              ))}
              <option value={NOWHERE}>no group</option>
            </>
          )}
          id={`place-${id}`}
          aria-label={`Group of ${name}`}
          value={here}
          disabled={locked}
          onChange={(event) => onMove(event.target.value)}
          className="max-w-28 rounded border border-line bg-sheet px-1 py-0.5 text-sm"
        />
        {onBar && !locked && (
          <button
            type="button"
            title="Not in this group"
            aria-label={`Keep ${name} out of this group`}
            onClick={onBar}
            className="flex size-6 items-center justify-center rounded text-soft hover:bg-leaf-pale"
          >
            <Ban size={15} aria-hidden />
          </button>
        )}
        {onLock && (
          <button
            type="button"
            aria-pressed={locked}
            aria-label={`Lock ${name} in this group`}
            onClick={onLock}
            className="flex size-6 items-center justify-center rounded text-soft hover:bg-leaf-pale"
          >
            {locked ? <Lock size={15} aria-hidden className="text-damson" /> : <LockOpen size={15} aria-hidden />}
          </button>
        )}
      </div>
      {fit && <FitLine fit={fit} targets={targets} served={served} />}
      {note && <p className="text-sm text-soft">{note}</p>}
      {checkFor && (
        <Link to={`/check?child=${id}`} className="text-sm underline underline-offset-4">
          Find out where {name} belongs
        </Link>
      )}
    </li>
  );
}
