import { dictionary } from "cmu-pronouncing-dictionary";

/** All pronunciations of a word in the open data, commonest first, as lists of phones with stress digits. */
export function pronunciations(word: string): (readonly string[])[] {
  const found: string[][] = [];
  for (const key of [word, `${word}(2)`, `${word}(3)`, `${word}(4)`]) {
    const phones = dictionary[key];
    if (phones) found.push(phones.replace(/ #.*/, "").split(" "));
  }
  return found;
}

/** How each ending may sound after a base, as phones without stress. */
const endings: Record<string, RegExp> = {
  s: /^(S|Z|(AH|IH) Z)$/,
  es: /^(S|Z|(AH|IH) Z)$/,
  ed: /^(T|D|(AH|IH) D)$/,
  d: /^(T|D|(AH|IH) D)$/,
  ing: /^IH NG$/,
  ings: /^IH NG Z$/,
  er: /^ER$/,
  ers: /^ER Z$/,
  est: /^(AH|IH) S T$/,
  y: /^IY$/,
  ish: /^IH SH$/,
  able: /^AH B AH L$/,
  ly: /^L IY$/,
  ful: /^F AH L$/,
  less: /^L (AH|IH) S$/,
  ness: /^N (AH|IH) S$/,
  ment: /^M AH N T$/,
  some: /^S AH M$/,
};
const starts: Record<string, RegExp> = {
  un: /^AH N$/,
  re: /^R (IY|IH)$/,
  dis: /^D IH S$/,
  mis: /^M IH S$/,
};

const bare = (phones: readonly string[]) => phones.map((phone) => phone.replace(/\d/, ""));
/** *handling* is said with or without the weak vowel of *handle*. */
const slim = (phones: readonly string[]) =>
  phones
    .join(" ")
    .replace(/ AH L$/, " L")
    .replace(/ AH L ([A-Z]+)( |$)/g, " L $1$2");

/** True when the derived word sounds as its base with the ending or beginning; voiced plurals of f count. */
export function soundsDerived(word: string, base: string, affix: string, place: "before" | "after"): boolean {
  const wholes = pronunciations(word).map(bare);
  const bases = pronunciations(base).map(bare);
  const rule = place === "after" ? endings[affix] : starts[affix];
  if (!rule) return false;
  return wholes.some((whole) =>
    bases.some((one) => {
      for (const cut of [one.length - 2, one.length - 1, one.length, one.length + 1]) {
        if (place === "after") {
          const head = whole.slice(0, cut);
          const tail = whole.slice(cut);
          if (!rule.test(tail.join(" "))) continue;
          const a = head.join(" ");
          const b = one.join(" ");
          if (a === b || slim(head) === slim(one)) return true;
          if (affix === "es" && a.replace(/V$/, "F") === b) return true;
          if (affix === "ly" && `${a} AH L` === b) return true;
          if (a.replace(/ (AH|IH) N$/, " N") === b.replace(/ (AH|IH) N$/, " N") && a.length > 3) return true;
        } else {
          const size = whole.length - one.length;
          if (size > 0 && rule.test(whole.slice(0, size).join(" ")) && whole.slice(size).join(" ") === one.join(" "))
            return true;
        }
      }
      return false;
    }),
  );
}

/** True when a compound sounds as its two parts one after the other. */
export function soundsCompound(word: string, one: string, other: string): boolean {
  const weakened = (phones: string) => phones.replace(/M (AE|EH) N$/, "M AH N").replace(/Z M AH N$/, "Z M AH N");
  const joined = (a: readonly string[], b: readonly string[]) => weakened([...a, ...b].join(" "));
  const wholes = new Set(pronunciations(word).map((phones) => weakened(bare(phones).join(" "))));
  return pronunciations(one).some((a) => pronunciations(other).some((b) => wholes.has(joined(bare(a), bare(b)))));
}
