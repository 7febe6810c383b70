import { addWeeks, formatISO, parseISO } from "date-fns";
import {
  closeGroup,
  type GroupView,
  getMoves,
  listGroups,
  type MovesView,
  type MoveView,
  putMoveOff,
  saveGroup,
} from "#contract";
import { call, refreshAll, useAsk } from "./api.ts";
import { stampNow } from "./clock.ts";
import { newId } from "./settings.ts";

/** Weeks for which a proposed move is put off. */
const OFF_WEEKS = 2;

/** Changes of groups that today's answers speak for, with what can be done about them. */
export interface MovesDesk extends MovesView {
  readonly accept: (move: MoveView) => Promise<void>;
  /** @returns the day until which it is put off */
  readonly putOff: (move: MoveView) => Promise<string>;
}

/** @returns undefined until they are here */
export function useMoves(today: string): MovesDesk | undefined {
  const moves = useAsk(getMoves, {});
  const groups = useAsk(listGroups, {});
  if (!moves.data || !groups.data) return undefined;
  const all = groups.data;
  return {
    ...moves.data,
    accept: async (move) => {
      await moveChild(move, all);
      await refreshAll();
    },
    putOff: async ({ childId, kind }) => {
      const until = formatISO(addWeeks(parseISO(today), OFF_WEEKS), { representation: "date" });
      await call(putMoveOff, { params: { id: childId }, body: { kind, until } });
      await refreshAll();
      return until;
    },
  };
}

/** Takes a child out of its group and puts it where it is to go; a group that no one is left in is closed. */
async function moveChild(move: MoveView, groups: readonly GroupView[]): Promise<void> {
  const save = (group: GroupView, members: GroupView["members"], why: string) =>
    call(saveGroup, {
      params: { id: group.id },
      body: {
        ...{
          versionId: newId(),
          version: group.version,
          name: group.name,
          ...{ targets: group.targets, besides: group.besides },
          at: stampNow(),
          why,
        },
        members: members.map(({ childId, locked }) => ({ childId, locked })),
      },
    });
  const to = groups.find(({ id }) => id === move.toId);
  // First in, then out: if the second fails the child is in two groups for a moment and in none never.
  if (to) {
    const newcomer = { childId: move.childId, locked: false, name: move.name, classId: "" };
    await save(
      to,
      [...to.members.filter(({ childId }) => childId !== move.childId), newcomer],
      `${move.name} came in.`,
    );
  }
  const from = move.kind === "join" ? undefined : groups.find(({ id }) => id === move.groupId);
  if (!from) return;
  const left = from.members.filter(({ childId }) => childId !== move.childId);
  const why = move.kind === "leave" ? `${move.name} needs it no longer.` : `${move.name} went to ${move.toName}.`;
  await save(from, left, why);
  if (left.length === 0) await call(closeGroup, { params: { id: from.id }, body: { closed: true } });
}
