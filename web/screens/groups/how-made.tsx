import type { ReactNode } from "react";
import type { ClassView, Grouping, Wish } from "#contract";
import { plural } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";
import { Adults, Fold, NumberField, WhatCounts, WhoWithWhom } from "./making.tsx";
import { Wishes } from "./wishes.tsx";

interface HowWanted {
  readonly classes: readonly ClassView[];
  readonly chosen: readonly string[];
  readonly grouping: Grouping;
  /** How many groups were asked for; null goes by their size. */
  readonly count: number | null;
  readonly out: ReadonlySet<string>;
  readonly wishes: readonly Wish[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly name: (id: string) => string;
  /** What is worth most to these children by what counts now, as points. */
  readonly first: readonly string[];
  /** Something here is not as the school has it. */
  readonly changed: boolean;
  readonly action: ReactNode;
  readonly onClasses: (ids: readonly string[]) => void;
  readonly onGrouping: (grouping: Grouping) => void;
  readonly onCount: (count: number | null) => void;
  readonly onOut: (out: ReadonlySet<string>) => void;
  readonly onKeep: () => unknown;
}

/** For whom groups are made, and how: classes, sizes, adults, wishes, and what counts. */
export function HowMade({
  classes,
  chosen,
  grouping,
  count,
  out,
  wishes,
  people,
  name,
  first,
  changed,
  action,
  ...on
}: HowWanted) {
  const { least, most, targets } = grouping;
  return (
    <>
      <div className="flex flex-wrap items-end gap-4">
        <fieldset>
          <legend className="mb-1 text-sm font-semibold">Classes</legend>
          <div className="flex min-h-9 flex-wrap items-center gap-3">
            {classes.map((one) => (
              <label key={one.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="size-4 accent-leaf"
                  checked={chosen.includes(one.id)}
                  onChange={(event) =>
                    on.onClasses(event.target.checked ? [...chosen, one.id] : chosen.filter((id) => id !== one.id))
                  }
                />{" "}
                {one.name}
              </label>
            ))}
          </div>
        </fieldset>
        <div className="w-44">
          <Choice
            label="Choose"
            value={count === null ? "size" : "count"}
            onChange={(event) => on.onCount(event.target.value === "size" ? null : 3)}
          >
            <option value="size">a group's size</option>
            <option value="count">how many groups</option>
          </Choice>
        </div>
        {count === null ? (
          <div className="flex items-end gap-1.5">
            <NumberField
              label="From"
              value={least}
              least={1}
              most={12}
              onChange={(value) => on.onGrouping({ ...grouping, least: value, most: Math.max(value, most) })}
            />
            <NumberField
              label="to"
              value={most}
              least={1}
              most={12}
              onChange={(value) => on.onGrouping({ ...grouping, most: value, least: Math.min(value, least) })}
            />
          </div>
        ) : (
          <NumberField label="Groups" value={count} least={1} most={40} onChange={on.onCount} />
        )}
        <NumberField
          label="Targets"
          value={targets}
          least={1}
          most={8}
          onChange={(value) => on.onGrouping({ ...grouping, targets: value })}
        />
        {action}
        <p className="pb-2 text-soft">{plural(people.length - out.size, "child", "children")}</p>
      </div>
      <div className="mt-3 grid gap-2 md:grid-cols-2">
        <Adults grouping={grouping} onChange={on.onGrouping} />
        <WhoWithWhom grouping={grouping} onChange={on.onGrouping} />
        <Wishes wishes={wishes} people={people} name={name} />
        <WhatCounts grouping={grouping} first={first} onChange={on.onGrouping} />
      </div>
      <div className="mt-2 flex flex-wrap items-start justify-between gap-2">
        <Outsiders people={people} out={out} onChange={on.onOut} />
        {changed && (
          <Button shape="quiet" onClick={on.onKeep}>
            Keep this as the school's way
          </Button>
        )}
      </div>
    </>
  );
}

function Outsiders({
  people,
  out,
  onChange,
}: {
  people: readonly { id: string; name: string }[];
  out: ReadonlySet<string>;
  onChange: (out: ReadonlySet<string>) => void;
}) {
  const toggle = (id: string) => {
    const next = new Set(out);
    if (!next.delete(id)) next.add(id);
    onChange(next);
  };
  return (
    <Fold title="Leave children out" now={out.size > 0 ? `${out.size} out` : "no one"}>
      <div className="flex flex-wrap gap-1.5">
        {people.map((child) => (
          <button
            key={child.id}
            type="button"
            aria-pressed={out.has(child.id)}
            onClick={() => toggle(child.id)}
            className={`rounded-full border px-2.5 py-0.5 ${out.has(child.id) ? "border-damson bg-damson-pale line-through" : "border-line bg-sheet"}`}
          >
            {child.name}
          </button>
        ))}
      </div>
    </Fold>
  );
}
