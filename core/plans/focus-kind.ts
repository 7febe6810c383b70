import { type OtherNeedKind, otherNeedKindOf } from "#core/mastery";

/**
 * What a session is about in place of a new spelling: needs of one kind, by their ids as `otherNeeds` gives them.
 * @example ["contrast sound b/d"], ["blend CCVC", "blend CCV"], ["read said", "read was"], ["spell ai=ai"]
 */
export type Focus = readonly string[];

/** Needs that one session takes up together. */
export const MOST_IN_FOCUS = 6;

/** Of what kind it is: undefined for ids that are none, or of several kinds. */
export function kindOfFocus(focus: Focus): OtherNeedKind | undefined {
  if (focus.length === 0 || focus.length > MOST_IN_FOCUS) return undefined;
  const kinds = new Set(focus.map(otherNeedKindOf));
  return kinds.size === 1 ? [...kinds][0] : undefined;
}
