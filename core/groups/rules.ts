import type { Learner } from "./fit.ts";
import type { GroupsWanted, Limits, Pair, Unkept } from "./wanted.ts";

/** Children who move as one: those who are to be together, or one child. */
export interface Block {
  /** Places in the list of those in play. */
  readonly children: readonly number[];
  /** The group in which it must stay, or -1. */
  readonly fixed: number;
  readonly barred: readonly number[];
  /** Blocks with which it must not be. */
  readonly apart: ReadonlySet<number>;
  /** Number of the class, the same for all its children; -1 when classes mix or do not matter. */
  readonly classNumber: number;
  /** Its youngest and oldest year group; the widest there is where none is known. */
  readonly years: readonly [number, number];
}

/** The limits as the search keeps them, with those that cannot be kept taken out and named. */
export interface Rules {
  readonly blocks: readonly Block[];
  /** Children taught by themselves, as places. */
  readonly alone: readonly number[];
  /** How many groups there may be beside those of one. */
  readonly groups: number;
  readonly least: number;
  readonly most: number;
  /** Infinity where years do not matter. */
  readonly yearsApart: number;
  readonly unkept: readonly Unkept[];
}

const ANY_YEAR: readonly [number, number] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];

/**
 * Brings limits to a shape that a search can keep. Of limits that stand against each other a lock wins over *apart*, and
 * *apart* over *together*; what loses is named with what would help.
 */
export function rulesFor(inPlay: readonly Learner[], wanted: GroupsWanted): Rules {
  const { shape, limits = {} } = wanted;
  const unkept: Unkept[] = [];
  const at = new Map(inPlay.map(({ id }, place) => [id, place]));
  const places = (pairs: readonly Pair[] = []) =>
    pairs.flatMap(([one, other]) => {
      const [left, right] = [at.get(one), at.get(other)];
      return left === undefined || right === undefined || left === right ? [] : [[left, right] as const];
    });
  const name = (place: number) => inPlay[place]?.id ?? "";
  const aloneSet = new Set((limits.alone ?? []).flatMap((id) => at.get(id) ?? []));
  let alone = [...aloneSet];
  const room = limits.mostGroups ?? Number.POSITIVE_INFINITY;
  if (alone.length > room) {
    unkept.push({
      limit: "alone",
      children: alone.slice(room).map(name),
      why: `${alone.length} children are to be taught alone, and there are adults for ${inWords(room)}.`,
      helps: ["Find another adult, or put one of them in a group."],
    });
    alone = alone.slice(0, room);
  }
  const inGroups = inPlay.flatMap((_, place) => (aloneSet.has(place) ? [] : [place]));
  const lockedGroups = Math.max(
    0,
    ...[...(limits.locked ?? [])].flatMap(([id, group]) => (at.has(id) ? [group + 1] : [])),
  );
  const sizes = sizesFor(
    inGroups.map((place) => inPlay[place] as Learner),
    { shape, limits, lockedGroups, room: room - alone.length },
  );

  const lockOf = (place: number) => {
    const lock = limits.locked?.get(name(place)) ?? -1;
    return lock < sizes.groups ? lock : -1;
  };
  const lost = inGroups.filter((place) => (limits.locked?.get(name(place)) ?? -1) >= sizes.groups).map(name);
  if (lost.length > 0)
    unkept.push({
      limit: "locked",
      children: lost,
      why: `${lost.length === 1 ? "{0} is" : `${lost.length} children are`} locked in a group for which there is no adult.`,
      helps: ["Find another adult, or unlock them."],
    });
  const barredOf = (place: number) => limits.barred?.get(name(place)) ?? [];
  const apart = places(limits.apart).filter(([one, other]) => {
    if (lockOf(one) < 0 || lockOf(one) !== lockOf(other)) return true;
    unkept.push({
      limit: "apart",
      children: [name(one), name(other)],
      why: "{0} and {1} are to be kept apart, and both are locked in the same group.",
      helps: ["Unlock one of them."],
    });
    return false;
  });

  const sets = new Map(inGroups.map((place) => [place, [place]]));
  for (const [one, other] of places(limits.together)) {
    const [left, right] = [sets.get(one), sets.get(other)];
    if (left === right && left) continue;
    const why = whyNotTogether();
    if (why) {
      unkept.push({ limit: "together", children: [name(one), name(other)], ...why });
      continue;
    }
    const merged = [...(left ?? []), ...(right ?? [])];
    for (const place of merged) sets.set(place, merged);

    function whyNotTogether(): Pick<Unkept, "why" | "helps"> | undefined {
      const said = "{0} and {1} are to be together";
      if (!left || !right)
        return { why: `${said}, and one of them is to be taught alone.`, helps: ["Choose one of the two."] };
      const all = [...left, ...right];
      if (apart.some(([a, b]) => all.includes(a) && all.includes(b)))
        return {
          why: `${said}, which brings two together who are to be kept apart.`,
          helps: ["Choose one of the two."],
        };
      const locks = new Set(all.map(lockOf).filter((lock) => lock >= 0));
      if (locks.size > 1)
        return { why: `${said}, and they are locked in two groups.`, helps: ["Unlock one of them."] };
      const [lock = -1] = locks;
      if (all.some((place) => barredOf(place).includes(lock)))
        return { why: `${said}, and one of them must not be in that group.`, helps: ["Unlock the other."] };
      if (all.length > sizes.most)
        return {
          why: `${said} with others, ${all.length} in all, and a group holds ${sizes.most}.`,
          helps: [`Make groups of up to ${all.length}.`],
        };
      const members = all.map((place) => inPlay[place] as Learner);
      if (limits.withinClasses && new Set(members.map(({ classId }) => classId)).size > 1)
        return { why: `${said}, and are in different classes.`, helps: ["Let groups go across classes."] };
      const [first, last] = yearsOf(members);
      if (last - first > (limits.yearsApart ?? Number.POSITIVE_INFINITY))
        return { why: `${said}, and are too many years apart.`, helps: ["Allow more years in a group."] };
      return lock >= 0 && all.some((place) => lockOf(place) < 0) ? whyNotBesideLocked(lock, all) : undefined;
    }

    /** A lock that breaks a limit is the teacher's own; whoever would only come along breaks none. */
    function whyNotBesideLocked(lock: number, all: readonly number[]): Pick<Unkept, "why" | "helps"> | undefined {
      const said = "{0} and {1} are to be together, and one of them is locked in a group";
      const helps = ["Unlock one of them."];
      const locked = inGroups.filter((place) => lockOf(place) === lock).flatMap((place) => sets.get(place) ?? []);
      const everyone = [...new Set([...locked, ...all])];
      if (everyone.length > sizes.most)
        return { why: `${said} that would hold ${everyone.length}, and a group holds ${sizes.most}.`, helps };
      if (apart.some(([a, b]) => everyone.includes(a) && everyone.includes(b)))
        return { why: `${said} with a child to be kept apart from.`, helps };
      const members = everyone.map((place) => inPlay[place] as Learner);
      if (limits.withinClasses && new Set(members.map(({ classId }) => classId)).size > 1)
        return { why: `${said} with another class.`, helps };
      const [first, last] = yearsOf(members);
      if (last - first > (limits.yearsApart ?? Number.POSITIVE_INFINITY))
        return { why: `${said} that is too many years apart.`, helps };
      return undefined;
    }
  }

  const classes = [...new Set(inPlay.map(({ classId }) => classId))];
  const distinct = [...new Set(sets.values())];
  const blockOf = new Map(distinct.flatMap((set, number) => set.map((place) => [place, number] as const)));
  const blocks = distinct.map((children): Block => {
    const members = children.map((place) => inPlay[place] as Learner);
    const fixed = Math.max(-1, ...children.map(lockOf));
    return {
      children,
      fixed,
      barred: children.flatMap(barredOf).filter((group) => group !== fixed),
      apart: new Set(
        apart.flatMap(([one, other]) => {
          const [left, right] = [blockOf.get(one), blockOf.get(other)];
          if (left === undefined || right === undefined) return [];
          if (children.includes(one)) return [right];
          return children.includes(other) ? [left] : [];
        }),
      ),
      classNumber: limits.withinClasses ? classes.indexOf(members[0]?.classId) : -1,
      years: limits.yearsApart === undefined ? ANY_YEAR : yearsOf(members),
    };
  });
  return {
    blocks,
    alone,
    ...sizes,
    yearsApart: limits.yearsApart ?? Number.POSITIVE_INFINITY,
    unkept,
  };
}

