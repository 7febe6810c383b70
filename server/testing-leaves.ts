/** Where a leaf of plain data stands; for tests only. */
type Path = readonly (string | number)[];

/** The paths of all leaves, an empty list or object being one. */
export function leavesOf(value: unknown, path: Path = []): Path[] {
  if (typeof value !== "object" || value === null) return [path];
  const inside = Object.entries(value).flatMap(([key, one]) =>
    leavesOf(one, [...path, Array.isArray(value) ? Number(key) : key]),
  );
  return inside.length > 0 ? inside : [path];
}

/** A copy with one leaf changed. */
export function changed(value: unknown, [key, ...rest]: Path, to: unknown): unknown {
  if (key === undefined) return to;
  const copy = Array.isArray(value) ? [...value] : { ...(value as object) };
  const at = copy as Record<string | number, unknown>;
  at[key] = changed(at[key], rest, to);
  return copy;
}
