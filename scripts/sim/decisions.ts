import { type GivenAnswer, isRight, isRightAtOnce } from "#core/ledger";
import {
  chanceOn,
  follow,
  type Lessons,
  needByDays,
  type Parameters,
  shipped,
  shownBy,
  standingByDays,
} from "#core/mastery";
import { splitGpc } from "#core/phonics";
import type { Lived, Term } from "#core/readers";
import { failedUnits, readWordItem } from "#core/words";
import { fittedTo, type Row } from "./logistic.ts";
import { auc, brier, calibrationError, f1, GAP, type Judged, recall } from "./measures.ts";
import { play, shippedLexicon, type World } from "./worlds.ts";

const dayOf = (day: string) => Math.round(Date.parse(day) / 86_400_000);
const words = () => ({ lexicon: shippedLexicon(), accent: undefined });

/** What the tool knows of a child's lessons. */
export function lessonsOf({ taughtOn }: Term, { sessions }: Lived): Lessons {
  const days = new Map([...taughtOn].map(([gpc, day]) => [gpc, dayOf(day)]));
  const byThing = new Map<string, { day: number; taught: boolean }[]>();
  for (const session of sessions) {
    const add = (gpc: string, taught: boolean) =>
      byThing.set(gpc, [...(byThing.get(gpc) ?? []), { day: dayOf(session.day), taught }]);
    for (const gpc of session.taught) add(gpc, true);
    for (const gpc of session.revisited) add(gpc, false);
  }
  return { taughtOn: (thing) => days.get(thing), sessions: (thing) => byThing.get(thing) ?? [] };
}

/** What three ways of judging say of every taught spelling of every child on a day. */
interface Look {
  readonly truth: readonly number[];
  readonly model: readonly { chance: number; gap: number }[];
  readonly rule: readonly { called: boolean; need: number }[];
  readonly rows: readonly Row[];
}

/** Everything that is judged on the day with this place among the days that were looked at. */
function lookAt(terms: readonly Term[], at: number, p: Parameters = shipped): Look {
  const look = {
    truth: [] as number[],
    model: [] as Look["model"][number][],
    rule: [] as Look["rule"][number][],
    rows: [] as Row[],
  };
  for (const term of terms) {
    const day = term.lookedOn[at] ?? "";
    for (const child of term.children) {
      const log = child.log.filter((one) => one.day <= day);
      const by = { lessons: lessonsOf(term, child), p };
      const mind = follow(log, { ...by, words: words() });
      const shown = shownBy(log, words());
      const features = featuresOf(term, child, log, day);
      for (const [gpc, truth] of child.truth.get(day) ?? []) {
        look.truth.push(truth);
        const { chance, gap } = chanceOn(mind, `say ${gpc}`, day, by);
        look.model.push({ chance, gap });
        const standing = standingByDays(shown[gpc], day);
        look.rule.push({
          called:
            standing.state === "gap" || (standing.state === "unsteady" && standing.reason === "missed after right"),
          need: needByDays(standing) - (standing.state === "secure" ? 0.2 : 0),
        });
        look.rows.push({ features: features(gpc), truth: truth < GAP });
      }
    }
  }
  return look;
}

