import type { Lesson, Slot, Stretch } from "./times.ts";

/** An adult who takes groups. */
export interface WeekAdult {
  readonly id: string;
  readonly name: string;
  /** When they are free for it. */
  readonly hours: readonly Stretch[];
  /** Where they may be; empty where it does not matter. */
  readonly rooms: readonly string[];
  /** Classes whose children they may take; empty where it does not matter. */
  readonly classes: readonly string[];
  readonly mostADay: number;
  readonly mostAWeek: number;
}

export interface WeekRoom {
  readonly id: string;
  readonly name: string;
  /** Children whom it holds. */
  readonly fits: number;
  readonly closed: readonly Stretch[];
}

export interface WeekChild {
  readonly id: string;
  readonly name: string;
  readonly classId: string;
  /** What it would miss: the lessons of its class, with its own in their place. */
  readonly lessons: readonly Lesson[];
  /** When it is not here. */
  readonly away: readonly Stretch[];
}

/** What holds for a lesson, by its name. */
export interface LessonRule {
  readonly what: string;
  /** No child is taken out of it. */
  readonly must: boolean;
  /** Times a week that a child may miss it; null where that does not matter. */
  readonly most: number | null;
}

export interface WeekGroup {
  readonly id: string;
  readonly name: string;
  readonly members: readonly string[];
  /** A week. */
  readonly sessions: number;
  /** Of one session. */
  readonly minutes: number;
}

/** A session of a group in the week. */
export interface Placed {
  readonly groupId: string;
  readonly slotId: string;
  readonly adultId: string;
  /** Null where the school says nothing of rooms. */
  readonly roomId: string | null;
}

/** Wishes, by their weight beside each other; 0 is no wish. */
export interface WeekWeights {
  /** For each adult more than one who takes the same group. */
  readonly adult: number;
  /** For each time of the day more than one at which the same group meets. */
  readonly time: number;
  /** For each session that begins at noon or later. */
  readonly morning: number;
  /** For each two days running on which a group meets. */
  readonly apart: number;
  /** For each time that a child misses a lesson again within the week. */
  readonly turns: number;
}
export const wishNames = ["adult", "time", "morning", "apart", "turns"] as const;
export type WishName = (typeof wishNames)[number];
export const startingWeekWeights: WeekWeights = { adult: 4, time: 1, morning: 1, apart: 2, turns: 1 };

/** What a timetable is asked for. Slots of a day do not overlap; ids are those of the school's. */
export interface WeekWanted {
  readonly slots: readonly Slot[];
  readonly adults: readonly WeekAdult[];
  /** None where rooms do not matter. */
  readonly rooms: readonly WeekRoom[];
  readonly children: readonly WeekChild[];
  readonly groups: readonly WeekGroup[];
  readonly lessons: readonly LessonRule[];
  readonly weights: WeekWeights;
  /** Sessions that stay where they are, also against a rule. */
  readonly fixed?: readonly Placed[];
}

/** A timetable: what could be placed, in the order of the groups, and how many sessions of which group could not. */
export interface Timetable {
  readonly placed: readonly Placed[];
  readonly unplaced: ReadonlyMap<string, number>;
}
