import { findCorrespondence, usualGpc } from "#core/phonics";
import { type Unit, unitOf } from "./units.ts";

/**
 * `c a_e k` → the units of *cake*. A spelling stands for its usual sound unless it says otherwise
 * (`b r ea=e d`). Throws when a correspondence is unknown.
 */
export function readUnits(notation: string): readonly Unit[] {
  return notation
    .trim()
    .split(/\s+/)
    .map((piece) => {
      const gpc = piece.includes("=") ? piece : usualGpc(piece);
      const entry = gpc === undefined ? undefined : findCorrespondence(gpc);
      if (!entry) throw new Error(`"${piece}" in "${notation}" is not a known correspondence`);
      return unitOf(entry.gpc);
    });
}
