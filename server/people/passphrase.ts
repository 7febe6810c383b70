import { dictionary } from "@zxcvbn-ts/language-common";
import { LEAST_PASSPHRASE } from "#contract";
import { unfit } from "../frame/problem.ts";

const folded = (text: string) => text.toLowerCase().replace(/[\s\-_.,!?]+/g, "");
/** Without figures and signs at the end: what people put behind a word to make it longer. */
const bare = (text: string) => folded(text).replace(/[^\p{L}]+$/u, "");

let common: ReadonlySet<string> | undefined;
/** Passphrases that are tried first: long ones and short ones, since a short one said twice is no longer. */
const isCommon = (text: string): boolean => {
  common ??= new Set(dictionary["passwords-common"].map((one) => String(one)));
  return common.has(text);
};

/** Whether it is one short thing again and again. @example isRepeated("abcabcabcabc") // true */
const isRepeated = (text: string): boolean => /^(.{1,6}?)\1+$/u.test(text);

/** Whether each letter stands one further than the one before. @example isRow("abcdefghijkl") // true */
function isRow(text: string): boolean {
  const codes = [...text].map((letter) => letter.codePointAt(0) ?? 0);
  const step = (codes[1] ?? 0) - (codes[0] ?? 0);
  return Math.abs(step) === 1 && codes.every((code, at) => at === 0 || code - (codes[at - 1] ?? 0) === step);
}

/**
 * Refuses a passphrase that would be guessed first. Its length is the contract's; there are no other rules.
 * @param names of the person and the school, which it may hold but not be
 * @throws HttpProblem 422
 */
export function refuseCommon(passphrase: string, names: readonly string[]): void {
  const [text, word] = [folded(passphrase), bare(passphrase)];
  const isName = names.some((name) => name !== "" && (folded(name) === text || bare(name) === word));
  if (!isName && !isCommon(text) && !(word && isCommon(word)) && !isRepeated(text) && !isRow(text)) return;
  const says = `This one is among the first that would be tried. Take three or four words that do not belong together, ${LEAST_PASSPHRASE} letters or more.`;
  throw unfit(says, [{ field: "passphrase", says }]);
}
