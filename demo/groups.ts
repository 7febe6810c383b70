import { addWish, type Grouping, saveGroup, setGrouping } from "#contract";
import { commonWords, type Learner, proposeGroups, weighedNeeds } from "#core/groups";
import type { Lexicon } from "#core/words";
import { type DemoRequest, request } from "./checks.ts";
import { adults } from "./people.ts";
import type { Pupil } from "./pupil.ts";
import type { DemoGroup } from "./sessions.ts";

export interface GroupsFrom {
  readonly pupils: readonly Pupil[];
  /** What these pupils need in a week, all needs alike. */
  readonly learners: (week: number, pupils: readonly Pupil[]) => readonly Learner[];
  readonly lexicon: Lexicon;
  readonly order: readonly string[];
  readonly uuid: () => string;
  /** The day of a week on which groups are made and changed. */
  readonly dayIn: (week: number) => string;
}

/** What was missed once a while ago is nothing to make a group for. */
const SURELY_NEEDED = 0.6;
const NAMES = ["Lock keepers", "Brick hods", "Rope walk", "Kingfishers"];
/** The child who left its group half-way: the lightest of it but for her who is ready now. */
const STAYS = "Flora J.";

/** The groups of the eight weeks: made once, changed twice, with the wishes and the adults that they go by. */
export class DemoGroups {
  private readonly saved = new Map<string, number>();
  /** Who takes groups, and how often each meets; told once the wishes were made. */
  grouping: Grouping | undefined;

  constructor(private readonly by: GroupsFrom) {}

  /** Needs weighed by what they open, as the school's own proposals have them. */
  private learners(week: number, pupils: readonly Pupil[]): readonly Learner[] {
    const common = commonWords(this.by.lexicon);
    return this.by.learners(week, pupils).map((one) => {
      const chances = new Map([
        ...[...one.secure].map((gpc) => [gpc, 0.95] as const),
        ...[...one.needs].map(([gpc, need]) => [gpc, 1 - need] as const),
      ]);
      // What was taught first is met again in every lesson; groups work on the later half.
      const taught = this.by.order.filter((gpc) => one.secure.has(gpc) || one.needs.has(gpc));
      const later = new Set(taught.slice(Math.floor(taught.length / 2)));
      const needs = new Map([...one.needs].filter(([gpc, need]) => need >= SURELY_NEEDED && later.has(gpc)));
      return { ...one, needs: weighedNeeds(common, { needs, chances }) };
    });
  }

  private targetsOf(week: number, members: readonly Pupil[]): readonly string[] {
    const learners = this.learners(week, members);
    const [one] = proposeGroups({ learners, order: this.by.order, shape: { by: "count", count: 1 }, seed: 7 }).groups;
    return one?.targets ?? [];
  }

  /** Four groups of those who need most: two in each class. */
  make(week: number): { readonly groups: DemoGroup[]; readonly requests: DemoRequest[] } {
    const sum = (needs: ReadonlyMap<string, number>) => [...needs.values()].reduce((all, need) => all + need, 0);
    const needOf = new Map(this.by.learners(week, this.by.pupils).map((one) => [one.id, sum(one.needs)]));
    const weakest = (classNumber: number, count: number) =>
      this.by.pupils
        .filter((pupil) => pupil.classNumber === classNumber && needOf.get(pupil.id))
        .sort((one, other) => (needOf.get(other.id) ?? 0) - (needOf.get(one.id) ?? 0))
        .slice(0, count);
    const ready = this.by.pupils.filter((pupil) => pupil.name === STAYS);
    const propose = (pupils: readonly Pupil[]) =>
      proposeGroups({
        learners: this.learners(week, pupils),
        order: this.by.order,
        shape: { by: "count", count: 2 },
        limits: { locked: new Map(ready.map(({ id }) => [id, 1])) },
        seed: 7,
      }).groups;
    const groups = [...propose(weakest(0, 7)), ...propose([...new Set([...weakest(1, 8), ...ready])])].map(
      (group, at) => ({
        id: this.by.uuid(),
        name: NAMES[at] ?? `Group ${at + 1}`,
        members: this.by.pupils.filter((pupil) => group.members.includes(pupil.id)),
        targets: [...group.targets],
      }),
    );
    return { groups, requests: groups.map((group) => this.save(group, week, "")) };
  }