function yearsOf(members: readonly Learner[]): readonly [number, number] {
  const known = members.flatMap(({ year }) => (year === undefined ? [] : [year]));
  return known.length === 0 ? ANY_YEAR : [Math.min(...known), Math.max(...known)];
}

interface ForSizes {
  readonly shape: GroupsWanted["shape"];
  readonly limits: Limits;
  readonly lockedGroups: number;
  readonly room: number;
}

function sizesFor(children: readonly Learner[], { shape, limits, lockedGroups, room }: ForSizes) {
  const all = children.length;
  if (shape.by === "count") {
    const wanted = Math.max(1, Math.min(Math.max(shape.count, lockedGroups), Math.max(all, lockedGroups)));
    const groups = Math.min(wanted, room);
    const small = Math.floor(all / Math.max(1, groups));
    return { groups, least: small, most: small + (all % Math.max(1, groups) ? 1 : 0) };
  }
  const most = Math.max(1, shape.most);
  const fewest = Math.max(fewestGroups(children, most, limits), lockedGroups);
  // With adults told, as many as there is room for: smaller groups fit closer.
  const groups =
    limits.mostGroups === undefined ? fewest : Math.max(fewest, Math.floor(all / Math.max(1, shape.least)));
  const taken = Math.min(groups, room);
  return { groups: taken, least: Math.min(shape.least, Math.max(1, Math.floor(all / Math.max(1, taken)))), most };
}

/** How many groups of this size hold all children, where classes or years keep some from sharing one. */
function fewestGroups(children: readonly Learner[], most: number, { withinClasses, yearsApart }: Limits): number {
  const byClass = new Map<string, Learner[]>();
  for (const child of children) {
    const key = withinClasses ? (child.classId ?? "") : "";
    byClass.set(key, [...(byClass.get(key) ?? []), child]);
  }
  let groups = 0;
  for (const its of byClass.values()) {
    const years = its.map(({ year }) => year ?? Number.NaN).sort((one, other) => one - other);
    let begun = -1;
    for (const [place, year] of years.entries()) {
      if (
        begun >= 0 &&
        place - begun < most &&
        !(year - (years[begun] as number) > (yearsApart ?? Number.POSITIVE_INFINITY))
      )
        continue;
      begun = place;
      groups++;
    }
  }
  return Math.max(1, groups);
}

function inWords(count: number): string {
  return count === 0 ? "none" : String(count);
}
