import { useMemo } from "react";
import { getReaders, getSchool, listChildren, listGroups, type Readers } from "#contract";
import { everyCorrespondence, type Gpc } from "#core/phonics";
import type { KnownBy } from "#core/words";
import type { ForOption } from "#web/parts/for-choice.tsx";
import { useAsk } from "./api.ts";

/** Whose knowledge the place works with. */
export interface For {
  /** `all`, or `class:`, `group:`, `child:` and an id. */
  readonly key: string;
  readonly name: string;
  readonly known: ReadonlySet<Gpc>;
  readonly wholes: ReadonlySet<string>;
  readonly targets: readonly Gpc[];
  readonly children: Readers["children"];
  /** Up to which age words are known to the youngest of them. */
  readonly age: KnownBy;
}

const everything: For = {
  key: "all",
  name: "Every spelling",
  known: new Set(everyCorrespondence.map((entry) => entry.gpc)),
  wholes: new Set(),
  targets: [],
  children: [],
  age: 12,
};

/** What the chosen class, group or child can read; undefined until it has arrived. */
export function useFor(key: string): { reader: For | undefined; error: Error | undefined } {
  const [kind, id] = key.split(":");
  const query =
    kind === "class"
      ? { classId: id }
      : kind === "group"
        ? { groupId: id }
        : kind === "child"
          ? { childId: id }
          : null;
  const { data, error } = useAsk(getReaders, query && { query });
  // The same answer gives the same reader, so that what was worked out for it stays.
  const reader = useMemo(
    (): For | undefined =>
      data && {
        key,
        name: data.name,
        known: new Set(data.known),
        wholes: new Set(data.wholes.map((word) => word.toLowerCase())),
        targets: data.targets,
        children: data.children,
        age: data.age,
      },
    [data, key],
  );
  if (!query) return { reader: everything, error: undefined };
  return { reader, error: reader ? undefined : error };
}

/** Spellings that these readers are to practise now. A class has so many that some child needs that they say nothing. */
export function focusOf(reader: For): ReadonlySet<Gpc> {
  return new Set(reader.key.startsWith("class:") ? [] : reader.targets);
}

/** The classes, groups and children to choose from, by name. */
export function useForOptions(): { classes: ForOption[]; groups: ForOption[]; children: ForOption[] } {
  const school = useAsk(getSchool, {});
  const groups = useAsk(listGroups, {});
  const children = useAsk(listChildren, {});
  const open = (school.data?.classes ?? []).filter((one) => !one.archived);
  const inOpen = new Set(open.map((one) => one.id));
  return {
    classes: open.map((one) => ({ key: `class:${one.id}`, name: one.name })),
    groups: (groups.data ?? [])
      .filter((one) => !one.closed)
      .map((one) => ({ key: `group:${one.id}`, name: one.name })),
    children: (children.data ?? [])
      .filter((child) => !child.archived && inOpen.has(child.classId))
      .map((child) => ({ key: `child:${child.id}`, name: child.name })),
  };
}
