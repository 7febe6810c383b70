import { addDays, formatISO, isWeekend, parseISO } from "date-fns";
import { type GivenAnswer, isRight } from "#core/ledger";
import type { OrderContent } from "#core/order";
import { type Gpc, withImplied } from "#core/phonics";
import { type Dice, dice, findWords, type Lexicon, shuffled, type Word } from "#core/words";
import { askCard, askInSession, askInText, askWord, beginIds, type Question } from "./asked.ts";
import type { Assumptions } from "./assumptions.ts";
import type { Memory, Trace } from "./memory.ts";
import { drawHardness, drawPupil, gives, normal, type Pupil } from "./pupils.ts";

/** A class that is taught, checked and helped, whose truth is known on every day. */
export interface TermWanted {
  readonly memory: Memory;
  readonly assumptions: Assumptions;
  readonly order: OrderContent;
  /** The step that the class has reached when it is first checked, counted from 1. */
  readonly reached: number;
  readonly children: number;
  readonly lexicon: Lexicon;
  readonly seed: number;
  /** Weeks of sessions, follow-ups and texts after the check. */
  readonly weeks: number;
  /** Weeks after the check at whose end the truth is taken down; 0 is the day of the check. */
  readonly lookAfter: readonly number[];
  /** Weeks of them in which there are sessions; all where it is left out. */
  readonly sessionWeeks?: number | undefined;
  /** Told of each place in a session: the chance that the child would have said its target before. */
  readonly onSession?: ((chance: number) => void) | undefined;
  /** Who is helped together on a day, with what; without it, as a school does without a model. */
  readonly choose?: ((on: SchoolDay) => readonly Helped[]) | undefined;
  /** What each child is asked at the end of a week, by its id; without it what was missed, was never asked, and was asked last. */
  readonly look?: ((on: SchoolDay) => ReadonlyMap<string, readonly Gpc[]>) | undefined;
}

/** What may be known when groups are chosen on a day; the truth is for an oracle alone. */
export interface SchoolDay {
  readonly day: string;
  readonly taughtOn: ReadonlyMap<Gpc, string>;
  readonly children: readonly (Pick<Lived, "childId" | "log" | "sessions"> & {
    /** The chance at sight in truth, or what it will be after days in which no one asks. */
    readonly truth: (gpc: Gpc, daysLater?: number) => number;
  })[];
}

/** Children who are taught something together, one thing or two. */
export interface Helped {
  readonly childIds: readonly string[];
  /** None is a session of revisiting alone. */
  readonly targets: readonly Gpc[];
  /** What each meets again, by its id; what the last two sessions taught where it is left out. */
  readonly cards?: ReadonlyMap<string, readonly Gpc[]>;
}

/** What is known of a child at the school, and what is true of it. */
export interface Lived {
  readonly childId: string;
  readonly kind: string;
  readonly pupil: Pupil;
  /** Answers in order, those of the check first. */
  readonly log: readonly GivenAnswer[];
  /** Sessions in which it was there. */
  readonly sessions: readonly {
    readonly day: string;
    readonly taught: readonly Gpc[];
    readonly revisited: readonly Gpc[];
  }[];
  /** The chance at sight of everything that was taught to its class, by the day on which it was looked at. */
  readonly truth: ReadonlyMap<string, ReadonlyMap<Gpc, number>>;
}

export interface Term {
  readonly checkedOn: string;
  /** The days on which the truth was taken down, in their order. */
  readonly lookedOn: readonly string[];
  /** When the class was taught each spelling. */
  readonly taughtOn: ReadonlyMap<Gpc, string>;
  readonly children: readonly Lived[];
}

const FIRST_DAY = parseISO("2026-02-02");
/** School days between two steps of the class: before the check, and after it, when new steps are rarer. */
const [STEP_DAYS, LATER_STEP_DAYS] = [6, 10];
const WEEKDAYS = 5;
const GROUP = 5;
const CARDS_LATER = 10;
const WORDS_IN_CHECK = 16;
const WORDS_IN_TEXT = 60;

