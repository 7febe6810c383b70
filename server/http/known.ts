import type { ChildView, SectionBody } from "#contract";
import { type Ask, rightInMinute } from "#core/checks";
import { checkOf, type GivenAnswer, isRightAtOnce, type Outcome } from "#core/ledger";
import { childRow, missedInTexts } from "#core/mastery";
import { lastSteps, stepsUpTo } from "#core/order";
import type { Lexicon } from "#core/words";
import { standingOfChildren } from "../ledger/log.ts";
import { type CheckRow, minuteChecks } from "../store/checks.ts";
import { findChildren } from "../store/children.ts";
import { slowAfterMs } from "../store/classes.ts";
import { taughtByClass, taughtNothing } from "../store/gaps.ts";
import type { Db } from "../store/open.ts";
import { type SchoolWords, schoolWords } from "../store/splits.ts";
import { dayAtSchool } from "./clock.ts";

/** What a check of a kind is drawn from. */
type Ground = Pick<Ask, "taught" | "recent" | "exceptionWords" | "recentExceptionWords" | "isSecure" | "lastOf">;

/** What is known of one child when checks are planned or seen. */
export interface Known {
  readonly child: ChildView;
  ground(section: SectionBody): Ground;
  /** The last outcome of each item before this check, in checks of its kind. */
  before(check: CheckRow): ReadonlyMap<string, Outcome>;
  /** Median milliseconds an item in checks of this kind, and from how many answers. */
  pace(kind: string): { ms: number; answers: number } | null;
  /** Most right in a minute in earlier checks of the kind of this one. */
  best(check: CheckRow): Promise<number | null>;
}

/** In the order of the ids; who is not here is left out. */
export async function knowledgeOf(
  db: Db,
  shipped: Lexicon,
  childIds: readonly string[],
  now: Date,
): Promise<Known[]> {
  const words = await schoolWords(db, shipped);
  const children = new Map((await findChildren(db, childIds)).map((child) => [child.id, child]));
  const taught = await taughtByClass(db);
  const logs = await standingOfChildren(db, childIds, { slowAfterMs: await slowAfterMs(db), words });
  const today = await dayAtSchool(db, now);
  return childIds.flatMap((id) => {
    const child = children.get(id);
    return child
      ? [knownOf({ db, words, child, today, given: logs.get(id) ?? [], taught: taught.get(child.classId) })]
      : [];
  });
}

function knownOf({
  db,
  words,
  child,
  today,
  given,
  taught = taughtNothing,
}: {
  db: Db;
  words: SchoolWords;
  child: ChildView;
  today: string;
  given: readonly GivenAnswer[];
  taught: typeof taughtNothing | undefined;
}): Known {
  const { gpcs, exceptionWords, order, stepId } = taught;
  const lastOfKind = (kind: string, before?: CheckRow): ReadonlyMap<string, Outcome> => {
    const last = new Map<string, Outcome>();
    for (const answer of given) {
      // A word that went wrong in a text was not asked in a check.
      if (answer.kind !== kind || answer.source.kind === "reading") continue;
      if (before && (checkOf(answer) === before.id || answer.markedAt >= before.startedAt)) continue;
      last.set(answer.item, answer.outcome);
    }
    return last;
  };
  const secure = once(() => {
    const inTexts = missedInTexts(given, words);
    const row = childRow({ id: child.id, taught: new Set(gpcs), answers: given, inTexts }, gpcs, today);
    return new Set(gpcs.filter((_, at) => row[at]?.state === "secure"));
  });
  return {
    child,
    ground: (section) => {
      const last = lastOfKind(section.kind);
      const steps = stepsUpTo(order, stepId).slice(-section.recentSteps);
      return {
        taught: gpcs,
        recent: lastSteps(order, stepId, section.recentSteps),
        exceptionWords,
        recentExceptionWords: steps.flatMap((step) => step.exceptionWords),
        isSecure: (gpc) => secure().has(gpc),
        lastOf: (item) => last.get(item),
      };
    },
    before: (check) => lastOfKind(check.kind, check),
    pace: (kind) => {
      const times = given
        .flatMap((answer) => (answer.kind === kind && answer.ms !== null ? [answer.ms] : []))
        .sort((one, other) => one - other);
      const ms = times[Math.floor(times.length / 2)];
      return ms === undefined ? null : { ms, answers: times.length };
    },
    best: async (check) => {
      const earlier = (await minuteChecks(db, [child.id])).filter(
        (one) => one.kind === check.kind && one.id !== check.id && one.startedAt < check.startedAt,
      );
      const counts = earlier.map((one) => rightInMinute(given.filter((answer) => checkOf(answer) === one.id)));
      return counts.length > 0 ? Math.max(...counts) : null;
    },
  };
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => {
    made ??= { value: make() };
    return made.value;
  };
}

/** What all of them have in common: taught to each, secure in each, right at once in each the last time. */
export function shared(known: readonly Known[]): Known {
  const [first] = known;
  if (!first) throw new Error("No child to plan for");
  return {
    ...first,
    ground: (section) => {
      const grounds = known.map((one) => one.ground(section));
      const inAll = (pick: (ground: Ground) => readonly string[]) => {
        const sets = grounds.map((ground) => new Set(pick(ground)));
        return pick(grounds[0] as Ground).filter((entry) => sets.every((set) => set.has(entry)));
      };
      return {
        taught: inAll((ground) => ground.taught),
        recent: inAll((ground) => ground.recent),
        exceptionWords: inAll((ground) => ground.exceptionWords),
        recentExceptionWords: inAll((ground) => ground.recentExceptionWords),
        isSecure: (gpc) => grounds.every((ground) => ground.isSecure(gpc)),
        lastOf: (item) => {
          const outcomes = grounds.map((ground) => ground.lastOf(item));
          return outcomes.find((outcome) => outcome !== undefined && !isRightAtOnce(outcome)) ?? outcomes[0];
        },
      };
    },
  };
}
