/**
 * Names one after the other, as one says them.
 * @example listed(["Ada", "Ben", "Cy"]) // "Ada, Ben and Cy"
 */
export function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
}
