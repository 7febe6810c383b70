import { useRef } from "react";
import { closeGroup, type GroupView, saveGroup } from "#contract";
import { carryOver, targetsApart, targetsIn } from "#core/groups";
import { call } from "#web/device/api.ts";
import { stampNow } from "#web/device/clock.ts";
import { newId } from "#web/device/settings.ts";
import type { BoardGroup } from "./board.tsx";

interface Sent {
  readonly said: string;
  readonly versionId: string;
  readonly at: string;
  readonly onto: number;
  saved: number;
}

/** What of a saving is done, in names. */
export interface Saving {
  readonly saved: readonly string[];
  readonly left: readonly string[];
}

/**
 * Saves groups from a board: those that go on from a running group as its next state, the others new; a child who is in one of
 * them leaves the group it was in, and a group that no one is in any more is closed. Tried again after half of it failed, it saves
 * the rest and nothing twice.
 */
export function useSaving(running: readonly GroupView[]) {
  const sent = useRef(new Map<string, Sent>());
  return async (groups: readonly BoardGroup[], done: (saving: Saving) => void): Promise<void> => {
    const wanted = groups.filter(({ members }) => members.length > 0);
    const open = running.filter(({ closed }) => !closed);
    const others = carryOver(
      wanted.map(({ members }) => ({ members: members.map(({ id }) => id) })),
      open
        .filter(({ id }) => !wanted.some((group) => group.id === id))
        .map((group) => ({
          ...{ id: group.id, targets: targetsIn(group) },
          members: group.members.map(({ childId }) => childId),
        })),
    );
    // A running group that the board does not go on from keeps whom no one wants elsewhere.
    const placed = new Set(wanted.flatMap(({ members }) => members.map(({ id }) => id)));
    const rest = [
      ...others.carried.flatMap(({ from }) => from ?? []),
      ...others.thinned.map(({ id }) => id),
      ...others.emptied,
    ];
    const states = [
      ...wanted.map((group) => ({
        ...{
          id: group.id,
          name: group.name.trim(),
          ...targetsApart(group.targets),
          why: "Made anew from what each child needs.",
        },
        members: group.members.map(({ id, locked }) => ({ childId: id, locked })),
      })),
      ...open
        .filter(({ id }) => rest.includes(id))
        .map(({ id, name, members, targets, besides }) => ({
          ...{ id, name, targets, besides, why: "Its children were put into other groups." },
          members: members
            .filter(({ childId }) => !placed.has(childId))
            .map(({ childId, locked }) => ({ childId, locked })),
        })),
    ];
    const saved: string[] = [];
    const tell = () => done({ saved, left: states.map(({ name }) => name).filter((name) => !saved.includes(name)) });
    for (const { id, ...content } of states) {
      tell();
      // What is saved once more is the same version, unless it was changed meanwhile.
      const said = JSON.stringify(content);
      const before = sent.current.get(id);
      const onto = before?.saved ?? open.find((one) => one.id === id)?.version ?? 0;
      const version =
        before?.said === said
          ? before
          : { said, versionId: newId(), at: stampNow(), onto, saved: before?.saved ?? onto };
      sent.current.set(id, version);
      const made = await call(saveGroup, {
        params: { id },
        body: {
          ...{ versionId: version.versionId, version: version.onto, at: version.at },
          ...content,
          ...{ targets: [...content.targets], besides: [...content.besides] },
        },
      });
      version.saved = made.version;
      if (content.members.length === 0) await call(closeGroup, { params: { id }, body: { closed: true } });
      saved.push(content.name);
    }
    tell();
  };
}
