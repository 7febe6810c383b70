import { type AnswerBody, type Asking, type Endpoint, MOST_ANSWERS, saveAnswers, startSitting } from "#contract";
import { type Dice, deal, defaultSettings, kinds, type PlannedCheck, planCheck, type Section } from "#core/checks";
import { dayAt, type GivenAnswer, inCheck, takesHeard } from "#core/ledger";
import { answerItem } from "#core/readers";
import type { KeptText } from "#core/reading";
import { type KnownBy, type Lexicon, type MadeUp, withinAge, youngestOf } from "#core/words";
import { demoZone } from "./calendar.ts";
import type { Pupil } from "./pupil.ts";

/** One request of the contract, to be sent in order. */
export interface DemoRequest {
  readonly endpoint: Endpoint;
  readonly asking: { readonly params?: unknown; readonly query?: unknown; readonly body?: unknown };
}

export function request<E extends Endpoint>(endpoint: E, asking: Asking<E>): DemoRequest {
  return { endpoint, asking };
}

/** What items are drawn from, as the server has it. */
export interface DemoStock {
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  readonly carriers: ReadonlyMap<string, string>;
  readonly texts: readonly KeptText[];
}

/** A sitting to be made: who, what, when, and from what. */
export interface SittingWanted {
  readonly name: string;
  readonly pupils: readonly Pupil[];
  readonly sections: readonly Section[];
  readonly startedAt: string;
  readonly week: number;
  readonly markedBy: string;
  readonly taughtTo: (pupil: Pupil) => {
    readonly gpcs: readonly string[];
    readonly exceptionWords: readonly string[];
  };
  /** Up to which age words are known to a pupil. */
  readonly ageOf: (pupil: Pupil) => KnownBy;
  readonly stock: DemoStock;
  readonly from: Dice;
  readonly uuid: () => string;
  /** Stops the first check after so many answers and leaves the sitting open. */
  readonly stopAfter?: number | undefined;
}

/**
 * The requests of a sitting: it is begun, every item is answered as each of these children would, and it ends. Items
 * are drawn here as the server draws them, from the same seed.
 */
export function sittingRequests(wanted: SittingWanted): readonly DemoRequest[] {
  const { pupils, sections, from, uuid, startedAt } = wanted;
  const seed = from.pick(1_000_000);
  const children = pupils.map((pupil) => ({ pupil, seed, checkIds: sections.map(() => uuid()) }));
  const sent = [
    request(startSitting, {
      body: {
        id: uuid(),
        name: wanted.name,
        sections: sections,
        children: children.map(({ pupil, checkIds }) => ({ childId: pupil.id, seed, checkIds })),
        startedAt,
      },
    }),
  ];
  let clock = Date.parse(startedAt);
  const entries: AnswerBody[] = [];
  for (const { pupil, checkIds } of children)
    for (const [part, section] of sections.entries()) {
      const planned = plan(wanted, pupil, section, seed);
      if (planned.items.length === 0) continue;
      const marked = mark(wanted, { pupil, planned, seed, checkId: checkIds[part] ?? "", clock });
      clock = marked.end;
      pupil.answers.push(...marked.answers);
      entries.push(...marked.answers.map((answer): AnswerBody => answer));
      if (wanted.stopAfter === undefined)
        entries.push({
          id: uuid(),
          childId: pupil.id,
          source: { kind: "check", checkId: checkIds[part] ?? "" },
          outcome: "stop",
          why: "done",
          markedAt: new Date(clock).toISOString(),
          day: dayAt(demoZone, startedAt),
          markedBy: wanted.markedBy,
        });
      else return [...sent, ...saving(entries)];
    }
  return [...sent, ...saving(entries)];
}

/** At most so many answers go out at once. */
function saving(entries: readonly AnswerBody[]): readonly DemoRequest[] {
  const parts = Array.from({ length: Math.ceil(entries.length / MOST_ANSWERS) }, (_, at) =>
    entries.slice(at * MOST_ANSWERS, (at + 1) * MOST_ANSWERS),
  );
  return parts.map((answers) => request(saveAnswers, { body: { answers } }));
}

function plan(
  { stock, taughtTo, ageOf, pupils }: SittingWanted,
  pupil: Pupil,
  section: Section,
  seed: number,
): PlannedCheck {
  const { gpcs, exceptionWords } = taughtTo(pupil);
  const everyone = pupils.map((one) => new Set(taughtTo(one).gpcs));
  const together = gpcs.filter((gpc) => everyone.every((set) => set.has(gpc)));
  const age = section.kind === "paper" ? youngestOf(pupils.map(ageOf)) : ageOf(pupil);
  return planCheck({
    ...stock,
    lexicon: withinAge(stock.lexicon, age),
    compounds: [],
    settings: defaultSettings,
    section,
    taught: section.kind === "paper" ? together : gpcs,
    recent: [],
    exceptionWords,
    recentExceptionWords: [],
    secure: new Set(),
    last: new Map(),
    seed,
  });
}

interface Marking {
  readonly pupil: Pupil;
  readonly planned: PlannedCheck;
  readonly seed: number;
  readonly checkId: string;
  readonly clock: number;
}

function mark(wanted: SittingWanted, { pupil, planned, seed, checkId, clock }: Marking) {
  const { from, week, stock, uuid, startedAt, markedBy, stopAfter } = wanted;
  const { kind, items, setup } = planned;
  const reader = {
    temper: pupil.temper,
    learned: (gpc: string) => pupil.learned.get(gpc) ?? 0,
    weeksAway: (gpc: string) => Math.max(0, week - (pupil.practised.get(gpc) ?? week - 1)),
    lexicon: stock.lexicon,
  };
  const order = setup.strategy === "shuffled" ? deal(items, seed, 1) : items;
  let end = clock;
  const answers = order.slice(0, stopAfter ?? items.length).flatMap((item) => {
    // A card that asks for all sounds of its spelling gets a mark for each of them.
    const sounds = kinds[kind].all?.(item, setup).map((one) => one.item) ?? [];
    return sounds.length > 0 ? sounds.map(markOf) : [markOf(item)];
  });
  function markOf(item: string): GivenAnswer {
    const { outcome, heard, ms, tags } = answerItem(kind, { item, reader, setup, seed, from });
    end += (ms ?? 6000) + 900;
    const given = {
      id: uuid(),
      childId: pupil.id,
      ...inCheck(kind, checkId),
      item,
      pass: 1,
      ms,
      tags,
      markedAt: new Date(end).toISOString(),
      day: dayAt(demoZone, startedAt),
      markedBy,
    };
    return takesHeard(outcome) ? { ...given, outcome, heard, units: null } : { ...given, outcome };
  }
  return { answers, end: end + 2000 };
}
