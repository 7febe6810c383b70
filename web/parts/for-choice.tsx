import { Choice } from "./field.tsx";

export interface ForOption {
  readonly key: string;
  readonly name: string;
}

interface ForChoiceWanted {
  readonly value: string;
  readonly options: {
    readonly classes: readonly ForOption[];
    readonly groups: readonly ForOption[];
    readonly children: readonly ForOption[];
  };
  readonly onChange: (key: string) => void;
}

/** Whose knowledge a place works with: everyone, a class, a group or a child. */
export function ForChoice({ value, options, onChange }: ForChoiceWanted) {
  const { classes, groups, children } = options;
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
