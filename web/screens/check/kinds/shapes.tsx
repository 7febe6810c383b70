import { type BlockId, blockIds, blocks } from "#core/checks";
import { Toggles } from "../toggles.tsx";

const shortShape: Record<BlockId, string> = {
  two: "2 sounds",
  three: "3 sounds",
  fourEnd: "4 with a cluster at the end",
  fourStart: "4 with a cluster at the start",
  five: "5 sounds",
  twoSyllables: "two syllables",
  endings: "with an ending",
  longer: "longer words",
};

/** Shapes of words, in one line. */
export function shapesInWords(on: readonly BlockId[]): string {
  return on.map((id) => shortShape[id]).join(", ");
}

/** Which shapes of words a part has. */
export function Shapes({ on, onSet }: { on: readonly BlockId[]; onSet: (on: readonly BlockId[]) => void }) {
  return (
    <Toggles
      title="Shapes"
      all={blockIds.map((id) => ({ id, name: blocks[id].name, hint: blocks[id].example }))}
      on={on}
      onSet={onSet}
    />
  );
}
