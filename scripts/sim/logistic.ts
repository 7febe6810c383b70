/** A row of features with what is true of it. */
export interface Row {
  readonly features: readonly number[];
  readonly truth: boolean;
}

const logistic = (x: number) => 1 / (1 + Math.exp(-x));

/** Weights of a logistic regression with a little ridge (Newton's method), the first for the constant. */
function fitLogistic(rows: readonly Row[], ridge = 1): Float64Array {
  const size = (rows[0]?.features.length ?? 0) + 1;
  const weights = new Float64Array(size);
  for (let round = 0; round < 12; round++) {
    const gradient = new Float64Array(size);
    const curve = Array.from({ length: size }, () => new Float64Array(size));
    for (const { features, truth } of rows) {
      const x = [1, ...features];
      const p = logistic(x.reduce((sum, one, at) => sum + one * (weights[at] as number), 0));
      const [slip, weight] = [(truth ? 1 : 0) - p, p * (1 - p)];
      for (let i = 0; i < size; i++) {
        const xi = x[i] as number;
        gradient[i] = (gradient[i] as number) + xi * slip;
        const line = curve[i] as Float64Array;
        for (let j = 0; j <= i; j++) line[j] = (line[j] as number) + xi * (x[j] as number) * weight;
      }
    }
    for (let i = 0; i < size; i++) {
      gradient[i] = (gradient[i] as number) - ridge * (weights[i] as number);
      const line = curve[i] as Float64Array;
      line[i] = (line[i] as number) + ridge;
    }
    const step = solved(curve, gradient);
    for (let i = 0; i < size; i++) weights[i] = (weights[i] as number) + (step[i] as number);
    if (step.every((one) => Math.abs(one) < 1e-6)) break;
  }
  return weights;
}

/** Solves a symmetric system whose lower triangle is given (Cholesky). */
function solved(lower: readonly Float64Array[], right: Float64Array): Float64Array {
  const size = right.length;
  const l = lower.map((line) => Float64Array.from(line));
  const at = (i: number, j: number) => (l[i] as Float64Array)[j] as number;
  for (let i = 0; i < size; i++)
    for (let j = 0; j <= i; j++) {
      let sum = at(i, j);
      for (let k = 0; k < j; k++) sum -= at(i, k) * at(j, k);
      (l[i] as Float64Array)[j] = i === j ? Math.sqrt(Math.max(sum, 1e-9)) : sum / at(j, j);
    }
  const y = Float64Array.from(right);
  for (let i = 0; i < size; i++) {
    for (let k = 0; k < i; k++) y[i] = (y[i] as number) - at(i, k) * (y[k] as number);
    y[i] = (y[i] as number) / at(i, i);
  }
  for (let i = size - 1; i >= 0; i--) {
    for (let k = i + 1; k < size; k++) y[i] = (y[i] as number) - at(k, i) * (y[k] as number);
    y[i] = (y[i] as number) / at(i, i);
  }
  return y;
}

/** The same rows with each feature of mean 0 and spread 1, so that one ridge fits all. */
function standardised(rows: readonly Row[]): readonly Row[] {
  const size = rows[0]?.features.length ?? 0;
  const mean = Array.from({ length: size }, (_, at) => average(rows.map(({ features }) => features[at] as number)));
  const sd = mean.map((one, at) =>
    Math.sqrt(average(rows.map(({ features }) => ((features[at] as number) - one) ** 2))),
  );
  return rows.map((row) => ({
    ...row,
    features: row.features.map((x, at) => (x - (mean[at] as number)) / ((sd[at] as number) || 1)),
  }));
}

const average = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / (list.length || 1);

/** What a regression that was fitted to the truth of these rows says of each of them: as near as such a line can come. */
export function fittedTo(plain: readonly Row[]): number[] {
  const rows = standardised(plain);
  const weights = fitLogistic(rows);
  return rows.map(({ features }) =>
    logistic([1, ...features].reduce((sum, x, at) => sum + x * (weights[at] as number), 0)),
  );
}
