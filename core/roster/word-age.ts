import type { KnownBy } from "#core/words";

const FIRST_YEARS = /recep|nurser|found|kinder|pre/i;

/**
 * Up to which age words are given to a year group, by its first number: what is known by 5 in the first year, by 7 in the second and
 * third, by 9 in the fourth, every word after that. A group without a number is taken for the second year, unless its name says that
 * it comes before the first.
 * @example wordAgeOf("Year 1") // 5
 * @example wordAgeOf("P3/4") // 7
 */
export function wordAgeOf(yearGroup: string): KnownBy {
  const [number] = yearGroup.match(/\d+/) ?? [];
  if (number === undefined) return FIRST_YEARS.test(yearGroup) ? 5 : 7;
  const year = Number(number);
  return year <= 1 ? 5 : year <= 3 ? 7 : year === 4 ? 9 : 12;
}
