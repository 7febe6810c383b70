import { type Learner, servedBy } from "#core/groups";
import type { BoardGroup } from "./board.tsx";

interface ChangeWanted {
  readonly before: readonly BoardGroup[];
  readonly after: readonly BoardGroup[];
  readonly learners: readonly Learner[];
  /** Targets of a group. */
  readonly targets: number;
  readonly name: (id: string) => string;
}

/** Points of a hundred under which no one gained or lost. */
const NOTICED = 1;

/** What a change of the board gains and loses, for the whole and for each child whom it touches, in a line. */
export function changedBy({ before, after, learners, targets, name }: ChangeWanted): string {
  const plain = (groups: readonly BoardGroup[]) =>
    groups.map((group) => ({ members: group.members.map(({ id }) => id), targets: group.targets }));
  const [was, is] = [servedBy(plain(before), learners, targets), servedBy(plain(after), learners, targets)];
  const whole = `Now ${Math.round(is.share * 100)}% of what lessons of their own would give (before ${Math.round(was.share * 100)}%)`;
  const touched = [...is.of]
    .map(([id, share]) => ({ id, more: Math.round(100 * (share - (was.of.get(id) ?? 0))) }))
    .filter(({ more }) => Math.abs(more) >= NOTICED)
    .sort((one, other) => other.more - one.more);
  if (touched.length === 0) return `${whole}; no one gains or loses.`;
  const said = (some: typeof touched) =>
    some.map(({ id, more }) => `${name(id)} ${more > 0 ? "+" : "−"}${Math.abs(more)}`).join(", ");
  return `${whole}: ${said(touched)}.`;
}