/** What a person could tell a regression of a child and a spelling, from the same answers. */
function featuresOf(term: Term, child: Lived, log: readonly GivenAnswer[], day: string): (gpc: string) => number[] {
  const today = dayOf(day);
  const cards = log.filter((one) => one.kind === "card");
  const wordsRead = log.filter((one) => one.kind === "words");
  const share = (some: readonly GivenAnswer[], test: (one: GivenAnswer) => boolean) =>
    (some.filter(test).length + 1) / (some.length + 2);
  const checkCards = cards.filter((one) => one.source.kind === "check");
  const cardShare = share(checkCards, (one) => isRight(one.outcome));
  const atOnceShare = share(checkCards, (one) => isRightAtOnce(one.outcome));
  const wordShare = share(
    wordsRead.filter((one) => one.way === "seen"),
    (one) => isRight(one.outcome),
  );
  const units = new Map<
    string,
    { right: number; failed: number; doubtful: number; textRight: number; textFailed: number }
  >();
  for (const one of wordsRead) {
    const { units: its } = readWordItem(one.item);
    const heard = one.outcome === "wrong" && "heard" in one ? one.heard : null;
    const failed = heard === null ? [] : failedUnits(its, heard, words());
    for (const [at, unit] of its.entries()) {
      const entry = units.get(unit.gpc) ?? { right: 0, failed: 0, doubtful: 0, textRight: 0, textFailed: 0 };
      const text = one.way === "text";
      if (isRight(one.outcome) || (heard !== null && failed.length > 0 && !failed.includes(at)))
        text ? entry.textRight++ : entry.right++;
      else if (failed.includes(at)) text ? entry.textFailed++ : entry.failed++;
      else if (one.outcome !== "blend") entry.doubtful += 1 / its.length;
      units.set(unit.gpc, entry);
    }
  }
  const sessions = child.sessions.filter((one) => one.day <= day);
  const steps = [...term.taughtOn.keys()];
  const logit = (x: number) => Math.log(x / (1 - x));
  return (gpc) => {
    const asked = cards.filter((one) => one.item === gpc);
    const alone = asked.filter((one) => one.source.kind === "check");
    const last = alone.at(-1);
    const before = alone.at(-2);
    const inSession = asked.filter((one) => one.source.kind === "session");
    const met = sessions.filter((one) => one.taught.includes(gpc) || one.revisited.includes(gpc));
    const taught = sessions.filter((one) => one.taught.includes(gpc)).length;
    const unit = units.get(gpc) ?? { right: 0, failed: 0, doubtful: 0, textRight: 0, textFailed: 0 };
    const is = (test: boolean) => (test ? 1 : 0);
    const lastRight = is(!!last && isRight(last.outcome));
    return [
      lastRight,
      is(!!last && isRightAtOnce(last.outcome)),
      is(last?.outcome === "wrong"),
      is(last === undefined),
      is(!!before && isRight(before.outcome)),
      is(!!before && !isRight(before.outcome)),
      last ? Math.log1p(today - dayOf(last.day)) : 0,
      logit(cardShare),
      logit(atOnceShare),
      logit(wordShare),
      lastRight * logit(cardShare),
      unit.right,
      unit.failed,
      unit.doubtful,
      Math.log1p(unit.textRight),
      unit.textFailed,
      Math.log1p(today - dayOf(term.taughtOn.get(gpc) ?? day)),
      steps.indexOf(gpc) / steps.length,
      splitGpc(gpc).grapheme.replace("_", "").length,
      met.length,
      taught,
      met.length > 0 ? Math.log1p(today - dayOf(met.at(-1)?.day ?? day)) : 0,
      is(inSession.length > 0 && isRight((inSession.at(-1) as GivenAnswer).outcome)),
    ];
  };
}

export interface Figures {
  readonly gaps: number;
  readonly model: Record<"f1" | "recall" | "auc" | "brier" | "calibration", number>;
  readonly rule: Record<"f1" | "recall" | "auc", number>;
  readonly fit: Record<"f1" | "auc" | "brier", number>;
}

/** All figures of one look. */
function figuresOf(look: Look): Figures {
  const judged = (said: (at: number) => number): Judged[] =>
    look.truth.map((truth, at) => ({ said: said(at), truth }));
  const model = judged((at) => look.model[at]?.chance ?? 0);
  const byGap = look.truth.map((truth, at) => ({ gapSaid: look.model[at]?.gap ?? 0, truth }));
  const rule = judged((at) => 1 - (look.rule[at]?.need ?? 0));
  const called = new Set(rule.filter((_, at) => look.rule[at]?.called));
  const fitted = fittedTo(look.rows);
  const fit = judged((at) => 1 - (fitted[at] ?? 0));
  return {
    gaps: look.truth.filter((one) => one < GAP).length / look.truth.length,
    model: {
      f1: f1(model, (one) => one.said < GAP),
      recall: recall(model),
      auc: auc(byGap.map(({ gapSaid, truth }) => ({ said: 1 - gapSaid, truth }))),
      brier: brier(byGap),
      calibration: calibrationError(byGap),
    },
    rule: { f1: f1(rule, (one) => called.has(one)), recall: 0, auc: auc(rule) },
    fit: {
      f1: f1(fit, ({ said }) => said < GAP),
      auc: auc(fit),
      brier: brier(fit.map(({ said, truth }) => ({ gapSaid: 1 - said, truth }))),
    },
  };
}

export interface Decided {
  readonly world: string;
  readonly seed: number;
  readonly week: number;
  readonly figures: Figures;
}

/** The figures of a world for one seed, at the check and after two, four and eight weeks. */
export function decide(world: World, seed: number, options: { classes?: number; p?: Parameters } = {}): Decided[] {
  const terms = play(world, seed, options);
  return [0, 2, 4, 8].map((week, at) => ({
    world: world.name,
    seed,
    week,
    figures: figuresOf(lookAt(terms, at, options.p)),
  }));
}
