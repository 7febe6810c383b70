/**
 * The sounds (phonemes) of English as this tool writes them: a short ASCII key in code and data,
 * an IPA sign on screen. Vowel keys follow lexical sets, so that they stay neutral between accents.
 */
export type SoundKind = "consonant" | "vowel" | "joint";

export interface Sound {
  readonly key: string;
  readonly ipa: string;
  readonly kind: SoundKind;
  /** A sound that can be held as long as the breath lasts (m, s, a), unlike t or b. */
  readonly held: boolean;
  /** How an adult would jot the sound down in plain letters. */
  readonly plain: string;
}

const table = `
b b - b|d d - d|f f h f|g ɡ - g|h h h h|j dʒ - j|k k - k|l l h l|m m h m|n n h n|ng ŋ h ng|p p - p
r r h r|s s h s|t t - t|v v h v|w w - w|y j - y|z z h z|sh ʃ h sh|zh ʒ h zh|ch tʃ - ch|th θ h th|dh ð h th (voiced)
ks ks - ks|gz ɡz - gz|kw kw - kw|wu wʌ - wu|id ɪd - id|iz ɪz - iz|ts ts - ts
a æ h a|e ɛ h e|i ɪ h i|o ɒ h o|u ʌ h u|uu ʊ h oo (short)|ai eɪ h ay|ee iː h ee|igh aɪ h eye|oa əʊ h oh|oo uː h oo
yoo juː h yoo|ar ɑː h ar|or ɔː h or|er ɜː h er|ow aʊ h ow|oi ɔɪ h oy|ear ɪə h ear|air ɛə h air|ure ʊə h oor|schwa ə h uh`;

const joints = new Set(["ks", "gz", "kw", "wu", "id", "iz", "ts"]);
const firstVowel = "a";

function readTable(): readonly Sound[] {
  const rows = table.trim().split(/[|\n]/);
  let vowels = false;
  return rows.map((row) => {
    const [key = "", ipa = "", held, ...plain] = row.trim().split(" ");
    vowels ||= key === firstVowel;
    const kind: SoundKind = joints.has(key) ? "joint" : vowels ? "vowel" : "consonant";
    return { key, ipa, kind, held: held === "h", plain: plain.join(" ") };
  });
}

/** Every sound, consonants first, then joint pairs, then vowels. */
export const sounds: readonly Sound[] = readTable();

const byKey = new Map(sounds.map((sound) => [sound.key, sound]));

/** The sound with this key, or undefined when there is none. */
export function findSound(key: string): Sound | undefined {
  return byKey.get(key);
}

/** Each sound of a key in turn, put together: a unit of a school's own has several, `ng+k`. An unknown one stays as it is. */
function together(key: string, shows: (sound: Sound) => string): string {
  const all = key.split("+").map((one) => byKey.get(one));
  return all.every((one) => one !== undefined) ? all.map((one) => shows(one as Sound)).join("") : key;
}

/** `ai` → `/eɪ/`, `ng+k` → `/ŋk/`. An unknown key comes back between slashes as it is. */
export function ipa(key: string): string {
  return `/${together(key, (sound) => sound.ipa)}/`;
}

/** `ai` → `ay`, `s+t` → `st`: the sound in the plain letters an adult would jot down. */
export function plainSound(key: string): string {
  return together(key, (sound) => sound.plain);
}

/** The weak vowel. It has no card: it is heard in words only. */
export const WEAK = "schwa";

/**
 * True for a vowel, one that runs together with r included.
 * @example isVowel("ar") // true
 */
export function isVowel(key: string): boolean {
  return byKey.get(key)?.kind === "vowel" || key === "schwa";
}
