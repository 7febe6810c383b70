/** What a child can need besides reading single spellings, in the order in which it is told. */
export const otherNeedKinds = ["contrast", "blending", "word", "writing", "rate"] as const;
export type OtherNeedKind = (typeof otherNeedKinds)[number];

/** How the ids of each kind are written. */
const written: readonly (readonly [OtherNeedKind, RegExp])[] = [
  ["contrast", /^contrast (sound|spelling) [^\s/]+\/[^\s/]+$/],
  ["blending", /^blend [CV.]+$/],
  ["word", /^read \S+$/],
  ["writing", /^(write \S+|spell [^\s=]+=[^\s=]+)$/],
  ["rate", /^rate texts$/],
];

/** Of what kind a need is, by its id; undefined for a text that is the id of none. */
export function otherNeedKindOf(id: string): OtherNeedKind | undefined {
  return written.find(([, form]) => form.test(id))?.[0];
}

/** Whether a text is the id of such a need. */
export function isOtherNeed(id: string): boolean {
  return otherNeedKindOf(id) !== undefined;
}

/** Shapes of words as they are taught: by what is hard about them, however many sounds there are. */
const shapes = {
  long: "words of two syllables and more",
  both: "clusters at both ends",
  start: "a cluster at the start",
  end: "a cluster at the end",
  two: "two sounds",
  three: "three sounds",
} as const;
type ShapeFamily = keyof typeof shapes;

function familyOfShape(shape: string): ShapeFamily {
  if (shape.includes(".")) return "long";
  const starts = shape.startsWith("CC");
  const ends = shape.endsWith("CC");
  if (starts && ends) return "both";
  if (starts) return "start";
  if (ends) return "end";
  return shape.length < 3 ? "two" : "three";
}

/** What is hard about a shape of words: `CCVC` is *a cluster at the start*. */
export function shapeInWords(shape: string): string {
  return shapes[familyOfShape(shape)];
}

/**
 * What a group can work on that is no spelling: needs that one lesson takes up together, however they change from week to week.
 * Written as `contrast sound b/d`, `blending start`, `exception words`, `writing words`, `writing spellings` and `rate texts`; none of
 * them is written like a correspondence.
 */
export type NeedFamily = string;

const families: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.entries(shapes).map(([key, words]) => [`blending ${key}`, `blending ${words}`])),
  "exception words": "exception words",
  "writing words": "writing exception words",
  "writing spellings": "writing what is read",
  "rate texts": "the rate in texts",
};

/** The needs with which a need is taught; undefined for a text that is the id of none. */
export function familyOfNeed(id: string): NeedFamily | undefined {
  const kind = otherNeedKindOf(id);
  if (kind === "blending") return `blending ${familyOfShape(id.slice("blend ".length))}`;
  if (kind === "word") return "exception words";
  if (kind === "writing") return id.startsWith("write ") ? "writing words" : "writing spellings";
  return kind && id;
}

/** Whether a text is written as such needs are. */
export function isNeedFamily(text: string): boolean {
  return !text.includes("=") && (text in families || otherNeedKindOf(text) === "contrast");
}

/** All that a group can be given to work on that is no pair. */
export const plainFamilies: readonly NeedFamily[] = Object.keys(families);

/** What a family is called that no pair gives its name; undefined for a contrast. */
export function plainFamilyName(family: NeedFamily): string | undefined {
  return families[family];
}