interface Child {
  readonly pupil: Pupil;
  readonly traces: Map<Gpc, Trace>;
  /** How well each spelling sticks with this child beside others, in logits. */
  readonly sticks: Map<Gpc, number>;
  readonly log: GivenAnswer[];
  /** Whether each card was right the last time that it was asked. */
  readonly last: Map<Gpc, boolean>;
  readonly sessions: { day: string; taught: Gpc[]; revisited: Gpc[] }[];
  readonly truth: Map<string, ReadonlyMap<Gpc, number>>;
  minute: number;
}

/**
 * Plays a class from its first lesson through a full check to the end of its sessions. The same seed gives the same class,
 * the same lessons and the same answers. What is asked and taught follows what a school does without a model: sessions go
 * to what was missed, in teaching order.
 */
export function playTerm(wanted: TermWanted): Term {
  const { memory, assumptions: a, order, lexicon, seed } = wanted;
  beginIds();
  const from = dice(seed);
  const hardness = drawHardness(a, from);
  const children = Array.from({ length: wanted.children }, (_, at): Child => {
    const id = `child-${String(seed)}-${String(at).padStart(3, "0")}`;
    return {
      pupil: drawPupil(id, at, a, from),
      traces: new Map(),
      sticks: new Map(),
      log: [],
      last: new Map(),
      sessions: [],
      truth: new Map(),
      minute: 0,
    };
  });
  const taughtOn = new Map<Gpc, number>();
  const lookedOn: string[] = [];
  const days = schoolDays(wanted.reached * STEP_DAYS + (wanted.weeks + 1) * WEEKDAYS);
  const checkAt = wanted.reached * STEP_DAYS + 2;
  const again = new Map<number, Gpc[]>();

  const meet = (child: Child, gpc: Gpc, day: number, share: number) => {
    const own = child.sticks.get(gpc) ?? a.pairSpread * normal(from);
    child.sticks.set(gpc, own);
    const given = gives(child.pupil, (hardness.get(gpc) ?? 0) - own, share, a);
    child.traces.set(gpc, memory.met(child.traces.get(gpc), { day, gives: given }, child.pupil));
  };
  const chanceOf = (child: Child, day: number) => (gpc: Gpc) =>
    sharpened(memory.chance(child.traces.get(gpc), day, child.pupil), a);
  const asking = (child: Child, day: number): Question => ({
    pupil: child.pupil,
    chance: chanceOf(child, day),
    day: written(day),
    minute: child.minute++,
    a,
    from,
  });
  const look = (day: number) => {
    lookedOn.push(written(day));
    for (const child of children) {
      const chance = chanceOf(child, day);
      child.truth.set(written(day), new Map([...taughtOn.keys()].map((gpc) => [gpc, chance(gpc)])));
    }
  };

  const schoolDay = (day: number): SchoolDay => ({
    day: written(day),
    taughtOn: new Map([...taughtOn].map(([gpc, on]) => [gpc, written(on)])),
    children: children.map((child) => ({
      childId: child.pupil.id,
      log: child.log,
      sessions: child.sessions,
      truth: (gpc, daysLater = 0) => chanceOf(child, day + daysLater)(gpc),
    })),
  });

  const groupsOn = (day: number): readonly Group[] => {
    if (!wanted.choose) return asInTheList(children, taughtOn);
    const byId = new Map(children.map((child) => [child.pupil.id, child]));
    const chosen = wanted.choose(schoolDay(day));
    return chosen.map(({ childIds, targets, cards }) => ({
      ...{ targets, cards },
      members: childIds.flatMap((id) => byId.get(id) ?? []),
    }));
  };

  for (const child of children)
    for (const gpc of order.steps.slice(0, 5).flatMap((step) => step.gpcs))
      if (from.share() < a.knownBefore) meet(child, gpc, 0, 1.5);

  const nextStep = stepper(order, wanted.reached, checkAt);
  for (const [at, day] of days.entries()) {
    const here = children.filter(({ pupil }) => from.share() >= pupil.absent);
    for (const gpc of nextStep(at)) {
      taughtOn.set(gpc, day);
      for (const child of here) meet(child, gpc, day, 1);
      for (const later of meetingsAgain(a, from)) again.set(at + later, [...(again.get(at + later) ?? []), gpc]);
    }
    const revisited = new Set(again.get(at) ?? []);
    for (const gpc of taughtOn.keys()) if (from.share() < a.againLater) revisited.add(gpc);
    for (const gpc of revisited) for (const child of here) meet(child, gpc, day, a.againGives);
    if (at === checkAt) {
      const words = wordsFor(taughtOn.keys(), { lexicon, from, count: WORDS_IN_CHECK });
      for (const child of children) {
        child.minute = 0;
        for (const gpc of taughtOn.keys()) keep(child, askCard(asking(child, day), gpc));
        for (const word of words) keep(child, askWord(asking(child, day), word));
      }
      if (wanted.lookAfter.includes(0)) look(day);
    }
    if (at <= checkAt) continue;
    const since = at - checkAt;
    for (const child of here) child.minute = 0;
    const { sessionWeeks = wanted.weeks } = wanted;
    if (since % WEEKDAYS !== 0) {
      if (since <= sessionWeeks * WEEKDAYS)
        sessions({ here: new Set(here), day, meet, asking, a, groups: groupsOn(day), onSession: wanted.onSession });
    } else {
      const looks = wanted.look?.(schoolDay(day));
      for (const child of here)
        for (const gpc of looks?.get(child.pupil.id) ?? dueInOrder(child, taughtOn))
          keep(child, askCard(asking(child, day), gpc));
      if ((since / WEEKDAYS) % 2 === 0) {
        const text = wordsFor(taughtOn.keys(), { lexicon, from, count: WORDS_IN_TEXT });
        for (const child of here) {
          for (const word of text)
            keep(child, askInText(asking(child, day), word, `reading-${child.pupil.id}-${at}`));
        }
      }
      if (wanted.lookAfter.includes(since / WEEKDAYS)) look(day);
    }
    if (since >= wanted.weeks * WEEKDAYS) break;
  }
  return {
    checkedOn: written(days[checkAt] ?? 0),
    lookedOn,
    taughtOn: new Map([...taughtOn].map(([gpc, day]) => [gpc, written(day)])),
    children: children.map(({ pupil, log, sessions, truth }) => ({
      childId: pupil.id,
      kind: pupil.temper.name,
      pupil,
      log,
      sessions,
      truth,
    })),
  };
}

