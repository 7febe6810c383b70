/** A belief about a number that lies anywhere: its mean and its variance. */
export interface Belief {
  readonly mean: number;
  readonly variance: number;
}

/** A function of a chance c: `[0] + [1] c + [2] c²`. */
export type Curve = readonly [number, number, number];

/** The chance that belongs to a logit. */
export const logistic = (logit: number): number => 1 / (1 + Math.exp(-logit));

/** Points and weights of Gauss and Hermite for the normal distribution, eleven of them (Abramowitz and Stegun, table 25.10). */
const points = Float64Array.of(
  -5.188001224374871,
  -3.936166607129977,
  -2.865123160643645,
  -1.876035020154846,
  -0.928868997381064,
  0,
  0.928868997381064,
  1.876035020154846,
  2.865123160643645,
  3.936166607129977,
  5.188001224374871,
);
const weights = Float64Array.of(
  8.121849790214909e-7,
  0.0001956719302712236,
  0.00672028523553727,
  0.06613874607105778,
  0.24224029987396997,
  0.3694083694083693,
  0.24224029987396997,
  0.06613874607105778,
  0.00672028523553727,
  0.0001956719302712236,
  8.121849790214909e-7,
);
const COUNT = points.length;

/** The mean of the chance whose logit this belief is about. */
export function meanChance({ mean, variance }: Belief): number {
  const sd = Math.sqrt(variance);
  let sum = 0;
  for (let at = 0; at < COUNT; at++)
    sum += (weights[at] as number) / (1 + Math.exp(-(mean + sd * (points[at] as number))));
  return sum;
}

/**
 * What is believed once something was seen, whose likelihood is a function of the chance: the normal belief with the same
 * mean and variance as the exact one (assumed-density filtering).
 * @param weight 0 to 1; less than 1 counts what was seen as less than once
 */
export function updated(before: Belief, likelihood: Curve, weight = 1): Belief {
  const sd = Math.sqrt(before.variance);
  const [a, b, c] = likelihood;
  let [total, first, second] = [0, 0, 0];
  for (let at = 0; at < COUNT; at++) {
    const x = sd * (points[at] as number);
    const chance = 1 / (1 + Math.exp(-(before.mean + x)));
    const seen = Math.max(a + (b + c * chance) * chance, 1e-9);
    const part = (weights[at] as number) * (weight === 1 ? seen : seen ** weight);
    total += part;
    first += part * x;
    second += part * x * x;
  }
  const shift = first / total;
  return { mean: before.mean + shift, variance: Math.max(second / total - shift * shift, 1e-3) };
}

/** The chance that a normal number lies below a limit (Abramowitz and Stegun 7.1.26; off by less than 2e-7). */
export function below(limit: number, { mean, variance }: Belief): number {
  const z = (limit - mean) / Math.sqrt(2 * variance);
  const t = 1 / (1 + 0.3275911 * Math.abs(z));
  const tail =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) *
    Math.exp(-z * z);
  return z < 0 ? tail / 2 : 1 - tail / 2;
}
