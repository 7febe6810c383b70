import type { GivenAnswer, KindId } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { dayNumber, inOrder } from "../days.ts";
import { type FollowWanted, follow } from "../follow.ts";
import { heardFrom } from "../heard.ts";
import { type HeardWanted, spellingsOf } from "../hearing.ts";
import type { By } from "../listen.ts";
import { lessonsFrom, type Mind, type PlainLessons } from "../mind.ts";
import { type OwnValues, parametersWith } from "../own-values.ts";
import type { Skill } from "../skills.ts";
import { type Candidate, type Next, nextToAsk } from "./ask.ts";

/** What was read of a spelling since its card was last asked. */
export interface ReadSince {
  readonly words: number;
  readonly texts: number;
  /** The day of its last card, or of the first that was read where there was none. */
  readonly since: string;
}

type Sessions = { readonly day: number; readonly taught: boolean }[];

/**
 * What a device needs of a child to choose what it asks, as it was when the check began: plain data that is kept with the
 * check, so that what comes next follows from it, the items, the seed and the answers of the check, on any device.
 */
export interface SeekFrom {
  readonly day: string;
  readonly mind: Mind;
  readonly taughtOn: Readonly<Record<string, number>>;
  readonly sessions: Readonly<Record<string, Sessions>>;
  /** What depends on each skill that was taught, over 0; nothing on the others. */
  readonly weights: Readonly<Record<Skill, number>>;
  /** Taught in the last week. */
  readonly fresh: readonly Gpc[];
  /** Numbers of the model that the school had of its own. */
  readonly own: OwnValues | null;
  readonly read: Readonly<Record<Gpc, ReadSince>>;
}

/** A check that asks only what is in doubt. */
export interface SeekCheck {
  /** All that may be asked, and of which kind each is. */
  readonly items: readonly string[];
  readonly kindOf: (item: string) => KindId;
  readonly seed: number;
  /** Of the child's time, at most. */
  readonly minutes: number;
}

/** What the items ask, and how long each takes. */
export interface SeekWanted extends SeekCheck {
  readonly words: HeardWanted;
  /** Seconds an item of a kind takes as a rule. */
  readonly secondsOf: (kind: KindId) => number;
}

const MOST_TIMES = 2;

/** All that could be asked, in the check's order. Costs a look at each word: keep it. */
export function candidatesOf({ items, kindOf, secondsOf, words }: SeekWanted): readonly Candidate[] {
  return items.flatMap((item) => {
    const kind = kindOf(item) as Candidate["kind"];
    const [heard] = heardFrom(asIfRight(kind, item), words);
    return heard ? [{ kind, item, seconds: secondsOf(kind), heard }] : [];
  });
}

function asIfRight(kind: KindId, item: string): GivenAnswer {
  const source = { kind: "check", checkId: "" } as const;
  const base = { id: "", childId: "", markedAt: "", day: "", markedBy: "", ms: null, pass: 1, tags: [] };
  return { ...base, kind, item, source, help: "none", way: "seen", outcome: "right" };
}

/** By what a child of a check is understood. */
export function byOf(from: SeekFrom): By {
  const plain: PlainLessons = {
    taughtOn: new Map(Object.entries(from.taughtOn)),
    sessions: new Map(Object.entries(from.sessions)),
  };
  return { lessons: lessonsFrom(plain), p: parametersWith(from.own) };
}

/** Where such a check stands. */
export interface SeekState {
  /** Once its answers were heard. */
  readonly mind: Mind;
  readonly next: Next;
}

/**
 * What such a check asks next, once these standing answers of it were heard. The same answers give the same, whoever asks.
 * @param candidates as `candidatesOf` gives them
 */
export function seekNext(
  from: SeekFrom,
  candidates: readonly Candidate[],
  answers: readonly GivenAnswer[],
  { seed, minutes, words, by }: Pick<SeekWanted, "seed" | "minutes" | "words"> & { readonly by: By },
): SeekState {
  const given = inOrder(answers);
  const understood: FollowWanted = { ...by, words };
  const mind = follow(given, understood, from.mind);
  const next = nextToAsk({
    mind,
    by,
    day: dayNumber(given.at(-1)?.day ?? from.day),
    candidates,
    given,
    weight: (skill) => from.weights[skill] ?? 0,
    fresh: new Set(from.fresh),
    seconds: minutes * 60,
    most: MOST_TIMES,
    seed,
  });
  return { mind, next };
}

const NEAREST = 1;
const FURTHEST = 0.5;
const EXCEPTION = 0.4;
const OF_A_GROUP = 2;

/**
 * What depends on what was taught: the nearer to where the class is, the more, since what comes next is built on it; twice as
 * much on what a group of the child works at. Exception words less than a spelling, each is one word.
 * @param taught in teaching order
 */
export function weightsOf({
  taught,
  exceptionWords,
  targets,
}: {
  readonly taught: readonly Gpc[];
  readonly exceptionWords: readonly string[];
  readonly targets: ReadonlySet<Gpc>;
}): Record<Skill, number> {
  const weights: Record<Skill, number> = {};
  for (const [at, gpc] of taught.entries()) {
    const near = FURTHEST + ((NEAREST - FURTHEST) * (at + 1)) / taught.length;
    weights[`say ${gpc}`] = targets.has(gpc) ? OF_A_GROUP * near : near;
  }
  for (const word of exceptionWords) weights[`read ${word.toLowerCase()}`] = EXCEPTION;
  return weights;
}

/** What was read of each of these spellings since its card was last asked: words in checks, and texts. */
export function readSince(
  answers: readonly GivenAnswer[],
  gpcs: readonly Gpc[],
  words: HeardWanted,
): Record<Gpc, ReadSince> {
  const asked = new Set(gpcs);
  const found = new Map<Gpc, { words: number; texts: Set<string>; since: string }>();
  for (const answer of inOrder(answers)) {
    for (const heard of heardFrom(answer, words)) {
      if (heard.form === "one") {
        if (answer.kind === "card" && asked.has(answer.item))
          found.set(answer.item, { words: 0, texts: new Set(), since: answer.day });
        continue;
      }
      for (const skill of spellingsOf(heard)) {
        const gpc = skill.slice("say ".length);
        if (!skill.startsWith("say ") || !asked.has(gpc)) continue;
        const one = found.get(gpc) ?? { words: 0, texts: new Set<string>(), since: answer.day };
        if (answer.source.kind === "reading") one.texts.add(answer.source.readingId);
        else one.words++;
        found.set(gpc, one);
      }
    }
  }
  return Object.fromEntries(
    [...found].map(([gpc, { words: count, texts, since }]) => [gpc, { words: count, texts: texts.size, since }]),
  );
}
