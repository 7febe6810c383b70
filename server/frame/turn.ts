/** Lets what waits have its turn: for work that is done in slices, so that it holds no one up. */
export function turn(): Promise<void> {
  return new Promise((done) => setImmediate(done));
}

/**
 * A list in slices of at most so many.
 * @example [...slices([1, 2, 3], 2)] // [[1, 2], [3]]
 */
export function* slices<T>(list: readonly T[], most: number): Generator<readonly T[]> {
  for (let from = 0; from < list.length; from += most) yield list.slice(from, from + most);
}