/** The chance at sight of what has come so far. */
function sharpened(share: number, { sharpness }: Assumptions): number {
  const [come, missing] = [share ** sharpness, (1 - share) ** sharpness];
  return come / (come + missing);
}

/** School days as days after the first: weekends are left out, so that what was learned fades over them. */
function schoolDays(count: number): readonly number[] {
  const found: number[] = [];
  for (let day = 0; found.length < count; day++) if (!isWeekend(addDays(FIRST_DAY, day))) found.push(day);
  return found;
}

const written = (day: number) => formatISO(addDays(FIRST_DAY, day), { representation: "date" });

/** What is taught on a school day: a step each so many days, more slowly after the check. */
function stepper(order: OrderContent, reached: number, checkAt: number): (at: number) => readonly Gpc[] {
  return (at) => {
    const before = at < checkAt && at % STEP_DAYS === 0 && at / STEP_DAYS < reached;
    if (before) return order.steps[at / STEP_DAYS]?.gpcs ?? [];
    const since = at - checkAt;
    return since > 0 && since % LATER_STEP_DAYS === 3
      ? (order.steps[reached + Math.floor(since / LATER_STEP_DAYS)]?.gpcs ?? [])
      : [];
  };
}

/** School days after a lesson on which the class meets what it taught again. */
function meetingsAgain(a: Assumptions, from: Dice): readonly number[] {
  return Array.from({ length: a.againAtFirst }, (_, at) => 1 + at * 3 + from.pick(3));
}

