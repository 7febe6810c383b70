import type { OtherNeedsView, OtherNeedView } from "#contract";

/** A need besides single spellings of some children, by its name: shapes of words that are called alike are one. */
export interface SharedNeed {
  readonly name: string;
  readonly ids: readonly string[];
  readonly kind: OtherNeedView["kind"];
  readonly who: readonly { readonly id: string; readonly name: string; readonly needs: readonly OtherNeedView[] }[];
}

/**
 * What these children need besides single spellings, by name, what most of them need first; of those with as many, what is missing
 * most.
 * @param childIds undefined means all of the view
 */
export function sharedNeeds(view: OtherNeedsView, childIds?: ReadonlySet<string>): readonly SharedNeed[] {
  const found = new Map<
    string,
    { ids: Set<string>; kind: OtherNeedView["kind"]; who: Map<string, OtherNeedView[]> }
  >();
  const names = new Map(view.children.map(({ id, name }) => [id, name]));
  for (const { id, needs } of view.children) {
    if (childIds && !childIds.has(id)) continue;
    for (const need of needs) {
      const one = found.get(need.name) ?? { ids: new Set(), kind: need.kind, who: new Map() };
      found.set(need.name, one);
      one.ids.add(need.id);
      one.who.set(id, [...(one.who.get(id) ?? []), need]);
    }
  }
  const all = [...found].map(([name, { ids, kind, who }]): SharedNeed & { missing: number } => ({
    ...{ name, kind, ids: [...ids] },
    who: [...who].map(([id, needs]) => ({ id, name: names.get(id) ?? "", needs })),
    missing: [...who.values()].reduce((sum, needs) => sum + Math.max(...needs.map(({ need }) => need)), 0),
  }));
  return all.sort((one, other) => other.who.length - one.who.length || other.missing - one.missing);
}

/** Misses of a child in all needs of one name, out of the answers that spoke of it, and the last day. */
export function evidenceOf(needs: readonly OtherNeedView[]): {
  readonly misses: number;
  readonly answers: number;
  readonly lastDay: string;
  readonly items: readonly string[];
  readonly lostFirst: number;
} {
  const sum = (part: "misses" | "answers" | "lostFirst") => needs.reduce((all, one) => all + one[part], 0);
  const days = needs.map(({ lastDay }) => lastDay).sort();
  return {
    ...{ misses: sum("misses"), answers: sum("answers"), lostFirst: sum("lostFirst") },
    lastDay: days.at(-1) ?? "",
    items: [...new Set(needs.flatMap(({ items }) => items))],
  };
}
