/** A chance that was said of something, and how it was in truth: the share of times that it would come right, or 0 and 1. */
export interface Judged {
  readonly said: number;
  readonly truth: number;
}

/** Below this chance at sight something taught is a gap. */
export const GAP = 0.5;

/** How well gaps are named when everything said to be under a half is called one: the harmonic mean of precision and recall. */
export function f1(judged: readonly Judged[], called: (one: Judged) => boolean = ({ said }) => said < GAP): number {
  let [hit, missed, wrong] = [0, 0, 0];
  for (const one of judged) {
    const isGap = one.truth < GAP;
    if (called(one)) isGap ? hit++ : wrong++;
    else if (isGap) missed++;
  }
  return (2 * hit) / (2 * hit + missed + wrong || 1);
}

/** Share of the true gaps that are called gaps. */
export function recall(judged: readonly Judged[]): number {
  const gaps = judged.filter(({ truth }) => truth < GAP);
  return gaps.filter(({ said }) => said < GAP).length / (gaps.length || 1);
}

/** The chance that of a gap and something else, both drawn, the gap was given the lower chance; ties count a half. */
export function auc(judged: readonly Judged[]): number {
  const sorted = [...judged].sort((one, other) => one.said - other.said);
  let [rank, sum, gaps] = [0, 0, 0];
  for (let at = 0; at < sorted.length; ) {
    let to = at + 1;
    while (to < sorted.length && sorted[to]?.said === sorted[at]?.said) to++;
    const middle = rank + (to - at + 1) / 2;
    for (let i = at; i < to; i++)
      if ((sorted[i] as Judged).truth < GAP) {
        sum += middle;
        gaps++;
      }
    rank += to - at;
    at = to;
  }
  const others = sorted.length - gaps;
  return gaps === 0 || others === 0 ? 0.5 : 1 - (sum - (gaps * (gaps + 1)) / 2) / (gaps * others);
}

/** The mean square of what was said of a gap and what was: `chanceOfGap` is said to be one, 0 or 1 is true. */
export function brier(judged: readonly { readonly gapSaid: number; readonly truth: number }[]): number {
  return judged.reduce((sum, { gapSaid, truth }) => sum + (gapSaid - (truth < GAP ? 1 : 0)) ** 2, 0) / judged.length;
}

/** How far what was said lies from what was, in ten bands of what was said, weighed by how often. */
export function calibrationError(judged: readonly { readonly gapSaid: number; readonly truth: number }[]): number {
  const bands = Array.from({ length: 10 }, () => ({ said: 0, was: 0, count: 0 }));
  for (const { gapSaid, truth } of judged) {
    const band = bands[Math.min(9, Math.floor(gapSaid * 10))] as (typeof bands)[number];
    band.said += gapSaid;
    band.was += truth < GAP ? 1 : 0;
    band.count++;
  }
  return bands.reduce((sum, { said, was }) => sum + Math.abs(said - was), 0) / judged.length;
}

/** Mean and spread of some figures. */
export function spread(figures: readonly number[]): { readonly mean: number; readonly sd: number } {
  const mean = figures.reduce((sum, one) => sum + one, 0) / figures.length;
  const sd = Math.sqrt(figures.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, figures.length - 1));
  return { mean, sd };
}
