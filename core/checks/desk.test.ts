import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type Answer,
  type GivenAnswer,
  inCheck,
  isRightAtOnce,
  type Outcome,
  standing,
  takesHeard,
} from "#core/ledger";
import { type DeskCheck, deal, deskState, passReached } from "./index.ts";

const items = ["a=a", "b=b", "d=d", "m=m", "sh=sh", "t=t"];
const check = (seed: number): DeskCheck => ({ items, seed, strategy: "shuffled", form: "deck", before: new Map() });
const outcomes: readonly Outcome[] = ["right", "slow", "ownWay", "wrong", "none"];
type Act =
  | { readonly kind: "mark"; readonly outcome: Outcome }
  | { readonly kind: "undo" }
  | { readonly kind: "again" };
const acts = fc.array(
  fc.oneof<fc.Arbitrary<Act>[]>(
    fc.constantFrom(...outcomes).map((outcome) => ({ kind: "mark", outcome })),
    fc.constant<Act>({ kind: "undo" }),
    fc.constant<Act>({ kind: "again" }),
  ),
  { maxLength: 60 },
);

/** The desk by the plain way: a pile per round, a list of what was marked. */
class PlainDesk {
  readonly marked: { item: string; outcome: Outcome; pass: number }[] = [];
  pass = 1;
  constructor(private readonly seed: number) {}

  pile(pass = this.pass): readonly string[] {
    if (pass === 1) return deal(items, this.seed, 1);
    const before = this.marked
      .filter((mark) => mark.pass === pass - 1 && !isRightAtOnce(mark.outcome))
      .map((mark) => mark.item);
    return deal(before, this.seed, pass);
  }
  current(): string | undefined {
    return this.pile().find((item) => !this.marked.some((mark) => mark.pass === this.pass && mark.item === item));
  }
  do(act: Act): void {
    const current = this.current();
    if (act.kind === "mark" && current) this.marked.push({ item: current, outcome: act.outcome, pass: this.pass });
    if (act.kind === "undo" && this.marked.length > 0) this.pass = this.marked.pop()?.pass ?? 1;
    if (act.kind === "again" && !current && this.pile(this.pass + 1).length > 0) this.pass++;
  }
}

/** The desk as the screen runs it: only the log and the pass. */
class LogDesk {
  log: Answer[] = [];
  pass = 1;
  constructor(private readonly seed: number) {}

  state() {
    return deskState(check(this.seed), this.pass, standing(this.log));
  }
  private stamp() {
    const number = this.log.length;
    return {
      id: `id${String(number).padStart(4, "0")}`,
      childId: "c",
      markedAt: new Date(Date.UTC(2026, 0, 5, 9, 0, number)).toISOString(),
      day: "2026-01-05",
      markedBy: "Mx T.",
    };
  }
  do(act: Act): void {
    const { current, missed } = this.state();
    if (act.kind === "mark" && current) {
      const given = {
        ...this.stamp(),
        ...inCheck("card", "k"),
        tags: [],
        item: current,
        ms: 800,
        pass: this.pass,
      };
      const { outcome } = act;
      this.log.push(takesHeard(outcome) ? { ...given, outcome, heard: null, units: null } : { ...given, outcome });
    }
    if (act.kind === "undo") {
      const last = standing(this.log).at(-1);
      if (last) {
        this.log.push({ ...this.stamp(), outcome: "void", voids: last.id });
        this.pass = last.pass;
      }
    }
    if (act.kind === "again" && !current && missed.length > 0) this.pass++;
  }
}

describe("the desk from its log", () => {
  test("shows what a plain pile of cards would show, whatever is marked, taken back or begun again", () => {
    fc.assert(
      fc.property(acts, fc.integer(), (list, seed) => {
        const plain = new PlainDesk(seed);
        const log = new LogDesk(seed);
        for (const act of list) {
          plain.do(act);
          log.do(act);
          expect(log.pass).toBe(plain.pass);
          expect(log.state().current).toBe(plain.current());
          expect([...log.state().items].sort()).toEqual([...plain.pile()].sort());
        }
        expect(standing(log.log).map(({ item, outcome, pass }) => ({ item, outcome, pass }))).toEqual(plain.marked);
      }),
    );
  });
  test("is the same after the log went out and came back in another order, some of it twice", () => {
    fc.assert(
      fc.property(acts, fc.integer(), fc.infiniteStream(fc.nat(999)), (list, seed, order) => {
        const desk = new LogDesk(seed);
        for (const act of list) desk.do(act);
        const shuffledLog = desk.log
          .map((answer) => ({ answer, at: order.next().value ?? 0 }))
          .sort((one, other) => one.at - other.at)
          .map(({ answer }) => answer);
        const again = [
          ...new Map([...shuffledLog, ...shuffledLog.slice(0, 3)].map((answer) => [answer.id, answer])).values(),
        ];
        expect(deskState(check(seed), desk.pass, standing(again))).toEqual(desk.state());
      }),
    );
  });
  test("ends: every round of misses is smaller or the same, and a round without a miss leaves none", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...outcomes), { minLength: 6, maxLength: 6 }),
        fc.integer(),
        (marks, seed) => {
          const desk = new LogDesk(seed);
          for (const outcome of marks) desk.do({ kind: "mark", outcome });
          const { current, missed, items: asked } = desk.state();
          expect(current).toBeUndefined();
          expect(missed.length).toBe(marks.filter((outcome) => !isRightAtOnce(outcome)).length);
          desk.do({ kind: "again" });
          for (let card = 0; card < missed.length; card++) desk.do({ kind: "mark", outcome: "right" });
          expect(desk.state().missed).toEqual(missed.length > 0 ? [] : missed);
          expect(asked).toHaveLength(6);
          expect(passReached(standing(desk.log) as GivenAnswer[])).toBe(missed.length > 0 ? 2 : 1);
        },
      ),
    );
  });
});
