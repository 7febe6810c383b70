import { readUnits, spellOut, type Unit } from "#core/words";

/** A split that people decided, with the reason. */
export interface Correction {
  readonly units: readonly Unit[];
  readonly stressed: number;
  readonly joints: readonly number[];
  readonly written: string;
  readonly reason: string;
}

/**
 * Reads lines `word: units ; second reading # reason`. A unit may begin with `+` (a part of the word begins) and `'`
 * (main stress). Throws with the line when the letters are not those of the word or no reason is given.
 */
export function readCorrections(text: string): ReadonlyMap<string, readonly Correction[]> {
  const found = new Map<string, readonly Correction[]>();
  for (const line of text.split("\n")) {
    if (!line.trim() || line.startsWith("#")) continue;
    const [head = "", reason = ""] = line.split(/\s+#\s*/);
    const [shown = "", notations = ""] = head.split(/:\s*/);
    const key = shown.toLowerCase().replace(/[^a-z]/g, "");
    if (!reason) throw new Error(`No reason is given in "${line}"`);
    const readings = notations.split(/\s*;\s*/).map((notation) => {
      const pieces = notation.trim().split(/\s+/);
      const units = readUnits(pieces.map((piece) => piece.replace(/^[+']+/, "")).join(" "));
      if (spellOut(units) !== key) throw new Error(`"${notation}" does not spell ${shown}`);
      return {
        units,
        stressed: pieces.findIndex((piece) => /^\+?'/.test(piece)),
        joints: pieces.flatMap((piece, at) => (piece.startsWith("+") ? [at] : [])),
        written: shown,
        reason,
      };
    });
    if (found.has(key)) throw new Error(`${shown} is corrected twice`);
    found.set(key, readings);
  }
  return found;
}