/** Words that have only these spellings, common ones, drawn by chance. */
function wordsFor(
  taught: Iterable<Gpc>,
  { lexicon, from, count }: { readonly lexicon: Lexicon; readonly from: Dice; readonly count: number },
): readonly Word[] {
  const words = findWords({ lexicon, known: withImplied([...taught]), band: 3 });
  return shuffled(words.slice(0, 1500), from).slice(0, count);
}

function keep(child: Child, answer: GivenAnswer): void {
  child.log.push(answer);
  if (answer.kind === "card") child.last.set(answer.item, isRight(answer.outcome));
}

/** A follow-up without a model: what was missed last time, in teaching order, then what was never asked. */
function dueInOrder(child: Child, taughtOn: ReadonlyMap<Gpc, number>): readonly Gpc[] {
  const { last } = child;
  const missed = [...taughtOn.keys()].filter((gpc) => last.get(gpc) === false);
  const never = [...taughtOn.keys()].filter((gpc) => !last.has(gpc));
  const asked = [...taughtOn.keys()].filter((gpc) => last.get(gpc) === true).reverse();
  return [...missed, ...never, ...asked].slice(0, CARDS_LATER);
}

interface Group {
  readonly members: readonly Child[];
  readonly targets: readonly Gpc[];
  readonly cards?: Helped["cards"];
}

interface SessionsWanted {
  readonly here: ReadonlySet<Child>;
  readonly day: number;
  readonly meet: (child: Child, gpc: Gpc, day: number, share: number) => void;
  readonly asking: (child: Child, day: number) => Question;
  readonly a: Assumptions;
  readonly groups: readonly Group[];
  readonly onSession: TermWanted["onSession"];
}

/** Groups as they stand in the list, each for the first spelling that most of them missed and that was not taught lately. */
function asInTheList(children: readonly Child[], taughtOn: ReadonlyMap<Gpc, number>): readonly Group[] {
  const groups: Group[] = [];
  for (let first = 0; first < children.length; first += GROUP) {
    const members = children.slice(first, first + GROUP);
    const lately = members.flatMap((child) => child.sessions.slice(-6).flatMap((session) => session.taught));
    const misses = (gpc: Gpc) => members.filter((child) => child.last.get(gpc) === false).length;
    const open = [...taughtOn.keys()].filter((gpc) => !lately.includes(gpc));
    const target = open.reduce<Gpc | undefined>(
      (best, gpc) => (misses(gpc) > (best === undefined ? 0 : misses(best)) ? gpc : best),
      undefined,
    );
    if (target !== undefined) groups.push({ members, targets: [target] });
  }
  return groups;
}

/** The sessions of a day: each group learns its targets and meets again its cards, or what its last two sessions taught. */
function sessions({ here, day, meet, asking, a, groups, onSession }: SessionsWanted): void {
  for (const { members, targets, cards } of groups)
    for (const child of members.filter((one) => here.has(one))) {
      for (const target of targets) onSession?.(asking(child, day).chance(target));
      const own = cards && (cards.get(child.pupil.id) ?? []);
      const revisited = own ?? [...new Set(child.sessions.slice(-2).flatMap((session) => session.taught))];
      const share = Math.min(1, a.cardsWhole / Math.max(1, revisited.length));
      for (const gpc of revisited) meet(child, gpc, day, a.sessionRevisits * share);
      for (const target of targets) meet(child, target, day, a.sessionGives * (targets.length > 1 ? a.twoGive : 1));
      child.sessions.push({ day: written(day), taught: [...targets], revisited: [...revisited] });
      // At the end each is asked what was taught, and its own cards.
      for (const gpc of [...targets, ...(own ?? [])]) keep(child, askInSession(asking(child, day), gpc));
    }
}
