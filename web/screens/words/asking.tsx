import { RefreshCw } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "#web/parts/button.tsx";
import { Choice } from "#web/parts/field.tsx";

/** The row of wishes above a list, with a button that makes another one. */
export function Asking({ children, onAnother }: { children: ReactNode; onAnother?: () => void }) {
  return (
    <div className="no-print mb-4 flex flex-wrap items-end gap-3">
      {children}
      {onAnother && (
        <Button onClick={onAnother}>
          <RefreshCw size={15} aria-hidden /> Others
        </Button>
      )}
    </div>
  );
}

interface PickWanted<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: Readonly<Record<T, string>>;
  readonly onChange: (value: T) => void;
}

/** A choice among a few named things. */
export function Pick<T extends string>({ label, value, options, onChange }: PickWanted<T>) {
  return (
    <Choice label={label} value={value} onChange={(event) => onChange(event.target.value as T)}>
      {(Object.entries(options) as [T, string][]).map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </Choice>
  );
}

export const counts = { "6": "6", "9": "9", "12": "12", "18": "18", "24": "24", "40": "40" };

export const bands = {
  "2": "the commonest",
  "3": "common",
  "4": "most",
  "5": "all, rare ones too",
};
