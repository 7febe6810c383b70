import {
  type Asking,
  addClass,
  type Endpoint,
  importChildren,
  markDemo,
  markTaught,
  nameSchool,
  type OrderView,
  planNewSession,
  setTimeZone,
} from "#contract";
import { type Dice, dice, type Section, sectionOf } from "#core/checks";
import type { Learner } from "#core/groups";
import { standing } from "#core/ledger";
import { type ByDays, needByDays, shownBy, standingByDays } from "#core/mastery";
import { allGpcs, exceptionWordsUpTo, taughtUpTo } from "#core/order";
import { wordAgeOf } from "#core/roster";
import { adultRequests } from "./adults.ts";
import { dayAfter, demoZone, schoolDays, weekday } from "./calendar.ts";
import { type DemoRequest, type DemoStock, request, sittingRequests } from "./checks.ts";
import { DemoGroups } from "./groups.ts";
import { noteRequests } from "./notes.ts";
import { adults, kiln, towpath } from "./people.ts";
import { growAWeek, learnBefore, type Pupil, practise } from "./pupil.ts";
import { readingRequest } from "./readings.ts";
import { type DemoGroup, heldSession } from "./sessions.ts";
import { textRequests } from "./texts.ts";
import { weekRequests } from "./week.ts";
import { wordRounds } from "./word-rounds.ts";

const WEEKS = 8;

interface DemoClass {
  readonly id: string;
  readonly name: string;
  readonly yearGroup: string;
  readonly teacher: string;
  /** Step number (from 0) that was reached before the first of the eight weeks, and how many come a week. */
  readonly firstStep: number;
  readonly stepsAWeek: number;
}

/** Eight weeks of Marlpit Lock School, the same for the same day and seed. */
export class MarlpitLock {
  private readonly requests: DemoRequest[] = [];
  private readonly from: Dice;
  private readonly classes: DemoClass[];
  private readonly pupils: Pupil[];
  private readonly gpcs: readonly string[];

  /**
   * @param today the last day of the eight weeks, `2026-11-23`
   * @param order the teaching order of both classes
   * @param stock what the server draws items from
   */
  constructor(
    private readonly today: string,
    private readonly order: OrderView,
    private readonly stock: DemoStock,
    seed = 4310,
  ) {
    this.from = dice(seed);
    this.gpcs = allGpcs(order.content);
    this.classes = [
      {
        id: this.uuid(),
        name: "Kiln",
        yearGroup: "Year 1",
        teacher: adults.kilnTeacher,
        firstStep: 10,
        stepsAWeek: 1,
      },
      {
        id: this.uuid(),
        name: "Towpath",
        yearGroup: "Year 2",
        teacher: adults.towpathTeacher,
        firstStep: 19,
        stepsAWeek: 1,
      },
    ];
    this.pupils = [kiln, towpath].flatMap((list, classNumber) =>
      list.map((child) => ({
        ...child,
        id: this.uuid(),
        classNumber,
        learned: new Map(),
        practised: new Map(),
        answers: [],
      })),
    );
  }

  /** Everything that was written in eight weeks, as requests in the order they were made. */
  build(): readonly DemoRequest[] {
    this.ask(markDemo, {});
    this.ask(nameSchool, { body: { version: 1, name: "Marlpit Lock School" } });
    this.ask(setTimeZone, { body: { version: 2, timeZone: demoZone } });
    for (const one of this.classes) {
      const { id, name, yearGroup } = one;
      this.ask(addClass, { body: { id, name, yearGroup, orderId: this.order.id } });
    }
    this.ask(importChildren, {
      body: {
        children: this.pupils.map((pupil) => ({
          id: pupil.id,
          classId: this.classOf(pupil).id,
          name: pupil.name,
          note: pupil.note ?? "",
        })),
      },
    });
    for (const pupil of this.pupils) learnBefore(pupil, this.taughtTo(pupil, 0), this.from);
    const making = new DemoGroups({
      ...{ pupils: this.pupils, order: this.gpcs, lexicon: this.stock.lexicon, uuid: () => this.uuid() },
      learners: (week, pupils) => this.learners(week, pupils),
      dayIn: (week) => this.dayIn(week, 4),
    });
    const changed = (made: { groups: DemoGroup[]; requests: readonly DemoRequest[] }) => {
      this.requests.push(...made.requests);
      return made.groups;
    };
    this.requests.push(...making.wishes(3));
    let groups: DemoGroup[] = [];
    for (let week = 0; week < WEEKS; week++) {
      this.teach(week);
      this.checkRound(week, groups);
      this.checkWords(week, groups);
      if (week === 1) groups = changed(making.make(week));
      if (week === 3 || week === 6) groups = changed(making.revise(groups, week, week === 3));
      if (week >= 2) this.holdSessions(week, groups);
      if (week >= 4) this.readTexts(week, groups);
    }
    this.requests.push(...textRequests(this.uuid(), this.dayIn(6, 3), adults.kilnTeacher));
    this.planAhead(groups);
    this.leaveOneOpen();
    const { adults: taking = [], sessionsAWeek = 2 } = making.grouping ?? {};
    this.requests.push(...adultRequests(() => this.uuid(), { classes: this.classes, groups, taking }));
    this.requests.push(
      ...weekRequests({
        ...{ version: 4, today: this.today, adults: taking, sessionsAWeek, groups, pupils: this.pupils },
        classIds: this.classes.map(({ id }) => id),
        uuid: () => this.uuid(),
      }),
      ...noteRequests({ today: this.today, pupils: this.pupils, groups, uuid: () => this.uuid() }),
    );
    return this.requests;
  }

