import { type Gpc, showGrapheme, spellingInWords, splitGpc } from "#core/phonics";
import { LateSelect } from "./late-select.tsx";
import { Spelling } from "./marks.tsx";

interface SpellingRowWanted {
  readonly gpcs: readonly Gpc[];
  /** What can be added; what is in the row already is left out. */
  readonly options: readonly Gpc[];
  readonly onChange: (gpcs: readonly Gpc[]) => void;
  /** What the list of what can be added is called. */
  readonly label: string;
  /** What taking one out says, as in `Take ai out of the targets`. */
  readonly outOf: string;
  /** Its entries come when someone turns to it: it is one of very many. */
  readonly late?: boolean;
}

/** A row of spellings to change: press one to take it out, choose one to add it at the end. */
export function SpellingRow({ gpcs, options, onChange, label, outOf, late = false }: SpellingRowWanted) {
  return (
    <div className="flex flex-wrap items-center gap-1">
      {gpcs.map((gpc) => (
        <button
          key={gpc}
          type="button"
          title={`Take it out of ${outOf}`}
          aria-label={`Take ${showGrapheme(splitGpc(gpc).grapheme)} out of ${outOf}`}
          onClick={() => onChange(gpcs.filter((other) => other !== gpc))}
          className="prints min-h-7"
        >
          <Spelling gpc={gpc} />
        </button>
      ))}
      <LateSelect
        late={late}
        chosen={<option value="">add</option>}
        entries={() => (
          <>
            <option value="">add</option>
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
