import { type NeedFamily, needFamilyName } from "#core/mastery";
import { type Gpc, spellingInWords } from "#core/phonics";
import { LateSelect } from "./late-select.tsx";
import { TargetMark, targetInWords } from "./target-marks.tsx";

interface SpellingRowWanted {
  readonly gpcs: readonly Gpc[];
  /** What can be added; what is in the row already is left out. */
  readonly options: readonly Gpc[];
  /** What can be added that is no spelling. */
  readonly others?: readonly NeedFamily[];
  readonly onChange: (gpcs: readonly Gpc[]) => void;
  /** What the list of what can be added is called. */
  readonly label: string;
  /** What taking one out says, as in `Take ai out of the targets`. */
  readonly outOf: string;
  /** Its entries come when someone turns to it: it is one of very many. */
  readonly late?: boolean;
}

/** A row of spellings, or of whatever a group works on, to change: press one to take it out, choose one to add it at the end. */
export function SpellingRow({ gpcs, options, others = [], onChange, label, outOf, late = false }: SpellingRowWanted) {
  const more = others.filter((family) => !gpcs.includes(family));
  return (
    <div className="flex flex-wrap items-center gap-1">
      {gpcs.map((gpc) => (
        <button
          key={gpc}
          type="button"
          title={`Take it out of ${outOf}`}
          aria-label={`Take ${targetInWords(gpc)} out of ${outOf}`}
          onClick={() => onChange(gpcs.filter((other) => other !== gpc))}
          className="prints min-h-7"
        >
          <TargetMark target={gpc} />
        </button>
      ))}
      <LateSelect
        late={late}
        chosen={<option value="">add</option>}
        entries={() => (
          <>
            <option value="">add</option>
            {more.length > 0 && (
              <optgroup label="No spelling">
                {more.map((family) => (
                  <option key={family} value={family}>
                    {needFamilyName(family)}
                  </option>
                ))}
              </optgroup>
            )}
            <SpellingOptions gpcs={options.filter((gpc) => !gpcs.includes(gpc))} />
          </>
        )}
        aria-label={label}
        value=""
        onChange={(event) => onChange([...gpcs, event.target.value])}
        className="no-print min-h-7 w-20 rounded border border-line bg-sheet px-1 py-0.5 text-sm"
      />
    </div>
  );
}

/** Spellings to choose from, in words. */
export function SpellingOptions({ gpcs }: { gpcs: readonly Gpc[] }) {
  return gpcs.map((gpc) => (
    <option key={gpc} value={gpc}>
      {spellingInWords(gpc)}
    </option>
  ));
}
