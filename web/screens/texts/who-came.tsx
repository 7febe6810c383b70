import type { Came } from "./draft.ts";

/** Who of the group is there. */
export function WhoCame({ group, onChange }: { group: readonly Came[]; onChange: (group: readonly Came[]) => void }) {
  return (
    <fieldset className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <legend className="sr-only">Who is here</legend>
      <span className="text-sm text-soft" aria-hidden>
        Who is here
      </span>
      {group.map((one) => (
        <label key={one.childId} className="flex min-h-9 items-center gap-1.5">
          <input
            type="checkbox"
            checked={one.came}
            onChange={(event) =>
              onChange(
                group.map((other) =>
                  other.childId === one.childId ? { ...other, came: event.target.checked } : other,
                ),
              )
            }
            className="accent-leaf"
          />
          {one.name}
        </label>
      ))}
    </fieldset>
  );
}
