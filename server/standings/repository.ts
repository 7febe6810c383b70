import type { CanRead, SetupBody } from "#contract";
import { checkOf, type GivenAnswer, standing as standingAnswers } from "#core/ledger";
import {
  type Change,
  type ConfusionCount,
  canRead,
  changesBetween,
  childRow,
  confusionsIn,
  doubtOf,
  fadesOf,
  historyOf,
  type Known,
  knownBy,
  type LeftOut,
  leftOutOf,
  type Moved,
  needFor,
  type Skill,
  type Standing,
  secondLook,
  shownSpellings,
  skillsIn,
  standingOfSkill,
  type WorthAsking,
  whyStanding,
} from "#core/mastery";
import { mustRead, type ReadingLimit } from "#core/plans";
import type { KnownBy } from "#core/words";
import { findMany } from "../classes/children.ts";
import { outlineOf } from "../classes/outline.ts";
import { wordAgeOfAll } from "../classes/word-ages.ts";
import { logsOfChildren, ruleOf, standingOfChildren } from "../ledger/standing.ts";
import { type Taught, taughtNothing } from "../orders/taught.ts";
import { ownModel } from "../settings/repository.ts";
import type { Inside } from "../store/scope.ts";
import type { ForetellWanted } from "./foretell.ts";
import { type KnownChild, knownOf } from "./kept.ts";
import { matterIn } from "./matter.ts";
import { nextOf } from "./next.ts";

export { chancesOf, gapMap } from "./maps.ts";
export { numbers } from "./numbers.ts";
export { otherNeedsOf } from "./other-needs.ts";
export { seekFrom } from "./seek.ts";

/** One child: what is taught, and how it stands with it and with everything else it was asked. */
export async function standingsOf(
  inside: Inside,
  childId: string,
  today: string,
): Promise<{ taught: Taught; standings: Map<string, Standing> }> {
  const one = (await knownOf(inside, [childId])).get(childId);
  if (!one) return { taught: taughtNothing, standings: new Map() };
  const gpcs = [...new Set([...one.taught.gpcs, ...shownSpellings(one.known).toSorted()])];
  const row = childRow(one.known, gpcs, today, one.by);
  return { taught: one.taught, standings: new Map(gpcs.map((gpc, at) => [gpc, row[at] as Standing])) };
}

/** What children who learn together can build on. */
export interface Common {
  /** Correspondences that the children can read: every one of them, or as many as their group's limit asks for. */
  readonly known: readonly string[];
  /** Exception words that were taught to all of them. */
  readonly wholes: readonly string[];
  /** Taught to all, read by each at some time, and unsteady in at least one: worth revisiting, newest first. */
  readonly unsteady: readonly string[];
  /** Taught to all and a gap, or missed last time, in at least one; in teaching order. */
  readonly needed: readonly string[];
  /** Up to which age words are known to the youngest of them. */
  readonly age: KnownBy;
  /** What each of them needs, the chance of each spelling and how it fades, and what it is taught next; as lists, since this is sent to a thread. */
  readonly children: readonly {
    readonly needs: readonly (readonly [string, number])[];
    readonly chances: readonly (readonly [string, number])[];
    /** How much of each chance goes in four weeks, in hundredths. */
    readonly fades: readonly (readonly [string, number])[];
    readonly next: readonly string[];
    readonly id: string;
    readonly name: string;
    /** What it reads more often than not. */
    readonly reads: readonly string[];
  }[];
}

/** What these children have in common. None of them has nothing. */
export async function commonOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
  limit: ReadingLimit = "all",
): Promise<Common> {
  const found = await findMany(inside, childIds);
  const known = await knownOf(
    inside,
    found.map(({ id }) => id),
  );
  const named = found.flatMap(({ id, name }) => {
    const one = known.get(id);
    return one ? [{ id, name, one }] : [];
  });
  const children = named.map(({ one }) => one);
  const enough = mustRead(limit, children.length);
  const shared = (lists: readonly (readonly string[])[]) =>
    (lists[0] ?? []).filter((entry) => lists.every((list) => list.includes(entry)));
  const gpcs = [
    ...new Set(children.flatMap((child) => [...child.taught.gpcs, ...shownSpellings(child.known).toSorted()])),
  ];
  const rows = children.map((child) => childRow(child.known, gpcs, today, child.by));
  const everyone = (at: number, test: (one: Standing) => boolean) =>
    rows.length > 0 && rows.every((row) => test(row[at] as Standing));
  const someone = (at: number, test: (one: Standing) => boolean) => rows.some((row) => test(row[at] as Standing));
  const which = (test: (at: number) => boolean) => gpcs.filter((_, at) => test(at));
  return {
    known: which((at) => rows.length > 0 && rows.filter((row) => canRead(row[at] as Standing)).length >= enough),
    wholes: shared(children.map((child) => child.taught.exceptionWords)),
    unsteady: which(
      (at) =>
        everyone(at, ({ answers }) => answers > 0) &&
        someone(at, (one) => one.state === "unsteady" || one.state === "not sure yet"),
    ).reverse(),
    age: await wordAgeOfAll(inside, found),
    needed: which((at) => someone(at, (one) => one.answers > 0 && !canRead(one))),
    children: rows.map((row, place) => ({
      needs: gpcs.flatMap((gpc, at) => {
        const need = needFor(row[at] as Standing);
        return need > 0 ? [[gpc, need] as const] : [];
      }),
      chances: gpcs.map((gpc, at) => [gpc, (row[at] as Standing).chance] as const),
      fades: gpcs.map((gpc, at) => {
        const { known, by } = children[place] as KnownChild;
        return [gpc, fadesOf(known, row[at] as Standing, today, by)] as const;
      }),
      next: nextOf(children[place] as KnownChild),
      id: named[place]?.id ?? "",
      name: named[place]?.name ?? "",
      reads: which((at) => canRead(row[at] as Standing)),
    })),
  };
}