  /**
   * Targets follow the gaps that are left; the child who is new joins a group of its own class, and the first time one who needs
   * least of the last group leaves it.
   */
  revise(
    groups: readonly DemoGroup[],
    week: number,
    first: boolean,
  ): { groups: DemoGroup[]; requests: DemoRequest[] } {
    const fresh = this.by.pupils.find((pupil) => pupil.from === 3);
    const closest = groups.find((group) => group.members.some((pupil) => pupil.classNumber === fresh?.classNumber));
    const last = groups.at(-1);
    const leaver = first && last ? this.lightest(week, last.members) : undefined;
    const revised = groups.map((group) => {
      const joins = group === closest && fresh && !group.members.includes(fresh) ? [fresh] : [];
      const members = [...group.members.filter((pupil) => pupil !== leaver), ...joins];
      const targets = this.targetsOf(week, members);
      const why = [
        ...(joins.length > 0 ? ["A child who is new came in."] : []),
        ...(leaver && group === last ? [`${leaver.name} had what the group works on.`] : []),
        "The targets follow the last check.",
      ].join(" ");
      return { group: { ...group, members, targets: targets.length > 0 ? [...targets] : group.targets }, why };
    });
    return {
      groups: revised.map(({ group }) => group),
      requests: revised.map(({ group, why }) => this.save(group, week, why)),
    };
  }

  private lightest(week: number, members: readonly Pupil[]): Pupil | undefined {
    const [one] = this.by
      .learners(
        week,
        members.filter(({ name }) => name !== STAYS),
      )
      .toSorted((left, right) => left.needs.size - right.needs.size);
    return members.find(({ id }) => id === one?.id);
  }

  private save(group: DemoGroup, week: number, why: string): DemoRequest {
    const version = this.saved.get(group.id) ?? 0;
    this.saved.set(group.id, version + 1);
    return request(saveGroup, {
      params: { id: group.id },
      body: {
        ...{ versionId: this.by.uuid(), version, name: group.name, targets: group.targets, why },
        members: group.members.map((pupil) => ({ childId: pupil.id, locked: false })),
        at: `${this.by.dayIn(week)}T14:10:00.000Z`,
      },
    });
  }

  /** Who takes groups, two who are kept apart, and a wish that the others stand against. */
  wishes(version: number): DemoRequest[] {
    const id = (name: string) => this.by.pupils.find((pupil) => pupil.name === name)?.id ?? "";
    const wish = (childId: string, kind: "apart" | "together", otherId: string) =>
      request(addWish, { params: { id: childId }, body: { id: this.by.uuid(), kind, otherId } });
    const adult = (name: string, sessions: number) => ({ id: this.by.uuid(), name, sessions });
    const grouping: Grouping = {
      ...{ least: 3, most: 5, targets: 4, sessionsAWeek: 2, withinClasses: false, yearsApart: 1, stay: 0.25 },
      adults: [adult(adults.assistants[0], 6), adult(adults.assistants[1], 6), adult(adults.kilnTeacher, 2)],
      weights: { words: 4, texts: 1, next: 1, fades: 0, mixed: 1 },
      leaving: { by: "share", percent: 75 },
    };
    this.grouping = grouping;
    return [
      request(setGrouping, { body: { version, grouping } }),
      wish(id("Dario F."), "apart", id("Ugo Z.")),
      wish(id("Amos D."), "together", id("Eben S.")),
      wish(id("Eben S."), "together", id("Seth G.")),
      wish(id("Amos D."), "apart", id("Seth G.")),
    ];
  }
}
