import type { KnownBy, TaughtReader } from "#core/words";
import type { SchoolWords } from "#web/device/lexicon.ts";
import type { For } from "#web/device/readers.ts";

/** What every tool of this place is given. */
export interface ToolWanted {
  readonly ground: SchoolWords;
  readonly reader: For;
}

/** What a tool is given that takes an age into account which the words on offer do not show. */
export interface AgedToolWanted extends ToolWanted {
  /** Up to which age the words on offer are known: that of the readers, or what was asked for. */
  readonly age: KnownBy;
}

/** The engine's view of the reader, with what is being taught. */
export function readerOf(
  { ground, reader }: Pick<ToolWanted, "ground" | "reader">,
  teaching: readonly string[] = [],
): TaughtReader {
  return {
    known: reader.known,
    teaching: new Set(teaching.filter(Boolean)),
    wholes: reader.wholes,
    lexicon: ground.lexicon,
    accent: ground.accent,
  };
}
