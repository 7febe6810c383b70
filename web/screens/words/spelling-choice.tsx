import { correspondences, findCorrespondence, type Gpc } from "#core/phonics";
import { ownUnitsIn } from "#core/words";
import type { For } from "#web/device/readers.ts";
import { Choice } from "#web/parts/field.tsx";
import { SpellingOptions } from "#web/parts/spelling-row.tsx";

interface SpellingChoiceWanted {
  readonly label: string;
  readonly value: string;
  readonly onChange: (gpc: string) => void;
  readonly reader: For;
  /** What the empty choice says. */
  readonly none?: string;
}

/** One spelling out of all: what is needed first, then what can be read, then the others. */
export function SpellingChoice({ label, value, onChange, reader, none = "any spelling" }: SpellingChoiceWanted) {
  const targets = reader.targets.filter((gpc) => findCorrespondence(gpc));
  const all = [...correspondences.map((entry) => entry.gpc), ...ownUnitsIn(reader.known)];
  const known = all.filter((gpc) => reader.known.has(gpc) && !targets.includes(gpc));
  const others = all.filter((gpc) => !reader.known.has(gpc) && !targets.includes(gpc));
  const byLetters = (one: string, other: string) => one.localeCompare(other);
  return (
    <Choice label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{none}</option>
      <Options label="Needed" gpcs={targets} />
      <Options label="Can be read" gpcs={known.sort(byLetters)} />
      <Options label="Not yet" gpcs={others.sort(byLetters)} />
    </Choice>
  );
}

function Options({ label, gpcs }: { label: string; gpcs: readonly Gpc[] }) {
  if (gpcs.length === 0) return null;
  return (
    <optgroup label={label}>
      <SpellingOptions gpcs={gpcs} />
    </optgroup>
  );
}
