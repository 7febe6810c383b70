import type { LookView, MovesView, MoveView } from "#contract";
import {
  heeding,
  type Left,
  learnersIn,
  leavingsIn,
  looksDue,
  type Move,
  movesFor,
  type Pair,
  type TargetsApart,
  targetsApart,
  targetsIn,
  withOthers,
} from "#core/groups";
import { dayAt } from "#core/ledger";
import type { School } from "../house.ts";

/** Who may leave, move, join or come back by today's answers, and the looks due at those who left. */
export async function movesOn(school: School, today: string): Promise<MovesView> {
  const grouping = await school.grouping.read();
  const map = await school.standings.gapMap(today);
  const groups = await school.groups.list();
  const said = await school.grouping.saidOn(today);
  const saidOf = new Map([...said.classes, ...said.children].map((one) => [one.id, one.said]));
  const plain = learnersIn(map);
  const about = new Map(
    plain.map(({ id, classId = "" }) => [id, [...(saidOf.get(classId) ?? []), ...(saidOf.get(id) ?? [])]]),
  );
  const learners = withOthers(
    plain.map((one) => heeding(one, about.get(one.id) ?? [])),
    {
      ...{ plain, said: about },
      others: await school.standings.otherNeedsOf(
        plain.map(({ id }) => id),
        today,
      ),
    },
  );
  const left = await leftIn(school);
  const apart = (await school.grouping.wishes()).flatMap(({ kind, childId, otherId }): Pair[] =>
    kind === "apart" && otherId ? [[childId, otherId]] : [],
  );
  const moves = movesFor({
    ...{ learners, left, apart, most: grouping.most, rule: grouping.leaving },
    order: map.columns.map(({ gpc }) => gpc),
    groups: groups
      .filter(({ closed }) => !closed)
      .map((group) => ({
        ...{ id: group.id, targets: targetsIn(group) },
        members: group.members.map(({ childId }) => childId),
      })),
  });
  const off = new Set((await school.grouping.movesOff(today)).map(({ childId, kind }) => `${kind} ${childId}`));
  const names = new Map(map.rows.map(({ id, name }) => [id, name]));
  const groupNames = new Map(groups.map(({ id, name }) => [id, name]));
  const askedOn = await school.standings.askedOn(left.map(({ childId }) => childId));
  const looks = looksDue(left, today, (childId, gpc) => askedOn.get(childId)?.(gpc));
  return {
    moves: moves
      .filter(({ kind, childId }) => !off.has(`${kind} ${childId}`))
      .map((move) => inWords(move, { names, groupNames, groups })),
    looks: looks.flatMap(({ childId, groupId, on, weeks, due, gpcs }): LookView[] => {
      const name = names.get(childId);
      if (name === undefined) return [];
      return [{ childId, name, groupName: groupNames.get(groupId) ?? "", leftOn: on, weeks, due, gpcs: [...gpcs] }];
    }),
  };
}

/** Children who left a group, by the states of all groups. */
async function leftIn(school: School): Promise<readonly Left[]> {
  const zone = await school.settings.zone();
  const states = (await school.groups.everyState())
    .map((state) => ({
      ...{ groupId: state.groupId, savedAt: state.savedAt, version: state.version, targets: targetsIn(state) },
      on: dayAt(zone, state.savedAt),
      members: state.members.map(({ childId }) => childId),
    }))
    .sort((one, other) => one.savedAt.localeCompare(other.savedAt) || one.version - other.version);
  const closed = (await school.groups.list()).filter((group) => group.closed).map(({ id }) => id);
  return leavingsIn(states, new Set(closed));
}

interface Named {
  readonly names: ReadonlyMap<string, string>;
  readonly groupNames: ReadonlyMap<string, string>;
  readonly groups: readonly (TargetsApart & { readonly id: string })[];
}

function inWords(move: Move, { names, groupNames, groups }: Named): MoveView {
  const groupId = "groupId" in move ? move.groupId : null;
  const toId = "toId" in move ? move.toId : null;
  const group = groups.find(({ id }) => id === groupId);
  const here = group ? targetsIn(group) : [];
  const about = move.kind === "leave" ? here : move.kind === "again" ? move.gpcs : move.there;
  const { targets: gpcs, besides } = targetsApart(about);
  const count = move.kind === "leave" ? move.of : move.kind === "move" ? move.here : 0;
  return {
    ...{ kind: move.kind, childId: move.childId, name: names.get(move.childId) ?? "" },
    ...{ groupId, groupName: groupNames.get(groupId ?? "") ?? "", toId, toName: groupNames.get(toId ?? "") ?? "" },
    ...{ gpcs: [...gpcs], besides: [...besides], count },
  };
}
