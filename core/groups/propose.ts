import type { Gpc } from "#core/phonics";
import { chooseTargets, type Learner } from "./fit.ts";
import { type Rules, rulesFor } from "./rules.ts";
import { NeedTable } from "./score.ts";
import { GroupSearch } from "./search.ts";
import type { GroupsWanted, Proposal, ProposedGroup, Unkept, Unplaced } from "./wanted.ts";

/** Looks on after the first proposal, when no one says how long. */
const ROUNDS = 60;

/** A search that can be asked for what it has, and to look on. */
export interface GroupFinder {
  /** The best that was found so far. */
  proposal(): Proposal;
  /** Looks on for so many rounds. @returns whether something better was found */
  again(rounds: number): boolean;
  /** The need that the best meets, without what places are worth. */
  need(): number;
  /** What a bound is worked out from. */
  readonly inside: { readonly table: NeedTable; readonly rules: Rules; readonly search: GroupSearch };
}

/**
 * Puts children who need the same few things together, within the limits. Limits that stand against each other are named and
 * left out, so that there is a proposal whatever was asked. The first one is there when this returns; the same wanted and the
 * same number of rounds give the same.
 */
export function findGroups(wanted: GroupsWanted): GroupFinder {
  const { learners, order, mostTargets = 4, stay = 0, limits = {}, seed } = wanted;
  const needy = new Set(learners.flatMap(({ id, needs }) => (needs.size > 0 ? [id] : [])));
  // Who is to be together with someone comes along, also without a need.
  const along = new Set((limits.together ?? []).flatMap((pair) => (pair.some((id) => needy.has(id)) ? pair : [])));
  const inPlay = learners.filter(({ id }) => needy.has(id) || along.has(id) || limits.locked?.has(id));
  const rules = rulesFor(inPlay, wanted);
  const table = new NeedTable(inPlay, mostTargets, stay);
  const search = new GroupSearch(table, rules, seed);
  return {
    inside: { table, rules, search },
    need: () => search.worth - table.placed * search.children(),
    again: (rounds) => {
      let better = false;
      for (let round = 0; round < rounds; round++) if (search.again()) better = true;
      return better;
    },
    proposal: () =>
      told({
        inPlay,
        learners,
        order,
        mostTargets,
        table,
        rules,
        search,
        numbered: (limits.locked?.size ?? 0) + (limits.barred?.size ?? 0) > 0,
      }),
  };
}

/** The same in one call, with as many rounds as a class takes in a blink. */
export function proposeGroups(wanted: GroupsWanted, rounds = ROUNDS): Proposal {
  const finder = findGroups(wanted);
  finder.again(rounds);
  return finder.proposal();
}

interface Found {
  readonly inPlay: readonly Learner[];
  readonly learners: readonly Learner[];
  readonly order: readonly Gpc[];
  readonly mostTargets: number;
  readonly table: NeedTable;
  readonly rules: Rules;
  readonly search: GroupSearch;
  /** Groups keep their numbers, since children are kept in or out of them. */
  readonly numbered: boolean;
}

function told({ inPlay, learners, order, mostTargets, table, rules, search, numbered }: Found): Proposal {
  const unplaced = new Map<string, Unplaced>();
  for (const { id } of learners) if (!inPlay.some((one) => one.id === id)) unplaced.set(id, "no need");
  const placed = new Set<string>();
  const place = new Map(inPlay.map(({ id }, at) => [id, at]));
  const groupOf = (members: readonly Learner[]): ProposedGroup => ({
    members: members.map(({ id }) => id),
    targets: chooseTargets(members, order, mostTargets),
  });
  const groups = search.groupsOfBest().map((blocks) => {
    const all = blocks.flatMap((block) =>
      (rules.blocks[block]?.children ?? []).map((at) => ({
        learner: inPlay[at] as Learner,
        free: blockIsFree(block),
      })),
    );
    // Too small a group is none; who was locked in it stays all the same.
    let members = all.length < rules.least ? all.filter(({ free }) => !free) : all;
    // A child who needs none of a group's targets would only sit through them.
    for (let size = members.length; size > rules.least; ) {
      const targets = chooseTargets(
        members.map(({ learner }) => learner),
        order,
        mostTargets,
      );
      const idle = members.find(({ learner, free }) => free && !targets.some((gpc) => learner.needs.has(gpc)));
      if (!idle) break;
      unplaced.set(idle.learner.id, "no fit");
      members = members.filter((one) => one !== idle);
      size = members.length;
    }
    for (const { learner } of members) placed.add(learner.id);
    return groupOf(members.map(({ learner }) => learner));
  });
  for (const at of rules.alone) {
    const child = inPlay[at] as Learner;
    placed.add(child.id);
    groups.push(groupOf([child]));
  }
  for (const { id } of inPlay) if (!placed.has(id) && !unplaced.has(id)) unplaced.set(id, "no room");
  return {
    groups: numbered ? groups : byFirstTarget(groups, order),
    unplaced,
    unkept: [...rules.unkept, ...unkeptOf(unplaced, { inPlay, rules, groups })],
    worth: groups.reduce((sum, { members }) => sum + table.worth(members.map((id) => place.get(id) as number)), 0),
  };

  function blockIsFree(block: number): boolean {
    const its = rules.blocks[block];
    return its !== undefined && its.fixed < 0 && its.children.length === 1;
  }
}

