import { wordAgeOf } from "#core/roster";
import { type KnownBy, youngestOf } from "#core/words";
import type { Inside } from "../store/scope.ts";
import { outlineOf } from "./outline.ts";

/** Up to which age words are given to the children of each class; to those of a class that is not here, every word. */
export async function wordAges(inside: Inside): Promise<(classId: string) => KnownBy> {
  const { classes } = await outlineOf(inside);
  const ages = new Map(classes.map(({ id, yearGroup }) => [id, wordAgeOf(yearGroup)]));
  return (classId) => ages.get(classId) ?? 12;
}

/** The same for some children together: by the youngest. */
export async function wordAgeOfAll(
  inside: Inside,
  children: readonly { readonly classId: string }[],
): Promise<KnownBy> {
  const ageOf = await wordAges(inside);
  return youngestOf(children.map(({ classId }) => ageOf(classId)));
}
