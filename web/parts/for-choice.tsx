import { type ForOption, useForOptions } from "#web/app/readers.ts";
import { Choice } from "./field.tsx";

/** Whose knowledge a place works with: everyone, a class, a group or a child. */
export function ForChoice({ value, onChange }: { value: string; onChange: (key: string) => void }) {
  const { classes, groups, children } = useForOptions();
  return (
    <div className="w-64">
      <Choice label="For" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="all">everyone: all spellings</option>
        <Group label="Classes, by what is taught" options={classes} />
        <Group label="Groups, by what all can read" options={groups} />
        <Group label="Children" options={children} />
      </Choice>
    </div>
  );
}

function Group({ label, options }: { label: string; options: readonly ForOption[] }) {
  if (options.length === 0) return null;
  return (
    <optgroup label={label}>
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.name}
        </option>
      ))}
    </optgroup>
  );
}