function byFirstTarget(groups: readonly ProposedGroup[], order: readonly Gpc[]): ProposedGroup[] {
  const at = new Map(order.map((gpc, number) => [gpc, number]));
  const place = ({ targets: [first = ""] }: ProposedGroup) => at.get(first) ?? order.length;
  return groups.filter(({ members }) => members.length > 0).sort((one, other) => place(one) - place(other));
}

/** Why children who need something have no place, and what would give them one. */
function unkeptOf(
  unplaced: ReadonlyMap<string, Unplaced>,
  { inPlay, rules, groups }: { inPlay: readonly Learner[]; rules: Rules; groups: readonly ProposedGroup[] },
): Unkept[] {
  const waiting = inPlay.filter(({ id }) => unplaced.get(id) === "no room");
  if (waiting.length === 0) return [];
  const found: Unkept[] = [];
  const blockOf = new Map(
    rules.blocks.flatMap((block) => block.children.map((at) => [inPlay[at]?.id ?? "", block] as const)),
  );
  const full: string[] = [];
  for (const { id } of waiting) {
    const block = blockOf.get(id);
    const others = block
      ? [...block.apart].flatMap((other) => rules.blocks[other]?.children ?? []).map((at) => inPlay[at]?.id ?? "")
      : [];
    const roomy = groups.filter(({ members }) => members.length > 0 && members.length < rules.most);
    const kept = others.filter((other) => roomy.some(({ members }) => members.includes(other)));
    if (roomy.length > 0 && roomy.every(({ members }) => members.some((member) => others.includes(member)))) {
      found.push({
        limit: "apart",
        children: [id, ...kept],
        why: `{0} has no place: ${rules.groups === 1 ? "the one group with room holds" : "every group with room holds"} a child to be kept apart from.`,
        helps: [`Make ${rules.groups + 1} groups, or put {0} in no group for now.`],
      });
    } else full.push(id);
  }
  if (full.length > 0) found.push(noRoom(full, { rules, inPlay }));
  return found;
}

function noRoom(full: readonly string[], { rules, inPlay }: { rules: Rules; inPlay: readonly Learner[] }): Unkept {
  const wait = full.length === 1 ? "1 child has no place" : `${full.length} children have no place`;
  if (rules.groups === 0)
    return {
      limit: "room",
      children: full,
      why: `${wait}: there is no adult to take a group.`,
      helps: ["Say who can take one."],
    };
  const grouped = inPlay.length - rules.alone.length;
  if (rules.groups * rules.most < grouped) {
    const more = Math.ceil(full.length / rules.most);
    return {
      limit: "room",
      children: full,
      why: `${wait}: ${rules.groups === 1 ? "1 group holds" : `${rules.groups} groups hold`} ${rules.groups * rules.most} of the ${grouped} who need something; they go to those who gain most.`,
      helps: [
        `${more === 1 ? "One group more" : `${more} groups more`} would do, or groups of up to ${Math.ceil(grouped / rules.groups)}.`,
      ],
    };
  }
  return {
    limit: "least",
    children: full,
    why: `${wait}: with these limits too few are left to make a group of ${rules.least}.`,
    helps: [
      `Make groups from ${Math.max(1, Math.min(full.length, rules.least - 1))}, or let them go across classes and years.`,
    ],
  };
}
