const rules = new Intl.PluralRules("en-GB");

/**
 * Which of two forms goes with a count.
 * @example form(1, "is", "are") // "is"
 */
export function form(count: number, one: string, other: string): string {
  return rules.select(count) === "one" ? one : other;
}

/**
 * A count with its noun. The plural takes an s unless it is given.
 * @example plural(1, "mark") // "1 mark"
 * @example plural(3, "child", "children") // "3 children"
 */
export function plural(count: number, one: string, other = `${one}s`): string {
  return `${shown(count)} ${form(count, one, other)}`;
}

/** A browser is slow with the first number that it is to write in a language; few have a comma. */
function shown(count: number): string {
  return Number.isInteger(count) && Math.abs(count) < 1000 ? String(count) : count.toLocaleString("en-GB");
}
