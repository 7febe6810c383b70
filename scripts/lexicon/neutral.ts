import { isVowel, splitGpc } from "#core/phonics";
import type { Aligned } from "./align.ts";

/** Words in which *o* before r and a vowel is that of *lot*, not of *north*. */
const shortO =
  /^(orange|forest|forehead|foreign|origin|horr|sorr|borr|tomorr|torr|lorry|quarr|warr|authority|florist|moral|coral|corridor|majority|minority|historic|correct|porridge|orchestra_)/;
/** Letters after which *a* is said as in *wasp*. */
const rounding = /^(w|wh|qu|u|squ)=/;

/**
 * Turns what the open data says, one accent, into our accent-neutral sounds, by the spelling around each unit.
 * The rules, in order: weak vowels (schwa, or the short vowel where it is spelled so), *a* before l and after w,
 * the y-sound in *new*, *tune*, *duke*, and the s of *use*.
 */
export function neutralised(word: string, { units }: Aligned): readonly string[] {
  const gpcs = units.map((unit) => unit.gpc);
  const turned = units.map(({ gpc, phones }, at) => {
    const { grapheme, sound } = splitGpc(gpc);
    const before = gpcs[at - 1] ?? "";
    const after = gpcs[at + 1] ?? "";
    const said = splitGpc(before).sound;
    const phone = phones.length === 1 ? (phones[0] ?? "") : "";
    const weak = /^(AH0|IH0|IH2|IY0)$/.test(phone);
    if (grapheme === "a" && (sound === "o" || sound === "or") && !(sound === "o" && rounding.test(before)))
      return phone.startsWith("AO") || /^ll=/.test(after) ? "a=or" : "a=ar";
    if (gpc === "a=a" && phone.startsWith("EH") && !/^(r|rr|l|ll)=/.test(after)) return "a=e";
    if (gpc === "a=schwa" && after === "ge=j" && at === units.length - 2) return "a=i";
    if (sound === "oo" && ["u", "u_e", "ew", "ue", "eu"].includes(grapheme) && ["t", "d", "n"].includes(said))
      return `${grapheme}=yoo`;
    if (gpc === "o=or" && (shortO.test(word) || /^r=/.test(after))) return "o=o";
    if (grapheme === "e" && weak) return `e=${weakE(gpcs, at, phone)}`;
    return gpc;
  });
  return joinedR(
    word,
    turned,
    units.map((unit) => unit.phones[0] ?? ""),
  );
}

/** The r of weak endings joins its vowel (*ordinary*, *natural*); before a stressed vowel it opens the next part (*around*). */
function joinedR(word: string, gpcs: readonly string[], phones: readonly string[]): readonly string[] {
  const found: string[] = [];
  for (let at = 0; at < gpcs.length; at++) {
    const gpc = gpcs[at] ?? "";
    const next = gpcs[at + 1] ?? "";
    const ends = at + 3 === gpcs.length && gpcs[at + 2] === "y=ee";
    if (gpc === "or=or" && shortO.test(word) && isVowel(splitGpc(next).sound)) {
      found.push("o=o", "r=r");
    } else if (next === "r=r" && ((ends && gpc.startsWith("a=") && at > 2) || gpc === "u=schwa")) {
      found.push(`${gpc.charAt(0)}r=schwa`);
      at++;
    } else if ((gpc === "ar=schwa" || gpc === "or=schwa") && /1$/.test(phones[at + 1] ?? "")) {
      found.push(`${gpc.charAt(0)}=schwa`, "r=r");
    } else found.push(gpc);
  }
  return found;
}

/** *begin* has ee, *basket* e, *kitten* schwa. */
function weakE(gpcs: readonly string[], at: number, phone: string): string {
  const vowelAt = (i: number) => i < gpcs.length && isVowel(splitGpc(gpcs[i] ?? "").sound);
  const first = !gpcs.slice(0, at).some((_, i) => vowelAt(i));
  const next = splitGpc(gpcs[at + 1] ?? "");
  if (at === gpcs.length - 1) return "ee";
  if (phone === "IY0" && next.grapheme.length < 2) return "ee";
  const letters = next.grapheme;
  if (first) {
    const onset =
      at === 0 ||
      /^(b|d|r|pr|s)$/.test(
        gpcs
          .slice(0, at)
          .map((gpc) => splitGpc(gpc).grapheme)
          .join(""),
      );
    const single = letters.length === 1 || letters === "th" || letters === "ch" || letters === "qu";
    if (onset && single && letters !== "x" && vowelAt(at + 2)) return "ee";
    if (onset && single && !vowelAt(at + 2) && vowelAt(at + 3) && /^(r|l|w)=/.test(gpcs[at + 2] ?? "")) return "ee";
    if (onset && at > 0 && letters === "s") return "ee";
    return "e";
  }
  const lastVowel = !gpcs.slice(at + 1).some((_, i) => vowelAt(at + 1 + i));
  const closed = !lastVowel && !vowelAt(at + 2) && !/^(r|l)=/.test(gpcs[at + 2] ?? "");
  if (closed && !["n", "m", "l"].includes(next.sound)) return "e";
  if (phone !== "AH0") return lastVowel && !["n", "m", "l"].includes(next.sound) ? "e" : phone === "IY0" ? "ee" : "i";
  if (lastVowel && !["n", "m", "l", "r"].includes(next.sound)) return "e";
  return "schwa";
}
