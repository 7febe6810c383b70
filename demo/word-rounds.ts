import { type Section, sectionOf } from "#core/checks";
import type { Pupil } from "./pupil.ts";
import type { DemoGroup } from "./sessions.ts";

/** Who sits together, at what, and when (ISO time). */
export interface Round {
  readonly name: string;
  readonly pupils: readonly Pupil[];
  readonly sections: readonly Section[];
  readonly startedAt: string;
}

interface Week {
  /** Number of the week, from 0. */
  readonly week: number;
  /** The children who are in school this week. */
  readonly here: readonly Pupil[];
  readonly groups: readonly DemoGroup[];
  /** Date of a day of this week, Monday being 0. */
  readonly dayOf: (dayOfWeek: number) => string;
  readonly taughtTo: (pupil: Pupil) => readonly string[];
}

/** Words twice for everyone; for groups also exception words, writing, listening and a sheet in the last week. */
export function wordRounds(asked: Week): readonly Round[] {
  return [
    ...(asked.week === 4 || asked.week === 7 ? classRounds(asked) : []),
    ...(asked.week >= 6 ? groupRounds(asked) : []),
  ];
}

function classRounds({ here, dayOf }: Week): readonly Round[] {
  const words = sectionOf("words", {
    scope: "all",
    blocks: ["three", "fourEnd", "fourStart", "twoSyllables"],
    most: 4,
  });
  const classNumbers = [...new Set(here.map((pupil) => pupil.classNumber))].sort();
  return classNumbers.flatMap((classNumber) => {
    const list = here.filter((pupil) => pupil.classNumber === classNumber);
    return Array.from({ length: Math.ceil(list.length / 6) }, (_, table) => ({
      name: "Words at the table",
      pupils: list.slice(table * 6, table * 6 + 6),
      sections: [words],
      startedAt: `${dayOf(2 + classNumber)}T1${table}:30:00.000Z`,
    }));
  });
}

function groupRounds({ week, here, groups, dayOf, taughtTo }: Week): readonly Round[] {
  return groups.flatMap((group, at) => {
    const pupils = group.members.filter((pupil) => here.includes(pupil));
    const [first] = pupils;
    const round = (name: string, hour: number, ...sections: Section[]): Round => ({
      name,
      pupils,
      sections,
      startedAt: `${dayOf(at)}T${hour}:15:00.000Z`,
    });
    if (week === 6)
      return [
        round(
          "Words and listening",
          13,
          sectionOf("exception", { scope: "all", most: 12 }),
          sectionOf("listen", { scope: "all", tasks: ["sounds", "apart", "where"], most: 3 }),
        ),
        round("Writing", 14, sectionOf("dictation", { scope: "all", most: 5 })),
      ];
    const picked = first ? taughtTo(first).slice(-12) : [];
    return [
      round("Hear and write", 13, sectionOf("write", { scope: "picked", picked })),
      round("On paper", 14, sectionOf("paper", { scope: "all", most: 12 })),
    ];
  });
}
