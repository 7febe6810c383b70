import type { ChildView, SectionBody } from "#contract";
import { kinds, rightInMinute } from "#core/checks";
import { checkOf, type GivenAnswer, isRightAtOnce, type KindId, marksIn, type Outcome } from "#core/ledger";
import { lastSteps, stepsUpTo } from "#core/order";
import { type KnownBy, youngestOf } from "#core/words";
import { findMany } from "../classes/children.ts";
import { wordAges } from "../classes/word-ages.ts";
import { standingOfChildren } from "../ledger/standing.ts";
import { type Taught, taughtByChild } from "../orders/taught.ts";
import { dayOf } from "../settings/repository.ts";
import { type Due, dueOf } from "../standings/repository.ts";
import type { Inside } from "../store/scope.ts";
import type { Dealt, DrawnFrom } from "./deal.ts";
import { byMinute, type CheckRow } from "./repository.ts";

/** What is known of one child when checks are planned or seen. */
export interface Known {
  readonly child: ChildView;
  drawnFrom(section: SectionBody): DrawnFrom;
  /** The last outcome of each item before this check, in checks of its kind. */
  before(check: CheckRow): ReadonlyMap<string, Outcome>;
  /** Median milliseconds an item in checks of this kind, and from how many answers. */
  pace(kind: string): { ms: number; answers: number } | null;
  /** Most right in a minute in earlier checks of the kind of this one. */
  best(check: CheckRow): number | null;
}

/** What is known of these children today, in the order of the ids; who is not here is left out. */
export async function knowledgeOf(inside: Inside, childIds: readonly string[], now: Date): Promise<Known[]> {
  const children = new Map((await findMany(inside, childIds)).map((child) => [child.id, child]));
  const taughtTo = await taughtByChild(inside);
  const ageOf = await wordAges(inside);
  const logs = await standingOfChildren(inside, childIds);
  const today = await dayOf(inside, now);
  const due = await dueOf(inside, [...children.keys()], today);
  const minutes = await byMinute(inside, childIds);
  return childIds.flatMap((id) => {
    const child = children.get(id);
    if (!child) return [];
    const byClock = minutes.filter((check) => check.childId === id);
    return [
      knownOf({
        child,
        byClock,
        given: logs.get(id) ?? [],
        due: due.get(id) ?? { secure: new Set(), doubt: new Map() },
        taught: taughtTo(child.id, child.classId),
        age: ageOf(child.classId),
      }),
    ];
  });
}

interface KnownWanted {
  readonly child: ChildView;
  /** The child's checks that went by the minute. */
  readonly byClock: readonly CheckRow[];
  readonly given: readonly GivenAnswer[];
  readonly due: Due;
  readonly taught: Taught;
  readonly age: KnownBy;
}

function knownOf({ child, byClock, given, due, taught, age }: KnownWanted): Known {
  const { gpcs, exceptionWords, order, stepId } = taught;
  const lastOfKind = (kind: KindId, before?: CheckRow): ReadonlyMap<string, Outcome> => {
    const last = new Map<string, Outcome>();
    const asked = new Set(marksIn(kind));
    for (const answer of given) {
      // A word that went wrong in a text was not asked in a check, and what a teacher knows was not asked at all.
      if (!asked.has(answer.kind) || answer.source.kind === "reading" || answer.source.kind === "judgement") continue;
      if (before && (checkOf(answer) === before.id || answer.markedAt >= before.startedAt)) continue;
      last.set(answer.item, answer.outcome);
    }
    return last;
  };
  return {
    child,
    drawnFrom: (section) => {
      const last = lastOfKind(section.kind);
      const steps = stepsUpTo(order, stepId).slice(-section.recentSteps);
      return {
        taught: gpcs,
        recent: lastSteps(order, stepId, section.recentSteps),
        exceptionWords,
        recentExceptionWords: steps.flatMap((step) => step.exceptionWords),
        ...due,
        last,
        age,
      };
    },
    before: (check) => lastOfKind(check.kind as KindId, check),
    pace: (kind) => {
      const times = given
        .flatMap((answer) => (answer.kind === kind && answer.ms !== null ? [answer.ms] : []))
        .sort((one, other) => one - other);
      const ms = times[Math.floor(times.length / 2)];
      return ms === undefined ? null : { ms, answers: times.length };
    },
    best: (check) => {
      const earlier = byClock.filter(
        (one) => one.kind === check.kind && one.id !== check.id && one.startedAt < check.startedAt,
      );
      const counts = earlier.map((one) => rightInMinute(given.filter((answer) => checkOf(answer) === one.id)));
      return counts.length > 0 ? Math.max(...counts) : null;
    },
  };
}

/** What all of them have in common: taught to each, secure in each, right at once in each the last time. */
function inCommon(from: readonly DrawnFrom[]): DrawnFrom {
  const [first] = from;
  if (!first) throw new Error("No child to plan for");
  const inAll = (pick: (from: DrawnFrom) => readonly string[]) => {
    const sets = from.map((one) => new Set(pick(one)));
    return pick(first).filter((entry) => sets.every((set) => set.has(entry)));
  };
  return {
    taught: inAll((one) => one.taught),
    recent: inAll((one) => one.recent),
    exceptionWords: inAll((one) => one.exceptionWords),
    recentExceptionWords: inAll((one) => one.recentExceptionWords),
    secure: new Set([...first.secure].filter((gpc) => from.every((one) => one.secure.has(gpc)))),
    doubt: new Map(
      [...(first.doubt ?? [])].map(([gpc, doubt]) => [
        gpc,
        Math.max(doubt, ...from.map((one) => one.doubt?.get(gpc) ?? 0)),
      ]),
    ),
    age: youngestOf(from.map((one) => one.age)),
    last: lastOfAll(from.map((one) => one.last)),
  };
}

/**
 * What the parts of a plan are dealt from, for these children.
 * @param seeds by child, in their order
 */
export function dealtFrom(
  known: readonly Known[],
  sections: readonly SectionBody[],
  seeds: readonly number[],
): Pick<Dealt, "sections" | "children" | "together"> {
  const children = known.map((one, at) => ({ seed: seeds[at] ?? 1, from: sections.map(one.drawnFrom) }));
  return {
    sections,
    children,
    together: sections.map((section, part) =>
      kinds[section.kind].shared && children.length > 0
        ? inCommon(children.map(({ from }) => from[part] as DrawnFrom))
        : null,
    ),
  };
}

/** Of each item the outcome of the first child who did not have it right at once, else that of the first child. */
function lastOfAll(each: readonly ReadonlyMap<string, Outcome>[]): ReadonlyMap<string, Outcome> {
  const all = new Map(each[0]);
  for (const last of each)
    for (const [item, outcome] of last) {
      const before = all.get(item);
      if (!isRightAtOnce(outcome) && (before === undefined || isRightAtOnce(before))) all.set(item, outcome);
    }
  return all;
}
