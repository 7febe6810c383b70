/** Several of a list, at least one of them. */
export function Toggles<T extends string>({
  title,
  all,
  on,
  onSet,
}: {
  title: string;
  all: readonly { readonly id: T; readonly name: string; readonly hint: string }[];
  on: readonly T[];
  onSet: (on: readonly T[]) => void;
}) {
  const toggle = (id: T) => {
    const next = all.map((one) => one.id).filter((one) => (one === id ? !on.includes(one) : on.includes(one)));
    if (next.length > 0) onSet(next);
  };
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 text-sm font-semibold">{title}</legend>
      <div className="flex flex-wrap gap-1.5">
        {all.map(({ id, name, hint }) => (
          <button
            key={id}
            type="button"
            aria-pressed={on.includes(id)}
            onClick={() => toggle(id)}
            className={`min-h-9 rounded-full border px-3 text-sm ${on.includes(id) ? "border-leaf bg-leaf-pale" : "border-line bg-sheet"}`}
          >
            {name}
            {hint && <span className="text-soft"> {hint}</span>}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

/** One thing that is on or off. */
export function Tick({ on, onSet, children }: { on: boolean; onSet: (on: boolean) => void; children: string }) {
  return (
    <label className="col-span-full flex items-center gap-2">
      <input type="checkbox" checked={on} onChange={(event) => onSet(event.target.checked)} className="accent-leaf" />
      {children}
    </label>
  );
}
