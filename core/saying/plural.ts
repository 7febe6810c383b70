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
  return `${count.toLocaleString("en-GB")} ${form(count, one, other)}`;
}
