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