  private ask<E extends Endpoint>(endpoint: E, asking: Asking<E>): void {
    this.requests.push(request(endpoint, asking));
  }

  private uuid(): string {
    const hex = (count: number) => Array.from({ length: count }, () => this.from.pick(16).toString(16)).join("");
    return `${hex(8)}-${hex(4)}-4${hex(3)}-a${hex(3)}-${hex(12)}`;
  }

  private classOf(pupil: Pupil): DemoClass {
    return this.classes[pupil.classNumber] as DemoClass;
  }

  private dayIn(week: number, dayOfWeek: number): string {
    return weekday(this.today, week - WEEKS, dayOfWeek);
  }

  private stepAt(one: DemoClass, week: number): { id: string; gpcs: readonly string[] } {
    const steps = this.order.content.steps;
    return steps[Math.min(steps.length - 1, one.firstStep + week * one.stepsAWeek)] as (typeof steps)[number];
  }

  private taughtTo(pupil: Pupil, week: number): readonly string[] {
    return taughtUpTo(this.order.content, this.stepAt(this.classOf(pupil), week).id);
  }

  private teach(week: number): void {
    for (const one of this.classes) {
      const step = this.stepAt(one, week);
      const on = this.dayIn(week, 0);
      this.ask(markTaught, {
        params: { id: one.id },
        body: { id: this.uuid(), stepId: step.id, taughtOn: on, at: `${on}T08:30:00.000Z` },
      });
    }
    for (const pupil of this.pupils) {
      if (week < (pupil.from ?? 0) || pupil.away?.includes(week)) continue;
      for (const gpc of this.stepAt(this.classOf(pupil), week).gpcs)
        practise(pupil, gpc, week, this.from.share() < pupil.pace ? 0.75 : 0.25);
      growAWeek(pupil);
    }
  }

  private standingsOf(pupil: Pupil, week: number, gpcs: readonly string[]): readonly ByDays[] {
    const shown = shownBy(standing(pupil.answers));
    return gpcs.map((gpc) => standingByDays(shown[gpc], this.dayIn(week, 2)));
  }

  /** Whole classes are checked in weeks 0, 1, 4 and 7; children in groups every week. */
  private checkRound(week: number, groups: readonly DemoGroup[]): void {
    const inGroup = new Set(groups.flatMap((group) => group.members));
    const everyone = [0, 1, 4, 7].includes(week);
    for (const [at, pupil] of this.pupils.entries()) {
      if (week < (pupil.from ?? 0) || pupil.away?.includes(week)) continue;
      const joins = week === pupil.from;
      if (everyone || joins || inGroup.has(pupil))
        this.check(pupil, week, this.dayIn(week, 1 + (at % 3)), 9 + Math.floor((at % 24) / 10), (at * 5) % 55);
    }
  }

  private check(pupil: Pupil, week: number, day: string, hour: number, minute: number): void {
    const taught = this.taughtTo(pupil, week);
    const standings = this.standingsOf(pupil, week, taught);
    const open = taught.filter((_, at) => standings[at]?.state !== "secure").reverse();
    const asked = new Set(pupil.answers.map((answer) => answer.item));
    const due = [...open.filter((gpc) => asked.has(gpc)), ...open.filter((gpc) => !asked.has(gpc))];
    const picked = pupil.answers.length === 0 ? taught : due.slice(0, pupil.pace < 0.5 ? 24 : 40);
    if (picked.length === 0) return;
    const startedAt = `${day}T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00.000Z`;
    this.sit("Spelling cards", [pupil], [sectionOf("card", { scope: "picked", picked })], week, startedAt);
  }

