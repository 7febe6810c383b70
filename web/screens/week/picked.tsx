import type { ReactNode } from "react";

/** A list to choose one of on the left, and what is chosen beside it. */
export function Picked({
  label,
  list,
  chosen,
  onChoose,
  below,
  children,
}: {
  label: string;
  list: readonly { readonly id: string; readonly name: string; readonly about?: string }[];
  chosen: string | undefined;
  onChoose: (id: string) => void;
  below?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="grid grid-cols-1 items-start gap-4 md:grid-cols-[13rem_minmax(0,1fr)]">
      <div>
        <ul aria-label={label} className="max-h-[60vh] overflow-y-auto rounded-lg border border-line bg-sheet p-1">
          {list.map(({ id, name, about }) => (
            <li key={id}>
              <button
                type="button"
                aria-pressed={id === chosen}
                className="block min-h-8 w-full rounded px-2 py-1 text-left hover:bg-leaf-pale aria-pressed:bg-leaf-pale aria-pressed:font-semibold"
                onClick={() => onChoose(id)}
              >
                {name}
                {about && <span className="block text-xs font-normal text-soft">{about}</span>}
              </button>
            </li>
          ))}
        </ul>
        {below}
      </div>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

/** What is painted with: one of a few values, or a word of one's own. */
export function Brushes({
  values,
  brush,
  onChoose,
}: {
  values: readonly string[];
  brush: string;
  onChoose: (value: string) => void;
}) {
  return (
    <fieldset className="mb-2 flex flex-wrap items-center gap-1.5">
      <legend className="sr-only">Draw with</legend>
      <span className="text-sm text-soft" aria-hidden>
        Draw with
      </span>
      {values.map((value) => (
        <button
          key={value}
          type="button"
          aria-pressed={value === brush}
          className="min-h-8 rounded-full border border-line bg-sheet px-3 py-0.5 text-sm aria-pressed:border-leaf aria-pressed:bg-leaf-pale aria-pressed:font-semibold"
          onClick={() => onChoose(value)}
        >
          {value}
        </button>
      ))}
    </fieldset>
  );
}

/** Where there are no times yet, nothing can be drawn. */
export function NoTimes() {
  return <p className="text-soft">Set the times for sessions first, under The day. Hours are drawn on them.</p>;
}
