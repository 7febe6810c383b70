import type { TaughtReader } from "#core/words";
import type { SchoolWords } from "#web/device/lexicon.ts";
import type { For } from "#web/device/readers.ts";

/** What every tool of this place is given. */
export interface ToolWanted {
  readonly ground: SchoolWords;
  readonly reader: For;
}

/** The engine's view of the reader, with what is being taught. */
export function readerOf({ ground, reader }: ToolWanted, teaching: readonly string[] = []): TaughtReader {
  return {
    known: reader.known,
    teaching: new Set(teaching.filter(Boolean)),
    wholes: reader.wholes,
    lexicon: ground.lexicon,
    accent: ground.accent,
  };
}