/** What each of the children can read (more often than not), by name, and what some of them still need. */
export async function readersOf(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<{ children: CanRead[]; needed: string[]; age: KnownBy }> {
  const children = await findMany(inside, childIds);
  const known = await knownOf(
    inside,
    children.map((child) => child.id),
  );
  const needed = new Set<string>();
  const readers = children.flatMap(({ id, name }): CanRead[] => {
    const one = known.get(id);
    if (!one) return [];
    const gpcs = [...new Set([...one.taught.gpcs, ...shownSpellings(one.known).toSorted()])];
    const row = childRow(one.known, gpcs, today, one.by);
    for (const [at, gpc] of gpcs.entries())
      if (!canRead(row[at] as Standing) && needFor(row[at] as Standing) > 0) needed.add(gpc);
    const reads = gpcs.filter((_, at) => canRead(row[at] as Standing));
    return [{ id, name, known: reads, wholes: [...one.taught.exceptionWords] }];
  });
  return {
    children: readers.sort((one, other) => one.name.localeCompare(other.name)),
    needed: [...needed],
    age: await wordAgeOfAll(inside, children),
  };
}

/** What a deck of what is due is dealt from. */
export interface Due {
  /** The taught spellings that are secure today. */
  readonly secure: ReadonlySet<string>;
  /** How doubtful it is of each taught spelling on which side of a half it lies, by how much depends on it. */
  readonly doubt: ReadonlyMap<string, number>;
}

/** Of each of these children, what of its taught spellings is secure and what is doubtful today. */
export async function dueOf(inside: Inside, childIds: readonly string[], today: string): Promise<Map<string, Due>> {
  const matter = await matterIn(inside);
  return new Map(
    [...(await knownOf(inside, childIds))].map(([id, { known, taught, by }]) => {
      const weights = matter(id, taught);
      const row = childRow(known, taught.gpcs, today, by);
      const secure = new Set(taught.gpcs.filter((_, at) => row[at]?.state === "secure"));
      const doubt = new Map(
        taught.gpcs.map((gpc, at) => [gpc, doubtOf(row[at] as Standing) * (weights[`say ${gpc}`] ?? 0)]),
      );
      return [id, { secure, doubt }];
    }),
  );
}

/** How a child stands with one skill today, and why: the sentence, and every answer that spoke of it, the oldest first. */
export async function reasonFor(
  inside: Inside,
  childId: string,
  skill: Skill,
  today: string,
): Promise<{ standing: Standing; why: string; history: readonly Moved[] }> {
  const one = (await knownOf(inside, [childId])).get(childId);
  if (!one) throw new Error("Who is not here has no standing");
  const standing = standingOfSkill(one.known, skill, today, one.by);
  const { firstDay } = await outlineOf(inside);
  const rule = await ruleOf(inside);
  const log = (await logsOfChildren(inside, [childId])).get(childId) ?? [];
  const answers = standingAnswers(log, { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
  const history = historyOf(answers, skill, { ...one.by, words: rule.words, firstDay });
  return { standing, why: whyStanding(standing, one.by.secureWhen), history };
}

/** Which answers are asked about: those of some checks, of a reading, or of a session. */
export type SomeAnswers =
  | { readonly checkIds: readonly string[] }
  | { readonly readingId: string }
  | { readonly sessionId: string };

/** What some answers of a child changed, as of today. Costs a replay of the child's log without them. */
export async function changesBy(
  inside: Inside,
  childId: string,
  which: SomeAnswers,
  today: string,
): Promise<{ changes: readonly Change[]; skills: number }> {
  const one = (await knownOf(inside, [childId])).get(childId);
  if (!one) throw new Error("Who is not here has no standing");
  const rule = await ruleOf(inside);
  const log = (await logsOfChildren(inside, [childId])).get(childId) ?? [];
  const answers = standingAnswers(log, { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
  const isAsked = (answer: GivenAnswer) => {
    const { source } = answer;
    if ("readingId" in which) return source.kind === "reading" && source.readingId === which.readingId;
    if ("sessionId" in which) return source.kind === "session" && source.sessionId === which.sessionId;
    return which.checkIds.includes(checkOf(answer) ?? "");
  };
  const skills = skillsIn(answers.filter(isAsked), rule.words);
  const rest = answers.filter((answer) => !isAsked(answer));
  const { firstDay } = await outlineOf(inside);
  const without = knownBy(rest, { lessons: one.lessons, p: one.by.p, words: rule.words, firstDay });
  return { changes: changesBetween(without, one.known, skills, today, one.by), skills: skills.size };
}

/** What was found in the answers of a child, until there are others, or another day. */
const foundConfusions = new WeakMap<
  readonly GivenAnswer[],
  { readonly of: string; readonly confusions: readonly ConfusionCount[] }
>();

/**
 * What a child takes for what, over all checks and texts.
 * @param setups what its checks were made with, by id
 */
export async function confusionsOf(
  inside: Inside,
  childId: string,
  setups: ReadonlyMap<string, SetupBody>,
  today: string,
): Promise<readonly ConfusionCount[]> {
  const by = await ruleOf(inside);
  const answers = (await standingOfChildren(inside, [childId])).get(childId) ?? [];
  const of = `${today} ${setups.size}`;
  const known = foundConfusions.get(answers);
  if (known?.of === of) return known.confusions;
  const setupOf = (checkId: string | null) => setups.get(checkId ?? "");
  const confusions = confusionsIn(answers, { ...by.words, today, setupOf });
  foundConfusions.set(answers, { of, confusions });
  return confusions;
}

/** What of a child's log is left out of what is believed, the newest first. */
export async function leftOutOfChild(inside: Inside, childId: string): Promise<readonly LeftOut[]> {
  const { firstDay } = await outlineOf(inside);
  const answers = (await standingOfChildren(inside, [childId])).get(childId) ?? [];
  return leftOutOf(answers, firstDay).toReversed();
}

/** So many answers are foretold at most: some two seconds of computing. */
const MOST_FORETOLD = 40_000;

/** What it takes to see how well this school's cards were foretold: the children who answered most, up to a bound. */
export async function toForetell(
  inside: Inside,
  childIds: readonly string[],
  mostAnswers = MOST_FORETOLD,
): Promise<ForetellWanted> {
  const rule = await ruleOf(inside);
  const known = await knownOf(inside, childIds);
  const logs = await logsOfChildren(inside, [...known.keys()]);
  const most = [...logs].sort(([, one], [, other]) => other.length - one.length);
  const children: ForetellWanted["children"][number][] = [];
  let answers = 0;
  for (const [id, log] of most) {
    const child = known.get(id);
    if (!child || log.length === 0 || answers + log.length > mostAnswers) continue;
    answers += log.length;
    const given = standingAnswers(log, { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
    children.push({ answers: given, lessons: child.plain });
  }
  const own = (await ownModel(inside))?.values ?? null;
  return { children, words: rule.words.sent, accent: rule.words.accent.id, own };
}

/** What a child should be asked again as it was last worked out, by what is known of it. */
const lastLooks = new WeakMap<Known, { readonly by: string; readonly cards: readonly WorthAsking[] }>();

/** Of each of these children the last day on which a spelling was asked on a card, by spelling. */
export async function askedOn(
  inside: Inside,
  childIds: readonly string[],
): Promise<Map<string, (gpc: string) => string | undefined>> {
  return new Map(
    [...(await knownOf(inside, [...new Set(childIds)]))].map(([id, { known }]) => [
      id,
      (gpc: string) => known.shown[gpc]?.lastDays.at(-1)?.day,
    ]),
  );
}

/** What each of these children should be asked again today; a child of whom nothing is doubtful is left out. */
export async function secondLooks(
  inside: Inside,
  childIds: readonly string[],
  today: string,
): Promise<Map<string, readonly WorthAsking[]>> {
  const found = new Map<string, readonly WorthAsking[]>();
  const matter = await matterIn(inside);
  for (const [id, { known, taught, by }] of await knownOf(inside, childIds)) {
    const weights = matter(id, taught);
    const key = [today, JSON.stringify(by.secureWhen), JSON.stringify(weights)].join(" ");
    const last = lastLooks.get(known);
    const cards = last?.by === key ? last.cards : secondLook(known, { taught: taught.gpcs, weights }, today, by);
    lastLooks.set(known, { by: key, cards });
    if (cards.length > 0) found.set(id, cards);
  }
  return found;
}