  private sit(
    name: string,
    pupils: readonly Pupil[],
    sections: readonly Section[],
    week: number,
    startedAt: string,
    stopAfter?: number,
  ): void {
    const [first] = pupils;
    if (!first) return;
    this.requests.push(
      ...sittingRequests({
        name,
        pupils,
        sections,
        startedAt,
        week,
        stopAfter,
        markedBy: this.classOf(first).teacher,
        taughtTo: (pupil) => this.taughtWith(pupil, week),
        ageOf: (pupil) => wordAgeOf(this.classOf(pupil).yearGroup),
        stock: this.stock,
        from: this.from,
        uuid: () => this.uuid(),
      }),
    );
  }

  /** Who is in a group reads a text for a minute each week. */
  private readTexts(week: number, groups: readonly DemoGroup[]): void {
    // In the last week everyone reads, before that the children in groups.
    const readers = week === WEEKS - 1 ? this.pupils : groups.flatMap((group) => group.members);
    for (const [at, pupil] of readers.entries()) {
      if (week < (pupil.from ?? 0) || pupil.away?.includes(week)) continue;
      this.requests.push(
        ...readingRequest({
          pupil,
          week,
          readAt: `${this.dayIn(week, 4)}T${at < 24 ? "09" : "10"}:${String(10 + (at % 24) * 2).padStart(2, "0")}:00.000Z`,
          markedBy: this.classOf(pupil).teacher,
          taught: this.taughtWith(pupil, week),
          stock: this.stock,
          from: this.from,
          uuid: () => this.uuid(),
        }),
      );
    }
  }

  private taughtWith(pupil: Pupil, week: number) {
    const { content } = this.order;
    const step = this.stepAt(this.classOf(pupil), week);
    return { gpcs: this.taughtTo(pupil, week), exceptionWords: exceptionWordsUpTo(content, step.id) };
  }

  private checkWords(week: number, groups: readonly DemoGroup[]): void {
    const here = this.pupils.filter((pupil) => week >= (pupil.from ?? 0) && !pupil.away?.includes(week));
    const rounds = wordRounds({
      week,
      here,
      groups,
      dayOf: (dayOfWeek) => this.dayIn(week, dayOfWeek),
      taughtTo: (pupil) => this.taughtTo(pupil, week),
    });
    for (const one of rounds) this.sit(one.name, one.pupils, one.sections, week, one.startedAt);
  }

  private learners(week: number, pupils: readonly Pupil[]): Learner[] {
    return pupils.map((pupil) => {
      const taught = this.taughtTo(pupil, week);
      const standings = this.standingsOf(pupil, week, taught);
      const pick = (test: (one: ByDays) => boolean) => taught.filter((_, at) => test(standings[at] as ByDays));
      return {
        id: pupil.id,
        needs: new Map(
          taught.flatMap((gpc, at) =>
            needByDays(standings[at] as ByDays) > 0 ? [[gpc, needByDays(standings[at] as ByDays)] as const] : [],
          ),
        ),
        secure: new Set(pick((one) => one.state === "secure")),
      };
    });
  }

  private holdSessions(week: number, groups: readonly DemoGroup[]): void {
    for (const [at, group] of groups.entries()) {
      for (const weekday of [1, 3]) {
        const target = group.targets[(week * 2 + (weekday > 1 ? 1 : 0)) % Math.max(1, group.targets.length)];
        if (target) this.hold(group, week, this.dayIn(week, weekday), target, at);
      }
    }
  }

  private hold(group: DemoGroup, week: number, day: string, target: string, at: number): void {
    const uuid = () => this.uuid();
    this.requests.push(...heldSession({ group, week, day, target, at, from: this.from, uuid }));
  }

  /** Sessions of this week and the next, on weekdays. */
  private planAhead(groups: readonly DemoGroup[]): void {
    const ahead = schoolDays(this.today);
    for (const [at, group] of groups.entries()) {
      const day = ahead[at] ?? ahead[0];
      if (day)
        this.ask(planNewSession, {
          body: { id: this.uuid(), groupId: group.id, heldOn: day, target: null, seed: this.from.pick(100_000) },
        });
    }
  }

  /** A sitting that stopped on its way yesterday, waiting to be gone on with. */
  private leaveOneOpen(): void {
    const pupils = this.pupils.filter((one) => one.name === "Cleo W." || one.name === "Mabel C.");
    const [first] = pupils;
    if (!first) return;
    const picked = this.taughtTo(first, WEEKS - 1).slice(-14);
    this.sit(
      "Follow-up",
      pupils,
      [sectionOf("card", { scope: "picked", picked }), sectionOf("words", { scope: "all", most: 3 })],
      WEEKS - 1,
      `${dayAfter(this.today, -1)}T10:40:00.000Z`,
      6,
    );
  }
}
