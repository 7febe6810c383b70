import {
  type ComponentProps,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useId,
} from "react";

const box =
  "w-full rounded-md border border-line bg-sheet px-2.5 py-1.5 min-h-9 text-ink placeholder:text-soft disabled:opacity-60 aria-[invalid=true]:border-damson";

interface FieldWords {
  readonly label: string;
  /** A line of help under the field. */
  readonly hint?: ReactNode;
  readonly problem?: string | undefined;
  /** The label is there for those who listen, not shown. */
  readonly bare?: boolean;
}

function Frame({ id, label, hint, problem, bare, children }: FieldWords & { id: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className={bare ? "sr-only" : "text-sm font-semibold"}>
        {label}
      </label>
      {children}
      {hint && !problem && <p className="text-sm text-soft">{hint}</p>}
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-sm text-damson">
          {problem}
        </p>
      )}
    </div>
  );
}

export function TextField({
  label,
  hint,
  problem,
  bare,
  className = "",
  ...rest
}: ComponentProps<"input"> & FieldWords) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} problem={problem} bare={bare ?? false}>
      <input
        id={id}
        className={`${box} ${className}`}
        aria-invalid={problem !== undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        {...rest}
      />
    </Frame>
  );
}

export function TextArea({
  label,
  hint,
  problem,
  bare,
  className = "",
  ...rest
}: TextareaHTMLAttributes<HTMLTextAreaElement> & FieldWords) {
  const id = useId();
  return (
    <Frame id={id} label={label} hint={hint} problem={problem} bare={bare ?? false}>
      <textarea id={id} className={`${box} ${className}`} aria-invalid={problem !== undefined} {...rest} />
    </Frame>
  );
}

export function Choice({
  label,
  hint,
  problem,
  bare,
  className = "",
  children,
  id: ownId,
  ...rest
}: SelectHTMLAttributes<HTMLSelectElement> & FieldWords) {
  const madeId = useId();
  const id = ownId ?? madeId;
  return (
    <Frame id={id} label={label} hint={hint} problem={problem} bare={bare ?? false}>
      <select id={id} className={`${box} pr-7 ${className}`} {...rest}>
        {children}
      </select>
    </Frame>
  );
}

/** Something that is so, or not. */
export function Tick({
  checked,
  onChange,
  children,
}: {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly children: ReactNode;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="accent-leaf"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}

/** The time zone by which the days of a school are reckoned. */
export function ZoneField({
  value,
  onSet,
  ...words
}: Omit<FieldWords, "label"> & { readonly value: string; readonly onSet: (zone: string) => void }) {
  const zones = useId();
  return (
    <>
      <TextField
        {...words}
        label="Time zone"
        list={zones}
        value={value}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => onSet(event.target.value)}
      />
      <datalist id={zones}>
        {Intl.supportedValuesOf("timeZone").map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}

/** A whole number between two, for a setting that is kept as it is typed: what is beyond them is brought back. */
export function WholeField({
  least,
  most,
  value,
  onSet,
  ...words
}: FieldWords & {
  readonly least: number;
  readonly most: number;
  readonly value: number;
  readonly onSet: (value: number) => void;
}) {
  const within = (text: string) => Math.min(most, Math.max(least, Math.round(Number(text)) || least));
  return (
    <TextField
      {...words}
      type="number"
      min={least}
      max={most}
      value={value}
      onChange={(event) => onSet(within(event.target.value))}
    />
  );
}
