import { TextField } from "./field.tsx";

/** True when one of these says what is looked for; everything does when nothing is. */
export function has(wanted: string, ...texts: readonly string[]): boolean {
  const asked = wanted.trim().toLowerCase();
  return asked === "" || texts.some((text) => text.toLowerCase().includes(asked));
}

interface SearchWanted {
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** How much is left of what is searched. */
  readonly found: number;
}

/** A field that narrows what stands below it, while one types. */
export function SearchField({ label, placeholder, value, onChange, found }: SearchWanted) {
  return (
    <div className="no-print mb-3 flex items-center gap-3">
      <div className="w-72 max-w-full">
        <TextField
          label={label}
          bare
          type="search"
          placeholder={placeholder}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      </div>
      <p role="status" className="text-sm text-soft">
        {value.trim() === "" ? "" : found === 0 ? `Nothing has “${value.trim()}”.` : `${found} found`}
      </p>
    </div>
  );
}
